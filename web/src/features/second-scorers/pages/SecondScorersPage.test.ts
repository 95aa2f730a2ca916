import { expect, test, vi } from 'vitest';
import { fakeServer } from '@/testing/server';
import { character, mountInStudy, row, state, study } from '@/testing/study';
import SecondScorersPage from './SecondScorersPage.vue';

const PATH = '/api/v1/studies/meadow';
const server = fakeServer();
const cell = { character: 'margin', scorers: ['Isolde', 'Oswin'], cells: 2, differing: 1, percent: 0.5, alpha: 0.1 };

async function open(toSettle: string[], more = {}) {
  const margin = character('margin', { states: [state('entire'), state('toothed')] });
  server.on(`GET ${PATH}`, study({ rows: [row('mild'), row('bane')], characters: [margin], ...more }));
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/columns?character=`, []);
  server.on(`GET ${PATH}/assignments`, []);
  server.on(`GET ${PATH}/members`, [{ name: 'oswin', displayName: 'Oswin', role: 'SCORER' }]);
  server.on(`GET ${PATH}/agreement`, [{ ...cell, toSettle }]);
  server.on(`GET ${PATH}/changes?since=7`, { revision: 7, structure: false, characters: [] });
  const page = await mountInStudy(SecondScorersPage);
  await vi.waitFor(() => expect(page.text()).toContain('Second scorers'));
  return page;
}

test('shows figures, and a dash for those that cannot be had', async () => {
  const page = await open([]);
  await vi.waitFor(() => expect(page.text()).toContain('50 %'));
  expect(page.all('td').map((t) => t.textContent?.trim())).toEqual(['2', '50 %', '–', '0.10', '']);
});

test('a disagreement is settled with what each scorer held beside it', async () => {
  server.on(`GET ${PATH}/agreement/cell?row=bane&character=margin`, {
    revision: 3,
    held: [
      { scorer: 'Isolde', text: 'entire', doubtful: false, note: '', date: '', accepted: true },
      { scorer: 'Oswin', text: 'toothed', doubtful: false, note: '', date: '2025-10-21', accepted: false },
    ],
  });
  server.on(`POST ${PATH}/agreement/settle`, { id: 'bane', revision: 8 });
  const page = await open(['bane']);
  await vi.waitFor(() => page.byText('button', 'Bane').click());
  await vi.waitFor(() => expect(document.body.textContent).toContain('Take toothed'));
  const buttons = () => [...document.body.querySelectorAll<HTMLElement>('.v-dialog button')];
  buttons()
    .find((b) => b.textContent?.includes('Take toothed'))
    ?.click();
  await vi.waitFor(() =>
    expect([...document.body.querySelectorAll('.v-dialog input')].map((i) => (i as HTMLInputElement).value)).toContain(
      'toothed',
    ),
  );
  buttons()
    .find((b) => b.textContent?.trim() === 'Accept')
    ?.click();
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${PATH}/agreement/settle`)).toEqual([
      { row: 'bane', character: 'margin', text: 'toothed', note: '', baseRevision: 3 },
    ]),
  );
});

test('those who score blind are not asked to look at the agreement', async () => {
  const page = await open([], { blind: true, role: 'SCORER' });
  await vi.waitFor(() => expect(page.text()).toContain('Nobody scores blind now'));
  expect(server.asked.some((a) => a.route.includes('/agreement'))).toBe(false);
  expect(page.text()).not.toContain('Ask for a second opinion');
});

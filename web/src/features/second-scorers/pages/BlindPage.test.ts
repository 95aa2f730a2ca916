import { defineComponent, h } from 'vue';
import { expect, test, vi } from 'vitest';
import { fakeServer, Refusal } from '@/testing/server';
import { character, mountInStudy, state, study } from '@/testing/study';
import BlindPage from './BlindPage.vue';

const PATH = '/api/v1/studies/meadow';
const server = fakeServer();
const assignment = {
  id: 4,
  scorer: 'oswin',
  scorerName: 'Oswin',
  rows: ['bane'],
  characters: [],
  note: 'Drawer 3.',
  given: '2025-10-01',
  cells: 2,
  scored: 1,
  mine: true,
};
const own = { row: 'bane', character: 'margin', text: 'entire', doubtful: false, note: '', revision: 6 };

async function open(sheet: unknown = { assignment, scores: [own] }) {
  const characters = [
    character('margin', { states: [state('entire'), state('toothed')] }),
    character('width', { type: 'LENGTH', unit: 'mm' }),
  ];
  server.on(`GET ${PATH}`, study({ blind: true, role: 'SCORER', characters }));
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/changes?since=7`, { revision: 7, structure: false, characters: [] });
  server.on(`GET ${PATH}/assignments/4`, sheet);
  const page = await mountInStudy(defineComponent({ render: () => h(BlindPage, { id: '4' }) }));
  await vi.waitFor(() => expect(page.all('[role=option]')).toHaveLength(2));
  return page;
}

const press = (page: Awaited<ReturnType<typeof open>>, key: string) =>
  page
    .all('[role=listbox]')[0]
    ?.dispatchEvent(new KeyboardEvent('keydown', { key, code: `Digit${key}`, bubbles: true }));

test('shows the cells that were given, with one’s own scores only', async () => {
  const page = await open();
  const items = page.all('[role=option]').map((o) => o.textContent?.replace(/\s+/g, ' ').trim());
  expect(items[0]).toMatch(/Bane.*margin/);
  expect(items[0]).toContain('entire');
  expect(items[1]).toContain('·');
  expect(page.text()).toContain('Drawer 3.');
  expect(page.text()).toContain('1 of 2 cells');
});

test('nothing can be scored before it is known which cells were given', async () => {
  let answer!: (sheet: unknown) => void;
  const late = new Promise((resolve) => (answer = resolve));
  const opened = open(() => late);
  await vi.waitFor(() => expect(server.asked.map((a) => a.route)).toContain(`GET ${PATH}/assignments/4`));
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(document.querySelectorAll('[role=option]')).toHaveLength(0);
  answer({ assignment, scores: [own] });
  expect((await opened).all('[role=option]')).toHaveLength(2);
});

test('a digit scores, with what was seen of one’s own score', async () => {
  server.on(`PUT ${PATH}/assignments/4/score`, { id: 'x', revision: 8 });
  const page = await open();
  press(page, '2');
  await vi.waitFor(() =>
    expect(server.bodies(`PUT ${PATH}/assignments/4/score`)).toEqual([
      { row: 'bane', character: 'margin', text: 'toothed', doubtful: false, note: '', baseRevision: 6 },
    ]),
  );
});

test('a refused score is told, and nothing is lost', async () => {
  const detail = "'toothy' is not a state.";
  server.on(`PUT ${PATH}/assignments/4/score`, new Refusal(422, { code: 'notation', detail }));
  const page = await open();
  press(page, '2');
  await vi.waitFor(() => expect(page.text()).toContain(detail));
  expect(page.all('[role=option]')[0]?.textContent).toContain('entire');
});

test('scores are handed in only when asked twice', async () => {
  server.on(`POST ${PATH}/assignments/4/finish`, undefined);
  const page = await open();
  page.byText('button', 'Hand in my scores').click();
  expect(server.asked.some((a) => a.route.endsWith('/finish'))).toBe(false);
  const sure = await vi.waitFor(() => {
    const found = [...document.body.querySelectorAll<HTMLElement>('.v-dialog button')].find((b) =>
      b.textContent?.includes('Hand in'),
    );
    if (!found) throw new Error('no dialog yet');
    return found;
  });
  sure.click();
  await vi.waitFor(() => expect(server.asked.some((a) => a.route.endsWith('/finish'))).toBe(true));
});

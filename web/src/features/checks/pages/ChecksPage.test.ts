import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Finding } from '@/study-kernel';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';
import ChecksPage from './ChecksPage.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow/findings';
const finding = (kind: Finding['kind'], row: string, character: string, reason: string): Finding => ({
  key: `${kind}/${row}/${character}/`,
  kind,
  row,
  character,
  other: '',
  reason,
  correction: '',
  acceptable: kind !== 'HAZARD_NOT_ASSESSED',
});
const open = [
  finding('HAZARD_NOT_ASSESSED', 'bane', '', 'Assess Bane.'),
  finding('UNUSED_STATE', '', 'margin', 'Nobody is lobed.'),
  finding('UNUSED_STATE', '', 'stem', 'Nobody is winged.'),
  finding('CHILD_OUTSIDE_PARENT', 'mild', 'margin', 'Mild leaves its genus.'),
];
const meant = {
  ...finding('NEVER_VARIES', '', 'stem', 'All alike.'),
  acceptance: { reason: 'By design', who: 'Oswin' },
};

async function show(role: 'OWNER' | 'SCORER' = 'OWNER') {
  server.on('GET /api/v1/studies/meadow', study({ role }));
  server.on(`GET ${PATH}`, [...open, meant]);
  const page = await mountInStudy(ChecksPage);
  await vi.waitFor(() => expect(page.text()).toContain('Assess Bane.'));
  return page;
}

test('findings stand by place and kind, with their counts, and lead to where they are corrected', async () => {
  const page = await show();
  const told = (selector: string) => page.all(selector).map((h) => h.textContent?.replace(/\s+/g, ' ').trim());
  expect(told('section h2')).toEqual(['Scope 1', 'Characters 2', 'Score 1']);
  expect(told('nav a')).toEqual(['Scope 1', 'Characters 2', 'Score 1']);
  expect(told('section th')).toEqual([
    'Hazard not assessed 1',
    'States that no row shows 2',
    'Taxa that leave their parent’s limits 1',
  ]);
  expect(page.all('section a').map((a) => a.getAttribute('href'))).toEqual([
    '/studies/meadow/scope?row=bane',
    '/studies/meadow/characters?character=margin',
    '/studies/meadow/characters?character=stem',
    '/studies/meadow/score?row=mild&character=margin',
  ]);
  expect(page.all('details')[0]?.textContent).toContain('Accepted as intended by Oswin: By design');
});

test('a finding is accepted with a reason, and opened again', async () => {
  server.on(`PUT ${PATH}/accepted`, undefined);
  server.on(`DELETE ${PATH}/accepted?key=${encodeURIComponent(meant.key)}`, undefined);
  const page = await show();
  page.byText('section button', 'Accept as intended').click();
  await nextTick();
  const input = page.all('form input')[0] as HTMLInputElement;
  expect((page.byText('form button', 'Accept as intended') as HTMLButtonElement).disabled).toBe(true);
  input.value = ' Being looked into ';
  input.dispatchEvent(new Event('input'));
  await nextTick();
  page.byText('form button', 'Accept as intended').click();
  await vi.waitFor(() =>
    expect(server.bodies(`PUT ${PATH}/accepted`)).toEqual([{ key: open[1]?.key, reason: 'Being looked into' }]),
  );
  await vi.waitFor(() => expect(server.asked.filter((a) => a.route === `GET ${PATH}`).length).toBeGreaterThan(1));
  page.byText('details button', 'Reopen').click();
  await vi.waitFor(() =>
    expect(server.asked.map((a) => a.route)).toContain(`DELETE ${PATH}/accepted?key=${encodeURIComponent(meant.key)}`),
  );
});

test('a finding that was corrected meanwhile says so, and the list is read again', async () => {
  server.on(`PUT ${PATH}/accepted`, new Refusal(409, { code: 'no-such-finding', detail: 'This finding is gone.' }));
  const page = await show();
  page.byText('section button', 'Accept as intended').click();
  await nextTick();
  const input = page.all('form input')[0] as HTMLInputElement;
  input.value = 'late';
  input.dispatchEvent(new Event('input'));
  await nextTick();
  page.byText('form button', 'Accept as intended').click();
  await vi.waitFor(() => expect(page.text()).toContain('This finding is gone.'));
  expect(server.asked.filter((a) => a.route === `GET ${PATH}`).length).toBeGreaterThan(1);
});

test('what is not known of harm is never offered for acceptance', async () => {
  const page = await show();
  expect(page.all('section')[0]?.querySelectorAll('button')).toHaveLength(0);
  expect(page.all('section')[1]?.querySelectorAll('button')).toHaveLength(2);
});

test('who may not edit reads the findings only', async () => {
  const page = await show('SCORER');
  expect(page.all('button')).toHaveLength(0);
});

test('a study without findings says that nothing is open', async () => {
  server.on('GET /api/v1/studies/meadow', study());
  server.on(`GET ${PATH}`, []);
  const page = await mountInStudy(ChecksPage);
  await vi.waitFor(() => expect(page.text()).toContain('Nothing is open.'));
});

test('what is certain is corrected by one click, and only that', async () => {
  const certain = { ...finding('NEAR_TERM', 'bane', '', "'margn' is misspelt."), correction: "Write 'margin'" };
  server.on(`POST ${PATH}/corrections`, { id: '', revision: 9 });
  server.on('GET /api/v1/studies/meadow', study());
  server.on(`GET ${PATH}`, [...open, certain]);
  const page = await mountInStudy(ChecksPage);
  await vi.waitFor(() => expect(page.text()).toContain('Assess Bane.'));
  expect(page.all('section .v-btn--variant-flat')).toHaveLength(1);
  page.byText('section button', "Write 'margin'").click();
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/corrections`)).toEqual([{ key: certain.key }]));
});

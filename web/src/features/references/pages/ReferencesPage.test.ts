import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { character, mountInStudy, state, study } from '@/testing/study';
import ReferencesPage from './ReferencesPage.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';
const awn = { id: 'awn', term: 'Awn', definition: 'A bristle', plain: '', synonyms: [], misspellings: [], picture: '' };
const only: Schemas['Claim'] = {
  id: 'c',
  row: 'mild',
  kind: 'ONLY',
  character: 'margin',
  states: ['entire'],
  text: 'as they say',
};
const change = { kind: 'CELL', how: 'CHANGED', id: 'mild', character: 'margin', name: 'Mild × margin', fields: [] };

async function open(more: Partial<Schemas['StudyView']> = {}) {
  server.on(
    `GET ${PATH}`,
    study({
      characters: [character('margin', { states: [state('entire'), state('toothed')] })],
      glossary: [awn],
      claims: [only],
      revisions: { 'term/awn': 5 },
      ...more,
    }),
  );
  server.on(`GET ${PATH}/snapshots`, [
    { id: 3, name: 'Before the trip', revision: 4, who: 'Isolde', at: '2031-05-04T10:20:00Z' },
  ]);
  server.on(`GET ${PATH}/snapshots/difference?from=3&to=0`, { revision: 7, total: 1, changes: [change] });
  const page = await mountInStudy(ReferencesPage);
  await vi.waitFor(() => expect(page.text()).toContain('A bristle'));
  return page;
}

async function fill(selector: string, text: string) {
  const input = document.querySelector(selector) as HTMLInputElement;
  input.value = text;
  input.dispatchEvent(new Event('input', { bubbles: true }));
  await nextTick();
}

const submit = (selector: string) =>
  document.querySelector(selector)?.dispatchEvent(new Event('submit', { cancelable: true }));

test('a claim is read as a sentence', async () => {
  const page = await open();
  expect(page.text()).toContain('Mild is the only one with margin entire');
});

test('a new term has no identifier and nothing that was seen', async () => {
  server.on(`PUT ${PATH}/terms`, { id: 'ligule', revision: 8 });
  const page = await open();
  page.byText('button', 'Add a term').click();
  await nextTick();
  await fill('form.shelf input', 'Ligule');
  submit('form.shelf');
  await vi.waitFor(() =>
    expect(server.bodies(`PUT ${PATH}/terms`)).toEqual([
      { term: { ...awn, id: '', term: 'Ligule', definition: '' }, baseRevision: 0 },
    ]),
  );
  await vi.waitFor(() => expect(page.all('form.shelf')).toHaveLength(0));
});

test('a term is edited and removed with what was seen of it; a refusal keeps what was typed', async () => {
  server.on(`PUT ${PATH}/terms`, new Refusal(422, { code: 'rules', detail: "'Arista' stands for 'awn' already." }));
  server.on(`DELETE ${PATH}/terms/awn?baseRevision=5`, { id: 'awn', revision: 8 });
  const page = await open();
  page.all('li button')[0]?.click();
  await nextTick();
  await fill('form.shelf input', 'Arista');
  submit('form.shelf');
  await vi.waitFor(() => expect(page.text()).toContain('stands for'));
  expect(server.bodies(`PUT ${PATH}/terms`)).toEqual([{ term: { ...awn, term: 'Arista' }, baseRevision: 5 }]);
  expect((page.all('form.shelf input')[0] as HTMLInputElement).value).toBe('Arista');
  page.byText('form.shelf button', 'Remove').click();
  await vi.waitFor(() => expect(server.asked.map((a) => a.route)).toContain(`DELETE ${PATH}/terms/awn?baseRevision=5`));
});

test('a snapshot is compared with now and brought back after asking', async () => {
  server.on(`POST ${PATH}/snapshots/3/restore`, { id: '', revision: 8 });
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('Mild × margin'));
  page.byText('button', 'Restore').click();
  await vi.waitFor(() => expect(document.querySelector('.v-dialog')?.textContent).toContain('Undo brings'));
  expect(server.bodies(`POST ${PATH}/snapshots/3/restore`)).toEqual([]);
  [...document.querySelectorAll<HTMLElement>('.v-dialog button')].at(-1)?.click();
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/snapshots/3/restore`)).toEqual([{ baseRevision: 7 }]));
});

test('who may not edit reads everything and changes nothing', async () => {
  const page = await open({ role: 'SCORER' });
  await vi.waitFor(() => expect(page.text()).toContain('Before the trip'));
  expect(page.all('section > header button, form, li button')).toHaveLength(0);
  expect(page.text()).not.toContain('Restore');
});

import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { character, mountInStudy, state as plainState, study } from '@/testing/study';
import CharactersPage from './CharactersPage.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';
const state = (id: string) => plainState(id, { plain: `${id}, plainly` });
const characters = [
  character('margin', { states: [state('entire'), state('toothed')] }),
  character('width', { type: 'LENGTH', unit: 'mm', question: 'How wide?', plainQuestion: 'How broad?' }),
  character('hairs', {
    organ: 'stem',
    states: [state('few')],
    appliesWhen: [{ character: 'margin', states: ['entire'] }],
  }),
];
async function open(query = '', more: Partial<Schemas['StudyView']> = {}) {
  server.on(
    `GET ${PATH}`,
    study({
      characters,
      counts: { rows: [1, 0], characters: [1, 0, 0], specimens: {} },
      revisions: { 'character/margin': 3 },
      ...more,
    }),
  );
  const page = await mountInStudy(CharactersPage, `/studies/meadow/characters${query}`);
  await vi.waitFor(() => expect(page.all('article')).toHaveLength(3));
  return page;
}

const button = (label: string) => document.querySelector<HTMLElement>(`button[aria-label="${label}"]`);
const inDialog = (text: string) =>
  [...document.querySelectorAll<HTMLElement>('.v-dialog button')].find((b) => b.textContent?.includes(text));

async function write(input: HTMLElement | undefined, text: string) {
  (input as HTMLInputElement).value = text;
  input?.dispatchEvent(new Event('input', { bubbles: true }));
  await nextTick();
}

test('characters stand under their organs, in technical or plain words, and are found by any word', async () => {
  const page = await open();
  expect(page.all('h3').map((h) => h.textContent)).toEqual(['leaf', 'stem']);
  expect(page.text()).toContain('How wide?');
  expect(page.text()).toContain('Only where “margin” is entire');
  (page.all('.v-switch input')[0] as HTMLInputElement).click();
  await vi.waitFor(() => expect(page.text()).toContain('How broad?'));
  expect(page.text()).toContain('toothed, plainly');
  await write(page.all('header input')[0], 'hairs');
  expect(page.all('article')).toHaveLength(1);
});

test('a state is added, ordered and saved', async () => {
  server.on(`PUT ${PATH}/characters/margin`, { id: 'margin', revision: 8 });
  const page = await open('?character=margin');
  await vi.waitFor(() => expect(page.all('.shelf')).toHaveLength(1));
  page.byText('button', 'Add a state').click();
  await nextTick();
  await write(page.all('.shelf li:last-child input')[0], 'lobed');
  button('Move lobed up')?.click();
  await nextTick();
  page.byText('.shelf button', 'Save').click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/characters/margin`)).toHaveLength(1));
  const sent = server.bodies(`PUT ${PATH}/characters/margin`)[0] as {
    character: Schemas['StudyCharacter'];
    baseRevision: number;
  };
  expect(sent.baseRevision).toBe(3);
  expect(sent.character.states.map((s) => [s.id, s.label])).toEqual([
    ['entire', 'entire'],
    ['', 'lobed'],
    ['toothed', 'toothed'],
  ]);
});

test('a merge is shown before it is done', async () => {
  const change = { kind: 'CELL', how: 'CHANGED', id: 'mild', character: 'margin', name: 'Mild × margin', fields: [] };
  const merging = { operation: 'MergeStates', character: 'margin', from: 'entire', into: 'toothed' };
  server.on(`POST ${PATH}/operations/preview`, { revision: 7, total: 1, changes: [change] });
  server.on(`POST ${PATH}/operations`, { id: '', revision: 8 });
  server.on(`GET ${PATH}/changes?since=7`, { revision: 7 });
  await open('?character=margin');
  await vi.waitFor(() => expect(button('Merge entire into …')).not.toBeNull());
  button('Merge entire into …')?.click();
  await vi.waitFor(() => expect(document.querySelector('.v-menu .v-list-item')).not.toBeNull());
  document.querySelector<HTMLElement>('.v-menu .v-list-item')?.click();
  await vi.waitFor(() => expect(document.querySelector('.v-dialog')?.textContent).toContain('Mild × margin'));
  inDialog('Apply')?.click();
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${PATH}/operations`)).toEqual([{ operation: merging, baseRevision: 7 }]),
  );
});

test('a character moves behind its neighbour', async () => {
  server.on(`POST ${PATH}/characters/margin/move`, { id: 'margin', revision: 8 });
  await open('?character=margin');
  await vi.waitFor(() => expect(button('Move margin down')).not.toBeNull());
  expect((button('Move margin up') as HTMLButtonElement).disabled).toBe(true);
  button('Move margin down')?.click();
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${PATH}/characters/margin/move`)).toEqual([{ before: 'hairs', baseRevision: 3 }]),
  );
});

test('what the server refuses is said, and what was typed stays', async () => {
  server.on(`POST ${PATH}/characters`, new Refusal(422, { code: 'rules', detail: 'A character needs a name.' }));
  const page = await open();
  page.byText('button', 'Add a character').click();
  await vi.waitFor(() => expect(page.text()).toContain('A new character'));
  await write(page.all('.shelf input')[1], 'How is it?');
  page.byText('.shelf button', 'Save').click();
  await vi.waitFor(() => expect(page.all('[role=alert]')[0]?.textContent).toContain('A character needs a name.'));
  expect((page.all('.shelf input')[1] as HTMLInputElement).value).toBe('How is it?');
});

test('a removal says how many scores go', async () => {
  server.on(`DELETE ${PATH}/characters/margin?baseRevision=3`, { id: 'margin', revision: 8 });
  const page = await open('?character=margin');
  await vi.waitFor(() => expect(page.all('.shelf')).toHaveLength(1));
  page.byText('.shelf button', 'Remove').click();
  await vi.waitFor(() =>
    expect(document.querySelector('.v-dialog')?.textContent).toContain('and its score will be removed'),
  );
  inDialog('Remove')?.click();
  await vi.waitFor(() =>
    expect(server.asked.map((a) => a.route)).toContain(`DELETE ${PATH}/characters/margin?baseRevision=3`),
  );
});

test('rates of misreading are written in percent; what is left empty is as usual', async () => {
  server.on(`PUT ${PATH}/characters/margin`, { id: 'margin', revision: 8 });
  const washed = character('margin', {
    states: [state('entire'), state('toothed')],
    trust: { novice: 0.2, origin: 'EXPERT', groups: [{ row: 'bane', trained: 0.3, why: 'washed off' }] },
  });
  const page = await open('?character=margin', { characters: [washed, ...characters.slice(1)] });
  expect(page.text()).toContain('otherwise in Bane');
  await vi.waitFor(() => expect(page.all('.shelf')).toHaveLength(1));
  const percents = () => page.all('.shelf fieldset input[type=number]') as HTMLInputElement[];
  await vi.waitFor(() => expect(percents().map((i) => i.value)).toEqual(['5', '20', '30', '']));
  expect(percents()[3]?.placeholder).toBe('as usual');
  await write(percents()[1], '');
  await write(percents()[2], '12.5');
  page.byText('.shelf button', 'Save').click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/characters/margin`)).toHaveLength(1));
  const [sent] = server.bodies(`PUT ${PATH}/characters/margin`) as [{ character: Schemas['StudyCharacter'] }];
  expect(sent.character.trust).toEqual({
    origin: 'EXPERT',
    groups: [{ row: 'bane', trained: 0.125, why: 'washed off' }],
  });
});

const PREVIEW = `POST ${PATH}/operations/preview`;
const shown = { revision: 3, total: 1, changes: [] };

test('the type of a scored character is changed only after what each score becomes was shown', async () => {
  server.on(PREVIEW, shown);
  const page = await open('?character=margin');
  await vi.waitFor(() => expect(page.all('.shelf')).toHaveLength(1));
  page.byText('.shelf .v-btn__content', 'Change its type').click();
  await vi.waitFor(() => expect(document.querySelector('.v-dialog .v-select input')).not.toBeNull());
  document
    .querySelector<HTMLElement>('.v-dialog .v-select .v-field')
    ?.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }));
  await vi.waitFor(() =>
    expect(document.querySelectorAll('.v-select__content .v-list-item').length).toBeGreaterThan(3),
  );
  const length = [...document.querySelectorAll<HTMLElement>('.v-select__content .v-list-item')].find(
    (i) => i.textContent?.trim() === 'length',
  );
  length?.click();
  await nextTick();
  inDialog('Show what would change')?.click();
  await vi.waitFor(() => expect(server.bodies(PREVIEW)).toHaveLength(1));
  expect(server.bodies(PREVIEW)[0]).toMatchObject({
    operation: { operation: 'ChangeType', character: 'margin', type: 'LENGTH', unit: 'µm' },
  });
});

test('several characters are told the same: only what was ticked or written', async () => {
  server.on(PREVIEW, shown);
  const page = await open();
  page.byText('header .v-btn__content', 'Edit several').click();
  await vi.waitFor(() => expect(page.all('article input[type=checkbox]')).toHaveLength(3));
  page.all('article input[type=checkbox]')[0]?.click();
  page.all('article input[type=checkbox]')[2]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('2 chosen'));
  page.byText('.several .v-btn__content', 'Edit them together').click();
  await vi.waitFor(() => expect(document.querySelector('.v-dialog .band')).not.toBeNull());
  const month = (name: string) => document.querySelector<HTMLElement>(`.v-dialog [aria-label="${name}"]`);
  month('June')?.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
  month('August')?.dispatchEvent(new PointerEvent('pointerenter'));
  window.dispatchEvent(new PointerEvent('pointerup'));
  await nextTick();
  inDialog('Show what would change')?.click();
  await vi.waitFor(() => expect(server.bodies(PREVIEW)).toHaveLength(1));
  expect(server.bodies(PREVIEW)[0]).toEqual({
    operation: { operation: 'EditCharacters', characters: ['margin', 'hairs'], months: [6, 7, 8] },
    baseRevision: 0,
  });
});

import { nextTick } from 'vue';
import { beforeAll, expect, test, vi } from 'vitest';
import { EMPTY_CELL } from '@/study-kernel';
import { fakeServer, Refusal } from '@/testing/server';
import { character, mountInStudy, row, state, study } from '@/testing/study';
import ScorePage from './ScorePage.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';
const rows = [row('mild'), row('bane'), row('calm')];
const characters = [
  character('margin', { states: [state('entire'), state('toothed')] }),
  character('width', { type: 'LENGTH', unit: 'mm', organ: 'stem' }),
];
const face = (text: string, more = {}) => ({ ...EMPTY_CELL, text, kind: 'states', basis: 'JUDGEMENT', ...more });
const columns = [
  {
    character: 'margin',
    faces: [face('entire'), face('toothed', { doubtful: true, source: 'orrin', basis: 'REFERENCE' })],
    face: [0, 1, -1],
    from: [-1, -1, -1],
    revision: [3, 4, 0],
  },
  { character: 'width', faces: [face('5–9')], face: [0, 0, 0], from: [-1, -1, -1], revision: [0, 0, 0] },
];
const done = { revision: 7, structure: false, characters: [], progress: study().progress, counts: study().counts };

beforeAll(() => {
  HTMLCanvasElement.prototype.getContext = () => null;
});

async function open(query = '') {
  server.on(
    `GET ${PATH}`,
    study({ rows, characters, references: [{ id: 'orrin', citation: 'Orrin (2031) Sedges', doi: '' }] }),
  );
  server.on(`GET ${PATH}/columns?character=margin&character=width`, columns);
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/changes?since=7`, done);
  server.on(`GET ${PATH}/findings`, [
    { key: 'k', kind: 'no-source', row: 'bane', character: 'width', reason: 'Who says so?', acceptable: true },
  ]);
  for (const r of rows) for (const c of characters) server.on(`GET ${PATH}/history?row=${r.id}&character=${c.id}`, []);
  const page = await mountInStudy(ScorePage, `/studies/meadow/score${query}`);
  await vi.waitFor(() => expect(page.model.columns.has('width')).toBe(true));
  await nextTick();
  return page;
}

const press = (element: Element | undefined, key: string, over: KeyboardEventInit = {}) =>
  element?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...over }));

test('a link leads to a cell, and the shelf tells where its score comes from and what was found in it', async () => {
  const page = await open('?row=bane&character=margin');
  expect(page.all('aside .value')[0]?.textContent).toBe('toothed');
  expect(page.text()).toContain('From a reference: Orrin (2031) Sedges');
  expect(page.text()).not.toContain('Who says so?');
  press(page.all('[role=grid]')[0], 'ArrowRight');
  await vi.waitFor(() => expect(page.text()).toContain('Who says so?'));
});

test('by character, a digit scores with what was seen of the cell', async () => {
  server.on(`POST ${PATH}/scores`, { revision: 8 });
  const page = await open('?mode=character&row=calm&character=margin');
  press(page.all('[role=listbox]')[0], '2', { code: 'Digit2' });
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${PATH}/scores`)).toEqual([
      { edits: [{ row: 'calm', character: 'margin', text: 'toothed', baseRevision: 0 }] },
    ]),
  );
});

test('doubt keeps the text and the rest of the origin', async () => {
  server.on(`POST ${PATH}/scores`, { revision: 8 });
  const page = await open('?mode=character&row=bane&character=margin');
  press(page.all('[role=listbox]')[0], 'd');
  const origin = {
    basis: 'REFERENCE',
    source: 'orrin',
    doubtful: false,
    note: '',
    months: [],
    concept: '',
    sample: { specimens: [], provisional: false },
  };
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${PATH}/scores`)).toEqual([
      { edits: [{ row: 'bane', character: 'margin', text: 'toothed', baseRevision: 4, origin }] },
    ]),
  );
});

test('by taxon, all characters of the row stand in the list', async () => {
  const page = await open('?mode=row&row=bane');
  expect(page.all('[role=option] .title').map((o) => o.textContent?.trim())).toEqual(['margin', 'width']);
});

test('a filter leaves the rows and characters that have such a cell', async () => {
  const page = await open('?mode=character&filter=doubtful');
  expect(page.all('[role=option] .title').map((o) => o.textContent?.trim())).toEqual(['Bane']);
});

test('a text that is refused late stays in its cell while another is typed, and is corrected there', async () => {
  const page = await open();
  const box = page.all('[role=grid]')[0];
  const editor = () => page.all('input.editor')[0] as HTMLInputElement | undefined;
  const write = async (text: string) => {
    const input = editor() as HTMLInputElement;
    input.value = text;
    input.dispatchEvent(new Event('input'));
    await nextTick();
  };
  // The network is slow: the answer comes when asked for.
  let answer: () => void = () => undefined;
  const refusal = new Refusal(422, {
    code: 'notation',
    detail: "'tothed' is not a state.",
    rejections: [{ row: 'mild', character: 'margin', text: 'tothed', reason: "'tothed' is not a state of 'margin'." }],
  });
  server.on(`POST ${PATH}/scores`, () => new Promise((resolve) => (answer = () => resolve(refusal))));
  press(box, 't');
  await nextTick();
  await write('tothed');
  press(editor(), 'Enter');
  await nextTick();
  press(box, 'e');
  await nextTick();
  await write('entir');
  answer();
  await vi.waitFor(() => expect(page.text()).toContain("'tothed' is not a state of 'margin'."));
  expect(editor()?.value).toBe('entir');
  expect(page.all('[aria-selected=true]')[0]?.textContent).toContain('toothed');

  server.on(`POST ${PATH}/scores`, { revision: 8 });
  await write('entire');
  press(editor(), 'Enter');
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/scores`)).toHaveLength(2));
  expect(server.bodies(`POST ${PATH}/scores`)[1]).toMatchObject({
    edits: [{ row: 'bane', character: 'margin', text: 'entire' }],
  });
  expect(page.text()).toContain('One text was not taken.');
  page.byText('button', 'Correct the text').click();
  await vi.waitFor(() => expect(editor()?.value).toBe('tothed'));
  await write('toothed');
  press(editor(), 'Enter');
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/scores`)).toHaveLength(3));
  expect(server.bodies(`POST ${PATH}/scores`)[2]).toMatchObject({
    edits: [{ row: 'mild', character: 'margin', text: 'toothed', baseRevision: 3 }],
  });
  await vi.waitFor(() => expect(page.text()).not.toContain('not taken'));
});

test('typed twice in a row, a cell is written as what one wrote oneself before', async () => {
  const page = await open('?row=bane&character=margin&mode=character');
  const written: unknown[] = [];
  const answers: (() => void)[] = [];
  server.on(`POST ${PATH}/scores`, (body: unknown) => {
    written.push(body);
    return new Promise((resolve) => answers.push(() => resolve({ revision: 8 })));
  });
  const list = page.all('[role=listbox]')[0];
  press(list, '1', { code: 'Digit1', shiftKey: true });
  await vi.waitFor(() => expect(answers).toHaveLength(1));
  press(list, 'Delete');
  server.on(`GET ${PATH}/changes?since=7`, { ...done, revision: 8, characters: ['margin'] });
  server.on(`GET ${PATH}/columns?character=margin`, [
    { ...columns[0], faces: [face('entire'), face('toothed, entire')], revision: [3, 8, 0] },
  ]);
  answers[0]?.();
  await vi.waitFor(() => expect(answers).toHaveLength(2));
  expect(written).toEqual([
    { edits: [{ row: 'bane', character: 'margin', text: 'toothed, entire', baseRevision: 4 }] },
    { edits: [{ row: 'bane', character: 'margin', text: '', baseRevision: 8 }] },
  ]);
  // Once all is written, the window closes without a question.
  const asks = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }));
  expect(asks()).toBe(true);
  server.on(`GET ${PATH}/changes?since=8`, { ...done, revision: 8 });
  answers[1]?.();
  await vi.waitFor(() => expect(asks()).toBe(false));
});

test('a block that is larger than the sheet says what does not fit, and names taxa for its last lines', async () => {
  const page = await open('?row=calm&character=margin');
  const box = page.all('[role=grid]')[0];
  const paste = new Event('paste', { bubbles: true, cancelable: true });
  Object.assign(paste, { clipboardData: { getData: () => 'toothed\t4\tx\nentire\t5\ty' } });
  box?.dispatchEvent(paste);
  const dialog = () => [...document.querySelectorAll('.v-dialog')].map((d) => d.textContent).join(' ');
  await vi.waitFor(() => expect(dialog()).toContain('Its last line lies below the last taxon.'));
  expect(dialog()).toContain('Its last column lies beyond the last character.');
  expect(server.bodies(`POST ${PATH}/scores`)).toEqual([]);

  const button = (text: string) =>
    [...document.querySelectorAll('.v-dialog button')].find((b) => b.textContent?.includes(text)) as HTMLElement;
  button('Add a taxon first').click();
  await vi.waitFor(() => expect(document.querySelector('.v-dialog textarea')).not.toBeNull());
  const names = document.querySelector('.v-dialog textarea') as HTMLTextAreaElement;
  names.value = 'Dune';
  names.dispatchEvent(new Event('input'));
  await nextTick();
  const operation = { operation: 'AddTaxa', names: ['Dune'] };
  server.on(`POST ${PATH}/operations/preview`, { revision: 7, total: 1, changes: [] });
  server.on(`POST ${PATH}/operations`, { id: '', revision: 8 });
  server.on(`POST ${PATH}/scores`, { revision: 9 });
  server.on(`GET ${PATH}/changes?since=7`, { ...done, revision: 8, structure: true });
  server.on(`GET ${PATH}`, study({ rows: [row('dune', { label: 'Dune' }), ...rows], characters, revision: 8 }));
  server.on(`GET ${PATH}/changes?since=8`, { ...done, revision: 8 });
  button('Show what that adds').click();
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/operations/preview`)).toMatchObject([{ operation }]));
  await vi.waitFor(() => expect(button('Add them').hasAttribute('disabled')).toBe(false));
  button('Add them').click();
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/scores`)).toHaveLength(1));
  // The new taxon stands first in the sheet: what was copied for the others stays with them.
  const sent = server.bodies(`POST ${PATH}/scores`)[0] as { edits: { row: string; character: string; text: string }[] };
  expect(sent.edits.map((e) => `${e.row} ${e.character} ${e.text}`)).toEqual([
    'calm margin toothed',
    'calm width 4',
    'dune margin entire',
    'dune width 5',
  ]);
});

test('of a pasted block nothing is written until what cannot be read is corrected', async () => {
  const rejection = { row: 'bane', character: 'margin', text: 'rde', reason: "'rde' is not a state of 'margin'." };
  server.on(
    `POST ${PATH}/scores`,
    new Refusal(422, { code: 'notation', detail: rejection.reason, rejections: [rejection] }),
  );
  const page = await open();
  const paste = new Event('paste', { bubbles: true, cancelable: true });
  Object.assign(paste, { clipboardData: { getData: () => 'toothed\nrde\nentire' } });
  page.all('[role=grid]')[0]?.dispatchEvent(paste);
  await vi.waitFor(() =>
    expect(document.querySelector('.v-dialog')?.textContent).toContain('1 of 3 cells cannot be read.'),
  );
  server.on(`POST ${PATH}/scores`, { revision: 8 });
  const input = document.querySelector('.v-dialog input') as HTMLInputElement;
  expect(input.value).toBe('rde');
  input.value = 'entire';
  input.dispatchEvent(new Event('input'));
  await nextTick();
  document.querySelector('#paste')?.dispatchEvent(new Event('submit', { cancelable: true }));
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/scores`)).toHaveLength(2));
  const sent = server.bodies(`POST ${PATH}/scores`)[1] as { edits: { text: string }[] };
  expect(sent.edits.map((e) => e.text)).toEqual(['toothed', 'entire', 'entire']);
});

import { defineComponent } from 'vue';
import { expect, test, vi } from 'vitest';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';
const empty = defineComponent({ render: () => null });
const column = (text: string, revision: number) => ({
  character: 'margin',
  faces: [{ text, kind: 'states', parts: [], doubtful: false, basis: 'JUDGEMENT', source: '' }],
  face: [0, -1],
  from: [-1, -1],
  revision: [revision, 0],
});
const changes = (revision: number, more = {}) => ({
  revision,
  structure: false,
  characters: [],
  progress: study().progress,
  counts: study().counts,
  ...more,
});

async function open() {
  server.on(`GET ${PATH}`, study());
  server.on(`GET ${PATH}/columns?character=margin`, [column('entire', 3)]);
  const { model } = await mountInStudy(empty);
  await vi.waitFor(() => expect(model.study.value).toBeDefined());
  await model.columns.want(['margin']);
  return model;
}

test('columns are fetched once, and cells found by row and character', async () => {
  const model = await open();
  await model.columns.want(['margin']);
  expect(server.asked.filter((a) => a.route.includes('columns'))).toHaveLength(1);
  expect(model.columns.cell(0, 'margin')).toMatchObject({ text: 'entire', from: null, revision: 3 });
  expect(model.columns.cell(1, 'margin')).toMatchObject({ kind: 'empty', text: '' });
  expect(model.columns.cell(0, 'hairs')).toBeUndefined();
});

test('an inherited cell names the row it is from', async () => {
  const model = await open();
  server.on(`GET ${PATH}/columns?character=width`, [
    {
      ...column('5–9', 0),
      character: 'width',
      faces: [{ text: '5–9', kind: 'range', parts: [], range: { min: 4, low: 5, high: 9, max: 9 } }],
      face: [0, 0],
      from: [-1, 0],
    },
  ]);
  await model.columns.want(['width']);
  expect(model.columns.cell(1, 'width')?.from).toBe('mild');
  expect(model.columns.scale('width')).toEqual({ min: 4, max: 9 });
  expect(model.columns.scale('margin')).toEqual({ min: 0, max: 1 });
});

test('an edit is sent and the columns that it changed are read again', async () => {
  const model = await open();
  server.on(`POST ${PATH}/scores`, { revision: 8 });
  server.on(`GET ${PATH}/changes?since=7`, changes(8, { characters: ['margin', 'not-loaded'] }));
  server.on(`GET ${PATH}/columns?character=margin`, [column('toothed', 8)]);
  const edits = [{ row: 'mild', character: 'margin', text: 'toothed', baseRevision: 3 }];
  await model.edit(edits);
  expect(server.bodies(`POST ${PATH}/scores`)).toEqual([{ edits }]);
  expect(model.columns.cell(0, 'margin')?.text).toBe('toothed');
  expect(model.study.value?.revision).toBe(8);
});

test('however many ask to catch up while one is at it, it looks once more', async () => {
  const model = await open();
  server.on(`GET ${PATH}/changes?since=7`, changes(7));
  const before = server.asked.filter((a) => a.route.includes('changes')).length;
  const first = model.catchUp();
  await Promise.resolve();
  await Promise.resolve();
  await Promise.all([first, ...Array.from({ length: 20 }, () => model.catchUp())]);
  expect(server.asked.filter((a) => a.route.includes('changes')).length - before).toBe(2);
});

test('a refused edit throws what the server says, and the study stays', async () => {
  const model = await open();
  server.on(`POST ${PATH}/scores`, new Refusal(422, { code: 'rejected', detail: "'rde' is not a state." }));
  await expect(model.edit([])).rejects.toThrow("'rde' is not a state.");
  expect(model.study.value?.revision).toBe(7);
});

test('an undo of nothing says so', async () => {
  const model = await open();
  server.on(`POST ${PATH}/undo`, new Refusal(409, { code: 'nothing-to-undo', detail: 'You have no change to undo.' }));
  await model.undo();
  expect(model.message.value).toBe('You have no change to undo.');
  server.on(`POST ${PATH}/redo`, { revision: 9, done: [], passed: [], more: 0 });
  server.on(`GET ${PATH}/changes?since=7`, changes(7));
  await model.redo();
  expect(model.message.value).toBe('');
});

test('what others change is noticed within seconds', async () => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
  try {
    const model = await open();
    server.on(`GET ${PATH}/changes?since=7`, changes(8, { structure: true }));
    server.on(`GET ${PATH}`, study({ revision: 8 }));
    vi.advanceTimersByTime(5000);
    await vi.waitFor(() => expect(model.study.value?.revision).toBe(8));
  } finally {
    vi.useRealTimers();
  }
});

import { defineComponent } from 'vue';
import { expect, test, vi } from 'vitest';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';
import { cellKey } from './useStudy';

const server = fakeServer();
const PATH = '/api/studies/meadow';
const empty = defineComponent({ render: () => null });
const cell = (text: string, revision: number) => ({
  row: 'mild',
  character: 'margin',
  text,
  kind: 'own',
  parts: [],
  from: null,
  doubtful: false,
  basis: 'JUDGEMENT',
  source: '',
  revision,
});

async function open() {
  server.on(`GET ${PATH}`, study({ cells: [cell('entire', 3)] as never }));
  const { model } = await mountInStudy(empty);
  await vi.waitFor(() => expect(model.study.value).toBeDefined());
  return model;
}

test('cells are found by row and character', async () => {
  const model = await open();
  expect(model.cells.value.get(cellKey('mild', 'margin'))?.text).toBe('entire');
});

test('an edit is sent and the study read again', async () => {
  const model = await open();
  server.on(`POST ${PATH}/scores`, { revision: 8 });
  server.on(`GET ${PATH}`, study({ revision: 8, cells: [cell('toothed', 8)] as never }));
  const edits = [{ row: 'mild', character: 'margin', text: 'toothed', seen: 3 }];
  await model.edit(edits);
  expect(server.bodies(`POST ${PATH}/scores`)).toEqual([{ edits }]);
  await vi.waitFor(() => expect(model.cells.value.get(cellKey('mild', 'margin'))?.text).toBe('toothed'));
});

test('a refused edit throws what the server says, and the study stays', async () => {
  const model = await open();
  server.on(`POST ${PATH}/scores`, new Refusal(422, { code: 'rejected', detail: "'rde' is no state." }));
  await expect(model.edit([])).rejects.toThrow("'rde' is no state.");
  expect(model.study.value?.revision).toBe(7);
});

test('an undo that others stand in the way of says who', async () => {
  const model = await open();
  server.on(`POST ${PATH}/undo`, new Refusal(409, { code: 'changed-since', detail: 'Oswin changed it since.' }));
  await model.undo();
  expect(model.message.value).toBe('Oswin changed it since.');
  server.on(`POST ${PATH}/redo`, { revision: 9 });
  await model.redo();
  expect(model.message.value).toBe('');
});

test('what others change is noticed within seconds', async () => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
  try {
    const model = await open();
    server.on(`GET ${PATH}/changes?since=7`, { revision: 8, cells: [] });
    server.on(`GET ${PATH}`, study({ revision: 8 }));
    vi.advanceTimersByTime(5000);
    await vi.waitFor(() => expect(model.study.value?.revision).toBe(8));
  } finally {
    vi.useRealTimers();
  }
});

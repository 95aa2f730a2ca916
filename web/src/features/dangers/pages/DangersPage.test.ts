import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';
import DangersPage from './DangersPage.vue';

const server = fakeServer();
const CONFIRM = 'POST /api/v1/studies/meadow/confirmations';
const cell = (character: string, why: Schemas['CellToConfirm']['why']): Schemas['CellToConfirm'] => ({
  row: 'bane',
  rowName: 'Bane',
  character,
  label: character,
  text: 'red',
  source: 'Orrin 2030',
  why,
});
const bane: Schemas['Danger'] = {
  row: 'bane',
  name: 'Bane',
  label: 'Bane',
  stage: '',
  severity: 'SERIOUS',
  blocked: true,
  failing: [{ kind: 'TOO_FEW', blocking: true, others: ['mild'], otherNames: ['Mild'], months: [1, 2], features: 1 }],
  cells: [cell('stem', 'IMPORTED'), cell('leaf', 'DOUBTFUL')],
  remedy: 'CONFIRM',
};
const dangers = [bane];

async function open(role: 'OWNER' | 'SCORER' = 'OWNER', shown: Schemas['Danger'][] = dangers) {
  server.on('GET /api/v1/studies/meadow', study({ role }));
  server.on('GET /api/v1/studies/meadow/dangers', { revision: 7, dangers: shown });
  const page = await mountInStudy(DangersPage);
  await vi.waitFor(() => expect(page.text()).toContain('Bane'));
  return page;
}

test('what is missing is said, and each cell stands beside its text and source', async () => {
  const page = await open();
  expect(page.text()).toContain('Mild');
  expect(page.text()).toContain('January, February');
  expect(page.text()).toContain('Orrin 2030');
  expect(page.all('input[type=checkbox]'), 'a doubtful cell is not confirmed').toHaveLength(1);
});

test('only what was checked is confirmed, with the text that was seen; a refusal is said', async () => {
  const answers: unknown[] = [
    new Refusal(422, { code: 'source', detail: 'Say by what you checked.' }),
    { revision: 8 },
  ];
  server.on(CONFIRM, () => answers.shift());
  const page = await open();
  const box = page.all('input[type=checkbox]')[0] as HTMLInputElement;
  box.click();
  await nextTick();
  page.byText('button', 'Confirm one cell').click();
  await vi.waitFor(() => expect(page.text()).toContain('Say by what you checked.'));
  page.byText('button', 'Confirm one cell').click();
  await vi.waitFor(() => expect(server.bodies(CONFIRM)).toHaveLength(2));
  expect(server.bodies(CONFIRM)[1]).toEqual({
    cells: [{ row: 'bane', character: 'stem', text: 'red' }],
    source: '',
  });
});

test('where no cell would do, the way leads to the parts or to the pair', async () => {
  const nothing = { ...bane, cells: [] };
  const parts = await open('OWNER', [{ ...nothing, remedy: 'NAME_PARTS' }]);
  expect(parts.byText('a', 'Characters and their parts').getAttribute('href')).toBe('/studies/meadow/characters');
  const pair = await open('OWNER', [{ ...nothing, remedy: 'SCORE' }]);
  expect(pair.byText('a', 'Compare Bane with Mild').getAttribute('href')).toContain('/studies/meadow/apart?rows=bane');
});

test('who only scores confirms nothing', async () => {
  const page = await open('SCORER');
  expect((page.all('input[type=checkbox]')[0] as HTMLInputElement).disabled).toBe(true);
});

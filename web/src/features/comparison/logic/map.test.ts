import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { nextWeak, pairTable, weakPairs, type Order } from './map';
import { beginning, cellAt, fitting } from './paint';
import { sittings } from './worth';

const map: Schemas['PairMap'] = {
  revision: 1,
  rows: ['cc', 'aa', 'bb', 'danger'],
  similar: [3, 1, 0, 2],
  // cc; aa-cc firm; bb-cc none, bb-aa thin; danger-cc tendency, danger-aa firm, danger-bb need not
  verdicts: ['', '3', '02', '13-'],
  totals: { pairs: 5, firm: 2, thin: 1, tendency: 1, none: 1 },
  groups: [],
};
const table = (order: Order) =>
  pairTable(
    map,
    order,
    (id) => ({ name: id, dangerous: id === 'danger' }),
    (id) => ['bb', 'cc', 'danger', 'aa'].indexOf(id),
  );

test('rows stand in the order wanted, and every pair keeps its sign', () => {
  expect(table('similar').rows.map((r) => r.id)).toEqual(['danger', 'aa', 'cc', 'bb']);
  expect(table('related').rows.map((r) => r.id)).toEqual(['bb', 'cc', 'danger', 'aa']);
  expect(table('name').rows.map((r) => r.id)).toEqual(['aa', 'bb', 'cc', 'danger']);
  for (const order of ['similar', 'related', 'name'] as const) {
    const t = table(order);
    const sign = (a: string, b: string) =>
      t.sign(
        t.rows.findIndex((r) => r.id === a),
        t.rows.findIndex((r) => r.id === b),
      );
    expect([sign('bb', 'cc'), sign('cc', 'bb'), sign('aa', 'bb'), sign('danger', 'cc'), sign('bb', 'danger')]).toEqual([
      '0',
      '0',
      '2',
      '1',
      '-',
    ]);
  }
});

test('pairs that are not firm are listed, worst first', () => {
  const named = (graveOnly: boolean) =>
    weakPairs(table('name'), graveOnly).map((p) => `${p.first.id} ${p.second.id} ${p.sign}`);
  expect(named(false)).toEqual(['bb cc 0', 'cc danger 1', 'aa bb 2']);
  expect(named(true)).toEqual(['cc danger 1']);
});

test('the next weak pair is found in both directions and around the end', () => {
  const t = table('name');
  expect(nextWeak(t, { row: 1, column: 0 }, false, false)).toEqual({ row: 2, column: 1 });
  expect(nextWeak(t, { row: 3, column: 2 }, false, false)).toEqual({ row: 1, column: 0 });
  expect(nextWeak(t, { row: 1, column: 0 }, true, false)).toEqual({ row: 3, column: 2 });
  expect(nextWeak(t, { row: 1, column: 0 }, false, true)).toEqual({ row: 3, column: 2 });
  const firm = pairTable(
    { ...map, verdicts: ['', '3', '33', '33-'] },
    'name',
    (id) => ({ name: id, dangerous: false }),
    () => 0,
  );
  expect(nextWeak(firm, { row: 1, column: 0 }, false, false)).toBeUndefined();
});

test('however many rows there are, all can be seen at once; few enough begin with every name', () => {
  expect(fitting(12, 900, 500)).toBe(26);
  expect(fitting(600, 900, 500)).toBe(1);
  expect(beginning(60, 900, 500)).toBeGreaterThan(fitting(60, 900, 500));
  expect(cellAt({ left: 0, top: 0, width: 900, height: 500, size: 10 }, 15, 25, 12)).toEqual({ row: 2, column: 1 });
  expect(cellAt({ left: 0, top: 0, width: 900, height: 500, size: 10 }, 25, 25, 12)).toBeUndefined();
});

test('cells make sittings by drawer or by means, worth most a minute first', () => {
  const cell = (character: string, pairs: number, effort: number, method: string, storage: string) => ({
    row: 'aa',
    character,
    pairs,
    effort,
    method,
    specimens: storage ? [{ code: 'A 1', storage }] : [],
  });
  const cells = [
    cell('x', 1, 1, 'lens', 'drawer 2'),
    cell('y', 1, 10, 'microscope', 'drawer 2'),
    cell('z', 3, 1, 'lens', ''),
  ];
  expect(sittings(cells, 'rank').map((s) => s.cells.length)).toEqual([3]);
  expect(sittings(cells, 'method').map((s) => [s.name, s.pairs, s.minutes])).toEqual([
    ['lens', 4, 2],
    ['microscope', 1, 10],
  ]);
  expect(sittings(cells, 'drawer').map((s) => s.name)).toEqual(['', 'drawer 2']);
});

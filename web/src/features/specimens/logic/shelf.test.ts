import { expect, test } from 'vitest';
import { row } from '@/testing/study';
import { inShelfOrder, shelfKeys, type ShelfKey } from './shelf';
import { blankSpecimen } from './specimens';

const rows = [
  row('reeds', { label: 'Reedaceae', rank: 'family' }),
  row('mild', { label: 'Tarnella mitis', rank: 'species', parent: 'reeds' }),
  row('bane', { label: 'Ostrivia fallax', rank: 'species', parent: 'reeds' }),
  row('calm', { label: 'Brimora calma', rank: 'species' }),
];
const named = (code: string, of: string, storage = '') => ({
  ...blankSpecimen(),
  code,
  storage,
  determinations: of
    ? [{ row: of, qualifier: '', kind: 'DETERMINED' as const, by: '', date: '', how: '', characters: [] }]
    : [],
});
const all = [
  named('V 10', 'mild', 'drawer 2'),
  named('V 9', 'mild', 'drawer 10'),
  named('V 1', ''),
  named('V 30', 'calm', 'drawer 1'),
  named('V 4', 'bane', 'drawer 2'),
];
const order = (...scheme: ShelfKey[]) => inShelfOrder(all, rows, scheme).map((s) => s.code);

test('a shelf is ordered by everybody’s own scheme, and what has no name stands last', () => {
  expect(order('study')).toEqual(['V 9', 'V 10', 'V 4', 'V 30', 'V 1']);
  expect(order('name')).toEqual(['V 30', 'V 4', 'V 9', 'V 10', 'V 1']);
  expect(order('rank:family', 'rank:genus')).toEqual(['V 4', 'V 9', 'V 10', 'V 30', 'V 1']);
  expect(order('storage', 'name')).toEqual(['V 30', 'V 4', 'V 10', 'V 9', 'V 1']);
  expect(order()).toEqual(['V 1', 'V 4', 'V 9', 'V 10', 'V 30']);
});

test('the ranks that hold taxa of the study are offered', () => {
  expect(shelfKeys(rows)).toEqual(['study', 'rank:family', 'rank:genus', 'name', 'storage', 'date', 'collector']);
});

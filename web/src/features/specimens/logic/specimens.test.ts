import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { blankSpecimen, matching, renamed } from './specimens';

const named = (row: string, by: string): Schemas['Determination'] => ({
  row,
  qualifier: 'cf.',
  kind: 'DETERMINED',
  by,
  date: '2031',
  how: '',
  characters: ['margin'],
});
const specimen = (code: string, ...determinations: Schemas['Determination'][]): Schemas['Specimen'] => ({
  ...blankSpecimen(),
  id: code.toLowerCase(),
  code,
  determinations,
});
const nameOf = (row: string) => ({ mild: 'Sallow mild', bane: 'Sallow bane' })[row] ?? row;

test('a specimen is found by its present name and by anybody who named it', () => {
  const all = [
    specimen('V 1', named('bane', 'Isolde'), named('mild', 'Oswin')),
    specimen('V 2', named('bane', 'Petra')),
  ];
  const found = (typed: string) => matching(all, typed, nameOf).map((s) => s.code);
  expect(found('')).toEqual(['V 1', 'V 2']);
  expect(found('sallow bane')).toEqual(['V 2']);
  expect(found('isolde MILD')).toEqual(['V 1']);
});

test('a new name says who gives it and claims no characters', () => {
  const today = '2031-05-04';
  expect(renamed(specimen('V 1'), 'Isolde', today)).toMatchObject({ row: '', kind: 'DETERMINED', by: 'Isolde' });
  expect(renamed(specimen('V 1', named('bane', 'Oswin')), 'Isolde', today)).toEqual({
    row: 'bane',
    qualifier: '',
    kind: 'CONFIRMED',
    by: 'Isolde',
    date: today,
    how: '',
    characters: [],
  });
});

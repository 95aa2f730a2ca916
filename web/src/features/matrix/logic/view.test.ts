import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import type { Cell } from '@/study-kernel';
import { filtered, isUnsourced, matches, toggled } from './view';

const cell = (over: Partial<Cell>) => ({ kind: 'states', basis: 'JUDGEMENT', source: '', ...over }) as Cell;
const characters = ['margin', 'width'].map((id) => ({ id }) as Schemas['StudyCharacter']);

test('unknown is what nobody scored and what was scored as unknown', () => {
  expect(matches('unknown', undefined, false)).toBe(true);
  expect(matches('unknown', cell({ kind: 'empty' }), false)).toBe(true);
  expect(matches('unknown', cell({ kind: 'unknown' }), false)).toBe(true);
  expect(matches('unknown', cell({ kind: 'not-applicable' }), false)).toBe(false);
});

test('imports and references without a name have no source', () => {
  expect(isUnsourced(cell({ basis: 'IMPORT' }))).toBe(true);
  expect(isUnsourced(cell({ basis: 'REFERENCE' }))).toBe(true);
  expect(isUnsourced(cell({ basis: 'REFERENCE', source: 'orrin' }))).toBe(false);
  expect(matches('unsourced', cell({ kind: 'empty', basis: 'IMPORT' }), false)).toBe(false);
});

test('a filter leaves the rows and characters that have such a cell', () => {
  const of = (row: string, character: string) => cell({ doubtful: row === 'b' && character === 'width' });
  const shown = filtered('doubtful', ['a', 'b', 'c'], characters, of, () => false);
  expect(shown).toEqual({ rows: ['b'], characters: [characters[1]] });
  expect(filtered('all', ['a'], characters, of, () => false).characters).toBe(characters);
  expect(filtered('findings', ['a', 'b'], characters, of, (row) => row === 'a').rows).toEqual(['a']);
});

test('a state is added to a score, and given up again', () => {
  expect(toggled('', 'entire')).toBe('entire');
  expect(toggled('entire', 'toothed')).toBe('entire, toothed');
  expect(toggled('entire, toothed', 'entire')).toBe('toothed');
});

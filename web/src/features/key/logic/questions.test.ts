import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { placed, withQuestion } from './questions';

const couplet = (number: number, character: string, rows: string[], from?: number) =>
  ({ number, character, rows, from }) as Schemas['CoupletView'];
const key = {
  couplets: [
    couplet(1, 'tip', ['a', 'b', 'c', 'd']),
    couplet(2, 'stem', ['a', 'b', 'c'], 1),
    couplet(3, 'leaf', ['b', 'c'], 2),
  ],
} as Schemas['KeyView'];

test('a question is set together with all that leads to it', () => {
  const third = key.couplets[2] as Schemas['CoupletView'];
  const set = withQuestion(key, [], third, 'fruit');
  expect(set).toEqual([
    { character: 'tip', rows: [] },
    { character: 'stem', rows: ['a', 'b', 'c'] },
    { character: 'fruit', rows: ['b', 'c'] },
  ]);
  expect(withQuestion(key, set, third, 'flower')).toEqual([set[0], set[1], { character: 'flower', rows: ['b', 'c'] }]);
  const first = key.couplets[0] as Schemas['CoupletView'];
  expect(withQuestion(key, set, first, 'stem')).toEqual([set[1], set[2], { character: 'stem', rows: [] }]);
});

test('it is told where a question is asked, and if it is not', () => {
  expect(
    placed(key, [
      { character: 'tip', rows: [] },
      { character: 'leaf', rows: ['c', 'b'] },
      { character: 'leaf', rows: ['a', 'b'] },
      { character: 'stem', rows: [] },
    ]).map((p) => p.couplet),
  ).toEqual([1, 3, undefined, undefined]);
});

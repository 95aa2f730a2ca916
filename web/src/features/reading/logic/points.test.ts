import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { stepsIn, textOf, wayOf, type Point } from './path';
import { outcomeOf } from './points';

const statement = (character: string, role: string) => ({ character, text: '', plainText: '', role, states: [] });
const leads = ['a', 'b', 'c'].map(() => ({
  statements: [statement('tip', 'DECIDING'), statement('stem', 'SUFFICIENT'), statement('seed', 'TENDENCY')],
}));
const couplet = { number: 4, leads } as unknown as Schemas['CoupletView'];

test.each<[Point[], number, boolean, string]>([
  [[1, null, null], 1, false, 'AGREE'],
  [[null, 1, null], 1, false, 'AGREE'],
  [[1, 1, 'none'], 1, false, 'AGREE'],
  [[null, null, null], 2, true, 'NOTHING'],
  [[null, null, 0], 0, true, 'TENDENCIES_ONLY'],
  // One that is enough alone stands against any number of those that are not.
  [[1, null, 0], 1, true, 'CONFLICT'],
  [[0, 1, 1], 1, true, 'CONFLICT'],
  [[0, 'none', null], 0, true, 'NEITHER'],
  [['none', null, null], 2, true, 'NEITHER'],
  [[null, null, 'none'], 2, true, 'NOTHING'],
])('%j leads to %i', (points, lead, doubtful, because) => {
  expect(outcomeOf(couplet, points, 2)).toEqual({ lead, doubtful, because });
});

test('what was said of statements is kept in the address and reaches the server', () => {
  const steps = stepsIn('4b~_b-x.5a.7c_cc.9q_b.9a_');
  expect(steps).toEqual([
    { couplet: 4, lead: 1, doubtful: true, points: [1, null, 'none'] },
    { couplet: 5, lead: 0, doubtful: false },
    { couplet: 7, lead: 2, doubtful: false, points: [2, 2] },
  ]);
  expect(textOf(steps)).toBe('4b~_b-x.5a.7c_cc');
  expect(wayOf(2, steps)).toEqual({
    key: 2,
    steps: [
      { couplet: 4, lead: 1, doubtful: true, points: [1, -2, -1] },
      { couplet: 5, lead: 0, doubtful: false },
      { couplet: 7, lead: 2, doubtful: false, points: [2, 2] },
    ],
  });
});

import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { onlyIn } from './difference';

const key = (...couplets: [number, string, string][]) =>
  ({
    couplets: couplets.map(([number, text, end]) => ({
      number,
      leads: [{ text }, { text: 'other', terminal: { names: [{ row: end }] } }],
    })),
  }) as unknown as Schemas['KeyView'];

test('a couplet is the same wherever it stands, unless it says or names something else', () => {
  const one = key([1, 'red', 'mild'], [2, 'long', 'bane'], [3, 'round', 'odd']);
  const other = key([1, 'long', 'bane'], [2, 'red', 'tall'], [3, 'round', 'odd']);
  expect([...onlyIn(one, other)]).toEqual([1]);
  expect([...onlyIn(other, one)]).toEqual([2]);
  expect(onlyIn(one, one).size).toBe(0);
});

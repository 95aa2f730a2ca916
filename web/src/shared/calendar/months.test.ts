import { expect, test } from 'vitest';
import { runsOfMonths } from './months';

test('months that follow one another are one run, over the turn of the year, too', () => {
  expect(runsOfMonths([1, 2, 3, 4, 11, 12])).toEqual([[11, 12, 1, 2, 3, 4]]);
  expect(runsOfMonths([5, 1, 6, 7])).toEqual([[1], [5, 6, 7]]);
  expect(runsOfMonths([12])).toEqual([[12]]);
  expect(runsOfMonths([])).toEqual([]);
  expect(runsOfMonths([12, 11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1])).toEqual([[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]]);
});

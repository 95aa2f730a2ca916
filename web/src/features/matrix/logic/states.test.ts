import { expect, test } from 'vitest';
import { completed, suggested } from './states';

const STATES = ['entire', 'toothed', 'double-toothed', 'lobed'];

test('offers what the last part may mean, the likeliest first, and nothing that is said already', () => {
  expect(suggested('', STATES)).toEqual(STATES);
  expect(suggested('TOO', STATES)).toEqual(['toothed', 'double-toothed']);
  expect(suggested('toothed, ', STATES)).toEqual(['entire', 'double-toothed', 'lobed']);
  expect(suggested('toothed', STATES)).toEqual(['toothed', 'double-toothed']);
  expect(suggested('lobed', STATES)).toEqual([]);
  expect(suggested('5–9', STATES)).toEqual([]);
  expect(suggested('5', [])).toEqual([]);
});

test('completes the last part only', () => {
  expect(completed('too', 'toothed')).toBe('toothed');
  expect(completed('entire, lo', 'lobed')).toBe('entire, lobed');
});

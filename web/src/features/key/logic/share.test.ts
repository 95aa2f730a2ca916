import { expect, test } from 'vitest';
import { inPercent } from './share';

test.each([
  [0, '0'],
  [0.00001, '< 0.1'],
  [0.0006, '0.1'],
  [0.034, '3.4'],
  [0.0996, '10'],
  [0.873, '87'],
  [0.995, '> 99'],
  [1, '100'],
])('%d is %s %%', (share, text) => expect(inPercent(share)).toBe(text));

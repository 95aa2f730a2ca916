import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { claim } from './claim';

const key = (steps: number, bound: number, leads: number, proven = true) =>
  ({
    couplets: [{ leads: Array.from({ length: leads }) }],
    figures: { expectedSteps: steps, entropyBound: bound, completion: 'BOUNDED', proven },
  }) as unknown as Schemas['KeyView'];

test('that the bound is met is said only of a proven key with two leads a couplet', () => {
  expect(claim(key(2, 2, 2))).toBe('BOUND_MET');
  expect(claim(key(2.001, 2, 2))).toBe('BOUNDED');
  expect(claim(key(2, 2, 3))).toBe('BOUNDED');
  expect(claim(key(2, 2, 2, false))).toBe('BOUNDED');
});

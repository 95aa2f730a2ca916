import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { claim, taxaOf } from './claim';

const key = (steps: number, bound: number, leads: number, proven = true) =>
  ({
    couplets: [{ leads: Array.from({ length: leads }) }],
    figures: { expectedSteps: steps, entropyBound: bound, completion: 'BOUNDED', proven },
  }) as unknown as Schemas['KeyView'];

test('that the bound is met is said only of a proven key', () => {
  expect(claim(key(2, 2, 2))).toBe('BOUND_MET');
  expect(claim(key(2.001, 2, 2))).toBe('BOUNDED');
  expect(claim(key(2, 2, 3))).toBe('BOUND_MET');
  expect(claim(key(2, 2, 2, false))).toBe('BOUNDED');
  const searched = key(2.2, 2, 2);
  searched.figures.leastSteps = 2.2;
  expect(claim(searched)).toBe('BOUND_MET');
});

test('the taxa of a key are its names, at couplets or without any', () => {
  const end = (...labels: string[]) => ({ terminal: { names: labels.map((label, i) => ({ label, stage: `${i}` })) } });
  const couplets = [{ leads: [end('Bane', 'Bane'), end('Mild')] }, { leads: [{ couplet: 1 }, end('Bane')] }];
  expect(taxaOf({ couplets } as unknown as Schemas['KeyView'])).toBe(2);
  expect(taxaOf({ couplets: [], whole: end('Bane').terminal } as unknown as Schemas['KeyView'])).toBe(1);
});

import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { flowOf, SLOT } from './flow';

const name = (row: string, hazard: Schemas['NameView']['hazard'] = 'NONE_KNOWN') =>
  ({ row, label: row, hazard }) as Schemas['NameView'];
const stop = (...names: Schemas['NameView'][]) =>
  ({
    text: '',
    plainText: '',
    statements: [],
    terminal: { names, reason: '', notRuledOut: [] },
  }) as Schemas['LeadView'];
const go = (couplet: number) => ({ text: '', plainText: '', statements: [], couplet }) as Schemas['LeadView'];

const key = {
  couplets: [
    { number: 1, leads: [stop(name('a')), go(2)] },
    { number: 2, leads: [stop(name('b')), stop(name('c', 'SERIOUS'))] },
  ],
} as Schemas['KeyView'];

test('every terminal has a slot and every lead a band', () => {
  const flow = flowOf(key);
  expect(flow.stops).toHaveLength(3);
  expect(flow.ribbons).toHaveLength(4);
  expect(flow.height).toBe(3 * SLOT);
});

test('a couplet is as high as the terminals it leads to', () => {
  const knots = new Map(flowOf(key).knots.map((k) => [k.couplet, k.height]));
  expect(knots.get(1)).toBe(3 * SLOT - 3);
  expect(knots.get(2)).toBe(2 * SLOT - 3);
});

test('danger is carried up to the first couplet', () => {
  const dangerous = flowOf(key).ribbons.filter((r) => r.dangerous);
  expect(dangerous.map((r) => r.couplet).sort()).toEqual([1, 2]);
});

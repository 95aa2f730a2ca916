import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { flowIn, flowOf, labelOf, SLOT } from './flow';

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
  const flow = flowOf(key, 60);
  expect(flow.stops).toHaveLength(3);
  expect(flow.ribbons).toHaveLength(4);
  expect(flow.height).toBe(3 * SLOT);
});

test('a couplet is as high as the terminals it leads to', () => {
  const knots = new Map(flowOf(key, 60).knots.map((k) => [k.couplet, k.height]));
  expect(knots.get(1)).toBe(3 * SLOT - 3);
  expect(knots.get(2)).toBe(2 * SLOT - 3);
});

test('danger is carried up to the first couplet', () => {
  const dangerous = flowOf(key, 60).ribbons.filter((r) => r.dangerous);
  expect(dangerous.map((r) => r.couplet).sort()).toEqual([1, 2]);
});

test('names stand whole in the room that there is, as long as a step can be shorter', () => {
  const long = {
    couplets: [
      { number: 1, leads: [stop(name('a')), go(2)] },
      { number: 2, leads: [stop(name('b')), stop(name('a very long name', 'SERIOUS'), name('d'))] },
    ],
  } as Schemas['KeyView'];
  expect(labelOf([name('a very long name', 'SERIOUS'), name('d')])).toBe('⚠ a very long name +1');
  expect(labelOf([name('d'), name('bane', 'SERIOUS')])).toBe('⚠ bane +1');
  const wide = flowIn(long, 1000).width;
  const narrow = flowIn(long, 250).width;
  expect(wide).toBe(flowOf(long, 60).width);
  expect(narrow).toBeLessThanOrEqual(250.001);
  expect(narrow).toBeGreaterThan(240);
  expect(flowIn(long, 10).width).toBeLessThan(narrow);
});

import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { leadToMost, otherWays, pairAt, placeOf, stepsIn, stillPossible, textOf, wayBetween, waysTo } from './path';

const end = (label: string, hazard: Schemas['NameView']['hazard'] = 'NONE_KNOWN') => ({
  terminal: { names: [{ row: label, label, hazard }], notRuledOut: [], reason: '' },
});
/** 1a → 2 (a: A, b: B, c: Bane), 1b → 3 (a: C, b: A). */
const KEY = {
  couplets: [
    { number: 1, leads: [{ couplet: 2 }, { couplet: 3 }], misread: 0.01 },
    { number: 2, from: 1, leads: [end('A'), end('B'), end('Bane', 'SERIOUS')], misread: 0.2 },
    { number: 3, from: 1, leads: [end('C'), end('A')], misread: 0.1 },
  ],
} as unknown as Schemas['KeyView'];

const labels = (text: string) => stillPossible(KEY, placeOf(KEY, stepsIn(text))).map((n) => n.label);

test('an address says which leads were taken, and where the reader could not tell', () => {
  for (const text of ['', '1a', '1b~.3a', '1a.2c~']) expect(textOf(stepsIn(text))).toBe(text);
  expect(textOf(stepsIn('1a.nonsense.2z.-1a..2b'))).toBe('1a.2b');
});

test('steps lead to a couplet or an end, as far as they are those of the key', () => {
  expect(placeOf(KEY, []).couplet?.number).toBe(1);
  expect(placeOf(KEY, stepsIn('1a')).couplet?.number).toBe(2);
  expect(placeOf(KEY, stepsIn('1a.2b')).terminal?.names[0]?.label).toBe('B');
  const astray = placeOf(KEY, stepsIn('1a.3a.2b'));
  expect([astray.couplet?.number, textOf(astray.steps)]).toEqual([2, '1a']);
  expect(placeOf(KEY, stepsIn('1c')).couplet?.number).toBe(1);
  const whole = { couplets: [], whole: { names: [] } } as unknown as Schemas['KeyView'];
  expect(placeOf(whole, stepsIn('1a')).terminal).toBe(whole.whole);
});

test('what lies ahead is possible, and beside a step that could not be told; dangers first', () => {
  expect(labels('')).toEqual(['Bane', 'A', 'B', 'C']);
  expect(labels('1b')).toEqual(['C', 'A']);
  expect(labels('1b~')).toEqual(['Bane', 'C', 'A', 'B']);
  expect(labels('1b~.3a')).toEqual(['Bane', 'C', 'A', 'B']);
  expect(labels('1b.3a')).toEqual(['C']);
});

test('who went astray is shown first where they could not tell, then where many misread', () => {
  const ways = (text: string) => otherWays(KEY, stepsIn(text)).map((w) => textOf(w.steps));
  expect(ways('1b.3a')).toEqual(['1b.3b', '1a']);
  expect(ways('1b~.3a')).toEqual(['1a~', '1b~.3b']);
  expect(ways('1a.2b')).toEqual(['1a.2a', '1a.2c', '1b']);
});

test('who cannot tell tries first what leads to more names', () => {
  expect(leadToMost(KEY, KEY.couplets[0] as Schemas['CoupletView'])).toBe(0);
  expect(leadToMost(KEY, KEY.couplets[2] as Schemas['CoupletView'])).toBe(0);
});

test('a name is led to on every way that ends at it, or at the group that stands for it', () => {
  expect(waysTo(KEY, 'A').map(textOf)).toEqual(['1a.2a', '1b.3b']);
  expect(waysTo(KEY, 'Bane').map(textOf)).toEqual(['1a.2c']);
  expect(waysTo(KEY, 'nobody')).toEqual([]);
  const grouped = { couplets: [{ number: 1, leads: [{ terminal: { names: [], group: { row: 'g' } } }] }] };
  expect(waysTo(grouped as unknown as Schemas['KeyView'], 'g').map(textOf)).toEqual(['1a']);
  expect(waysTo({ couplets: [] } as unknown as Schemas['KeyView'], 'A')).toEqual([]);
});

test('a couplet is found by what it separates, whatever its number', () => {
  for (const couplet of KEY.couplets) {
    const [one, other] = pairAt(KEY, couplet) ?? [];
    const way = wayBetween(KEY, one ?? '', other ?? '');
    expect(placeOf(KEY, way ?? []).couplet).toBe(couplet);
  }
  const renumbered = JSON.parse(JSON.stringify(KEY).replace(/"(number|couplet|from)":(\d)/g, '"$1":1$2')) as typeof KEY;
  expect(textOf(wayBetween(renumbered, 'B', 'Bane') ?? [])).toBe('11a');
  expect(wayBetween(KEY, 'B', 'nobody')).toBeUndefined();
  expect(wayBetween(KEY, 'A', 'A')).toEqual([]);
});

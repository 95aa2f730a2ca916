import { expect, test } from 'vitest';
import { nameParts } from './taxonName';

test('connecting words and the hybrid sign stand upright', () => {
  expect(nameParts('Tarnella vadosa subsp. collina').map((p) => [p.text.trim(), p.italic])).toEqual([
    ['Tarnella vadosa', true],
    ['subsp.', false],
    ['collina', true],
  ]);
  expect(nameParts('Tarnella × intermixta').map((p) => p.italic)).toEqual([true, false, true]);
});

test('a sex or stage behind a comma stands upright', () => {
  expect(nameParts('Tarnella vadosa, other than seedling')).toEqual([
    { text: 'Tarnella vadosa', italic: true },
    { text: ', other than seedling', italic: false },
  ]);
});

test('no letter is lost', () => {
  const label = 'Ostrivia aff. fallax var. mitis s.l.';
  expect(
    nameParts(label)
      .map((p) => p.text)
      .join(''),
  ).toBe(label);
});

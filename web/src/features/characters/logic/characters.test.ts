import { expect, test } from 'vitest';
import { character, state } from '@/testing/study';
import { blank, shifted, stepped, withType } from './characters';

test('another type drops the states and units that it does not have', () => {
  const states = [state('red')];
  const colour = character('colour', { states });
  expect(withType(colour, 'ORDERED').states).toEqual(states);
  expect(withType(colour, 'LENGTH')).toMatchObject({ type: 'LENGTH', unit: 'mm', states: [] });
  expect(withType(character('width', { type: 'LENGTH', unit: 'cm' }), 'MASS').unit).toBe('g');
  expect(withType(character('width', { type: 'LENGTH', unit: 'cm', uncertainty: 2 }), 'MONTHS')).toMatchObject({
    unit: '',
    uncertainty: 0,
  });
  expect(withType(character('width', { type: 'LENGTH' }), 'STATES').states).toHaveLength(2);
  expect(blank('leaf').states).toHaveLength(2);
});

test('a list keeps its items when one of them moves', () => {
  expect(shifted(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c']);
  expect(shifted(['a', 'b', 'c'], 2, -1)).toEqual(['a', 'c', 'b']);
  expect(shifted(['a', 'b'], 1, 1)).toEqual(['a', 'b']);
});

test('a character steps among its neighbours', () => {
  expect(stepped(['a', 'b', 'c'], 'b', -1)).toEqual({ before: 'a' });
  expect(stepped(['a', 'b', 'c'], 'a', 1)).toEqual({ before: 'c' });
  expect(stepped(['a', 'b', 'c'], 'b', 1)).toEqual({ before: undefined });
  expect(stepped(['a', 'b'], 'a', -1)).toBeUndefined();
  expect(stepped(['a', 'b'], 'b', 1)).toBeUndefined();
  expect(stepped(['a'], 'z', 1)).toBeUndefined();
});

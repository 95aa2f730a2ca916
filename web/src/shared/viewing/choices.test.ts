import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { equipmentOf, leafOf, partsOf, withoutLens } from './choices';

const study = (...characters: [organ: string, method: string][]) =>
  ({ characters: characters.map(([organ, method]) => ({ organ, method })) }) as Schemas['StudyView'];

test('parts and equipment stand once, whatever their capitals', () => {
  const some = study(['Leaf', 'eye'], ['leaf', 'Lens ×10'], ['', '']);
  expect(partsOf(some)).toEqual(['leaf']);
  expect(equipmentOf(some)).toEqual(['eye', 'lens ×10']);
});

test('without a lens everything stays that does not magnify, and the eye', () => {
  expect(withoutLens(study(['cap', 'Microscope'], ['cap', 'ruler'], ['cap', 'stereo-microscope']))).toEqual([
    'eye',
    'ruler',
  ]);
});

test('a leaf is a word of its own', () => {
  expect(leafOf(study(['leaflet', ''], ['Lower leaves', '']))).toBe('lower leaves');
  expect(leafOf(study(['cap', '']))).toBeUndefined();
});

import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { description } from './description';

const study = {
  rows: [{ id: 'genus' }, { id: 'species', parent: 'genus' }],
  characters: [
    { id: 'margin', label: 'leaf margin', organ: 'leaf', unit: '' },
    { id: 'width', label: 'leaf width', organ: 'leaf', unit: 'mm' },
    { id: 'fruit', label: 'fruit', organ: 'fruit', unit: '' },
  ],
  scores: [
    { row: 'genus', character: 'margin', typed: 'toothed' },
    { row: 'genus', character: 'width', typed: '1–2' },
    { row: 'species', character: 'width', typed: '5–9' },
    { row: 'species', character: 'fruit', typed: '?' },
  ],
} as unknown as Schemas['Study'];

test('a taxon shows its own scores, then those of its parent; unknown is not shown', () => {
  expect(description(study, 'species').map((l) => `${l.character}: ${l.shows}`)).toEqual([
    'leaf margin: toothed',
    'leaf width: 5–9 mm',
  ]);
});

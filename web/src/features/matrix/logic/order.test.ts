import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import type { Cell } from '@/study-kernel';
import { counted } from './counted';
import { sorted, sortingOf } from './order';
import type { GridModel } from './paint';

const cell = (over: object) =>
  ({ kind: 'states', parts: [], text: '', basis: 'JUDGEMENT', ...over }) as unknown as Cell;
const shows = (...labels: string[]) => cell({ parts: labels.map((label) => ({ label, share: 1, mistaken: false })) });
const range = (low: number, high: number, over = {}) =>
  cell({ kind: 'range', range: { min: low - 1, low, high, max: high + 1 }, ...over });
const empty = cell({ kind: 'empty' });

test('rows stand by state as the character lists them, or by measure; what says nothing is last both ways', () => {
  const margin = { states: ['entire', 'toothed', 'lobed'].map((label) => ({ id: label, label })) };
  const rows = [
    { name: 'a', is: empty },
    { name: 'b', is: shows('lobed') },
    { name: 'c', is: shows('entire', 'lobed') },
    { name: 'd', is: shows('toothed') },
    { name: 'e', is: undefined },
    { name: 'f', is: shows('toothed') },
  ];
  const names = (down: boolean) =>
    sorted(rows, margin as Schemas['StudyCharacter'], down, (r) => r.is)
      .map((r) => r.name)
      .join('');
  expect(names(false)).toBe('cdfbae');
  expect(names(true)).toBe('bdfcae');
  const width = { states: [] as unknown[] } as Schemas['StudyCharacter'];
  expect(sorted([range(5, 9), range(1, 3), empty], width, false, (r) => r)).toEqual([range(1, 3), range(5, 9), empty]);
  expect(sortingOf('-leaf-margin')).toEqual({ character: 'leaf-margin', down: true });
  expect(sortingOf(undefined)).toBeNull();
});

test('the line below the sheet counts what the selection holds', () => {
  const cells = [
    [shows('entire'), range(5, 9, { doubtful: true })],
    [cell({ kind: 'unknown' }), range(1, 3, { basis: 'IMPORT' })],
    [cell({ from: 'genus' }), empty],
  ];
  const grid = { cell: (row: number, column: number) => cells[row]?.[column] } as GridModel;
  expect(counted(grid, { top: 0, bottom: 3, left: 0, right: 1 })).toEqual({
    scored: 3,
    inherited: 1,
    unknown: 1,
    empty: 1,
    doubtful: 1,
    unsourced: 1,
  });
});

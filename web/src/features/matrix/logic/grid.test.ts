import { describe, expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import {
  bands,
  byOrgan,
  frozenOf,
  leftOf,
  moved,
  pastedCells,
  pinnedFirst,
  placeAt,
  scrolledTo,
  SIZE,
  TOP,
  visible,
} from './grid';

const character = (id: string, organ: string) => ({ id, organ }) as Schemas['StudyCharacter'];

test('characters of one organ stand together, organs keep their order', () => {
  const ordered = byOrgan([character('a', 'leaf'), character('b', 'stem'), character('c', 'leaf')]);
  expect(ordered.map((c) => c.id)).toEqual(['a', 'c', 'b']);
  expect(bands(ordered)).toEqual([
    { organ: 'leaf', from: 0, to: 2 },
    { organ: 'stem', from: 2, to: 3 },
  ]);
});

test('only what shows is painted', () => {
  const window = visible({ left: SIZE.column * 10, top: SIZE.row * 100 }, { width: 800, height: 500 }, 2000, 500);
  expect(window.columns[0]).toBe(10);
  expect(window.rows[0]).toBe(100);
  expect(window.rows[1] - window.rows[0]).toBeLessThan(20);
});

describe('keyboard', () => {
  test('stays inside the grid', () => {
    expect(moved({ row: 0, column: 0 }, 'ArrowUp', false, 5, 5, 3)).toEqual({ row: 0, column: 0 });
    expect(moved({ row: 4, column: 2 }, 'PageDown', false, 5, 5, 3)).toEqual({ row: 4, column: 2 });
    expect(moved({ row: 1, column: 1 }, 'End', true, 5, 7, 3)).toEqual({ row: 4, column: 6 });
    expect(moved({ row: 1, column: 1 }, 'x', false, 5, 5, 3)).toBeNull();
  });

  test('brings the cell into view, and no further', () => {
    const view = { width: SIZE.rowHeader + 3 * SIZE.column, height: TOP + 4 * SIZE.row };
    expect(scrolledTo({ row: 1, column: 1 }, { left: 0, top: 0 }, view)).toEqual({ left: 0, top: 0 });
    expect(scrolledTo({ row: 6, column: 4 }, { left: 0, top: 0 }, view)).toEqual({
      left: 2 * SIZE.column,
      top: 3 * SIZE.row,
    });
  });
});

describe('frozen columns', () => {
  const view = { width: SIZE.rowHeader + 4 * SIZE.column, height: TOP + 4 * SIZE.row };
  const scroll = { left: 5 * SIZE.column, top: 0 };

  test('stand first, under bands of their own', () => {
    const ordered = pinnedFirst(
      [character('a', 'leaf'), character('b', 'leaf'), character('c', 'stem'), character('d', 'leaf')],
      new Set(['d', 'b', 'gone']),
    );
    expect(ordered.map((c) => c.id)).toEqual(['b', 'd', 'a', 'c']);
    expect(bands(ordered, 2).map((b) => `${b.organ} ${b.from}–${b.to}`)).toEqual(['leaf 0–2', 'leaf 2–3', 'stem 3–4']);
  });

  test('stay while the others move, each cell where it is painted', () => {
    const shown = visible(scroll, view, 4, 20, 2).columns;
    expect(shown).toEqual([7, 9]);
    for (const column of [0, 1, 7, 8]) {
      const x = leftOf(column, scroll, 2);
      expect(x).toBeGreaterThanOrEqual(SIZE.rowHeader);
      expect(placeAt(x + 1, TOP + 1, scroll, 4, 20, 2)).toEqual({ row: 0, column });
    }
    expect(leftOf(6, scroll, 2)).toBeLessThan(leftOf(2, { left: 0 }, 2));
  });

  test('are reached without scrolling; others come out from under them', () => {
    expect(scrolledTo({ row: 0, column: 1 }, scroll, view, 2).left).toBe(scroll.left);
    const left = scrolledTo({ row: 0, column: 3 }, scroll, view, 2).left;
    expect(leftOf(3, { left }, 2)).toBe(leftOf(2, { left: 0 }, 2));
    const right = scrolledTo({ row: 0, column: 15 }, scroll, view, 2).left;
    expect(leftOf(15, { left: right }, 2) + SIZE.column).toBe(view.width);
  });

  test('leave room for one that moves', () => {
    expect(frozenOf(9, view.width)).toBe(3);
    expect(frozenOf(2, view.width)).toBe(2);
    expect(frozenOf(2, 300)).toBe(0);
  });
});

test('a point over the headings is not a cell', () => {
  expect(placeAt(10, 10, { left: 0, top: 0 }, 5, 5)).toBeNull();
  expect(placeAt(SIZE.rowHeader + 1, TOP + SIZE.row + 1, { left: 0, top: 0 }, 5, 5)).toEqual({ row: 1, column: 0 });
});

describe('paste', () => {
  test('a block lands at the upper left corner, and what lies beyond the edge is told', () => {
    const at = { row: 3, column: 3 };
    const { cells, ...beyond } = pastedCells('a\tb\nc\td\r\n', { at, anchor: at }, 4, 10);
    expect(cells).toEqual([
      { row: 3, column: 3, text: 'a' },
      { row: 3, column: 4, text: 'b' },
    ]);
    expect(beyond).toEqual({
      below: [
        [
          { column: 3, text: 'c' },
          { column: 4, text: 'd' },
        ],
      ],
      columns: 0,
    });
    const wide = pastedCells('a\tb\tc', { at, anchor: at }, 4, 5);
    expect(wide.cells).toHaveLength(2);
    expect(wide.columns).toBe(1);
  });

  test('one text fills the selection', () => {
    const { cells } = pastedCells('toothed', { at: { row: 1, column: 1 }, anchor: { row: 2, column: 2 } }, 9, 9);
    expect(cells).toHaveLength(4);
  });
});

import { describe, expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { frozenOf, Geometry, SIZE, TOP } from './geometry';
import { bands, byOrgan, drawnTo, filled, moved, pastedCells, pinnedFirst, whole } from './grid';

/** Columns of one width. */
const even = (rows: number, columns: number, frozen = 0) =>
  new Geometry(rows, Array<number>(columns).fill(SIZE.column), frozen);

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
  const window = even(2000, 500).visible({ left: SIZE.column * 10, top: SIZE.row * 100 }, { width: 800, height: 500 });
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
    expect(even(9, 9).scrolledTo({ row: 1, column: 1 }, { left: 0, top: 0 }, view)).toEqual({ left: 0, top: 0 });
    expect(even(9, 9).scrolledTo({ row: 6, column: 4 }, { left: 0, top: 0 }, view)).toEqual({
      left: 2 * SIZE.column,
      top: 3 * SIZE.row,
    });
  });
});

describe('frozen columns', () => {
  const view = { width: SIZE.rowHeader + 4 * SIZE.column, height: TOP + 4 * SIZE.row };
  const scroll = { left: 5 * SIZE.column, top: 0 };
  const sheet = even(4, 20, 2);

  test('stand first, under bands of their own', () => {
    const ordered = pinnedFirst(
      [character('a', 'leaf'), character('b', 'leaf'), character('c', 'stem'), character('d', 'leaf')],
      new Set(['d', 'b', 'gone']),
    );
    expect(ordered.map((c) => c.id)).toEqual(['b', 'd', 'a', 'c']);
    expect(bands(ordered, 2).map((b) => `${b.organ} ${b.from}–${b.to}`)).toEqual(['leaf 0–2', 'leaf 2–3', 'stem 3–4']);
  });

  test('stay while the others move, each cell where it is painted', () => {
    const shown = sheet.visible(scroll, view).columns;
    expect(shown).toEqual([7, 9]);
    for (const column of [0, 1, 7, 8]) {
      const x = sheet.left(column, scroll);
      expect(x).toBeGreaterThanOrEqual(SIZE.rowHeader);
      expect(sheet.placeAt(x + 1, TOP + 1, scroll)).toEqual({ row: 0, column });
    }
    expect(sheet.left(6, scroll)).toBeLessThan(sheet.left(2, { left: 0 }));
  });

  test('are reached without scrolling; others come out from under them', () => {
    expect(sheet.scrolledTo({ row: 0, column: 1 }, scroll, view).left).toBe(scroll.left);
    const left = sheet.scrolledTo({ row: 0, column: 3 }, scroll, view).left;
    expect(sheet.left(3, { left })).toBe(sheet.still);
    const right = sheet.scrolledTo({ row: 0, column: 15 }, scroll, view).left;
    expect(sheet.left(15, { left: right }) + SIZE.column).toBe(view.width);
  });

  test('leave room for one that moves', () => {
    const widths = Array<number>(20).fill(SIZE.column);
    expect(frozenOf(9, widths, view.width)).toBe(3);
    expect(frozenOf(2, widths, view.width)).toBe(2);
    expect(frozenOf(2, widths, 300)).toBe(0);
  });
});

describe('columns of different widths', () => {
  const sheet = new Geometry(5, [100, 50, 300, 60], 1);
  const scroll = { left: 70, top: 2 * SIZE.row };

  test('each point belongs to what is painted there', () => {
    const naive = (x: number): number | null => {
      for (let c = 0; c < 4; c++) {
        const from = sheet.left(c, scroll);
        if (c >= 1 && x < sheet.still) continue;
        if (x >= from && x < from + sheet.width(c)) return c;
      }
      return null;
    };
    for (let x = SIZE.rowHeader; x < 800; x++) {
      expect(sheet.placeAt(x, TOP, scroll)?.column ?? null, `x = ${x}`).toBe(naive(x));
    }
    expect(sheet.placeAt(SIZE.rowHeader, TOP + 3 * SIZE.row, scroll)).toBeNull();
    expect(sheet.placeAt(10, 10, scroll)).toBeNull();
  });

  test('headings are rows, columns, and the borders by which a column is drawn wider', () => {
    const y = SIZE.organBand + 10;
    expect(sheet.headingAt(5, 5, scroll)).toEqual({ kind: 'corner' });
    expect(sheet.headingAt(5, TOP + 1, scroll)).toEqual({ kind: 'row', row: 2 });
    expect(sheet.headingAt(5, TOP + 3 * SIZE.row, scroll)).toBeNull();
    expect(sheet.headingAt(SIZE.rowHeader + 50, y, scroll)).toEqual({ kind: 'column', column: 0 });
    expect(sheet.headingAt(sheet.still - 2, y, scroll)).toEqual({ kind: 'border', column: 0 });
    const end = sheet.left(2, scroll) + 300;
    expect(sheet.headingAt(end - 2, y, scroll)).toEqual({ kind: 'border', column: 2 });
    expect(sheet.headingAt(end + 2, y, scroll)).toEqual({ kind: 'border', column: 2 });
    expect(sheet.headingAt(SIZE.rowHeader + 50, TOP, scroll)).toBeNull();
  });
});

describe('selecting and filling', () => {
  const selection = { at: { row: 2, column: 3 }, anchor: { row: 1, column: 2 } };
  const box = { top: 1, bottom: 2, left: 2, right: 3 };

  test('whole rows, columns, and everything', () => {
    expect(whole('rows', selection, 9, 7)).toEqual({ at: { row: 1, column: 0 }, anchor: { row: 2, column: 6 } });
    expect(whole('columns', selection, 9, 7)).toEqual({ at: { row: 0, column: 2 }, anchor: { row: 8, column: 3 } });
    expect(whole('all', selection, 9, 7)).toEqual({ at: { row: 0, column: 0 }, anchor: { row: 8, column: 6 } });
  });

  test('a block that is drawn further repeats, down or to the right', () => {
    expect(drawnTo(box, { row: 0, column: 0 })).toEqual(box);
    expect(drawnTo(box, { row: 5, column: 4 })).toEqual({ ...box, bottom: 5 });
    expect(drawnTo(box, { row: 3, column: 6 })).toEqual({ ...box, right: 6 });
    const text = ({ row, column }: { row: number; column: number }) => `${row}${column}`;
    expect(filled(box, drawnTo(box, { row: 5, column: 3 }), text).map((c) => c.text)).toEqual([
      '12',
      '13',
      '22',
      '23',
      '12',
      '13',
    ]);
    expect(filled(box, { ...box, right: 4 }, text)).toEqual([
      { row: 1, column: 4, text: '12' },
      { row: 2, column: 4, text: '22' },
    ]);
  });
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

import type { Schemas } from '@/api/client';
import type { Place } from './geometry';

export type { Place };

/** Two corners of a selection; `at` is where the keyboard is. */
export interface Selection {
  at: Place;
  anchor: Place;
}

export interface Band {
  organ: string;
  from: number;
  to: number;
}

/** Characters grouped by organ, organs in the order in which they first appear. */
export function byOrgan(characters: Schemas['StudyCharacter'][]): Schemas['StudyCharacter'][] {
  const organs = [...new Set(characters.map((c) => c.organ))];
  return organs.flatMap((organ) => characters.filter((c) => c.organ === organ));
}

/** Runs of columns that share an organ; none runs from the frozen columns into the others. */
export function bands(characters: Schemas['StudyCharacter'][], frozen = 0): Band[] {
  const found: Band[] = [];
  characters.forEach((character, column) => {
    const last = found[found.length - 1];
    if (last && last.organ === character.organ && column !== frozen) last.to = column + 1;
    else found.push({ organ: character.organ, from: column, to: column + 1 });
  });
  return found;
}

/** Pinned characters first, in the order of the others. */
export function pinnedFirst(characters: Schemas['StudyCharacter'][], pinned: Set<string>) {
  return [...characters.filter((c) => pinned.has(c.id)), ...characters.filter((c) => !pinned.has(c.id))];
}

/** Where a key press leads, staying inside the grid. */
export function moved(
  from: Place,
  key: string,
  command: boolean,
  rows: number,
  columns: number,
  page: number,
): Place | null {
  const to = { ...from };
  if (key === 'ArrowUp') to.row = command ? 0 : from.row - 1;
  else if (key === 'ArrowDown') to.row = command ? rows - 1 : from.row + 1;
  else if (key === 'ArrowLeft') to.column = command ? 0 : from.column - 1;
  else if (key === 'ArrowRight') to.column = command ? columns - 1 : from.column + 1;
  else if (key === 'PageUp') to.row = from.row - page;
  else if (key === 'PageDown') to.row = from.row + page;
  else if (key === 'Home') Object.assign(to, { column: 0, row: command ? 0 : from.row });
  else if (key === 'End') Object.assign(to, { column: columns - 1, row: command ? rows - 1 : from.row });
  else return null;
  return {
    row: Math.max(0, Math.min(rows - 1, to.row)),
    column: Math.max(0, Math.min(columns - 1, to.column)),
  };
}

export function corners(selection: Selection): Box {
  const { at, anchor } = selection;
  return {
    top: Math.min(at.row, anchor.row),
    bottom: Math.max(at.row, anchor.row),
    left: Math.min(at.column, anchor.column),
    right: Math.max(at.column, anchor.column),
  };
}

export interface Box {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

export function sizeOf(box: Box): number {
  return (box.bottom - box.top + 1) * (box.right - box.left + 1);
}

/** Every cell of a box, row by row. */
export function cellsOf(box: Box): Place[] {
  const cells: Place[] = [];
  for (let row = box.top; row <= box.bottom; row++)
    for (let column = box.left; column <= box.right; column++) cells.push({ row, column });
  return cells;
}

/** Whole rows, whole columns or everything, from where the selection is; the keyboard stays at its end. */
export function whole(what: 'rows' | 'columns' | 'all', from: Selection, rows: number, columns: number): Selection {
  const box = corners(from);
  return {
    at: { row: what === 'rows' ? box.top : 0, column: what === 'columns' ? box.left : 0 },
    anchor: {
      row: what === 'rows' ? box.bottom : rows - 1,
      column: what === 'columns' ? box.right : columns - 1,
    },
  };
}

/** Where a selection is drawn to by its corner: down or to the right, whichever is farther. */
export function drawnTo(from: Box, to: Place): Box {
  const down = to.row - from.bottom;
  const right = to.column - from.right;
  if (down <= 0 && right <= 0) return from;
  return down >= right ? { ...from, bottom: to.row } : { ...from, right: to.column };
}

/** The cells beyond a block that it fills, over and over; `text` is what stands in a cell of the block. */
export function filled(from: Box, to: Box, text: (at: Place) => string): (Place & { text: string })[] {
  const height = from.bottom - from.top + 1;
  const width = from.right - from.left + 1;
  return cellsOf(to)
    .filter(({ row, column }) => row > from.bottom || column > from.right)
    .map((cell) => ({
      ...cell,
      text: text({
        row: from.top + ((cell.row - from.top) % height),
        column: from.left + ((cell.column - from.left) % width),
      }),
    }));
}

/** Cells that a block would fill, its lines below the grid, and how many of its columns lie beyond it. */
export interface Pasted {
  cells: (Place & { text: string })[];
  /** Each as texts by column of the grid. */
  below: { column: number; text: string }[][];
  columns: number;
}

/** A block of texts pasted at a place: one edit a cell, as far as the grid reaches, and what lies beyond. A single text fills the selection. */
export function pastedCells(text: string, selection: Selection, rows: number, columns: number): Pasted {
  const lines = text
    .replace(/\r?\n$/, '')
    .split(/\r?\n/)
    .map((line) => line.split('\t'));
  const box = corners(selection);
  const cells: (Place & { text: string })[] = [];
  const below: Pasted['below'] = [];
  let beyond = 0;
  const single = lines.length === 1 && lines[0]?.length === 1;
  if (single) {
    for (let row = box.top; row <= box.bottom; row++)
      for (let column = box.left; column <= box.right; column++)
        cells.push({ row, column, text: (lines[0]?.[0] ?? '').trim() });
    return { cells, below, columns: beyond };
  }
  lines.forEach((line, r) =>
    line.forEach((value, c) => {
      const place = { row: box.top + r, column: box.left + c };
      beyond = Math.max(beyond, place.column - columns + 1);
      if (place.row >= rows && c === 0) below.push([]);
      if (place.column >= columns) return;
      if (place.row < rows) cells.push({ ...place, text: value.trim() });
      else below.at(-1)?.push({ column: place.column, text: value.trim() });
    }),
  );
  return { cells, below, columns: beyond };
}

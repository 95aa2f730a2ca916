import type { Schemas } from '@/api/client';

/** Sizes of the grid in CSS pixels. */
export const SIZE = { rowHeader: 216, organBand: 24, header: 54, column: 118, row: 32 };
export const TOP = SIZE.organBand + SIZE.header;

export interface Place {
  row: number;
  column: number;
}

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

/** How many of the columns that are to stand still do so: at least one is left to scroll. */
export function frozenOf(wanted: number, width: number): number {
  return Math.max(0, Math.min(wanted, Math.floor((width - SIZE.rowHeader) / SIZE.column) - 1));
}

/** Where a column begins in the window; the first `frozen` stand still. */
export function leftOf(column: number, scroll: { left: number }, frozen: number): number {
  return SIZE.rowHeader + column * SIZE.column - (column < frozen ? 0 : scroll.left);
}

/** Rows and columns that show in a window of the grid, beside the frozen ones. */
export function visible(
  scroll: { left: number; top: number },
  view: { width: number; height: number },
  rows: number,
  columns: number,
  frozen = 0,
) {
  const clamp = (n: number, most: number) => Math.max(0, Math.min(most, n));
  return {
    rows: [
      clamp(Math.floor(scroll.top / SIZE.row), rows),
      clamp(Math.ceil((scroll.top + view.height - TOP) / SIZE.row), rows),
    ] as const,
    columns: [
      clamp(frozen + Math.floor(scroll.left / SIZE.column), columns),
      clamp(Math.ceil((scroll.left + view.width - SIZE.rowHeader) / SIZE.column), columns),
    ] as const,
  };
}

/** The cell under a point of the window, or null over the headings. */
export function placeAt(
  x: number,
  y: number,
  scroll: { left: number; top: number },
  rows: number,
  columns: number,
  frozen = 0,
): Place | null {
  if (x < SIZE.rowHeader || y < TOP) return null;
  const still = x < SIZE.rowHeader + frozen * SIZE.column;
  const place = {
    row: Math.floor((y - TOP + scroll.top) / SIZE.row),
    column: Math.floor((x - SIZE.rowHeader + (still ? 0 : scroll.left)) / SIZE.column),
  };
  return place.row < rows && place.column < columns ? place : null;
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

/** Scroll offset that brings a cell into the window. */
export function scrolledTo(
  place: Place,
  scroll: { left: number; top: number },
  view: { width: number; height: number },
  frozen = 0,
) {
  const width = view.width - SIZE.rowHeader;
  const height = view.height - TOP;
  const right = (place.column + 1) * SIZE.column;
  const left = (place.column - frozen) * SIZE.column;
  const top = place.row * SIZE.row;
  return {
    left: place.column < frozen ? scroll.left : Math.min(left, Math.max(scroll.left, right - width)),
    top: Math.min(top, Math.max(scroll.top, top + SIZE.row - height)),
  };
}

export function corners(selection: Selection) {
  const { at, anchor } = selection;
  return {
    top: Math.min(at.row, anchor.row),
    bottom: Math.max(at.row, anchor.row),
    left: Math.min(at.column, anchor.column),
    right: Math.max(at.column, anchor.column),
  };
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

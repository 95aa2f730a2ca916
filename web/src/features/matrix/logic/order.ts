import type { Schemas } from '@/api/client';
import type { Cell } from '@/study-kernel';

/** Rows in the order of a character. */
export interface Sorting {
  character: string;
  down: boolean;
}

/** "leaf-margin", or "-leaf-margin" from the last to the first. */
export function sortingOf(text: unknown): Sorting | null {
  if (typeof text !== 'string' || text.length < 1) return null;
  return text.startsWith('-') ? { character: text.slice(1), down: true } : { character: text, down: false };
}

/** Where a cell stands among those of its character; nothing for what says nothing. */
function rank(cell: Cell | undefined, character: Schemas['StudyCharacter']): number | null {
  if (!cell) return null;
  if (cell.range) return (cell.range.low + cell.range.high) / 2;
  const first = cell.parts.find((p) => !p.mistaken)?.label;
  const place = character.states.findIndex((s) => s.label === first);
  return place < 0 ? null : place;
}

/** The rows by measure or by state, those that say nothing last; rows that tie keep their order. */
export function sorted<R>(
  rows: R[],
  by: Schemas['StudyCharacter'],
  down: boolean,
  cell: (row: R) => Cell | undefined,
): R[] {
  const ranked = rows.map((row) => ({ row, at: rank(cell(row), by) }));
  const way = down ? -1 : 1;
  return ranked
    .sort((a, b) =>
      a.at === null || b.at === null ? Number(a.at === null) - Number(b.at === null) : way * (a.at - b.at),
    )
    .map((r) => r.row);
}

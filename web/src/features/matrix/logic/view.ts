import type { Schemas } from '@/api/client';
import type { Cell } from '@/study-kernel';

/** What of a matrix is shown. */
export type Filter = 'all' | 'unknown' | 'doubtful' | 'unsourced' | 'findings' | 'disputed' | 'comments';
export const FILTERS: Filter[] = ['all', 'unknown', 'doubtful', 'unsourced', 'findings', 'disputed', 'comments'];

/** Whether a cell is one of those that a filter looks for. */
export function matches(filter: Filter, cell: Cell | undefined, flagged: boolean): boolean {
  switch (filter) {
    case 'all':
      return true;
    case 'unknown':
      return !cell || cell.kind === 'empty' || cell.kind === 'unknown';
    case 'doubtful':
      return cell?.doubtful ?? false;
    case 'unsourced':
      return cell !== undefined && cell.kind !== 'empty' && isUnsourced(cell);
    case 'findings':
    case 'disputed':
    case 'comments':
      return flagged;
  }
}

/** Whether nothing says where a score comes from: imported and not checked, or a reference without its name. */
export function isUnsourced(cell: Cell): boolean {
  return cell.basis === 'IMPORT' || (cell.basis === 'REFERENCE' && !cell.source);
}

/** The characters of a matrix in which at least one row has a matching cell, and the rows that do. */
export function filtered<R>(
  filter: Filter,
  rows: R[],
  characters: Schemas['StudyCharacter'][],
  cell: (row: R, character: string) => Cell | undefined,
  flagged: (row: R, character: string) => boolean,
): { rows: R[]; characters: Schemas['StudyCharacter'][] } {
  if (filter === 'all') return { rows, characters };
  const hit = (row: R, character: string) => matches(filter, cell(row, character), flagged(row, character));
  return {
    rows: rows.filter((row) => characters.some((c) => hit(row, c.id))),
    characters: characters.filter((c) => rows.some((row) => hit(row, c.id))),
  };
}

/** The score after one more of its states is chosen or given up: individuals vary. */
export function toggled(text: string, label: string): string {
  const parts = text
    .split(',')
    .map((p) => p.trim())
    .filter(Boolean);
  const without = parts.filter((p) => p !== label);
  return (without.length < parts.length ? without : [...parts, label]).join(', ');
}

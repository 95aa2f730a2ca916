import { cellsOf, type Box } from './grid';
import type { GridModel } from './paint';
import { isUnsourced } from './view';

/** A block of more cells is not looked through while somebody draws it. */
export const COUNTED = 20_000;

/** What a block of cells holds. */
export interface Count {
  /** Scored in this very row, and not by what it belongs to. */
  scored: number;
  inherited: number;
  unknown: number;
  empty: number;
  doubtful: number;
  unsourced: number;
}

/** Counts the cells of a block; columns that were not fetched yet are no cells of any kind. */
export function counted(grid: GridModel, box: Box): Count {
  const count: Count = {
    scored: 0,
    inherited: 0,
    unknown: 0,
    empty: 0,
    doubtful: 0,
    unsourced: 0,
  };
  for (const { row, column } of cellsOf(box)) {
    const cell = grid.cell(row, column);
    if (!cell) continue;
    if (cell.kind === 'empty') count.empty++;
    else if (cell.kind === 'unknown') count.unknown++;
    else if (cell.from) count.inherited++;
    else {
      count.scored++;
      if (cell.doubtful) count.doubtful++;
      if (isUnsourced(cell)) count.unsourced++;
    }
  }
  return count;
}

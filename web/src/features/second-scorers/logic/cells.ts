import type { Schemas } from '@/api/client';
import { EMPTY_CELL, type Cell } from '@/study-kernel';

/** The states that a score in notation names: whole names, whatever word says how often. */
export function statesIn<T extends { label: string }>(text: string, states: readonly T[]): T[] {
  const words = text.split(/\s*[,/+]\s*/).map((w) => w.replace(/^(usually|sometimes|rarely|always) /, ''));
  return states.filter((s) => words.includes(s.label));
}

/** The scorer's own score as a cell. */
export function ownCell(score: Schemas['OwnScore'] | undefined, states: readonly { label: string }[]): Cell {
  if (!score) return { ...EMPTY_CELL, revision: 0 };
  const parts = statesIn(score.text, states).map((s) => ({ label: s.label, share: 1, mistaken: false }));
  return {
    ...EMPTY_CELL,
    text: score.text,
    kind: 'states',
    parts,
    doubtful: score.doubtful,
    note: score.note,
    revision: score.revision,
  };
}

/** A share in percent, or a dash where there is none. */
export const percent = (share: number) => `${Math.round(share * 100)} %`;
export const figure = (value: number | null | undefined) =>
  value === null || value === undefined ? '–' : value.toFixed(2);

import type { Schemas } from '@/api/client';

type Worth = Schemas['WorthView'];

/** Cells that are scored in one go: of one drawer, or at one instrument. */
export interface Sitting {
  name: string;
  cells: Worth[];
  pairs: number;
  minutes: number;
}

export type Grouping = 'rank' | 'drawer' | 'method';
export const GROUPINGS: Grouping[] = ['rank', 'drawer', 'method'];

/** Cells by what has to be fetched once for them, the sitting that is worth most a minute first. */
export function sittings(cells: Worth[], by: Grouping): Sitting[] {
  const found = new Map<string, Worth[]>();
  for (const cell of cells) {
    const name =
      by === 'rank' ? '' : by === 'method' ? cell.method : (cell.specimens.find((s) => s.storage)?.storage ?? '');
    found.set(name, [...(found.get(name) ?? []), cell]);
  }
  return [...found]
    .map(([name, of]) => ({
      name,
      cells: of,
      pairs: of.reduce((sum, c) => sum + c.pairs, 0),
      minutes: of.reduce((sum, c) => sum + c.effort, 0),
    }))
    .sort((a, b) => b.pairs / b.minutes - a.pairs / a.minutes);
}

/** What scoring a cell was expected to do, and what it did. */
export interface Effect {
  row: string;
  character: string;
  predicted: number;
  before: number;
  after: number | null;
}

const key = (slug: string) => `polyclave.effects.${slug}`;

export function readEffects(slug: string): Effect[] {
  try {
    return JSON.parse(localStorage.getItem(key(slug)) ?? '[]') as Effect[];
  } catch {
    return [];
  }
}

export const keepEffects = (slug: string, effects: Effect[]) =>
  localStorage.setItem(key(slug), JSON.stringify(effects.slice(-100)));

import type { TreeRow } from './taxonTree';

export type Direction = 'up' | 'down' | 'in' | 'out';

/** Where a row goes: under which parent, before which sibling; absent: to the top, behind all others. */
export interface Place {
  parent?: string;
  before?: string;
}

/** Where a step in the tree leads; undefined where there is no way. */
export function step(tree: TreeRow[], id: string, direction: Direction): Place | undefined {
  const row = tree.find((entry) => entry.row.id === id)?.row;
  if (!row) return undefined;
  const parent = row.parent ?? undefined;
  const siblings = tree.filter((entry) => (entry.row.parent ?? undefined) === parent).map((entry) => entry.row);
  const at = siblings.indexOf(row);
  const above = siblings[at - 1];
  switch (direction) {
    case 'up':
      return above && { parent, before: above.id };
    case 'down':
      return siblings[at + 1] && { parent, before: siblings[at + 2]?.id };
    case 'in':
      return above && !above.stage ? { parent: above.id } : undefined;
    case 'out': {
      const up = tree.find((entry) => entry.row.id === parent)?.row;
      if (!up || row.stage) return undefined;
      const uncles = tree.filter((entry) => entry.row.parent === up.parent).map((entry) => entry.row);
      return { parent: up.parent ?? undefined, before: uncles[uncles.indexOf(up) + 1]?.id };
    }
  }
}

/** Whether a row may be dropped on another: never on itself or on what belongs to it. */
export function mayDrop(tree: TreeRow[], dragged: string, on: string): boolean {
  for (let at: string | undefined = on; at;) {
    if (at === dragged) return false;
    at = tree.find((entry) => entry.row.id === at)?.row.parent ?? undefined;
  }
  return true;
}

import type { Schemas } from '@/api/client';

export interface TreeRow {
  row: Schemas['StudyRow'];
  depth: number;
}

/** Rows in the order of their tree, each with its depth; children follow their parent. */
export function taxonTree(rows: Schemas['StudyRow'][]): TreeRow[] {
  const children = new Map<string, Schemas['StudyRow'][]>();
  const ids = new Set(rows.map((row) => row.id));
  for (const row of rows) {
    const parent = row.parent && ids.has(row.parent) ? row.parent : '';
    const siblings = children.get(parent);
    if (siblings) siblings.push(row);
    else children.set(parent, [row]);
  }
  const ordered: TreeRow[] = [];
  const visit = (parent: string, depth: number) => {
    for (const row of children.get(parent) ?? []) {
      ordered.push({ row, depth });
      visit(row.id, depth + 1);
    }
  };
  visit('', 0);
  return ordered;
}

import type { Schemas } from '@/api/client';
import { present } from './specimens';

type Specimen = Schemas['Specimen'];
type Row = Schemas['StudyRow'];

/** By what specimens stand on a shelf: the study's order of taxa, a rank above them, and so on. */
export type ShelfKey = 'study' | 'name' | 'storage' | 'date' | 'collector' | `rank:${string}`;

/** Ranks of taxa that hold others, and the genus that every scientific name tells. */
export function shelfKeys(rows: Row[]): ShelfKey[] {
  const parents = new Set(rows.map((r) => r.parent).filter(Boolean));
  const ranks = new Set(rows.filter((r) => parents.has(r.id) && r.rank).map((r) => r.rank));
  ranks.delete('genus');
  return [
    'study',
    ...[...ranks].map((r): ShelfKey => `rank:${r}`),
    'rank:genus',
    'name',
    'storage',
    'date',
    'collector',
  ];
}

/** Specimens in the order of a scheme; what a key does not tell stands last, and codes decide what is left. */
export function inShelfOrder(specimens: Specimen[], rows: Row[], scheme: ShelfKey[]): Specimen[] {
  const places = new Map(rows.map((r, i) => [r.id, i]));
  const byId = new Map(rows.map((r) => [r.id, r]));

  function ancestor(row: Row | undefined, rank: string): string {
    for (let at = row, left = rows.length; at && left > 0; at = at.parent ? byId.get(at.parent) : undefined, left--) {
      if (at.rank === rank) return at.label;
    }
    // The first word of a name is its genus, also where the study has no row for it.
    return rank === 'genus' ? (row?.label.split(' ')[0] ?? '') : '';
  }

  function value(specimen: Specimen, key: ShelfKey): string {
    const row = byId.get(present(specimen)?.row ?? '');
    switch (key) {
      case 'study':
        return row ? String(places.get(row.id)).padStart(8, '0') : '';
      case 'name':
        return row?.label ?? '';
      case 'storage':
        return specimen.storage;
      case 'date':
        return specimen.event.date;
      case 'collector':
        return specimen.event.collector;
      default:
        return ancestor(row, key.slice('rank:'.length));
    }
  }

  const compare = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' }).compare;
  return specimens
    .map((specimen) => ({ specimen, keys: scheme.map((key) => value(specimen, key)) }))
    .sort((a, b) => {
      for (const [i, key] of a.keys.entries()) {
        const other = b.keys[i] ?? '';
        const known = Number(key === '') - Number(other === '');
        const order = known || compare(key, other);
        if (order) return order;
      }
      return compare(a.specimen.code, b.specimen.code);
    })
    .map((entry) => entry.specimen);
}

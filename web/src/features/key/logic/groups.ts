import type { Schemas } from '@/api/client';
import { isDangerous } from '@/shared/taxon/hazards';

export interface TaxonGroup {
  title: string;
  value: string[];
}

/** Taxa that share a status, a region or a habitat, and those that are commoner than half of the others. */
export function taxonGroups(rows: readonly Schemas['StudyRow'][], t: (key: string) => string): TaxonGroup[] {
  const taxa = rows.filter((r) => !r.stage);
  const groups = new Map<string, string[]>();
  const add = (name: string, id: string) => name.trim() && groups.set(name, [...(groups.get(name) ?? []), id]);
  for (const taxon of taxa) {
    for (const name of new Set([
      ...taxon.status,
      ...taxon.occurrence.regions.map((r) => r.region),
      taxon.occurrence.habitat,
    ])) {
      add(name, taxon.id);
    }
  }
  const weights = taxa.map((r) => r.weight).sort((a, b) => a - b);
  const median = weights[Math.floor((weights.length - 1) / 2)] ?? 0;
  taxa.filter((r) => r.weight > median).forEach((r) => add(t('key.commoner'), r.id));
  return [...groups].map(([name, value]) => ({ title: `${name} (${value.length})`, value }));
}

export interface StopGroup {
  title: string;
  value: string;
  rank: string;
  /** Some of its taxa are dangerous and others are not: no key stops there. */
  mixed: boolean;
}

/** Groups of two taxa and more, at which a key may stop. */
export function stopGroups(rows: readonly Schemas['StudyRow'][]): StopGroup[] {
  const byId = new Map(rows.map((r) => [r.id, r]));
  const parents = new Set(rows.filter((r) => !r.stage).map((r) => r.parent));
  /** What lies in each row, and whether it is dangerous, as it is where something above it is. */
  const within = new Map<string, { taxa: number; dangers: Set<boolean> }>();
  for (const row of rows) {
    const up: Schemas['StudyRow'][] = [];
    for (let at = byId.get(row.parent ?? ''); at && !up.includes(at); at = byId.get(at.parent ?? '')) up.push(at);
    const dangerous = [row, ...up].some((r) => isDangerous(r.hazard));
    for (const above of up) {
      const inside = within.get(above.id) ?? { taxa: 0, dangers: new Set() };
      if (!row.stage && !parents.has(row.id)) inside.taxa += 1;
      if (row.stage || !parents.has(row.id)) inside.dangers.add(dangerous);
      within.set(above.id, inside);
    }
  }
  return rows.flatMap((row) => {
    const inside = within.get(row.id);
    if (row.stage || !inside || inside.taxa < 2) return [];
    const title = `${row.rank ? `${row.rank} ` : ''}${row.label} (${inside.taxa})`;
    return [{ title, value: row.id, rank: row.rank, mixed: inside.dangers.size > 1 }];
  });
}

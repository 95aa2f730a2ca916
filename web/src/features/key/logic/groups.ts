import type { Schemas } from '@/api/client';

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

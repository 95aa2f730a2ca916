import type { Schemas } from '@/api/client';

const ROUNDING = 1e-6;

/** How many taxa a key names: the sexes and stages of one have one name. */
export function taxaOf(key: Schemas['KeyView']): number {
  const ends = [...key.couplets.flatMap((c) => c.leads.map((l) => l.terminal)), key.whole];
  return new Set(ends.flatMap((e) => e?.names.map((n) => n.label) ?? [])).size;
}

/** No key whose couplets have so many leads at most has fewer expected steps. */
export function bound(key: Schemas['KeyView']): number {
  return key.figures.leastSteps ?? key.figures.entropyBound;
}

/** What may be claimed of a key. */
export function claim(key: Schemas['KeyView']): 'BOUND_MET' | Schemas['KeyView']['figures']['completion'] {
  const { expectedSteps, completion, proven } = key.figures;
  return proven && Math.abs(expectedSteps - bound(key)) < ROUNDING ? 'BOUND_MET' : completion;
}

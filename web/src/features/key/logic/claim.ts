import type { Schemas } from '@/api/client';

const ROUNDING = 1e-6;

/** How many taxa a key names: the sexes and stages of one have one name. */
export function taxaOf(key: Schemas['KeyView']): number {
  const ends = [...key.couplets.flatMap((c) => c.leads.map((l) => l.terminal)), key.whole];
  return new Set(ends.flatMap((e) => e?.names.map((n) => n.label) ?? [])).size;
}

/** What may be claimed of a key's length: the bound holds for couplets of two leads. */
export function claim(key: Schemas['KeyView']): 'BOUND_MET' | Schemas['KeyView']['figures']['completion'] {
  const { expectedSteps, entropyBound, completion, proven } = key.figures;
  const twos = key.couplets.every((c) => c.leads.length <= 2);
  return proven && twos && Math.abs(expectedSteps - entropyBound) < ROUNDING ? 'BOUND_MET' : completion;
}

import type { Schemas } from '@/api/client';

const ROUNDING = 1e-6;

/** What may be claimed of a key's length: the bound holds for couplets of two leads. */
export function claim(key: Schemas['KeyView']): 'BOUND_MET' | Schemas['KeyView']['figures']['completion'] {
  const { expectedSteps, entropyBound, completion, proven } = key.figures;
  const twos = key.couplets.every((c) => c.leads.length <= 2);
  return proven && twos && Math.abs(expectedSteps - entropyBound) < ROUNDING ? 'BOUND_MET' : completion;
}

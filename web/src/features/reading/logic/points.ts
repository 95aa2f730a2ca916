import type { Schemas } from '@/api/client';
import type { Point } from './path';

type CoupletView = Schemas['CoupletView'];
type StatementView = Schemas['StatementView'];

/** What a couplet asks, one character after another, as each of its leads says it. */
export interface Asked {
  character: string;
  /** By lead; nothing where a lead does not say anything of the character. */
  said: (StatementView | undefined)[];
}

export function askedOf(couplet: CoupletView): Asked[] {
  return (couplet.leads[0]?.statements ?? []).map(({ character }) => ({
    character,
    said: couplet.leads.map((l) => l.statements.find((s) => s.character === character)),
  }));
}

export type Because = 'AGREE' | 'NOTHING' | 'CONFLICT' | 'TENDENCIES_ONLY' | 'NEITHER';

/** By which lead to go on, and why both ways stay open, if they do. */
export interface Outcome {
  lead: number;
  doubtful: boolean;
  because: Because;
}

/**
 * Where the statements that were looked at lead: by one lead, if all of them agree on it and one of them is enough alone.
 * Otherwise nobody can tell, and the lead that more and better statements speak for is tried first.
 *
 * @param fallback the lead to try first where nothing speaks for any
 */
export function outcomeOf(couplet: CoupletView, points: Point[], fallback: number): Outcome {
  const asked = askedOf(couplet);
  const votes = points.flatMap((lead, i) =>
    typeof lead === 'number' && lead < couplet.leads.length
      ? [{ lead, enough: asked[i]?.said[lead]?.role !== 'TENDENCY' }]
      : [],
  );
  // What is only usually so may be otherwise.
  const neither = points.some((p, i) => p === 'none' && asked[i]?.said.some((s) => s && s.role !== 'TENDENCY'));
  const weights = couplet.leads.map((_, l) =>
    votes.reduce((sum, v) => sum + (v.lead === l ? (v.enough ? points.length + 1 : 1) : 0), 0),
  );
  const most = Math.max(...weights);
  const lead = most > 0 ? weights.indexOf(most) : fallback;
  if (!votes.length) return { lead, doubtful: true, because: neither ? 'NEITHER' : 'NOTHING' };
  if (votes.some((v) => v.lead !== lead)) return { lead, doubtful: true, because: 'CONFLICT' };
  if (!votes.some((v) => v.enough)) return { lead, doubtful: true, because: 'TENDENCIES_ONLY' };
  return { lead, doubtful: neither, because: neither ? 'NEITHER' : 'AGREE' };
}

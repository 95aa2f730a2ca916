import type { Schemas } from '@/api/client';

type Standing = Schemas['StandingView'];

/** A name with its rows, the likeliest first, and what it contradicts where that must be said. */
export interface Rung {
  taxon: Schemas['NameView'];
  rows: Standing[];
  best: Standing;
  contradicts: string[];
}

const WORTH_SAYING = 0.01;

/** Names in their order, sexes and stages folded in. What is likely, or above what fits every answer, says what it contradicts. */
export function ladder(standings: Standing[]): Rung[] {
  const rungs: Rung[] = [];
  for (const standing of standings) {
    const last = rungs.find((r) => r.taxon.row === standing.taxon.row);
    if (last) last.rows.push(standing);
    else rungs.push({ taxon: standing.taxon, rows: [standing], best: standing, contradicts: [] });
  }
  const lastThatFits = rungs.map((r) => r.best.mismatches === 0).lastIndexOf(true);
  rungs.forEach((rung, i) => {
    if (!rung.best.struckOut && (i < lastThatFits || rung.best.namePosterior >= WORTH_SAYING)) {
      rung.contradicts = rung.best.why.filter((w) => w.contradicts).map((w) => w.label);
    }
  });
  return rungs;
}

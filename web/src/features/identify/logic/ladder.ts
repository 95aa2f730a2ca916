import type { Schemas } from '@/api/client';

type Standing = Schemas['StandingView'];

/** A name with its rows, the likeliest first, and what it contradicts where that must be said. */
export interface Rung {
  taxon: Schemas['NameView'];
  rows: Standing[];
  best: Standing;
  contradicts: string[];
}

const FIRST = 3;

/** "Leaf tip" as it stands within a sentence; abbreviations keep their capitals. */
const inASentence = (label: string) => (/^.[A-Z]/.test(label) ? label : label.charAt(0).toLowerCase() + label.slice(1));

/** Names in their order, sexes and stages folded in. Who stands first, or above one that fits every answer, says what it contradicts. */
export function ladder(standings: Standing[]): Rung[] {
  const rungs: Rung[] = [];
  for (const standing of standings) {
    const last = rungs.find((r) => r.taxon.row === standing.taxon.row);
    if (last) last.rows.push(standing);
    else rungs.push({ taxon: standing.taxon, rows: [standing], best: standing, contradicts: [] });
  }
  const lastThatFits = rungs.map((r) => r.best.mismatches === 0).lastIndexOf(true);
  rungs.forEach((rung, i) => {
    if (!rung.best.struckOut && (i < lastThatFits || i < FIRST)) {
      rung.contradicts = rung.best.why.filter((w) => w.contradicts).map((w) => inASentence(w.label));
    }
  });
  return rungs;
}

import type { Schemas } from '@/api/client';
import { letterOf, namesBelow, numbered } from '@/features/key';
import { isDangerous } from '@/shared/taxon/hazards';

type KeyView = Schemas['KeyView'];
type CoupletView = Schemas['CoupletView'];

/** A lead that a reader went by. */
export interface Step {
  couplet: number;
  /** Place of the lead in its couplet. */
  lead: number;
  /** Whether the reader could not tell, and tries this lead first. */
  doubtful: boolean;
  /** What was said of each statement, where they were looked at one by one. */
  points?: Point[];
}

/** In which lead what a statement asks is true: its place, in none of them, or nobody looked. */
export type Point = number | 'none' | null;

/** Where a reader stands: at a couplet, or at an end. */
export interface Place {
  steps: Step[];
  couplet?: CoupletView;
  terminal?: Schemas['TerminalView'];
}

const LETTERS = 'abcdefgh';
const DOUBT = '~';
const BETWEEN = '.';
const POINTS = '_';
const NONE = 'x';
const UNSEEN = '-';
/** As the server is told. */
const IN_NONE = -1;
const NOT_EXAMINED = -2;

/** The steps of an address; what is no step is left out. */
export function stepsIn(text: string): Step[] {
  return text.split(BETWEEN).flatMap((part) => {
    const [, couplet, letter = '', doubt, said] = /^(\d+)([a-h])(~?)(?:_([a-hx-]+))?$/.exec(part) ?? [];
    if (!couplet) return [];
    const step = { couplet: Number(couplet), lead: LETTERS.indexOf(letter), doubtful: doubt === DOUBT };
    return said ? [{ ...step, points: [...said].map(pointOf) }] : [step];
  });
}

const pointOf = (mark: string): Point => (mark === UNSEEN ? null : mark === NONE ? 'none' : LETTERS.indexOf(mark));
const markOf = (point: Point) => (point === null ? UNSEEN : point === 'none' ? NONE : letterOf(point));

export function textOf(steps: Step[]): string {
  return steps
    .map((s) => {
      const points = s.points ? POINTS + s.points.map(markOf).join('') : '';
      return `${s.couplet}${letterOf(s.lead)}${s.doubtful ? DOUBT : ''}${points}`;
    })
    .join(BETWEEN);
}

/** The way as the server takes it: what was examined on it is evidence. */
export function wayOf(key: number, steps: Step[]): Schemas['WayRequest'] {
  return {
    key,
    steps: steps.map(({ couplet, lead, doubtful, points }) => ({
      couplet,
      lead,
      doubtful,
      ...(points ? { points: points.map((p) => (p === 'none' ? IN_NONE : (p ?? NOT_EXAMINED))) } : {}),
    })),
  };
}

/** Where some steps lead, as far as they are those of this key. */
export function placeOf(key: KeyView, steps: Step[]): Place {
  const byNumber = numbered(key);
  const taken: Step[] = [];
  const first = key.couplets[0];
  if (!first) return { steps: [], terminal: key.whole };
  let at: CoupletView = first;
  for (const step of steps) {
    const lead: Schemas['LeadView'] | undefined = at.number === step.couplet ? at.leads[step.lead] : undefined;
    if (!lead) break;
    taken.push(step);
    const next = lead.couplet === undefined ? undefined : byNumber.get(lead.couplet);
    if (!next) return { steps: taken, terminal: lead.terminal };
    at = next;
  }
  return { steps: taken, couplet: at };
}

/** What it may still be: what lies ahead, and where a reader could not tell also what lies by the other leads; dangers first. */
export function stillPossible(key: KeyView, place: Place): Schemas['NameView'][] {
  const byNumber = numbered(key);
  const ahead = place.couplet
    ? place.couplet.leads.flatMap((l) => namesBelow(byNumber, l))
    : (place.terminal?.names ?? []);
  const beside = place.steps
    .filter((s) => s.doubtful)
    .flatMap((s) => byNumber.get(s.couplet)?.leads.filter((_, l) => l !== s.lead) ?? [])
    .flatMap((l) => namesBelow(byNumber, l));
  const all = [...new Map([...ahead, ...beside].map((n) => [n.row, n])).values()];
  return all.sort((a, b) => Number(isDangerous(b.hazard)) - Number(isDangerous(a.hazard)));
}

/** Every way on which a key names a row, or the group that stands for it; the shortest first. */
export function waysTo(key: KeyView, row: string): Step[][] {
  const byNumber = numbered(key);
  const found: Step[][] = [];
  const walk = (couplet: CoupletView, steps: Step[]) =>
    couplet.leads.forEach((lead, l) => {
      const here = [...steps, { couplet: couplet.number, lead: l, doubtful: false }];
      const next = lead.couplet === undefined ? undefined : byNumber.get(lead.couplet);
      if (next) walk(next, here);
      else if ([lead.terminal?.group, ...(lead.terminal?.names ?? [])].some((n) => n?.row === row)) found.push(here);
    });
  if (key.couplets[0]) walk(key.couplets[0], []);
  return found.sort((a, b) => a.length - b.length);
}

/**
 * The way to the last couplet at which two taxa part. Numbers of couplets change from edition to edition; what a couplet separates
 * is its name.
 */
export function wayBetween(key: KeyView, one: string, other: string): Step[] | undefined {
  let last: Step[] | undefined;
  for (const a of waysTo(key, one)) {
    for (const b of waysTo(key, other)) {
      const parted = a.findIndex((step, i) => step.couplet === b[i]?.couplet && step.lead !== b[i].lead);
      if (parted >= 0 && parted >= (last?.length ?? 0)) last = a.slice(0, parted);
    }
  }
  return last;
}

/** The first names that lie below a lead nearly always do. */
const TRIED = 5;

/** Two taxa that part at a couplet, and at none after it; none where every name stands in all of its leads. */
export function pairAt(key: KeyView, couplet: CoupletView): [string, string] | undefined {
  const byNumber = numbered(key);
  const [first = [], ...others] = couplet.leads.map((l) => namesBelow(byNumber, l).map((n) => n.row));
  for (const one of first.slice(0, TRIED)) {
    for (const other of others.flat().slice(0, TRIED)) {
      const way = one === other ? undefined : wayBetween(key, one, other);
      if (way && placeOf(key, way).couplet?.number === couplet.number) return [one, other];
    }
  }
  return undefined;
}

/** What decides for a lead, in short. */
export function decidingText(key: KeyView, way: { couplet: number; lead: number }, plain: boolean): string {
  const lead = key.couplets.find((c) => c.number === way.couplet)?.leads[way.lead];
  const deciding = lead?.statements.find((s) => s.role === 'DECIDING') ?? lead?.statements[0];
  return (plain ? deciding?.plainText : deciding?.text) ?? '';
}

/** Another way that a reader may have to go. */
export interface OtherWay {
  couplet: number;
  lead: number;
  doubtful: boolean;
  steps: Step[];
}

/** The leads beside the way: first those where the reader could not tell, then those that are misread most often. */
export function otherWays(key: KeyView, steps: Step[]): OtherWay[] {
  const byNumber = numbered(key);
  return steps
    .flatMap((step, i) => {
      const couplet = byNumber.get(step.couplet);
      return (couplet?.leads ?? []).flatMap((_, lead) =>
        lead === step.lead
          ? []
          : [
              {
                couplet: step.couplet,
                lead,
                doubtful: step.doubtful,
                misread: couplet?.misread ?? 0,
                // What was said of the statements was said for the other lead.
                steps: [...steps.slice(0, i), { couplet: step.couplet, lead, doubtful: step.doubtful }],
              },
            ],
      );
    })
    .sort((a, b) => Number(b.doubtful) - Number(a.doubtful) || b.misread - a.misread)
    .map(({ couplet, lead, doubtful, steps: way }) => ({ couplet, lead, doubtful, steps: way }));
}

/** The lead with most names below it: what is tried first by who cannot tell. */
export function leadToMost(key: KeyView, couplet: CoupletView): number {
  const byNumber = numbered(key);
  const counts = couplet.leads.map((l) => new Set(namesBelow(byNumber, l).map((n) => n.label)).size);
  return counts.indexOf(Math.max(...counts));
}

import type { Schemas } from '@/api/client';
import type { Wish } from './wish';

type Couplet = Schemas['CoupletView'];
type Question = Wish['questions'][number];

/** A question that is set, and the number of the couplet that asks it; none where it is not asked. */
export interface Placed {
  question: Question;
  couplet?: number;
}

const isAt = (key: Schemas['KeyView'], couplet: Couplet, rows: readonly string[]) =>
  rows.length
    ? rows.length === couplet.rows.length && couplet.rows.every((r) => rows.includes(r))
    : couplet === key.couplets[0];

/** Where a key asks what was set. */
export function placed(key: Schemas['KeyView'], questions: readonly Question[]): Placed[] {
  return questions.map((question) => ({
    question,
    couplet: key.couplets.find((c) => c.character === question.character && isAt(key, c, question.rows))?.number,
  }));
}

/** The questions with which a couplet asks another character, and the couplets above it ask what they ask now. */
export function withQuestion(
  key: Schemas['KeyView'],
  questions: readonly Question[],
  couplet: Couplet,
  character: string,
): Question[] {
  const way: Question[] = [];
  let at: Couplet | undefined = couplet;
  while (at) {
    way.unshift({ character: at === couplet ? character : at.character, rows: at === key.couplets[0] ? [] : at.rows });
    const from: number | undefined = at.from;
    at = from === undefined ? undefined : key.couplets.find((c) => c.number === from);
  }
  const there = (question: Question) => [...question.rows].sort().join();
  const places = new Set(way.map(there));
  return [...questions.filter((q) => !places.has(there(q))), ...way];
}

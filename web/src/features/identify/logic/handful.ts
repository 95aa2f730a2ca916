import type { Schemas } from '@/api/client';
import { decode, encode, type Given } from './answers';

/** What was seen of each individual of a handful, in their order. */
export type Each = Given[][];

export const MOST_INDIVIDUALS = 60;
const GROUPS = '|';
const OF = '/';

/** "1–3, 5": whole numbers as people list them. */
export function listed(places: number[], dash = '–', comma = ', '): string {
  const runs: [number, number][] = [];
  for (const place of places) {
    const last = runs.at(-1);
    if (last && place === last[1] + 1) last[1] = place;
    else runs.push([place, place]);
  }
  return runs
    .map(([from, to]) => (from === to ? `${from}` : `${from}${to === from + 1 ? comma : dash}${to}`))
    .join(comma);
}

/** As one short text for the address: individuals of which the same was seen stand together. */
export function encodeEach(each: Each): string {
  const groups = new Map<string, number[]>();
  each.forEach((answers, i) => {
    const text = encode(answers);
    if (text) groups.set(text, [...(groups.get(text) ?? []), i + 1]);
  });
  return [...groups].map(([text, places]) => listed(places, '-', '.') + OF + text).join(GROUPS);
}

/** Reads an address for so many individuals; what the key does not know is left out. */
export function decodeEach(text: string, count: number, characters: Schemas['StudyCharacter'][]): Each {
  const each: Each = Array.from({ length: count }, () => []);
  for (const group of text.split(GROUPS)) {
    const at = group.indexOf(OF);
    if (at < 0) continue;
    const answers = decode(group.slice(at + 1), characters);
    for (const run of group.slice(0, at).split('.')) {
      const [from = 0, to = from] = run.split('-').map(Number);
      for (let place = Math.max(1, from); place <= Math.min(to, count); place++) each[place - 1] = answers;
    }
  }
  return each;
}

/** The same handful after some individuals were answered; without an answer it is withdrawn from them. */
export function answered(each: Each, places: number[], character: string, answer: Given | null): Each {
  return each.map((answers, i) => {
    if (!places.includes(i + 1)) return answers;
    const others = answers.filter((a) => a.character !== character);
    const next = answer ? [...others, answer] : others;
    // In one order, so that individuals of which the same was seen are alike.
    return next.sort((a, b) => a.character.localeCompare(b.character, 'en'));
  });
}

/** Those of which nothing was said of a character yet. */
export const unanswered = (each: Each, character: string) =>
  each.flatMap((answers, i) => (answers.some((a) => a.character === character) ? [] : [i + 1]));

/**
 * What to look at next: what most others were looked at for, then what is asked of those that were looked at least. What was
 * passed over ("not sure") is no evidence, but is not asked again.
 *
 * @param first which characters are asked before others
 */
export function nextQuestion(
  groups: Schemas['HandfulGroup'][],
  each: Each,
  first: (character: string) => boolean,
): string | undefined {
  const leastFirst = [...groups].sort((a, b) => a.found.said.length - b.found.said.length);
  for (const group of leastFirst) {
    const open = (character: string) => unanswered(each, character).some((place) => group.individuals.includes(place));
    const asked = group.found.questions.map((q) => q.character).filter(open);
    const next = group.missing.find(open) ?? asked.find(first) ?? asked[0];
    if (next) return next;
  }
  return undefined;
}

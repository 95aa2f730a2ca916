import type { Schemas } from '@/api/client';
import { RULES, type Rule } from '@/features/body-measures';
import type { ViewingConditions } from '@/shared/viewing/conditions';

export type Certainty = 'SURE' | 'LIKELY' | 'UNSURE';

export interface Given {
  character: string;
  /** Ids of states; several mean "one of these". */
  states: string[];
  value: number | null;
  /** Give or take, of a range; without it what is usual. */
  spread?: number;
  /** By which a length was told; then the value is how many times. */
  rule?: Rule;
  certainty: Certainty;
  /** What other independent looks showed: another flower of the same plant, another person. One state each. */
  again?: string[];
  /** "Not sure" and "cannot see": recorded, but no evidence. */
  passed: 'not-sure' | 'cannot-see' | null;
}

/** As many looks at one character count. */
export const MOST_LOOKS = 4;

const MARK: Record<Certainty, string> = { SURE: '', LIKELY: '~', UNSURE: '!' };

/** Answers as one short text for the address, so that a state of the key can be linked to. */
export function encode(answers: Given[]): string {
  return answers
    .map((a) => {
      const said =
        a.passed ??
        (a.value !== null
          ? `=${a.value}${a.spread ? `±${a.spread}` : ''}${a.rule ? `*${a.rule}` : ''}`
          : a.states.join('+'));
      const again = (a.again ?? []).map((state) => `;${state}`).join('');
      return `${a.character}:${said}${again}${a.passed ? '' : MARK[a.certainty]}`;
    })
    .join(',');
}

/** Reads an address; what no longer exists in the key is left out. */
export function decode(text: string, characters: Schemas['StudyCharacter'][]): Given[] {
  const answers: Given[] = [];
  for (const part of text.split(',').filter(Boolean)) {
    const at = part.indexOf(':');
    const character = characters.find((c) => c.id === part.slice(0, at));
    if (!character || answers.some((a) => a.character === character.id)) continue;
    const given = decodeOne(part.slice(at + 1), character);
    if (given) answers.push(given);
  }
  return answers;
}

function decodeOne(said: string, character: Schemas['StudyCharacter']): Given | null {
  const base = { character: character.id, states: [] as string[], value: null, certainty: 'SURE' as Certainty };
  if (said === 'not-sure' || said === 'cannot-see') return { ...base, passed: said };
  const certainty: Certainty = said.endsWith('~') ? 'LIKELY' : said.endsWith('!') ? 'UNSURE' : 'SURE';
  const body = said.replace(/[~!]$/, '');
  if (body.startsWith('=')) {
    const [told = '', name] = body.slice(1).split('*');
    const [middle, around] = told.split('±');
    const value = Number(middle);
    const spread = around === undefined ? 0 : Number(around);
    const rule = RULES.find((r) => r === name);
    if (!Number.isFinite(value) || !(spread >= 0) || (name !== undefined && !rule)) return null;
    return { ...base, value, certainty, passed: null, ...(spread ? { spread } : {}), ...(rule ? { rule } : {}) };
  }
  const [seen = '', ...looks] = body.split(';');
  const states = seen.split('+').filter((s) => isState(s, character));
  const again = looks.filter((s) => isState(s, character)).slice(0, MOST_LOOKS - 1);
  return states.length ? { ...base, states, certainty, passed: null, ...(again.length ? { again } : {}) } : null;
}

function isState(id: string, character: Schemas['StudyCharacter']): boolean {
  return character.type === 'MONTHS' ? /^([1-9]|1[0-2])$/.test(id) : character.states.some((s) => s.id === id);
}

/** What is evidence of it, as the server takes it. */
export function answersOf(answers: Given[], measuredOf: (rule: Rule) => number[]): Schemas['AnswerRequest'][] {
  return answers
    .filter((a) => a.passed === null)
    .map((a) => ({
      character: a.character,
      states: a.states,
      certainty: a.certainty,
      ...(a.value === null ? {} : { value: a.value }),
      ...(a.spread ? { uncertainty: a.spread } : {}),
      ...(a.rule ? { rule: a.rule, measured: measuredOf(a.rule) } : {}),
      ...(a.again?.length
        ? { further: a.again.map((state) => ({ states: [state], certainty: 'SURE' as const })) }
        : {}),
    }));
}

/** Under which conditions answers are to be used. */
export interface Conditions {
  strikeOut: boolean;
  /** How many contradictions a name may have before it falls away. */
  tolerance: number;
  month: number;
  novice: boolean;
  measuredOf: (rule: Rule) => number[];
  presence: boolean;
  atHand: Pick<ViewingConditions, 'organs' | 'methods' | 'preserved'>;
}

/** The request of the server for these answers. */
export function requestOf(answers: Given[], of: Conditions): Schemas['IdentifyRequest'] {
  const { organs, methods, preserved } = of.atHand;
  const limited = organs.length + methods.length + preserved.length > 0;
  return {
    answers: answersOf(answers, of.measuredOf),
    strikeOut: of.strikeOut,
    tolerance: of.tolerance,
    month: of.month,
    unavailable: answers.filter((a) => a.passed !== null).map((a) => a.character),
    observer: of.novice ? 'NOVICE' : undefined,
    ...(of.presence ? {} : { presence: false }),
    ...(limited ? { atHand: { organs, methods, preserved: preserved as Schemas['AtHandRequest']['preserved'] } } : {}),
  };
}

/** A number that was answered, or the range. */
export function numberOf({ value, spread }: Given): string {
  if (value === null) return '';
  const plain = (x: number) => String(Number(x.toPrecision(6)));
  return spread ? `${plain(value - spread)}–${plain(value + spread)}` : plain(value);
}

/** Adds what another independent look showed; those beyond the fourth do not count and are not kept. */
export function lookedAgain(answers: Given[], character: string, state: string): Given[] {
  return answers.map((a) =>
    a.character === character && a.passed === null
      ? { ...a, again: [...(a.again ?? []), state].slice(0, MOST_LOOKS - 1) }
      : a,
  );
}

/** Adds or takes away a state of an answer; an answer without states is withdrawn. */
export function toggled(answers: Given[], character: string, state: string): Given[] {
  const old = answers.find((a) => a.character === character && a.passed === null);
  const had = old?.states.includes(state) ?? false;
  const states = had ? (old?.states ?? []).filter((s) => s !== state) : [...(old?.states ?? []), state];
  const rest = answers.filter((a) => a.character !== character);
  if (!states.length) return rest;
  const next: Given = {
    character,
    states,
    value: null,
    certainty: old?.certainty ?? 'SURE',
    passed: null,
    ...(old?.again ? { again: old.again } : {}),
  };
  const at = answers.findIndex((a) => a.character === character);
  return at < 0 ? [...rest, next] : answers.map((a) => (a.character === character ? next : a));
}

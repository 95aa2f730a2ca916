import type { Schemas } from '@/api/client';

export type Character = Schemas['StudyCharacter'];
export const TYPES: Character['type'][] = [
  'STATES',
  'ORDERED',
  'LENGTH',
  'MASS',
  'ANGLE',
  'PERCENT',
  'COUNT',
  'RATIO',
  'MONTHS',
];
export const METHODS = [
  'eye',
  'lens',
  'ruler',
  'caliper',
  'microscope',
  'smell',
  'touch',
  'knife',
  'reagent',
  'balance',
];
const UNITS: Partial<Record<Character['type'], string[]>> = {
  LENGTH: ['µm', 'mm', 'cm', 'm', 'in', 'ft'],
  MASS: ['mg', 'g', 'kg', 'oz', 'lb'],
  ANGLE: ['°'],
  PERCENT: ['%'],
};

export const unitsOf = (type: Character['type']) => UNITS[type] ?? [];
export const hasStates = (type: Character['type']) => type === 'STATES' || type === 'ORDERED';
export const isNumeric = (type: Character['type']) => !hasStates(type) && type !== 'MONTHS';

/** A character with nothing said of it but its organ. */
export function blank(organ: string): Character {
  return {
    id: '',
    label: '',
    question: '',
    plainQuestion: '',
    type: 'STATES',
    unit: '',
    organ,
    method: 'eye',
    note: '',
    states: [emptyState(), emptyState()],
    appliesWhen: [],
    months: [],
    effort: 1,
    harms: false,
    hazardousToObserve: false,
    tentative: false,
    misreading: 0.05,
    group: '',
    uncertainty: 0,
    where: { position: '', side: '', from: '', to: '', dimension: '', view: '', magnification: '', material: '' },
    looking: { pitfalls: '', stages: [], delayMinutes: 0, preservation: '', subject: 'ORGANISM' },
    comparator: '',
    ratioOf: [],
    trust: { origin: 'DEFAULT', groups: [] },
    use: { role: 'DECIDES' },
  };
}

export const emptyState = (): Schemas['StudyState'] => ({
  id: '',
  label: '',
  plain: '',
  definition: '',
  mistakenFor: [],
  swatch: '',
  comparedWith: '',
  picture: '',
});

/** What stands in a clause for what is seen. */
export const slotOf = (type: Character['type']) =>
  hasStates(type) ? '{states}' : type === 'MONTHS' ? '{months}' : '{value}';

/** The character with other words for one of its states; words that are empty go, as if nobody had written them. */
export function withPhrase(
  character: Character,
  state: string,
  words: keyof Schemas['Phrase'],
  text: string,
): Character {
  const states = character.states.map((one) => {
    if (one.id !== state) return one;
    const phrase = { ...one.phrase, [words]: text || undefined };
    return { ...one, phrase: Object.values(phrase).some(Boolean) ? phrase : undefined };
  });
  return { ...character, states };
}

/** The character as another type: units and states that the type does not have go. */
export function withType(character: Character, type: Character['type']): Character {
  const units = unitsOf(type);
  const common = units.includes('mm') ? 'mm' : units.includes('g') ? 'g' : (units[0] ?? '');
  return {
    ...character,
    type,
    unit: units.includes(character.unit) ? character.unit : common,
    states: hasStates(type) ? (character.states.length ? character.states : [emptyState(), emptyState()]) : [],
    uncertainty: isNumeric(type) ? character.uncertainty : 0,
    ratioOf: type === 'RATIO' ? character.ratioOf : [],
  };
}

/** A list with one of its items one place further. */
export function shifted<T>(list: T[], from: number, by: number): T[] {
  const to = from + by;
  if (to < 0 || to >= list.length) return list;
  const moved = [...list];
  moved.splice(to, 0, ...moved.splice(from, 1));
  return moved;
}

/** The place of a character after a step: before which it comes; absent: behind all. Undefined where there is no way. */
export function stepped(ids: string[], id: string, by: -1 | 1): { before?: string } | undefined {
  const at = ids.indexOf(id);
  if (at + by < 0 || at + by >= ids.length || at < 0) return undefined;
  return { before: by < 0 ? ids[at - 1] : ids[at + 2] };
}

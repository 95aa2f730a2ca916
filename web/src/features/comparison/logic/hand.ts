import type { LocationQuery, LocationQueryRaw } from 'vue-router';

/** What somebody who tells rows apart has in the hand. What is empty is not asked. */
export interface Hand {
  months: number[];
  organs: string[];
  methods: string[];
  preserved: string[];
  stages: string[];
  novice: boolean;
  safely: boolean;
}

export const EVERYTHING: Hand = {
  months: [],
  organs: [],
  methods: [],
  preserved: [],
  stages: [],
  novice: false,
  safely: false,
};

export const WINTER = [1, 2, 12];
export const TREATMENTS = ['CUT', 'DISSECTED', 'MOUNTED', 'FLUID', 'DRIED'] as const;

/** Values are joined by bars in addresses: names of organs and methods may hold commas. */
const SEPARATOR = '|';
const listed = (value: unknown) => (typeof value === 'string' ? value.split(SEPARATOR).filter(Boolean) : []);

export function fromQuery(query: LocationQuery): Hand {
  return {
    months: listed(query.months)
      .map(Number)
      .filter((m) => Number.isInteger(m) && m >= 1 && m <= 12),
    organs: listed(query.organs),
    methods: listed(query.methods),
    preserved: listed(query.preserved).filter((p) => (TREATMENTS as readonly string[]).includes(p)),
    stages: listed(query.stages),
    novice: query.novice === 'true',
    safely: query.safely === 'true',
  };
}

export function toQuery(hand: Hand): LocationQueryRaw {
  const joined = (values: (string | number)[]) => (values.length ? values.join(SEPARATOR) : undefined);
  return {
    months: joined(hand.months),
    organs: joined(hand.organs),
    methods: joined(hand.methods),
    preserved: joined(hand.preserved),
    stages: joined(hand.stages),
    novice: hand.novice ? 'true' : undefined,
    safely: hand.safely ? 'true' : undefined,
  };
}

/** The hand as the server is asked. */
export function asked(hand: Hand, more: Record<string, string | string[]> = {}): string {
  const query = new URLSearchParams();
  for (const key of ['months', 'organs', 'methods', 'preserved', 'stages'] as const)
    hand[key].forEach((value) => query.append(key, String(value)));
  if (hand.novice) query.set('observer', 'NOVICE');
  if (hand.safely) query.set('safely', 'true');
  for (const [key, value] of Object.entries(more)) [value].flat().forEach((v) => query.append(key, v));
  return query.toString();
}

export const isEverything = (hand: Hand) => asked(hand) === '';

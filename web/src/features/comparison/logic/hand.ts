import type { Schemas } from '@/api/client';
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

/** What the server is asked: what is not limited is left out. */
export function asked<T extends object = object>(hand: Hand, more?: T) {
  const some = <V>(values: V[]) => (values.length ? values : undefined);
  return {
    months: some(hand.months),
    organs: some(hand.organs),
    methods: some(hand.methods),
    preserved: some(hand.preserved) as Schemas['Looking']['alteredBy'],
    stages: some(hand.stages),
    observer: hand.novice ? ('NOVICE' as const) : undefined,
    safely: hand.safely || undefined,
    ...(more ?? ({} as T)),
  };
}

export const isEverything = (hand: Hand) => Object.values(asked(hand)).every((limit) => limit === undefined);

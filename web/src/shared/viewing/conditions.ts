import type { Schemas } from '@/api/client';
import type { LocationQuery, LocationQueryRaw } from 'vue-router';

/** What somebody who separates rows can see. What is empty is no limit. */
export interface ViewingConditions {
  months: number[];
  organs: string[];
  methods: string[];
  preserved: string[];
  stages: string[];
  novice: boolean;
  safely: boolean;
}

export const EVERYTHING: ViewingConditions = {
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

export function fromQuery(query: LocationQuery): ViewingConditions {
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

export function toQuery(conditions: ViewingConditions): LocationQueryRaw {
  const joined = (values: (string | number)[]) => (values.length ? values.join(SEPARATOR) : undefined);
  return {
    months: joined(conditions.months),
    organs: joined(conditions.organs),
    methods: joined(conditions.methods),
    preserved: joined(conditions.preserved),
    stages: joined(conditions.stages),
    novice: conditions.novice ? 'true' : undefined,
    safely: conditions.safely ? 'true' : undefined,
  };
}

/** What the server is asked: what is not limited is left out. */
export function asked<T extends object = object>(conditions: ViewingConditions, more?: T) {
  const some = <V>(values: V[]) => (values.length ? values : undefined);
  return {
    months: some(conditions.months),
    organs: some(conditions.organs),
    methods: some(conditions.methods),
    preserved: some(conditions.preserved) as Schemas['Looking']['alteredBy'],
    stages: some(conditions.stages),
    observer: conditions.novice ? ('NOVICE' as const) : undefined,
    safely: conditions.safely || undefined,
    ...(more ?? ({} as T)),
  };
}

export const isEverything = (conditions: ViewingConditions) =>
  Object.values(asked(conditions)).every((limit) => limit === undefined);

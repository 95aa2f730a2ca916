import { VueQueryPlugin } from '@tanstack/vue-query';
import { defineComponent, h, type Component } from 'vue';
import type { Schemas } from '@/api/client';
import { provideStudy, type StudyModel } from '@/study-kernel';
import { mount } from './mount';

const NOWHERE = {
  position: '',
  side: '',
  from: '',
  to: '',
  dimension: '',
  view: '',
  magnification: '',
  material: '',
};

export const state = (id: string, more: Partial<Schemas['StudyState']> = {}): Schemas['StudyState'] => ({
  id,
  label: id,
  plain: '',
  definition: '',
  mistakenFor: [],
  swatch: '',
  comparedWith: '',
  picture: '',
  ...more,
});

export const row = (id: string, more: Partial<Schemas['StudyRow']> = {}): Schemas['StudyRow'] => ({
  id,
  label: id.charAt(0).toUpperCase() + id.slice(1),
  plain: '',
  rank: 'species',
  stage: '',
  hazard: 'NONE_KNOWN',
  hazards: [],
  hybridOf: [],
  status: [],
  description: '',
  stopsHere: false,
  weight: 1,
  names: { authorship: '', synonyms: [], vernacular: [] },
  occurrence: { months: [], habitat: '', regions: [] },
  placements: [],
  naming: 'POSSIBLE',
  coverage: { covers: 'BY_RULE', rest: '', describes: 'BY_KIND' },
  assessment: { source: '' },
  constant: [],
  ...more,
});

export const character = (id: string, more: Partial<Schemas['StudyCharacter']> = {}): Schemas['StudyCharacter'] => ({
  id,
  label: id,
  question: `What of ${id}?`,
  plainQuestion: '',
  note: '',
  organ: 'leaf',
  method: 'eye',
  type: 'STATES',
  unit: '',
  states: [],
  appliesWhen: [],
  months: [],
  effort: 1,
  harms: false,
  hazardousToObserve: false,
  tentative: false,
  misreading: 0.05,
  uncertainty: 0,
  group: '',
  where: NOWHERE,
  looking: { pitfalls: '', stages: [], delayMinutes: 0, preservation: '', subject: 'ORGANISM' },
  comparator: '',
  ratioOf: [],
  trust: { origin: 'DEFAULT', groups: [] },
  use: { role: 'DECIDES' },
  ...more,
});

export const study = (more: Partial<Schemas['StudyView']> = {}): Schemas['StudyView'] => ({
  slug: 'meadow',
  title: 'Meadow plants',
  revision: 7,
  role: 'OWNER',
  rows: [row('mild'), row('bane', { hazard: 'SERIOUS' })],
  characters: [character('margin')],
  glossary: [],
  references: [],
  claims: [],
  pictures: [],
  specimens: [],
  blind: false,
  counts: { rows: [0, 0], characters: [0], specimens: {} },
  revisions: {},
  nearButOutside: [],
  outside: [],
  standing: [],
  scope: {
    group: '',
    covers: 'Two plants',
    leavesOut: '',
    region: '',
    stages: '',
    audience: '',
    equipment: '',
    months: [],
    gatheredForFood: false,
    cautions: [],
    bodyPlan: { plan: '', parts: [] },
    losses: [],
  },
  progress: {
    taxa: 2,
    taxaInKeys: 2,
    characters: 1,
    cells: 2,
    scored: 0,
    notAssessed: 0,
    withoutQuestion: 0,
    editions: 0,
  },
  ...more,
});

/** Mounts a page of a study as its frame does; `model` is the study that the page sees. */
export async function mountInStudy(page: Component, path = '/') {
  let model: StudyModel | undefined;
  const frame = defineComponent({
    setup() {
      model = provideStudy('meadow');
      return () => h(page);
    },
  });
  const mounted = await mount(frame, {}, [], [VueQueryPlugin], path);
  return { ...mounted, model: model as StudyModel };
}

import { VueQueryPlugin } from '@tanstack/vue-query';
import { defineComponent, h, type Component } from 'vue';
import type { Schemas } from '@/api/client';
import { provideStudy, type StudyModel } from '@/features/study';
import { mount } from './mount';

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
  ...more,
});

export const study = (more: Partial<Schemas['StudyView']> = {}): Schemas['StudyView'] => ({
  slug: 'meadow',
  title: 'Meadow plants',
  revision: 7,
  role: 'OWNER',
  rows: [row('mild'), row('bane', { hazard: 'SERIOUS' })],
  characters: [character('margin')],
  cells: [],
  revisions: {},
  nearButOutside: [],
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
  },
  gauges: {
    taxa: 2,
    rowsInKeys: 2,
    characters: 1,
    cells: 2,
    scored: 0,
    notAssessed: 0,
    withoutQuestion: 0,
    editions: 0,
  },
  nextStep: { code: 'score', stage: 'score', subject: '', count: 2 },
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

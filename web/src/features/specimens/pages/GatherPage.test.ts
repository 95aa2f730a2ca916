import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { character, mountInStudy, study } from '@/testing/study';
import { blankSpecimen } from '../logic/specimens';
import GatherPage from './GatherPage.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';
const named: Schemas['Determination'] = {
  row: 'mild',
  qualifier: 'cf.',
  kind: 'DETERMINED',
  by: 'Oswin',
  date: '2031',
  how: '',
  characters: ['margin'],
};
const voucher: Schemas['Specimen'] = {
  ...blankSpecimen(),
  id: 'v-1',
  code: 'V 1',
  determinations: [named],
  event: { ...blankSpecimen().event, place: 'the weir', date: '2031-05-04', uncertainty: 20 },
};

async function open(path = '/', more: Partial<Schemas['StudyView']> = {}) {
  server.on(
    `GET ${PATH}`,
    study({
      characters: [character('margin')],
      specimens: [voucher, { ...blankSpecimen(), id: 'v-2', code: 'V 2', note: 'wilted' }],
      counts: { rows: [0, 0], characters: [0], specimens: { 'v-1': 2 } },
      revisions: { 'specimen/v-1': 5 },
      ...more,
    }),
  );
  const page = await mountInStudy(GatherPage, path);
  await vi.waitFor(() => expect(page.text()).toContain('V 1'));
  return page;
}

test('a specimen is told by its present name, what gave it, and what rests on it', async () => {
  const page = await open();
  expect(page.text().replace(/\s+/g, ' ')).toContain(
    'V 1 cf. Mild det. Oswin 2031 · by margin · the weir, 2031-05-04 · 2 scores rest on it',
  );
  expect(page.text()).toContain('Not determined');
});

test('naming again keeps the earlier name; a refusal keeps what was typed', async () => {
  server.on(`PUT ${PATH}/specimens`, new Refusal(422, { code: 'rules', detail: "'4 May' is not a date." }));
  const page = await open('/?specimen=v-1');
  await vi.waitFor(() => expect(page.all('form.shelf')).toHaveLength(1));
  page.byText('button', 'Name it again').click();
  await nextTick();
  expect(page.all('details.determination')).toHaveLength(2);
  page.all('form.shelf')[0]?.dispatchEvent(new Event('submit', { cancelable: true }));
  await vi.waitFor(() => expect(page.text()).toContain('is not a date'));
  const [sent] = server.bodies(`PUT ${PATH}/specimens`) as [{ specimen: Schemas['Specimen']; baseRevision: number }];
  expect(sent.baseRevision).toBe(5);
  expect(sent.specimen.determinations[0]).toEqual(named);
  expect(sent.specimen.determinations[1]).toMatchObject({ row: 'mild', kind: 'CONFIRMED', characters: [] });
  expect(page.all('details.determination')).toHaveLength(2);
});

test('where it was found and what was done to it is sent as typed; an emptied field says nothing', async () => {
  server.on(`PUT ${PATH}/specimens`, { id: 'v-1', revision: 6 });
  const page = await open('/?specimen=v-1');
  await vi.waitFor(() => expect(page.all('form.shelf')).toHaveLength(1));
  page.byText('button', 'Add a treatment').click();
  await nextTick();
  const type = (label: string, text: string) => {
    const input = page.byText('.v-field label', label).closest('.v-field')?.querySelector('input');
    if (!input) throw new Error(`No field '${label}'`);
    input.value = text;
    input.dispatchEvent(new Event('input'));
  };
  type('Latitude, longitude', "54°07'N 2°20'W");
  type('Uncertainty (metres)', '');
  type('Where it is kept', 'cupboard 3');
  await nextTick();
  page.all('form.shelf')[0]?.dispatchEvent(new Event('submit', { cancelable: true }));
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/specimens`)).toHaveLength(1));
  const [sent] = server.bodies(`PUT ${PATH}/specimens`) as [{ specimen: Schemas['Specimen'] }];
  expect(sent.specimen.event).toEqual({
    ...blankSpecimen().event,
    place: 'the weir',
    date: '2031-05-04',
    coordinates: "54°07'N 2°20'W",
  });
  expect(sent.specimen.treatments).toEqual([{ how: 'DRIED', date: '', note: '' }]);
  expect(sent.specimen.storage).toBe('cupboard 3');
});

test('who may not edit reads the specimens and changes none', async () => {
  const page = await open('/?specimen=v-1', { role: 'SCORER' });
  expect(page.all('form.shelf, li button')).toHaveLength(0);
});

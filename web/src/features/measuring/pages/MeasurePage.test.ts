import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { character, mountInStudy, study } from '@/testing/study';
import MeasurePage from './MeasurePage.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';

const specimen = (id: string, row: string): Schemas['Specimen'] => ({
  id,
  code: id.toUpperCase(),
  determinations: [{ row, qualifier: '', kind: 'DETERMINED', by: '', date: '', how: '', characters: [] }],
  event: { date: '', place: '', coordinates: '', collector: '', habitat: '', host: '' },
  stage: '',
  sex: '',
  treatments: [],
  storage: '',
  note: '',
});
const reading = (
  id: string,
  typed: string,
  value: number,
  more: Partial<Schemas['Reading']> = {},
): Schemas['RevisedReading'] => ({
  reading: { id, specimen: 'v1', character: 'width', typed, value, standing: 'TAKEN', by: 'Oswin', ...more },
  revision: 4,
});
const item = (id: string, value: number, more: Partial<Schemas['MeasuredItem']> = {}): Schemas['MeasuredItem'] => ({
  reading: id,
  specimen: 'v1',
  item: '',
  typed: `${value} mm`,
  value,
  states: [],
  uncertainty: 0.1,
  material: 'FRESH',
  standing: 'TAKEN',
  repaired: '',
  by: 'Oswin',
  revision: 4,
  ...more,
});
const cell = (row: string): Schemas['MeasuredCell'] => ({
  row,
  character: 'width',
  now: '',
  inherited: false,
  proposed: '',
  standing: 'TOO_FEW',
  counts: { readings: 2, items: 2, individuals: 1, collections: 0 },
  material: 'FRESH',
  leftOut: 0,
  flagged: 1,
  provisional: true,
  more: 38,
  oneGathering: false,
});

async function open(instruments: string[] = []) {
  server.on('GET /api/v1/instruments', instruments);
  server.on(
    `GET ${PATH}`,
    study({
      characters: [character('width', { type: 'LENGTH', unit: 'mm' })],
      specimens: [specimen('v1', 'bane'), specimen('v2', 'mild')],
    }),
  );
  server.on(`GET ${PATH}/changes?since=7`, { revision: 7, structure: false, characters: [] });
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  const kept = [reading('a', '4.1 mm', 4.1), reading('b', '104 mm', 104)];
  server.on(`GET ${PATH}/readings/of-specimen/v1`, { specimen: 'v1', row: 'bane', readings: kept });
  server.on(`GET ${PATH}/readings/of-character/width`, {
    character: 'width',
    unit: 'mm',
    rows: [
      {
        row: 'bane',
        items: [item('a', 4.1), item('b', 104, { cause: 'INCHES', repaired: '4.09' })],
        shares: [],
        cell: cell('bane'),
      },
    ],
  });
  const page = await mountInStudy(MeasurePage, '/?specimen=v1');
  await vi.waitFor(() => expect(page.text()).toContain('104 mm'));
  return page;
}

const field = (page: Awaited<ReturnType<typeof open>>) => page.all('.entry input')[0] as HTMLInputElement;

test('a caliper that acts as a keyboard leaves a reading with every Enter', async () => {
  const page = await open();
  server.on(`POST ${PATH}/readings`, { id: 'c', revision: 8 });
  expect(page.text()).toContain('serious');
  field(page).value = '4.3';
  field(page).dispatchEvent(new Event('input'));
  await nextTick();
  page.all('.entry')[0]?.dispatchEvent(new Event('submit', { cancelable: true }));
  await vi.waitFor(() => expect(field(page).value).toBe(''));
  expect(server.bodies(`POST ${PATH}/readings`)).toEqual([
    { readings: [{ specimen: 'v1', character: 'width', item: '', typed: '4.3' }] },
  ]);
});

test('of a pasted column, the line that is not a reading is named and nothing is lost', async () => {
  const page = await open();
  server.on(
    `POST ${PATH}/readings`,
    new Refusal(422, { code: 'readings', detail: 'x', rejections: [{ index: 2, reason: "'wide' is not a number." }] }),
  );
  const paste = Object.assign(new Event('paste', { bubbles: true, cancelable: true }), {
    clipboardData: { getData: () => '4.1\n4.2\nwide\n' },
  });
  field(page).dispatchEvent(paste);
  await vi.waitFor(() => expect(page.text()).toContain("Line 3: 'wide' is not a number."));
  const waiting = page.all('.again input')[0] as HTMLInputElement;
  expect(waiting.value).toBe('4.1; 4.2; wide');
  server.on(`POST ${PATH}/readings`, { id: 'c', revision: 8 });
  waiting.value = '4.1; 4.2; 4.4';
  waiting.dispatchEvent(new Event('input'));
  await nextTick();
  page.all('.again')[0]?.dispatchEvent(new Event('submit', { cancelable: true }));
  await vi.waitFor(() => expect(page.all('.again')).toHaveLength(0));
  expect(server.bodies(`POST ${PATH}/readings`).at(-1)).toMatchObject({
    readings: [{ typed: '4.1' }, { typed: '4.2' }, { typed: '4.4' }],
  });
});

/** Types a reading and ends it, as a hand or a caliper does. */
async function type(page: Awaited<ReturnType<typeof open>>, text: string) {
  field(page).value = text;
  field(page).dispatchEvent(new Event('input'));
  await nextTick();
  page.all('.entry')[0]?.dispatchEvent(new Event('submit', { cancelable: true }));
  await nextTick();
}

test('a reading that is refused late stays with its own specimen, and the next ones are taken', async () => {
  const page = await open();
  server.on(`GET ${PATH}/readings/of-specimen/v2`, { specimen: 'v2', row: 'mild', readings: [] });
  server.on(`POST ${PATH}/readings`, new Refusal(422, { code: 'readings', detail: "'wide' is not a number." }));
  await type(page, 'wide');
  await page.router.replace('/?specimen=v2');
  await vi.waitFor(() => expect(page.text()).toContain("'wide' is not a number."));
  server.on(`POST ${PATH}/readings`, { id: 'c', revision: 8 });
  await type(page, '4.6');
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/readings`)).toHaveLength(2));
  expect(server.bodies(`POST ${PATH}/readings`)[1]).toMatchObject({ readings: [{ specimen: 'v2', typed: '4.6' }] });
  expect(page.text()).toContain('The right reading of V1, width');
  const waiting = page.all('.again input')[0] as HTMLInputElement;
  expect(waiting.value).toBe('wide');
  waiting.value = '4.5';
  waiting.dispatchEvent(new Event('input'));
  await nextTick();
  page.all('.again')[0]?.dispatchEvent(new Event('submit', { cancelable: true }));
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/readings`)).toHaveLength(3));
  expect(server.bodies(`POST ${PATH}/readings`)[2]).toMatchObject({ readings: [{ specimen: 'v1', typed: '4.5' }] });
});

test('what a caliper types wherever the focus is goes into the field, and Tab ends it', async () => {
  const page = await open();
  server.on(`POST ${PATH}/readings`, { id: 'c', revision: 8 });
  const press = (on: EventTarget, key: string) =>
    on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  press(document.body, '4');
  expect(document.activeElement).not.toBe(field(page));
  (page.all('input[aria-label^="A caliper types"]')[0] as HTMLElement).click();
  await nextTick();
  press(document.body, '4');
  expect(document.activeElement).toBe(field(page));
  field(page).value = '4.7';
  field(page).dispatchEvent(new Event('input'));
  await nextTick();
  press(field(page), 'Tab');
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/readings`)).toHaveLength(1));
  localStorage.clear();
});

test('a slip says its likely cause, and is corrected with what it was', async () => {
  const page = await open();
  expect(page.text()).toContain('inches? It would be 4.09 mm');
  server.on(`PUT ${PATH}/readings/b`, { id: 'b', revision: 8 });
  page.byText('button', 'Write 4.09 mm').click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/readings/b`)).toHaveLength(1));
  expect(server.bodies(`PUT ${PATH}/readings/b`)[0]).toMatchObject({
    reading: { typed: '4.09 mm', note: 'was 104 mm', standing: 'TAKEN' },
    baseRevision: 4,
  });
});

test('measuring blind hides what others read', async () => {
  const page = await open();
  (page.all('input[type=checkbox]').at(-1) as HTMLInputElement).click();
  await vi.waitFor(() => expect(page.text()).not.toContain('104 mm'));
});

test('what a caliper sends is read one after the other, until it is closed', async () => {
  const heard: EventTarget[] = [];
  const closed = vi.fn();
  class Source extends EventTarget {
    close = closed;
    constructor(readonly address: string) {
      super();
      heard.push(this);
    }
  }
  vi.stubGlobal('EventSource', Source);
  const page = await open(['caliper']);
  server.on(`POST ${PATH}/readings`, { id: 'c', revision: 8 });
  await vi.waitFor(() => page.byText('button', 'Listen to the caliper (simulated)').click());
  for (const data of ['4.31 mm', '4.28 mm']) heard[0]?.dispatchEvent(new MessageEvent('reading', { data }));
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/readings`)).toHaveLength(2));
  expect(server.bodies(`POST ${PATH}/readings`)[1]).toMatchObject({ readings: [{ typed: '4.28 mm' }] });
  page.byText('button', 'Close the caliper').click();
  expect(closed).toHaveBeenCalled();
});

test('a picture to be added is of the specimen that is chosen now, and its text says so', async () => {
  const page = await open();
  server.on(`GET ${PATH}/readings/of-specimen/v2`, { specimen: 'v2', row: 'mild', readings: [] });
  const texts = () => page.all('input').map((input) => (input as HTMLInputElement).value);
  await vi.waitFor(() => expect(texts().some((text) => text.includes('V1'))).toBe(true));
  await page.router.replace('/?specimen=v2');
  await vi.waitFor(() => expect(texts().some((text) => text.includes('V2'))).toBe(true));
  expect(texts().some((text) => text.includes('V1'))).toBe(false);
});

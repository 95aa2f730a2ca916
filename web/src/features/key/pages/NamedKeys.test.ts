import { beforeEach, expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';
import { job, key, KEYS } from '../testing';
import KeyPage from './KeyPage.vue';

const server = fakeServer();
const NAMED = '/api/v1/studies/meadow/named-keys';
const REQUEST: Schemas['KeyRequest'] = {
  objective: 'FEWEST',
  evenWeights: true,
  months: [1],
  organs: [],
  methods: [],
  preserved: [],
  taxa: [],
  forbidden: [],
  hazardsFirst: false,
  questions: [],
  stages: [],
  groups: [],
  leads: 2,
  magnification: 0,
};
const line = (standing: Schemas['Standing'], name = 'Winter key'): Schemas['NamedKeyLine'] => ({
  id: 7,
  name,
  request: REQUEST,
  published: false,
  revision: 5,
  who: 'Isolde',
  at: '2026-11-30T10:00:00Z',
  figures: key('').figures,
  standing,
});
const CURRENT = { current: true, changes: 0, proven: true };
const OUTDATED = { current: false, changes: 1, proven: false };
const kept = (standing: Schemas['Standing']): Schemas['NamedKey'] => ({
  line: line(standing),
  key: key('Bark rough'),
  changes: {
    revision: 6,
    total: standing.changes,
    changes: standing.current
      ? []
      : [
          {
            kind: 'CELL',
            how: 'CHANGED',
            id: 'bane',
            character: 'margin',
            name: 'Bane × margin',
            fields: [{ name: 'SCORE', before: 'toothed', after: 'entire' }],
          },
        ],
  },
  failures: standing.proven ? [] : ['Couplet 1: Bane fits no lead.'],
});

beforeEach(() => {
  server.on(`POST ${KEYS}`, job('k1', 'DONE', 1, key('Margin entire')));
  server.on('GET /api/v1/studies/meadow/columns?character=margin', []);
});

async function open(path: string) {
  server.on('GET /api/v1/studies/meadow', study({ role: 'OWNER' }));
  return mountInStudy(KeyPage, path);
}

test('a key is kept under a name, and then shown as it was kept without being made again', async () => {
  let all: Schemas['NamedKeyLine'][] = [];
  server.on(`GET ${NAMED}`, () => all);
  server.on(`GET ${NAMED}/7`, kept(CURRENT));
  server.on(`POST ${NAMED}`, () => {
    all = [line(CURRENT)];
    return line(CURRENT);
  });
  const page = await open('/studies/meadow/key?months=1');
  await vi.waitFor(() => expect(page.text()).toContain('Margin entire'));
  page.byText('button', 'Keep this key…').click();
  const name = () => document.querySelector<HTMLInputElement>('.v-dialog input');
  await vi.waitFor(() => expect(name()?.value).toBe('January'));
  document.querySelector<HTMLFormElement>('.v-dialog form')?.requestSubmit();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query).toEqual({ kept: '7' }));
  expect(server.bodies(`POST ${NAMED}`)).toEqual([{ name: 'January', job: 'k1' }]);
  await vi.waitFor(() => expect(page.text()).toContain('Bark rough'));
  expect(page.text()).toContain('Nothing that it rests on has changed since.');
  expect(page.text()).toContain('Made for: January');
  expect(server.bodies(`POST ${KEYS}`)).toHaveLength(1);
});

test('a change of what a kept key is made for makes a new one, with the rest as it was', async () => {
  server.on(`GET ${NAMED}`, [line(CURRENT)]);
  server.on(`GET ${NAMED}/7`, kept(CURRENT));
  const page = await open('/studies/meadow/key?kept=7');
  await vi.waitFor(() => expect(page.text()).toContain('Bark rough'));
  expect(server.bodies(`POST ${KEYS}`)).toHaveLength(0);
  page.byText('button', 'Without a lens').click();
  await vi.waitFor(() => expect(page.text()).toContain('Margin entire'));
  expect(page.router.currentRoute.value.query).toEqual({ objective: 'FEWEST', months: '1', methods: 'eye' });
});

test('a key that is out of date says what changed, and stands beside the one that replaces it', async () => {
  server.on(`GET ${NAMED}`, [line(OUTDATED)]);
  server.on(`GET ${NAMED}/7`, kept(OUTDATED));
  const page = await open('/studies/meadow/key?kept=7');
  await vi.waitFor(() => expect(page.text()).toContain('It is no longer proven against the matrix as it is now.'));
  expect(page.text()).toContain('Bane × margin');
  expect(page.text()).toContain('Couplet 1: Bane fits no lead.');
  expect(page.text()).toContain('Proven when it was kept, and no longer.');
  page.byText('button', 'Update…').click();
  await vi.waitFor(() => expect(page.text()).toContain('This is what ‘Winter key’ would be today'));
  await vi.waitFor(() => expect(page.text()).toContain('Margin entire'));
  expect(page.text()).toContain('Bark rough');
  expect(page.text()).toContain('0 of its 1 couplets stand in the other key, too.');
  expect(page.all('.differs')).toHaveLength(2);
  server.on(`PUT ${NAMED}/7/key`, line(CURRENT));
  page.byText('button', 'Keep this key…').click();
  await vi.waitFor(() => expect(document.querySelector('.v-dialog')?.textContent).toContain('Replace ‘Winter key’'));
  [...document.querySelectorAll<HTMLElement>('.v-dialog button')]
    .find((b) => b.textContent?.includes('Replace'))
    ?.click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.kept).toBe('7'));
  expect(server.bodies(`PUT ${NAMED}/7/key`)).toEqual([{ job: 'k1' }]);
});

test('kept keys are put into editions, renamed and removed', async () => {
  server.on(`GET ${NAMED}`, [line(CURRENT)]);
  server.on(`PUT ${NAMED}/7`, line(CURRENT));
  server.on(`DELETE ${NAMED}/7`, undefined);
  const page = await open('/studies/meadow/key');
  await vi.waitFor(() => expect(page.text()).toContain('One kept key'));
  (page.all('.keys input')[0] as HTMLElement | undefined)?.click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${NAMED}/7`)).toEqual([{ name: 'Winter key', published: true }]));
  const press = (label: string) => document.querySelector<HTMLElement>(`button[aria-label="${label}"]`)?.click();
  press('Remove ‘Winter key’');
  await vi.waitFor(() => expect(document.querySelector('.v-dialog')?.textContent).toContain('can be generated again'));
  [...document.querySelectorAll<HTMLElement>('.v-dialog button')].find((b) => b.textContent === 'Remove')?.click();
  await vi.waitFor(() => expect(server.asked.map((a) => a.route)).toContain(`DELETE ${NAMED}/7`));
});

test('a key that is not there any more says so, and another can be asked for', async () => {
  server.on(`GET ${NAMED}`, []);
  server.on(`GET ${NAMED}/7`, new Refusal(404, { detail: 'There is nothing here.' }));
  const page = await open('/studies/meadow/key?kept=7');
  await vi.waitFor(() => expect(page.all('[role=alert]')[0]?.textContent).toContain('There is nothing here.'));
  page.byText('button', 'In winter').click();
  await vi.waitFor(() => expect(page.text()).toContain('Margin entire'));
  expect(page.router.currentRoute.value.query).toEqual({ months: '1|2|12' });
});

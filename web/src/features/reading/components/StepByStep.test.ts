import { VueQueryPlugin } from '@tanstack/vue-query';
import { beforeEach, expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { mount } from '@/testing/mount';
import { character } from '@/testing/study';
import StepByStep from './StepByStep.vue';

const name = (label: string, hazard: Schemas['NameView']['hazard'] = 'NONE_KNOWN') => ({
  row: label.toLowerCase(),
  label,
  stage: '',
  plain: '',
  rank: '',
  hazard,
  hazardText: 'deadly if eaten',
  folded: [],
});
const lead = (text: string, more: object) => ({
  text,
  plainText: `${text} in plain words`,
  statements: [
    { character: 'tip', text, plainText: `${text} in plain words`, role: 'DECIDING' },
    { character: 'stem', text: 'stem hollow', plainText: 'stem hollow', role: 'TENDENCY' },
  ],
  ...more,
});
const danger = { name: name('Bane', 'LIFE_THREATENING'), signs: ['root'] };
const end = (label: string, notRuledOut: object[] = []) => ({
  terminal: { names: [name(label)], reason: '', notRuledOut },
});
const view = {
  couplets: [
    { number: 1, character: 'tip', leads: [lead('Tip blunt', { couplet: 2 }), lead('Tip sharp', end('Acute'))] },
    {
      number: 2,
      from: 1,
      character: 'gone',
      leads: [
        lead('Leaf flat', end('Mild', [danger])),
        lead('Leaf round', { terminal: { names: [danger.name], reason: '', notRuledOut: [] } }),
      ],
    },
  ],
} as unknown as Schemas['KeyView'];

const identify = vi.fn<(request: Schemas['IdentifyRequest']) => Promise<Schemas['IdentifyResponse']>>();
beforeEach(() => {
  identify.mockReset().mockReturnValue(new Promise(() => undefined));
});

const open = (path = '/', plain = false) =>
  mount(
    StepByStep,
    {
      view,
      characters: [character('tip', { question: 'How does the leaf end?', method: 'lens', note: 'A whole leaf.' })],
      plain,
      taxonLink: '?view=taxon&taxon=',
      outside: [],
      of: 'edition/meadow/1',
      address: '/k/meadow',
      number: 0,
      identify,
    },
    [],
    [VueQueryPlugin],
    path,
  );

test('one couplet at a time: a lead is taken as a whole, the way can be gone back on, and its end says what is not ruled out', async () => {
  const page = await open();
  expect(page.text()).toContain('1 How does the leaf end?How: lens. A whole leaf.');
  expect(page.all('.card').map((c) => c.querySelector('.deciding')?.textContent)).toEqual(['Tip blunt', 'Tip sharp']);
  expect(page.text()).toContain('Still possible, and dangerous: Banelife-threatening');
  page.all('.card')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('Which of these is it?'));
  expect(page.router.currentRoute.value.query.at).toBe('1a');
  expect(document.activeElement?.tagName).toBe('H2');
  page.all('.take')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('The key ends here'));
  expect(page.text()).toContain('Not ruled out: Bane');
  expect(page.text()).toContain('No result is permission');
  expect(page.all('.possible')).toHaveLength(0);
  page.all('.trail button')[1]?.click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.at).toBe('1a'));
});

test('who cannot tell keeps both ways open, and is shown the other one first', async () => {
  const page = await open('/', true);
  page.byText('button', 'Cannot tell').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.at).toBe('1a~'));
  expect(page.text()).toContain('1a Tip blunt in plain words (could not tell)');
  expect(page.text()).toContain('Still possible: 3 taxa');
  page.all('.take')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('Went astray?'));
  expect(page.text()).toContain('Not ruled out: Bane');
  expect(page.text()).toContain('Still possible: 2 taxa');
  const other = page.all('.others a');
  expect(other.map((a) => a.textContent?.trim())).toEqual([
    '1b Tip sharp in plain words',
    '2b Leaf round in plain words',
  ]);
  other[0]?.click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.at).toBe('1b~'));
  expect(page.byText('.end a', 'Acute')).toBeTruthy();
  expect(page.text()).toContain('Still possible: 3 taxa');
});

test('statements answered one by one are kept in the way, and what was not examined is no evidence', async () => {
  const page = await open();
  page.all('.points summary')[0]?.click();
  expect(page.text()).toContain('Nothing was looked at so far: both ways stay open.');
  const radios = page.all('.points fieldset input');
  expect(radios).toHaveLength(8);
  radios[5]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('only usually so, which is never enough alone'));
  radios[1]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('What you looked at agrees on (b).'));
  radios[4]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('The statements point to different leads'));
  page.byText('.points .v-btn', 'Keep both open; try (b) first').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.at).toBe('1b~_ba'));
  await vi.waitFor(() => expect(identify).toHaveBeenCalled());
  expect(identify.mock.lastCall?.[0]).toMatchObject({
    check: 'acute',
    way: { key: 0, steps: [{ couplet: 1, lead: 1, doubtful: true, points: [1, 0] }] },
  });
});

test('at the end a name is held against its whole description, and what is missing can be answered there', async () => {
  const danger = { name: name('Bane', 'LIFE_THREATENING'), ruledOut: false, agreeing: 1, features: 2 };
  const point = (id: string, verdict: string, more = {}) => ({
    ...{ character: id, organ: '', text: `${id} sharp`, plain: '', verdict, mustShow: false, implied: false },
    ...{ recognises: true, separates: ['Bane'], others: 1, states: ['sharp'], ...more },
  });
  const answer = {
    standings: [{ name: name('Acute'), taxon: name('Acute'), namePosterior: 0.9, why: [] }],
    questions: [],
    margins: [{ ...danger, safeQuestions: ['tip'], looks: ['tip'], later: [], laterMonths: [] }],
    conclusion: 'OPEN',
    said: [{ character: 'tip', text: 'Tip sharp', plain: 'Tip sharp' }],
    contradicted: [],
    check: { name: name('Acute'), outOfSeason: false, points: [point('tip', 'AGREES'), point('stem', 'NOT_EXAMINED')] },
  };
  identify.mockReset().mockResolvedValue(answer as unknown as Schemas['IdentifyResponse']);
  const page = await open('/?at=1b');
  await vi.waitFor(() => expect(page.text()).toContain('Points that agree: 1; that disagree: 0; not examined: 1.'));
  expect(page.text()).toContain('Agrees: Tip sharp. Not so in Bane.');
  expect(page.text()).toContain('1 of about 2 agreeing looks');
  expect(page.all('.danger')).toHaveLength(1);
  page.byText('.check button', 'It agrees').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.seen).toBe('stem:sharp'));
});

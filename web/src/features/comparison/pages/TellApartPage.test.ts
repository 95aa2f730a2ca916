import { beforeEach, expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer } from '@/testing/server';
import { character, mountInStudy, row, state, study } from '@/testing/study';
import TellApartPage from './TellApartPage.vue';

const server = fakeServer();
// Plain words are a preference that outlives a page.
beforeEach(() => localStorage.clear());
const PATH = '/api/v1/studies/meadow';
const rows = [row('mild'), row('bane', { hazard: 'SERIOUS' }), row('calm'), row('calm-male', { stage: 'male' })];
const margin = character('margin', { states: [state('toothed'), state('entire')], method: 'lens' });
const fruit = character('fruit', { organ: 'fruit' });

const map = (verdicts: string[], totals: Partial<Schemas['Totals']> = {}): Schemas['PairMap'] => ({
  revision: 7,
  rows: ['mild', 'bane', 'calm'],
  similar: [2, 0, 1],
  verdicts,
  totals: { pairs: 3, firm: 1, thin: 1, tendency: 0, none: 1, ...totals },
  groups: [[0, 2]],
});

const name = (id: string, hazard: Schemas['NameView']['hazard'] = 'NONE_KNOWN'): Schemas['NameView'] => ({
  row: id,
  label: id.charAt(0).toUpperCase() + id.slice(1),
  stage: '',
  plain: '',
  rank: 'species',
  hazard,
  hazardText: hazard === 'SERIOUS' ? 'serious hazard: sap.' : 'no hazard known',
  folded: [],
});

const cell = (text: string, more: Partial<Schemas['ShownCell']> = {}): Schemas['ShownCell'] => ({
  text,
  plain: `plainly ${text}`,
  clause: `it is ${text}`,
  plainClause: `it is plainly ${text}`,
  states: [],
  individuals: 0,
  doubtful: false,
  source: '',
  ...more,
});

const point = (subject: string, more: Partial<Schemas['PointView']> = {}): Schemas['PointView'] => ({
  character: subject.toLowerCase(),
  subject,
  question: '',
  plainQuestion: '',
  organ: 'leaf',
  method: 'lens',
  where: '',
  note: '',
  pitfalls: '',
  effort: 1,
  harms: false,
  hazardous: false,
  kind: 'SEPARATES',
  bits: 1.2,
  tells: [0],
  months: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12],
  cells: [cell('toothed'), cell('entire')],
  cuts: [],
  ...more,
});

const card = (more: Partial<Schemas['ContrastCard']> = {}): Schemas['ContrastCard'] => ({
  names: [name('mild'), name('bane', 'SERIOUS')],
  pairs: [
    {
      first: 0,
      second: 1,
      verdict: 'THIN',
      bits: 1.24,
      firm: [6, 7],
      thin: [5],
      settles: 'Only one feature separates them now. What will: Jun–Jul: fruit colour.',
    },
  ],
  answer: { technical: 'Mild: margin toothed. Bane: margin entire.', plain: 'Mild: edge with teeth.' },
  gentle: true,
  points: [point('Margin')],
  later: [point('Fruit colour', { organ: 'fruit', months: [6, 7], lack: 'SEASON' })],
  shared: [point('Stem', { kind: 'SHARED', cells: [cell('round'), cell('round')] })],
  unscored: [{ character: 'fruit', subject: 'Fruit size', rows: [1] }],
  ...more,
});

async function open(query = '', more: Partial<Schemas['StudyView']> = {}) {
  server.on(`GET ${PATH}`, study({ rows, characters: [margin, fruit], ...more }));
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/apart/map`, map(['', '3', '02']));
  const page = await mountInStudy(TellApartPage, `/studies/meadow/apart${query}`);
  await vi.waitFor(() => expect(page.text()).toContain('of 3.'));
  return page;
}

const asked = () => server.asked.map((a) => a.route);

test('the map begins at the first pair that is not firm; keys go from pair to pair and open a card', async () => {
  server.on(`GET ${PATH}/apart/card?rows=calm&rows=mild`, card());
  const page = await open();
  const active = () => page.all('#active-pair')[0]?.textContent;
  // Sorted with lookalikes together: calm, mild, bane.
  await vi.waitFor(() => expect(active()).toBe('Calm and Mild: nothing separates them'));
  const grid = page.all('[role=grid]')[0];
  const press = async (key: string) => {
    grid?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await vi.waitFor(() => undefined);
  };
  await press('n');
  await vi.waitFor(() => expect(active()).toBe('Calm and Bane: separated by one feature only'));
  await press('ArrowRight');
  await vi.waitFor(() => expect(active()).toBe('Mild and Bane: separated by two features or more'));
  await press('p');
  await press('p');
  await vi.waitFor(() => expect(active()).toBe('Calm and Mild: nothing separates them'));
  await press('Enter');
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.rows).toBe('calm,mild'));
  await vi.waitFor(() => expect(page.text()).toContain('What would separate them, but not now'));
});

test('what can be seen stands in the address and is asked of the server', async () => {
  const page = await open();
  server.on(`GET ${PATH}/apart/map?months=1`, map(['', '0', '00'], { none: 3, firm: 0, thin: 0 }));
  page.all('[aria-label=January]')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('3 pairs not separated'));
  expect(page.router.currentRoute.value.query.months).toBe('1');
  server.on(`GET ${PATH}/apart/map?months=1&months=2&months=12`, map(['', '0', '00'], { none: 3 }));
  page.byText('button', 'In winter').click();
  await vi.waitFor(() => expect(asked()).toContain(`GET ${PATH}/apart/map?months=1&months=2&months=12`));
  page.byText('button', 'Everything').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.months).toBeUndefined());
});

test('a card names the danger first, says what settles the pair, and folds what is useless', async () => {
  server.on(`GET ${PATH}/apart/card?rows=mild&rows=bane`, card());
  const page = await open('?rows=mild,bane');
  await vi.waitFor(() => expect(page.text()).toContain('Mild: margin toothed. Bane: margin entire.'));
  const text = page.text();
  expect(text).toContain('serious hazard: sap.');
  expect(text.indexOf('serious hazard')).toBeLessThan(text.indexOf('Mild: margin toothed'));
  expect(text).toContain('What will: Jun–Jul: fruit colour.');
  expect(text).toContain('Without what needs smelling, cutting or touching');
  expect(text).toContain('Not in these months.');
  expect(text).toContain('No result is permission to eat, touch or collect anything.');
  const shared = page
    .all('details')
    .find((d) => d.textContent?.includes('Useless here: one character is the same, or overlaps too widely'));
  expect(shared?.hasAttribute('open')).toBe(false);
  expect(page.byText('a', 'Fruit size: unknown in Bane').getAttribute('href')).toBe(
    '/studies/meadow/score?row=bane&character=fruit',
  );
  const year = page.all('.right svg[role=img]')[0]?.getAttribute('aria-label');
  expect(year).toContain('Firmly in June, July. Thinly in May. Not in January, February');
  expect(page.byText('a', 'Plate (PDF)').getAttribute('href')).toBe(
    `${PATH}/apart/card/print?rows=mild&rows=bane&wallet=false&plain=false`,
  );
  page.all('.right input[type=checkbox]')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('Mild: edge with teeth.'));
  expect(page.text()).toContain('plainly toothed');
});

test('numbers are drawn with the cut and its band of doubt in words', async () => {
  const range = (low: number, high: number) => ({ min: low, low, high, max: high });
  const size = point('Leaf width', {
    kind: 'TENDENCY',
    tells: [],
    cells: [cell('4–7 mm', { range: range(4, 7), individuals: 9 }), cell('6–9 mm', { range: range(6, 9) })],
    cuts: [{ at: 6.5, text: 'up to 6.5 mm', below: 0, above: 1, error: 0.1666, from: 6, to: 7, individuals: 31 }],
  });
  server.on(`GET ${PATH}/apart/card?rows=mild&rows=bane`, card({ points: [size], later: [] }));
  const page = await open('?rows=mild,bane');
  await vi.waitFor(() =>
    expect(page.text()).toContain(
      'Mild: up to 6.5 mm; above: Bane. From 6 to 7 do not decide on this (17 of 100 would be taken for the other). (By 31 individuals',
    ),
  );
  expect(page.text()).toContain('n = 9');
  expect(page.all('.ranges .band')).toHaveLength(1);
  expect(page.all('.ranges .cut')).toHaveLength(1);
});

test('the list says the same as the map, filters, and opens cards', async () => {
  server.on(`GET ${PATH}/apart/card?rows=calm&rows=mild`, card());
  const page = await open('?view=list');
  const lines = () => page.all('tbody tr').map((tr) => tr.textContent?.replace(/\s+/g, ' ').trim());
  expect(lines()).toEqual([
    'CalmMildnothing separates themContrast card',
    'Calm⚠ Baneseparated by one feature onlyContrast card',
  ]);
  const find = page.all('.list input')[0] as HTMLInputElement;
  find.value = 'nothing calm';
  find.dispatchEvent(new Event('input'));
  await vi.waitFor(() => expect(page.text()).toContain('One pair is not firmly separated.'));
  page.all('[aria-label="Contrast card of Calm and Mild"]')[0]?.click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.rows).toBe('calm,mild'));
  expect(page.byText('a', 'All pairs as CSV').getAttribute('href')).toBe(`${PATH}/apart/pairs?all=true`);
});

test('a group that the matrix shows is named and kept, and forgotten again', async () => {
  server.on(`GET ${PATH}/apart/card?rows=mild&rows=calm`, card());
  server.on(`PUT ${PATH}/scope`, { revision: 8, id: '' });
  const page = await open('?rows=mild,calm');
  const field = page.all('.groups input')[0] as HTMLInputElement;
  field.value = ' Smooth ones ';
  field.dispatchEvent(new Event('input'));
  const kept = { name: 'Smooth ones', rows: ['mild', 'calm'], note: '' };
  const named = study({ rows, characters: [margin, fruit] });
  server.on(`GET ${PATH}`, { ...named, scope: { ...named.scope, lookalikes: [kept] } });
  const keep = page.byText('button', 'Keep as a group') as HTMLButtonElement;
  await vi.waitFor(() => expect(keep.disabled).toBe(false));
  keep.click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/scope`)).toHaveLength(1));
  expect(server.bodies(`PUT ${PATH}/scope`)[0]).toMatchObject({ scope: { lookalikes: [kept], covers: 'Two plants' } });
  // What is kept is not offered again.
  const forget = () => page.all('[aria-label="Forget the group Smooth ones"]');
  await vi.waitFor(() => expect(forget()).toHaveLength(1));
  expect(page.all('.groups li')).toHaveLength(1);
  forget()[0]?.click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/scope`)).toHaveLength(2));
  expect(server.bodies(`PUT ${PATH}/scope`)[1]).toMatchObject({ scope: { lookalikes: [] } });
});

test('who may only look is not asked to keep a group', async () => {
  server.on(`GET ${PATH}/apart/card?rows=mild&rows=calm`, card());
  const page = await open('?rows=mild,calm', { role: 'VIEWER' });
  expect(page.text()).toContain('Mild; Calm');
  expect(page.all('.groups input')).toHaveLength(0);
});

test('the calendar counts pairs by month and says what to check next', async () => {
  const months = Array.from({ length: 12 }, (_, i) => ({ firm: 1, thin: i === 5 ? 2 : 0, open: i === 0 ? 2 : 0 }));
  const pair = {
    first: 'mild',
    second: 'bane',
    firm: [6],
    thin: [],
    durable: [],
    fleeting: [],
    next: 'Check fruit (Jun).',
  };
  server.on(`GET ${PATH}/apart/calendar`, { count: 3, months, pairs: [pair], more: 0 });
  const page = await open('?view=calendar');
  await vi.waitFor(() => expect(page.text()).toContain('Check fruit (Jun).'));
  expect(page.all('[role=listitem]').map((m) => m.textContent?.replace(/\s+/g, ' ').trim())[0]).toContain(
    '2 not separated',
  );
  server.on(`GET ${PATH}/apart/map?months=6`, map(['', '3', '33'], { none: 0 }));
  page.byText('[role=listitem] button', 'Jun').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.months).toBe('6'));
  server.on(`GET ${PATH}/apart/card?months=6&rows=mild&rows=bane`, card());
  server.on(`GET ${PATH}/apart/calendar?rows=mild&rows=bane`, { count: 1, months, pairs: [pair], more: 0 });
  page.byText('button', 'Mild / Bane').click();
  await vi.waitFor(() => expect(page.text()).toContain('The year of Mild; Bane'));
});

test('one taxon is recognised in a sentence, with what is not proven and not told', async () => {
  server.on(`GET ${PATH}/apart/recognitions?rows=bane`, [
    {
      row: 'bane',
      dangerous: true,
      dangers: [],
      sentence: 'Recognise Bane by all of these together: margin entire.',
      plainSentence: 'Recognise Bane by its smooth edge.',
      points: [],
      cost: 3.5,
      bound: 2.75,
      completion: 'BUDGET_EXHAUSTED',
      notTold: [],
      thin: ['Mild'],
    } satisfies Schemas['Recognition'],
  ]);
  const claim = (id: string, text: string) => ({
    id,
    row: 'bane',
    kind: 'ONLY' as const,
    character: 'margin',
    states: [],
    text,
  });
  server.on(`GET ${PATH}/findings`, [
    {
      key: 'k',
      kind: 'CLAIM_FAILS',
      row: 'bane',
      character: 'margin',
      other: 'a',
      correction: '',
      acceptable: true,
      reason: "The claim 'only it is toothed' fails: see Mild.",
    },
  ] satisfies Schemas['FindingView'][]);
  const page = await open('?rows=bane', { claims: [claim('a', 'only it is toothed'), claim('b', 'always entire')] });
  await vi.waitFor(() =>
    expect(page.text()).toContain("only it is toothed: fails The claim 'only it is toothed' fails: see Mild."),
  );
  expect(page.text()).toContain('always entire: holds');
  await vi.waitFor(() => expect(page.text()).toContain('Recognise Bane by all of these together: margin entire.'));
  expect(page.text()).toContain('two features that do not depend on each other');
  expect(page.text()).toContain('By one feature only: Mild.');
  expect(page.text()).toContain('The cheapest way found (cost 3.5); none costs less than 2.8.');
});

test('a harmless taxon is distinguished from each danger by two kinds of evidence, or the danger is named', async () => {
  server.on(`GET ${PATH}/apart/recognitions?rows=mild`, [
    {
      row: 'mild',
      dangerous: false,
      dangers: ['Bane, spring shoot', 'Bane, flowering', 'Banewort'],
      sentence: 'Recognise Mild by its toothed edge.',
      plainSentence: '',
      points: [],
      cost: 3.5,
      bound: 3.5,
      completion: 'OPTIMAL',
      notTold: ['Banewort'],
      thin: ['Bane, flowering'],
    } satisfies Schemas['Recognition'],
  ]);
  const page = await open('?rows=mild');
  await vi.waitFor(() => expect(page.text()).toContain('against what is dangerous: Bane, spring shoot.'));
  expect(page.text()).toContain('By one feature only: Bane, flowering.');
});

test('too few rows for a pair teach what to do', async () => {
  server.on(`GET ${PATH}/apart/map?stages=male`, { ...map(['']), rows: ['mild'], similar: [0], groups: [] });
  const page = await open();
  await page.router.replace('/studies/meadow/apart?stages=male');
  await vi.waitFor(() => expect(page.text()).toContain('Fewer than two taxa fit what you can see.'));
});

import { VueQueryPlugin } from '@tanstack/vue-query';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { nextTick } from 'vue';
import { mount } from '@/testing/mount';
import ImportPage from './ImportPage.vue';

const fetched = vi.fn<typeof fetch>();
beforeEach(() => {
  vi.stubGlobal('fetch', fetched);
});
afterEach(() => {
  vi.unstubAllGlobals();
  fetched.mockReset();
});

const preview = {
  usable: true,
  title: 'pasted',
  rows: 2,
  characters: 1,
  scores: 2,
  specimens: 0,
  columns: [
    {
      column: 2,
      character: 'colour',
      type: 'STATES',
      unit: '',
      organ: 'leaf',
      states: ['red', 'blue'],
      scored: 2,
      guessed: true,
      open: false,
    },
  ],
  rowNames: ['Aa', 'Bb'],
  problems: [] as unknown[],
  sheets: [] as string[],
  coverings: [] as unknown[],
  unread: [] as unknown[],
  unreadCount: 0,
  account: null,
};
const problem = { row: 3, column: 2, heading: 'colour', text: "'rde' is not a state of 'colour'.", blocking: true };

async function read(body: unknown, table: string, status = 200) {
  fetched.mockResolvedValue(new Response(JSON.stringify(body), { status }));
  const page = await mount(ImportPage, {}, [], [VueQueryPlugin]);
  const area = page.all('textarea')[0] as HTMLTextAreaElement;
  area.value = table;
  area.dispatchEvent(new Event('input'));
  await nextTick();
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(fetched).toHaveBeenCalled());
  await new Promise((resolve) => setTimeout(resolve, 20));
  return page;
}

test('shows what it understood and offers to make a study', async () => {
  const page = await read(preview, 'taxon\tcolour\nAa\tred\nBb\tblue');
  expect(page.text()).toContain('Taxa, sexes and stages: 2 · Characters: 1 · Scores: 2');
  expect(page.text()).toContain('proposed from the cells');
  expect(page.byText('button', 'Create study')).toBeDefined();
  const form = fetched.mock.calls[0]?.[1]?.body as FormData;
  expect((form.get('file') as File).name).toBe('pasted.tsv');
});

test('lists every problem with its place and offers nothing to make', async () => {
  const page = await read({ ...preview, usable: false, problems: [problem] }, 'taxon,colour\nAa,rde');
  expect(page.text()).toContain('One problem');
  expect(page.text()).toContain('Row 3, column 2');
  expect(page.text()).toContain("'rde' is not a state");
  expect(page.text()).not.toContain('Create study');
  expect((page.all('textarea')[0] as HTMLTextAreaElement).value).toContain('rde');
});

test('keeps the table when the server refuses it', async () => {
  const page = await read({ code: 'too-large', detail: 'The file is too large.' }, 'taxon,colour\nAa,red', 413);
  expect(page.all('[role=alert]')[0]?.textContent).toContain('too large');
  expect((page.all('textarea')[0] as HTMLTextAreaElement).value).toContain('Aa,red');
});

test.each([
  ['score', preview],
  ['gather', { ...preview, characters: 0, scores: 0, specimens: 3, columns: [] }],
])('a file joins a study only after its changes were shown, and leads to the stage %s', async (stage, file) => {
  const change = { kind: 'ROW', how: 'ADDED', id: 'cc', character: '', name: 'Cc', fields: [] };
  const answers: Record<string, unknown> = {
    '/api/v1/studies/meadow/import/preview': { file, changes: { revision: 7, total: 1, changes: [change] } },
    '/api/v1/studies/meadow/import?baseRevision=7': { id: '', revision: 8 },
  };
  fetched.mockImplementation(async (path) => new Response(JSON.stringify(answers[path as string])));
  const page = await mount(ImportPage, {}, [], [VueQueryPlugin], '/import?into=meadow');
  const area = page.all('textarea')[0] as HTMLTextAreaElement;
  area.value = 'taxon,colour\nCc,red\n';
  area.dispatchEvent(new Event('input'));
  await nextTick();
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(page.text()).toContain('One thing changes.'));
  expect(page.text()).toContain('Cc');
  expect(page.text()).not.toContain('Create study');
  page.byText('button', 'Make these changes').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.path).toBe(`/studies/meadow/${stage}`));
  expect(fetched.mock.calls.map((c) => c[0])).toEqual(Object.keys(answers));
});

test('a broken table of specimens says what is wrong with it, and is not taken for a matrix', async () => {
  const page = await read(
    { ...preview, usable: false, rows: 0, specimens: 1, scores: 0, columns: [], problems: [problem] },
    'specimen,date\nV 1,4 May',
  );
  await vi.waitFor(() => expect(page.text()).toContain("'rde' is not a state"));
  expect(fetched.mock.calls.map((c) => c[0])).toEqual(['/api/v1/imports/preview']);
});

test('a table made for people is shown as it stands, and read by what its columns hold', async () => {
  const none = { ...preview, usable: false, rows: 0, characters: 0, scores: 0, columns: [], problems: [problem] };
  const column = (role: string, label: string) => ({ role, label, organ: '', unit: '' });
  const mapping = {
    titleRows: 0,
    headingRows: 1,
    decimalComma: false,
    fillDown: false,
    transposed: false,
    footnotes: false,
    marks: [],
    blanks: ['-'],
    columns: [column('TAXON', 'Species'), column('CHARACTER', 'width')],
  };
  const sheet = {
    rows: [
      ['Species', 'width'],
      ['Aa', '4'],
    ],
    mapping,
    remembered: false,
    problems: [],
  };
  const sent: FormData[] = [];
  fetched.mockImplementation(async (path, init) => {
    const form = init?.body as FormData;
    sent.push(form);
    const answer = path === '/api/v1/imports/sheet' ? sheet : form.get('mapping') ? preview : none;
    return new Response(JSON.stringify(answer));
  });
  const page = await mount(ImportPage, {}, [], [VueQueryPlugin]);
  const area = page.all('textarea')[0] as HTMLTextAreaElement;
  area.value = 'Species,width\nAa,4';
  area.dispatchEvent(new Event('input'));
  await nextTick();
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(page.text()).toContain('Taxa, sexes and stages: 2'));
  expect(page.text()).toContain('The table as it stands');
  const role = page.all('th select')[1] as HTMLSelectElement;
  role.value = 'IGNORED';
  role.dispatchEvent(new Event('change'));
  await vi.waitFor(() => expect(sent).toHaveLength(4));
  expect(JSON.parse(String(sent[3]?.get('mapping'))).columns[1].role).toBe('IGNORED');
});

test('another sheet of a workbook is read, and asked for from then on', async () => {
  const page = await read({ ...preview, sheets: ['notes', 'scores'] }, 'taxon\tcolour\nAa\tred');
  expect(page.text()).toContain('Sheet of the workbook');
  fetched.mockImplementation(() =>
    Promise.resolve(new Response(JSON.stringify({ ...preview, sheets: ['notes', 'scores'] }))),
  );
  const select = page.all('.v-select input')[0] as HTMLInputElement;
  select.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
  const option = await vi.waitFor(() => {
    const found = [...document.querySelectorAll<HTMLElement>('.v-overlay [role=option]')].find((o) =>
      o.textContent?.includes('scores'),
    );
    if (!found) throw new Error('no option yet');
    return found;
  });
  option.click();
  await vi.waitFor(() => {
    const form = fetched.mock.lastCall?.[1]?.body as FormData;
    expect(form.get('sheet')).toBe('scores');
  });
});

test('asks once a kind whether what stands below taxa is all, and reads the table again with the answer', async () => {
  const rows = Array.from({ length: 10 }, (_, i) => `Sedge ${i + 1}`);
  const coverings = [{ kind: 'SEXES_AND_STAGES', covered: false, rows }];
  const page = await read({ ...preview, coverings }, 'taxon\tcolour\nAa\tred\nBb\tblue');
  expect(page.text()).toContain('Sedge 8; and 2 more');
  const choices = page.all('input[type=radio]') as HTMLInputElement[];
  expect(choices.map((c) => c.checked)).toEqual([false, true]);
  fetched.mockResolvedValue(new Response(JSON.stringify({ ...preview, coverings })));
  choices[0]?.click();
  await vi.waitFor(() => expect(fetched).toHaveBeenCalledTimes(2));
  const form = fetched.mock.calls[1]?.[1]?.body as FormData;
  expect(JSON.parse(form.get('coverings') as string)).toEqual([
    { kind: 'SEXES_AND_STAGES', covered: false, covers: 'ALL' },
  ]);
});

const cell = (row: string, line: number, text: string, nearest: string[] = []) => ({
  line,
  column: 2,
  heading: 'colour',
  row,
  text,
  reason: `'${text}' is not a state of 'colour'.`,
  nearest,
});
const sentOf = (call: number, field: string) =>
  JSON.parse(String((fetched.mock.calls[call]?.[1]?.body as FormData).get(field)));

test('cells that cannot be read are corrected here, a text of a column once, or each on its own', async () => {
  const unread = [cell('Aa', 2, 'rde', ['red', 'green']), cell('Bb', 3, 'rde', ['red', 'green']), cell('Cc', 4, '??')];
  const page = await read({ ...preview, usable: false, unread, unreadCount: 3 }, 'taxon,colour\nAa,rde');
  expect(page.text()).toContain('3 cells could not be read');
  expect(page.text()).toContain('2 cells with this text');
  page.byText('button', 'green').click();
  await nextTick();
  expect(page.byText('button', 'Correct 2 cells')).toBeDefined();
  fetched.mockImplementation(async () => new Response(JSON.stringify(preview)));
  page.byText('button', 'Take what is left (one cell) as unknown and keep its text as a note').click();
  await vi.waitFor(() => expect(page.text()).toContain('2 corrections'));
  expect(sentOf(1, 'corrections')).toEqual([
    { column: 'colour', row: '', text: 'rde', as: 'green' },
    { column: 'colour', row: '', text: '??', as: null },
  ]);
  (page.all('.made button')[0] as HTMLElement).click();
  await vi.waitFor(() => expect(fetched).toHaveBeenCalledTimes(3));
  expect(sentOf(2, 'corrections')).toEqual([{ column: 'colour', row: '', text: '??', as: null }]);
});

test('alike texts can mean different things', async () => {
  const unread = [cell('Aa', 2, 'rde'), cell('Bb', 3, 'rde')];
  const page = await read({ ...preview, usable: false, unread, unreadCount: 2 }, 'taxon,colour\nAa,rde');
  page.byText('button', 'Each on its own').click();
  await nextTick();
  const inputs = page.all('.answer input') as HTMLInputElement[];
  expect(inputs).toHaveLength(2);
  (inputs[1] as HTMLInputElement).value = 'blue';
  inputs[1]?.dispatchEvent(new Event('input'));
  await nextTick();
  fetched.mockImplementation(async () => new Response(JSON.stringify(preview)));
  page.byText('button', 'Correct one cell').click();
  await vi.waitFor(() => expect(fetched).toHaveBeenCalledTimes(2));
  expect(sentOf(1, 'corrections')).toEqual([{ column: 'colour', row: 'Bb', text: 'rde', as: 'blue' }]);
});

test('a unit is asked for, and the answers hold for a newer file with the same headings', async () => {
  const length = { ...preview.columns[0], type: 'LENGTH', unit: 'mm', states: [], open: true };
  const page = await read({ ...preview, usable: false, columns: [length] }, 'taxon,colour\nAa,5');
  expect(page.text()).toContain('In which unit are these numbers?');
  expect(page.text()).not.toContain('Create study');
  fetched.mockImplementation(
    async () => new Response(JSON.stringify({ ...preview, columns: [{ ...length, unit: 'cm', open: false }] })),
  );
  page.byText('button', 'cm').click();
  await vi.waitFor(() => expect(page.text()).toContain('Create study'));
  expect(sentOf(1, 'types')).toEqual({ colour: { type: 'LENGTH', unit: 'cm' } });

  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(page.text()).toContain('were kept'));
  expect(sentOf(3, 'types')).toEqual({ colour: { type: 'LENGTH', unit: 'cm' } });
});

test('every line and cell is accounted for', async () => {
  const account = {
    lines: 5,
    taxa: 2,
    leftOut: [{ line: 5, text: 'n = 16', reason: 'COUNTS' }],
    columns: [{ column: 4, text: 'far away', cells: 1 }],
    cells: [{ fate: 'SCORE', cells: 4 }],
  };
  const page = await read({ ...preview, account }, 'taxon,colour\nAa,red');
  expect(page.text()).toContain('5 lines hold something. 2 became taxa, sexes or stages, 2 are headings');
  expect(page.text()).toContain('Row 5: n = 16 (numbers of specimens or a summary)');
  expect(page.text()).toContain('Column 4, from “far away” on: one cell');
});

import { VueQueryPlugin } from '@tanstack/vue-query';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { nextTick } from 'vue';
import { mount } from '@/testing/mount';
import { SentByFetch } from '@/testing/sending';
import ImportPage from './ImportPage.vue';

const fetched = vi.fn<typeof fetch>();
beforeEach(() => {
  vi.stubGlobal('fetch', fetched);
  vi.stubGlobal('XMLHttpRequest', SentByFetch);
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
  selection: null,
};
const problem = { row: 3, column: 2, heading: 'colour', text: "'rde' is not a state of 'colour'.", blocking: true };

/** What was asked of imports, in order: files that were sent, then the requests. */
const sentFiles: File[] = [];
const asked: Record<string, unknown>[] = [];

type Answer = Record<string, unknown> | Response;

/** A server whose imports are done at once; `answer` says what a request comes to. */
function serve(answer: (request: Record<string, unknown>) => Answer) {
  fetched.mockImplementation(async (_path, init) => {
    if (init?.body instanceof FormData) {
      sentFiles.push(init.body.get('file') as File);
      return new Response(JSON.stringify({ id: `upload-${sentFiles.length}` }), { status: 201 });
    }
    const request = JSON.parse(String(init?.body)) as Record<string, unknown>;
    asked.push(request);
    const answered = answer(request);
    return answered instanceof Response
      ? answered
      : new Response(JSON.stringify({ id: 'job', status: 'DONE', progress: 1, answer: answered }));
  });
}

const refused = (status: number, code: string, detail: string) =>
  new Response(JSON.stringify({ code, detail }), { status });

async function read(body: Answer, table: string, path = '/import') {
  sentFiles.length = 0;
  asked.length = 0;
  serve(() => (body instanceof Response ? body : { preview: body }));
  const page = await mount(ImportPage, {}, [], [VueQueryPlugin], path);
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
  expect(sentFiles.map((f) => f.name)).toEqual(['pasted.tsv']);
  expect(asked).toMatchObject([{ step: 'PREVIEW', upload: 'upload-1' }]);
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
  const page = await read(refused(413, 'too-large', 'The file is too large.'), 'taxon,colour\nAa,red');
  expect(page.all('[role=alert]')[0]?.textContent).toContain('too large');
  expect((page.all('textarea')[0] as HTMLTextAreaElement).value).toContain('Aa,red');
});

test.each([
  ['score', preview],
  ['gather', { ...preview, characters: 0, scores: 0, specimens: 3, columns: [] }],
])('a file joins a study only after its changes were shown, and leads to the stage %s', async (stage, file) => {
  const change = { kind: 'ROW', how: 'ADDED', id: 'cc', character: '', name: 'Cc', fields: [] };
  const table = 'taxon,colour\nCc,red\n';
  const page = await read(refused(500, 'failed', 'not yet'), table, '/import?into=meadow');
  const changes = { revision: 7, total: 1, changes: [change] };
  serve(({ step }) => (step === 'IMPORT' ? { written: { id: '', revision: 8 } } : { preview: file, changes }));
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(page.text()).toContain('One thing changes.'));
  expect(page.text()).toContain('Cc');
  expect(page.text()).not.toContain('Create study');
  page.byText('button', 'Make these changes').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.path).toBe(`/studies/meadow/${stage}`));
  expect(asked.at(-1)).toMatchObject({ step: 'IMPORT', baseRevision: 7 });
  expect(new Set(fetched.mock.calls.map((c) => c[0]))).toEqual(
    new Set(['/api/v1/uploads', '/api/v1/studies/meadow/imports']),
  );
});

test('a broken table of specimens says what is wrong with it, and is not taken for a matrix', async () => {
  const page = await read(
    { ...preview, usable: false, rows: 0, specimens: 1, scores: 0, columns: [], problems: [problem] },
    'specimen,date\nV 1,4 May',
  );
  await vi.waitFor(() => expect(page.text()).toContain("'rde' is not a state"));
  expect(asked.map((r) => r.step)).toEqual(['PREVIEW']);
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
  const page = await read(refused(500, 'failed', 'not yet'), 'Species,width\nAa,4');
  serve(({ step, mapping }) => (step === 'LOOK' ? { sheet } : { preview: mapping ? preview : none }));
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(page.text()).toContain('Taxa, sexes and stages: 2'));
  expect(page.text()).toContain('The table as it stands');
  const role = page.all('th select')[1] as HTMLSelectElement;
  role.value = 'IGNORED';
  role.dispatchEvent(new Event('change'));
  await vi.waitFor(() =>
    expect(asked.at(-1)).toMatchObject({ mapping: { columns: [{ role: 'TAXON' }, { role: 'IGNORED' }] } }),
  );
  expect(new Set(asked.slice(1).map((r) => r.upload)).size).toBe(1);
});

test('another sheet of a workbook is read, and asked for from then on', async () => {
  const page = await read({ ...preview, sheets: ['notes', 'scores'] }, 'taxon\tcolour\nAa\tred');
  expect(page.text()).toContain('Sheet of the workbook');
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
  await vi.waitFor(() => expect(asked.at(-1)).toMatchObject({ sheet: 'scores' }));
});

test('asks once a kind whether what stands below taxa is all, and reads the table again with the answer', async () => {
  const rows = Array.from({ length: 10 }, (_, i) => `Sedge ${i + 1}`);
  const coverings = [{ kind: 'SEXES_AND_STAGES', covered: false, rows }];
  const page = await read({ ...preview, coverings }, 'taxon\tcolour\nAa\tred\nBb\tblue');
  expect(page.text()).toContain('Sedge 8; and 2 more');
  const choices = page.all('input[type=radio]') as HTMLInputElement[];
  expect(choices.map((c) => c.checked)).toEqual([false, true]);
  choices[0]?.click();
  await vi.waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1]).toMatchObject({ coverings: [{ kind: 'SEXES_AND_STAGES', covered: false, covers: 'ALL' }] });
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
const sentOf = (request: number, field: string) => asked[request]?.[field];

test('cells that cannot be read are corrected here, a text of a column once, or each on its own', async () => {
  const unread = [cell('Aa', 2, 'rde', ['red', 'green']), cell('Bb', 3, 'rde', ['red', 'green']), cell('Cc', 4, '??')];
  const page = await read({ ...preview, usable: false, unread, unreadCount: 3 }, 'taxon,colour\nAa,rde');
  expect(page.text()).toContain('3 cells could not be read');
  expect(page.text()).toContain('2 cells with this text');
  page.byText('button', 'green').click();
  await nextTick();
  expect(page.byText('button', 'Correct 2 cells')).toBeDefined();
  serve(() => ({ preview }));
  page.byText('button', 'Take what is left (one cell) as unknown and keep its text as a note').click();
  await vi.waitFor(() => expect(page.text()).toContain('2 corrections'));
  expect(sentOf(1, 'corrections')).toEqual([
    { column: 'colour', row: '', text: 'rde', as: 'green' },
    { column: 'colour', row: '', text: '??', as: null },
  ]);
  (page.all('.made button')[0] as HTMLElement).click();
  await vi.waitFor(() => expect(asked).toHaveLength(3));
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
  serve(() => ({ preview }));
  page.byText('button', 'Correct one cell').click();
  await vi.waitFor(() => expect(asked).toHaveLength(2));
  expect(sentOf(1, 'corrections')).toEqual([{ column: 'colour', row: 'Bb', text: 'rde', as: 'blue' }]);
});

test('a unit is asked for, and the answers hold for a newer file with the same headings', async () => {
  const length = { ...preview.columns[0], type: 'LENGTH', unit: 'mm', states: [], open: true };
  const page = await read({ ...preview, usable: false, columns: [length] }, 'taxon,colour\nAa,5');
  expect(page.text()).toContain('In which unit are these numbers?');
  expect(page.text()).not.toContain('Create study');
  serve(() => ({ preview: { ...preview, columns: [{ ...length, unit: 'cm', open: false }] } }));
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
  expect(page.text()).toContain(
    'Lines with something in them: 5. Taxa, sexes and stages: 2 · headings and descriptions: 2',
  );
  expect(page.text()).toContain('Row 5: n = 16 (numbers of specimens or a summary)');
  expect(page.text()).toContain('Column 4, from “far away” on: one cell');
});

/** An import that is under way until it is told to stop, or `done`. */
function underWay() {
  const server = { done: false, stopped: [] as string[], files: 0, looks: 0, offline: 0 };
  fetched.mockImplementation(async (path, init) => {
    const body = (more: object) =>
      new Response(JSON.stringify({ id: 'job', status: 'RUNNING', progress: 0.4, ...more }));
    if (init?.body instanceof FormData) return new Response(JSON.stringify({ id: `upload-${++server.files}` }));
    if (init?.method === 'DELETE') {
      server.stopped.push(String(path));
      return new Response('');
    }
    if (init?.method === 'GET') {
      server.looks++;
      if (server.offline-- > 0) throw new TypeError('no line');
    }
    await new Promise((resolve) => setTimeout(resolve, 5));
    if (server.stopped.length) return body({ status: 'CANCELLED' });
    return server.done ? body({ status: 'DONE', answer: { preview } }) : body({});
  });
  return server;
}

test('a large file tells how far its reading is, and can be left; nothing that was decided is lost', async () => {
  const page = await read(preview, 'taxon,colour\nAa,red');
  const server = underWay();
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(page.text()).toContain('Reading: 40 %'));
  page.byText('button', 'Cancel').click();
  await vi.waitFor(() => expect(page.text()).toContain('Reading was cancelled. Nothing was changed.'));
  expect(server.stopped).toEqual(['/api/v1/imports/job']);
  expect(page.text()).not.toContain('40 %');
  expect((page.all('textarea')[0] as HTMLTextAreaElement).value).toContain('Aa,red');

  server.stopped = [];
  server.done = true;
  page.byText('button', 'Read again').click();
  await vi.waitFor(() => expect(page.text()).toContain('Taxa, sexes and stages: 2'));
  expect(server.files).toBe(1);
});

test('what was decided of a file outlives a reading that was cancelled', async () => {
  const length = { ...preview.columns[0], type: 'LENGTH', unit: 'mm', states: [], open: true };
  const page = await read({ ...preview, usable: false, columns: [length] }, 'taxon,colour\nAa,5');
  page.byText('button', 'cm').click();
  await vi.waitFor(() => expect(asked).toHaveLength(2));
  await new Promise((resolve) => setTimeout(resolve, 20));
  const server = underWay();
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(page.text()).toContain('40 %'));
  page.byText('button', 'Cancel').click();
  await vi.waitFor(() => expect(server.stopped).toHaveLength(1));
  await vi.waitFor(() => expect(page.text()).toContain('Reading was cancelled'));
  serve(() => ({ preview }));
  page.byText('button', 'Read again').click();
  await vi.waitFor(() => expect(asked.at(-1)).toMatchObject({ types: { colour: { type: 'LENGTH', unit: 'cm' } } }));
});

test('a reading that was cancelled leaves undecided what it was to show', async () => {
  const page = await read(preview, 'taxon,colour\nAa,red');
  const server = underWay();
  const type = page.all('table .v-select input')[0] as HTMLInputElement;
  type.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
  const option = await vi.waitFor(() => {
    const found = [...document.querySelectorAll<HTMLElement>('.v-overlay [role=option]')].find((o) =>
      o.textContent?.includes('ordered'),
    );
    if (!found) throw new Error('no option yet');
    return found;
  });
  option.click();
  await vi.waitFor(() => expect(page.text()).toContain('40 %'));
  page.byText('button', 'Cancel').click();
  await vi.waitFor(() => expect(server.stopped).toHaveLength(1));
  await vi.waitFor(() => expect(page.text()).toContain('Reading was cancelled'));
  serve(() => ({ slug: 'meadow' }));
  page.byText('button', 'Create study').click();
  await vi.waitFor(() => expect(asked.at(-1)).toMatchObject({ step: 'IMPORT', types: {} }));
});

test('another file is read in place of the one that is under way', async () => {
  const page = await read(preview, 'taxon,colour\nAa,red');
  const server = underWay();
  const choose = (name: string) => {
    const input = page.all('input[type=file]')[0] as HTMLInputElement;
    Object.defineProperty(input, 'files', { value: [new File(['x'], name)], configurable: true });
    input.dispatchEvent(new Event('change'));
  };
  choose('first.csv');
  await vi.waitFor(() => expect(page.text()).toContain('first.csv, 1 kB'));
  await vi.waitFor(() => expect(page.text()).toContain('Reading: 40 %'));
  choose('second.csv');
  await vi.waitFor(() => expect(server.stopped).toHaveLength(1));
  serve(() => ({ preview }));
  sentFiles.length = 0;
  await vi.waitFor(() => expect(sentFiles.map((f) => f.name)).toEqual(['second.csv']));
  await vi.waitFor(() => expect(page.text()).toContain('Taxa, sexes and stages: 2'));
  expect(page.text()).toContain('second.csv, 1 kB');
});

test('a line that is down for a moment does not lose what is under way', async () => {
  const page = await read(refused(500, 'failed', 'not yet'), 'taxon,colour\nAa,red');
  const server = underWay();
  server.offline = 1;
  server.done = false;
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(server.looks).toBe(1));
  server.done = true;
  await vi.waitFor(() => expect(page.text()).toContain('Taxa, sexes and stages: 2'), 5000);
  expect(page.text()).not.toContain('cannot be reached');
});

test('leaving the page stops what is under way', async () => {
  const page = await read(preview, 'taxon,colour\nAa,red');
  const server = underWay();
  page.byText('button', 'Read the table').click();
  await vi.waitFor(() => expect(server.looks).toBeGreaterThan(0));
  page.unmount();
  await vi.waitFor(() => expect(server.stopped).toHaveLength(1));
});

test('a file that the server does not keep any more is sent again without a word', async () => {
  const page = await read(preview, 'taxon,colour\nAa,red');
  serve(({ upload }) => (upload === 'upload-1' ? refused(422, 'upload-gone', 'It is gone.') : { slug: 'meadow' }));
  page.byText('button', 'Create study').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.path).toBe('/studies/meadow/score'));
  expect(asked.map((r) => [r.step, r.upload])).toEqual([
    ['PREVIEW', 'upload-1'],
    ['IMPORT', 'upload-1'],
    ['IMPORT', 'upload-2'],
  ]);
});

test('of a file with too many characters some are chosen, by number or set', async () => {
  const sets = [{ name: 'wing_veins', characters: 44 }];
  const many = { ...preview, usable: false, problems: [problem], selection: { total: 4000, read: 0, sets } };
  const page = await read(many, '#NEXUS');
  expect(page.text()).toContain('Characters in the file: 4000. Read now: 0.');
  const field = page.all('#chosen ~ form input')[0] as HTMLInputElement;
  field.value = '1-300';
  field.dispatchEvent(new Event('input'));
  await nextTick();
  page.byText('button', 'wing_veins (44 characters)').click();
  await nextTick();
  serve(() => ({ preview }));
  page.byText('button', 'Read these').click();
  await vi.waitFor(() => expect(page.text()).toContain('Create study'));
  expect(asked.at(-1)).toMatchObject({ characters: '1-300, wing_veins' });
});

import { VueQueryPlugin } from '@tanstack/vue-query';
import { expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer, Refusal } from '@/testing/server';
import { row, study } from '@/testing/study';
import EditionPage from './EditionPage.vue';

const server = fakeServer();
const whole = study({ rows: [row('mild'), row('bane', { hazard: 'SERIOUS', stage: 'flowering' })] });
const document = {
  slug: 'meadow',
  number: 1,
  title: 'Meadow plants',
  authors: ['Isolde Quillane'],
  date: '2026-05-01',
  engine: '0.1',
  study: {
    slug: 'meadow',
    title: 'Meadow plants',
    scope: whole.scope,
    rows: whole.rows,
    characters: whole.characters,
    nearButOutside: [],
    scores: [],
  },
  key: { title: 'Meadow plants', couplets: [], figures: {} },
  declarations: [],
  cautions: [],
};

async function open(told: unknown = document, path = '/') {
  server.on('GET /api/v1/editions/meadow', { number: 1, format: 1, editions: [] });
  server.on('GET /api/v1/editions/meadow/1?format=1', told);
  return mount(EditionPage, { slug: 'meadow', number: '1' }, [], [VueQueryPlugin], path);
}

/** What the server puts into the page before any script. */
function coverInPage() {
  const cover = window.document.createElement('div');
  cover.id = 'cover';
  cover.innerHTML =
    '<nav><a href="?">Cover</a><a href="?view=taxa">Taxa</a></nav><div class="cover">Wear gloves</div>' +
    '<a id="newest" href="/k/meadow">read the newest</a>';
  window.document.body.append(cover);
}

test('the cover that came with the page stays as it is; its links lead to the parts below its heading', async () => {
  coverInPage();
  const page = await open();
  const body = () => page.all('#cover .cover')[0];
  expect(body()?.hidden).toBe(false);
  page.byText('#cover a', 'Taxa').click();
  await vi.waitFor(() => expect(page.all('.taxa li')).toHaveLength(2));
  expect(body()?.hidden).toBe(true);
  expect(page.all('nav a').map((a) => a.getAttribute('aria-current'))).toEqual([null, 'page']);
  page.byText('#cover a', 'Cover').click();
  await vi.waitFor(() => expect(body()?.hidden).toBe(false));
  expect(page.all('.taxa')).toHaveLength(0);
});

test('an address that names a part shows it at once, below the heading of the cover', async () => {
  coverInPage();
  const page = await open(document, '/?view=taxa');
  await vi.waitFor(() => expect(page.all('.taxa li')).toHaveLength(2));
  expect(page.all('#cover .cover')[0]?.hidden).toBe(true);
  expect(page.all('nav a[aria-current]').map((a) => a.textContent)).toEqual(['Taxa']);
});

test('an address that names no part shows the cover', async () => {
  coverInPage();
  const page = await open(document, '/?view=nonsense');
  expect(page.all('#cover .cover')[0]?.hidden).toBe(false);
});

test('a number that was never published is said to be missing, too', async () => {
  server.on('GET /api/v1/editions/meadow', { number: 1, format: 1, editions: [] });
  server.on('GET /api/v1/editions/meadow/9?format=1', new Refusal(404, { code: 'not-found', detail: 'Nothing here.' }));
  const page = await mount(EditionPage, { slug: 'meadow', number: '9' }, [], [VueQueryPlugin]);
  await vi.waitFor(() => expect(page.all('h1').map((h) => h.textContent)).toEqual(['This edition does not exist']));
});

test('what was never published is said to be missing', async () => {
  const refusal = new Refusal(404, { code: 'not-found', detail: 'There is nothing here.' });
  server.on('GET /api/v1/editions/nothing', refusal);
  const page = await mount(EditionPage, { slug: 'nothing' }, [], [VueQueryPlugin]);
  await vi.waitFor(() => expect(page.text()).toContain('There is nothing here.'));
});

test('the taxa are those that the key names, called as it calls them', async () => {
  const name = { ...row('bane', { hazard: 'SERIOUS' }), stage: 'other than seedling', folded: [], hazardText: '' };
  const page = await open({
    ...document,
    study: {
      ...document.study,
      rows: [row('mild'), row('bane'), row('bane-seedling', { label: 'Bane', stage: 'seedling', parent: 'bane' })],
    },
    key: {
      ...document.key,
      couplets: [{ leads: [{ terminal: { names: [{ ...name, row: 'bane' }], reason: 'NONE' } }] }],
    },
  });
  await page.router.push({ query: { view: 'taxa' } });
  await vi.waitFor(() => expect(page.all('.taxa li').map((l) => l.textContent)).toHaveLength(3));
  expect(page.all('.taxa li')[1]?.textContent).toContain('other than seedling');
});

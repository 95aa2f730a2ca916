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
    scope: { ...whole.scope, leavesOut: 'Seedlings' },
    rows: whole.rows,
    characters: whole.characters,
    nearButOutside: [{ name: 'Shorebane', why: 'Salt marshes only', hazard: 'SERIOUS', hazards: [] }],
    scores: [],
  },
  key: { title: 'Meadow plants', couplets: [], figures: {} },
  declarations: [{ danger: 'bane', others: ['mild'], months: [1], text: 'Leave both alone in January.' }],
  cautions: ['Wear gloves'],
};

async function open(status: string, number = '1') {
  server.on('GET /api/v1/editions/meadow', {
    number: 2,
    format: 1,
    editions: [{ number: 1, status, reason: 'Colour was wrong', publishedAt: '2026-05-01', who: 'Isolde' }],
  });
  server.on('GET /api/v1/editions/meadow/1?format=1', document);
  return mount(EditionPage, { slug: 'meadow', number }, [], [VueQueryPlugin]);
}

test('the cover tells cautions, undivided dangers, scope, and who is near but outside', async () => {
  const page = await open('CURRENT');
  await vi.waitFor(() => expect(page.text()).toContain('Wear gloves'));
  expect(page.text()).toContain('Bane, flowering');
  expect(page.text()).toContain('Leave both alone in January.');
  expect(page.text()).toContain('Seedlings');
  expect(page.text()).toContain('Salt marshes only');
  expect(page.text()).toContain('local emergency number or poison centre');
  expect(page.all('.withdrawn, .superseded')).toHaveLength(0);
});

test('a withdrawn edition says so with its reason, above all else', async () => {
  const page = await open('WITHDRAWN');
  await vi.waitFor(() => expect(page.all('[role=alert]')[0]?.textContent).toContain('Colour was wrong'));
});

test('a superseded edition leads to the newest', async () => {
  const page = await open('SUPERSEDED');
  await vi.waitFor(() => expect(page.all('.superseded a')[0]?.getAttribute('href')).toBe('/k/meadow'));
});

test('what was never published is said to be missing', async () => {
  const refusal = new Refusal(404, { code: 'not-found', detail: 'There is nothing here.' });
  server.on('GET /api/v1/editions/nothing', refusal);
  const page = await mount(EditionPage, { slug: 'nothing' }, [], [VueQueryPlugin]);
  await vi.waitFor(() => expect(page.text()).toContain('There is nothing here.'));
});

test('the cover says what is hard to rule out, when, and what is not in the key; the taxa are those that the key names', async () => {
  const declared = { danger: 'bane', name: 'Bane, other than seedling', others: ['mild'], text: '' };
  const name = { ...row('bane', { hazard: 'SERIOUS' }), stage: 'other than seedling', folded: [], hazardText: '' };
  server.on('GET /api/v1/editions/meadow', { number: 1, format: 1, editions: [] });
  server.on('GET /api/v1/editions/meadow/1?format=1', {
    ...document,
    study: {
      ...document.study,
      rows: [row('mild'), row('bane'), row('bane-seedling', { label: 'Bane', stage: 'seedling', parent: 'bane' })],
    },
    key: {
      ...document.key,
      couplets: [{ leads: [{ terminal: { names: [{ ...name, row: 'bane' }], reason: 'NONE' } }] }],
    },
    declarations: [
      { ...declared, months: [11, 12, 1, 2] },
      { ...declared, others: [], months: [1], text: 'Leave it alone.' },
    ],
    kit: ['lens ×10', 'gloves'],
  });
  const page = await mount(EditionPage, { slug: 'meadow', number: '1' }, [], [VueQueryPlugin]);
  await vi.waitFor(() => expect(page.text()).toContain('Bane, other than seedling, where it might be Mild'));
  expect(page.text()).toContain('(November to February)');
  expect(page.text()).not.toContain('cannot surely');
  expect(page.text()).toContain('Bane, other than seedling is dangerous and not in this key. Leave it alone.');
  expect(page.text()).toContain('ask for: lens ×10, gloves.');
  await page.router.push({ query: { view: 'taxa' } });
  await vi.waitFor(() => expect(page.all('.taxa li').map((l) => l.textContent)).toHaveLength(3));
  expect(page.all('.taxa li')[1]?.textContent).toContain('other than seedling');
});

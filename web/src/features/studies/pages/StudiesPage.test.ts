import { VueQueryPlugin } from '@tanstack/vue-query';
import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer } from '@/testing/server';
import StudiesPage from './StudiesPage.vue';

const server = fakeServer();
const LIST = 'GET /api/v1/studies?from=0&find=&which=CURRENT&order=CHANGED';
const DELETE = 'DELETE /api/v1/studies/mosses?title=Mosses';
const progress = { taxa: 3, characters: 2, scored: 4, cells: 6, editions: 0 };
const mosses = {
  slug: 'mosses',
  title: 'Mosses',
  role: 'OWNER',
  blind: false,
  progress,
  changed: '2026-05-01',
  who: 'Isolde Quillane',
  next: { kind: 'PUBLISH', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0, dangers: 0 },
};

async function open(...studies: object[]) {
  server.on(LIST, { studies, total: studies.length });
  const page = await mount(StudiesPage, {}, [], [VueQueryPlugin]);
  await vi.waitFor(() => expect(page.all('tbody tr, .empty').length).toBeGreaterThan(0));
  return page;
}

const item = (text: string) =>
  [...document.querySelectorAll<HTMLElement>('.v-overlay .v-list-item')].find((i) => i.textContent?.includes(text));

test('a line says who worked at a study last, and what would help it next', async () => {
  const page = await open(mosses, { ...mosses, slug: 'new', title: 'New', who: '', next: undefined });
  expect(page.all('tbody th p').map((p) => p.textContent?.replace(/\s+/g, ' ').trim())).toEqual([
    'Changed on 2026-05-01 by Isolde Quillane · The matrix is ready for its first edition.',
    'Started on 2026-05-01',
  ]);
});

test('a study is deleted only by who types its title', async () => {
  server.on(DELETE, undefined);
  const page = await open(mosses);
  page.all('[aria-label="What to do with Mosses"]')[0]?.click();
  await vi.waitFor(() => expect(item('Delete')).toBeDefined());
  item('Delete')?.click();
  await vi.waitFor(() => expect(document.querySelector('.v-dialog input')).not.toBeNull());
  const yes = () => document.querySelector<HTMLButtonElement>('.v-dialog button[type=submit]');
  const field = document.querySelector<HTMLInputElement>('.v-dialog input') as HTMLInputElement;
  expect(field.value).toBe('');
  expect(yes()?.disabled).toBe(true);
  field.value = 'Mosses';
  field.dispatchEvent(new Event('input'));
  await nextTick();
  yes()?.click();
  await vi.waitFor(() => expect(server.asked.map((a) => a.route)).toContain(DELETE));
});

test('nobody is offered to delete what readers rely on', async () => {
  const page = await open({ ...mosses, progress: { ...progress, editions: 2 } });
  page.all('[aria-label="What to do with Mosses"]')[0]?.click();
  await vi.waitFor(() => expect(item('Delete')?.textContent).toContain('readers rely on'));
  expect(item('Delete')?.classList).toContain('v-list-item--disabled');
});

test('a newcomer is told three ways to begin', async () => {
  const page = await open();
  expect(page.text()).toContain('No study is shared with you yet.');
  for (const way of ['Import a matrix', 'New study', 'Try a sample study']) page.byText('.v-btn__content', way);
});

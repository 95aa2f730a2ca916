import { VueQueryPlugin } from '@tanstack/vue-query';
import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer, Refusal } from '@/testing/server';
import { study } from '@/testing/study';
import StudyFrame from './StudyFrame.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';
const finding = { key: 'k', kind: 'unused-state', row: '', character: 'margin', reason: 'r', acceptable: true };

async function open(more = {}, path = '/studies/meadow/key') {
  server.on(`GET ${PATH}`, study(more));
  server.on(`GET ${PATH}/next-step`, { kind: 'PUBLISH', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/findings`, [finding, { ...finding, key: 'm', acceptance: { reason: 'x', who: 'y' } }]);
  const page = await mount(StudyFrame, { slug: 'meadow' }, [], [VueQueryPlugin], path);
  await vi.waitFor(() => expect(page.text()).toContain('Meadow plants'));
  return page;
}

async function press(key: string, more: KeyboardEventInit = {}) {
  window.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...more }));
  await nextTick();
}

test('the stage path tells where one is and how far each stage is', async () => {
  const page = await open();
  expect(page.all('nav li').map((li) => li.querySelector('.stage')?.textContent)).toEqual([
    'Scope',
    'Gather',
    'Characters',
    'Score',
    'Tell apart',
    'Key',
    'Any-order key',
    'Publish',
  ]);
  expect(page.all('[aria-current=step]')[0]?.textContent).toContain('Key');
  expect(page.text()).toContain('0 of 2 cells');
});

test('the next best step leads to its stage, and only from elsewhere', async () => {
  const page = await open();
  expect(page.text()).toContain('The matrix is ready for its first edition.');
  expect(page.all('footer a')[0]?.getAttribute('href')).toBe('/studies/meadow/publish');
  const there = await open({}, '/studies/meadow/publish');
  expect(there.all('footer a')).toHaveLength(0);
});

test('the palette finds what the study holds, once something is typed', async () => {
  const page = await open();
  await press('k', { ctrlKey: true });
  const field = await vi.waitFor(() => {
    const found = document.querySelector<HTMLInputElement>('.v-dialog [role=combobox]');
    if (!found) throw new Error('no palette yet');
    return found;
  });
  const options = () => [...document.querySelectorAll('.v-dialog [role=option]')].map((o) => o.textContent?.trim());
  expect(options().some((o) => o?.startsWith('Taxon'))).toBe(false);
  field.value = 'taxon bane';
  field.dispatchEvent(new Event('input'));
  await vi.waitFor(() => expect(options()).toEqual(['Taxon: Bane']));
  field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  await vi.waitFor(() => expect(page.router.currentRoute.value.fullPath).toBe('/studies/meadow/score?row=bane'));
});

test('only open findings are counted', async () => {
  const page = await open();
  await vi.waitFor(() =>
    expect(page.all('a[aria-label="one finding"]')[0]?.getAttribute('href')).toBe('/studies/meadow/checks'),
  );
});

test('keys undo and redo, but not while something is typed or where one may not edit', async () => {
  const done = [{ kind: 'CELL', how: 'CHANGED', count: 1, name: 'Bane × margin' }];
  const passed = [{ name: 'Mild × width', who: 'Oswin' }];
  server.on(`POST ${PATH}/undo`, { revision: 8, done, passed, more: 0 });
  server.on(`POST ${PATH}/redo`, { revision: 9, done, passed: [], more: 0 });
  const page = await open();
  const sent = (what: string) => server.bodies(`POST ${PATH}/${what}`).length;
  await press('z', { ctrlKey: true });
  await vi.waitFor(() => expect(sent('undo')).toBe(1));
  await vi.waitFor(() =>
    expect(page.text()).toContain(
      'Undone: score Bane × margin changed. Left as it is, because others changed it since: Mild × width (Oswin).',
    ),
  );
  await press('z', { ctrlKey: true, shiftKey: true });
  await vi.waitFor(() => expect(sent('redo')).toBe(1));
  const field = document.createElement('input');
  page.root.append(field);
  field.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true }));
  await nextTick();
  expect(sent('undo')).toBe(1);
  page.unmount();
  await open({ role: 'VIEWER' });
  await press('z', { ctrlKey: true });
  expect(sent('undo')).toBe(1);
});

test('the palette finds a command by its words and runs it', async () => {
  const page = await open();
  await press('k', { ctrlKey: true });
  await vi.waitFor(() => expect(document.querySelector('.v-dialog input')).not.toBeNull());
  const input = document.querySelector('.v-dialog input') as HTMLInputElement;
  input.value = 'open checks';
  input.dispatchEvent(new Event('input'));
  await nextTick();
  input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  await vi.waitFor(() => expect(page.router.currentRoute.value.path).toBe('/studies/meadow/checks'));
});

test('the keys of the present screen are told', async () => {
  await open({}, '/studies/meadow/scope');
  await press('?');
  await vi.waitFor(() => expect(document.querySelector('.v-dialog')?.textContent).toContain('move the taxon'));
  expect(document.querySelector('.v-dialog')?.textContent).not.toContain('start typing a score');
});

test('a study that is not shared says so', async () => {
  server.on(`GET ${PATH}`, new Refusal(404, { code: 'not-found', detail: 'There is nothing here.' }));
  const page = await mount(StudyFrame, { slug: 'meadow' }, [], [VueQueryPlugin], '/studies/meadow/key');
  await vi.waitFor(() => expect(page.all('[role=alert]')[0]?.textContent).toContain('There is nothing here.'));
});

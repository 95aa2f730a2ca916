import { expect, test, vi } from 'vitest';
import { defineComponent, h } from 'vue';
import { useStudy } from '@/study-kernel';
import { fakeServer } from '@/testing/server';
import { mountInStudy, row, study } from '@/testing/study';
import { useComments } from '../composables/useComments';
import CellComments from './CellComments.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';
const said = (id: number, text: string, settledBy?: string) => ({
  id,
  row: 'bane',
  character: 'margin',
  who: 'Oswin Brandreth',
  at: '2031-05-04T10:00:00Z',
  text,
  ...(settledBy ? { settledBy } : {}),
});

const Page = defineComponent(() => {
  const comments = useComments(useStudy());
  return () => [
    h(CellComments, { comments, row: 'bane', character: 'margin', editable: true }),
    h('output', comments.isOpen('bane', 'margin') ? 'marked' : 'plain'),
  ];
});

async function open(...list: unknown[]) {
  server.on(`GET ${PATH}`, study({ rows: [row('bane')] }));
  server.on(`GET ${PATH}/comments`, list);
  return mountInStudy(Page, '/studies/meadow/score');
}

test('what is said of other cells does not stand here, and what is settled is folded', async () => {
  const page = await open(said(1, 'Upper leaf?'), { ...said(2, 'Another'), row: 'mild' }, said(3, 'Old', 'Isolde'));
  await vi.waitFor(() => expect(page.text()).toContain('Upper leaf?'));
  expect(page.text()).not.toContain('Another');
  expect(page.all('details li')).toHaveLength(1);
  expect(page.all('output')[0]?.textContent).toBe('marked');
});

test('a comment is written and settled', async () => {
  const page = await open();
  server.on(`POST ${PATH}/comments`, [said(7, 'Look again')]);
  server.on(`PUT ${PATH}/comments/7/settled`, [said(7, 'Look again', 'Isolde Quillane')]);
  const field = await vi.waitFor(() => {
    const found = document.querySelector('textarea');
    if (!found) throw new Error('no field yet');
    return found;
  });
  field.value = ' Look again ';
  field.dispatchEvent(new Event('input', { bubbles: true }));
  await vi.waitFor(() => expect(page.all('form button')[0]?.hasAttribute('disabled')).toBe(false));
  page.byText('form button', 'Post').click();
  await vi.waitFor(() => expect(page.text()).toContain('Look again'));
  expect(server.bodies(`POST ${PATH}/comments`)).toEqual([{ row: 'bane', character: 'margin', text: ' Look again ' }]);
  page.byText('li button', 'Resolve').click();
  await vi.waitFor(() => expect(page.all('output')[0]?.textContent).toBe('plain'));
  expect(server.bodies(`PUT ${PATH}/comments/7/settled`)).toEqual([{ settled: true }]);
});

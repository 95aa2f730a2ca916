import { defineComponent, h, nextTick } from 'vue';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { row } from '@/testing/study';
import TaxonTree from './TaxonTree.vue';

const tree = (n: number) => Array.from({ length: n }, (_, i) => ({ row: row(`sp${i}`), depth: 0 }));

// jsdom has no layout: a window of 400 pixels, and rows of 36.
beforeEach(() => {
  vi.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockImplementation(function (this: HTMLElement) {
    return this.id === 'scroller' ? 400 : 36;
  });
  vi.spyOn(Element.prototype, 'clientHeight', 'get').mockImplementation(function (this: Element) {
    return this.id === 'scroller' ? 400 : 36;
  });
  vi.spyOn(Element.prototype, 'clientWidth', 'get').mockReturnValue(600);
});
afterEach(() => vi.restoreAllMocks());

async function shown(n: number, selected = '') {
  const Page = defineComponent(
    () => () =>
      h(
        'div',
        { id: 'scroller', style: 'overflow-y: auto' },
        h(TaxonTree, { tree: tree(n), selected, editable: true }),
      ),
  );
  const page = await mount(Page, {});
  await nextTick();
  return page;
}

/** More rows than the window shows, and not many more. */
const settled = (page: { all: (selector: string) => HTMLElement[] }) =>
  vi.waitFor(() => {
    expect(page.all('[role=treeitem]').length).toBeGreaterThan(8);
    expect(page.all('[role=treeitem]').length).toBeLessThan(60);
  }, 5000);

test('a long list stands in the page only as far as it is seen, and says how long it is', async () => {
  const page = await shown(2000);
  await settled(page);
  expect(page.all('[role=treeitem]')[0]?.getAttribute('aria-setsize')).toBe('2000');
  const room = page.all('[role=tree]')[0]?.style.paddingBottom ?? '';
  expect(Number.parseFloat(room)).toBeGreaterThan(36 * 1900);
});

test('a short list stands there whole', async () => {
  const page = await shown(100);
  expect(page.all('[role=treeitem]')).toHaveLength(100);
  expect(page.all('[role=tree]')[0]?.style.paddingBottom).toBe('');
});

test('arrows go from row to row', async () => {
  const page = await shown(2000);
  await settled(page);
  page.all('[role=treeitem]')[0]?.focus();
  for (let n = 0; n < 3; n++)
    document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
  expect(document.activeElement?.getAttribute('data-index')).toBe('3');
});

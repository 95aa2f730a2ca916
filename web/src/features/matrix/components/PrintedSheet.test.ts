import { nextTick } from 'vue';
import { expect, test } from 'vitest';
import type { Cell } from '@/study-kernel';
import { mount } from '@/testing/mount';
import type { GridModel } from '../logic/paint';
import PrintedSheet from './PrintedSheet.vue';

const cell = (text: string, over: object = {}) => ({ text, from: null, doubtful: false, ...over }) as unknown as Cell;
const grid = {
  rows: [
    { label: 'Alpha', stage: '', depth: 0, hazard: 'NONE_KNOWN' },
    { label: 'Alpha', stage: 'male', depth: 1, hazard: 'NONE_KNOWN' },
  ],
  columns: Array.from({ length: 8 }, (_, i) => ({ id: `c${i}`, label: `c${i}`, unit: i === 7 ? 'mm' : '' })),
  cell: (row: number, column: number) => {
    if (column === 7) return undefined;
    return row ? cell('toothed', { from: 'alpha' }) : cell('toothed', { doubtful: column === 0 });
  },
} as unknown as GridModel;

test('the whole sheet is there while it is printed, in tables as wide as paper, and gone afterwards', async () => {
  const page = await mount(PrintedSheet, { grid, title: 'Leaves' });
  expect(page.all('table')).toHaveLength(0);
  window.dispatchEvent(new Event('beforeprint'));
  await nextTick();
  const lines = page.all('tr').map((r) => [...r.children].map((c) => c.textContent?.trim()).join('|'));
  expect(lines).toEqual([
    '|c0|c1|c2|c3|c4|c5',
    'Alpha|toothed ?|toothed|toothed|toothed|toothed|toothed',
    'male|(toothed)|(toothed)|(toothed)|(toothed)|(toothed)|(toothed)',
    '|c6|c7, mm',
    'Alpha|toothed|…',
    'male|(toothed)|…',
  ]);
  window.dispatchEvent(new Event('afterprint'));
  await nextTick();
  expect(page.all('table')).toHaveLength(0);
});

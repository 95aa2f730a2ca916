import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { nextTick, reactive } from 'vue';
import type { Cell } from '@/study-kernel';
import { mount } from '@/testing/mount';
import type { Selection } from '../logic/grid';
import type { GridModel } from '../logic/paint';
import ScoreGrid from './ScoreGrid.vue';

beforeAll(() => {
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      disconnect() {}
    },
  );
  HTMLCanvasElement.prototype.getContext = () => null;
});
afterAll(() => {
  vi.unstubAllGlobals();
});

const texts = [
  ['toothed', '5–9'],
  ['entire', ''],
];
const grid: GridModel = {
  rows: ['Alpha', 'Beta'].map((label) => ({ label, stage: '', depth: 0, hazard: 'NONE_KNOWN' })),
  columns: ['margin', 'width'].map((label) => ({ label, unit: '', scale: { min: 0, max: 1 } })),
  bands: [],
  frozen: 0,
  flagged: () => false,
  commented: () => false,
  draft: () => undefined,
  cell: (row, column) => {
    const text = texts[row]?.[column];
    return text === undefined ? undefined : ({ text, kind: text ? 'states' : 'empty', parts: [] } as unknown as Cell);
  },
};

async function mounted(editable = true) {
  const props = reactive<Record<string, unknown>>({
    grid,
    editable,
    problem: '',
    selection: { at: { row: 0, column: 0 }, anchor: { row: 0, column: 0 } } as Selection,
  });
  props['onUpdate:selection'] = (next: Selection) => (props.selection = next);
  const page = await mount(ScoreGrid, props, ['edit']);
  const box = page.all('[role=grid]')[0] as HTMLElement;
  const press = async (key: string, over: KeyboardEventInit = {}) => {
    const target = page.all('input.editor')[0] ?? box;
    target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...over }));
    await nextTick();
  };
  const type = async (value: string) => {
    const input = page.all('input.editor')[0] as HTMLInputElement;
    input.value = value;
    input.dispatchEvent(new Event('input'));
    await nextTick();
  };
  const active = () => page.all('#active-cell')[0]?.textContent?.trim();
  return { ...page, props, press, type, active };
}

describe('the keyboard', () => {
  test('moves, and tells a screen reader where it is', async () => {
    const page = await mounted();
    expect(page.active()).toBe('margin: toothed');
    await page.press('ArrowRight');
    expect(page.active()).toBe('width: 5–9');
    await page.press('ArrowDown');
    expect(page.active()).toBe('width: not scored');
    await page.press('Home', { ctrlKey: true });
    expect(page.active()).toBe('margin: toothed');
    page.props['grid'] = { ...grid, cell: () => undefined };
    await nextTick();
    expect(page.active()).toBe('margin: Loading');
  });

  test('begins a score with the first letter, saves it with Enter and moves on', async () => {
    const page = await mounted();
    await page.press('e');
    await page.type('entire');
    await page.press('Enter');
    expect(page.heard).toEqual([['edit', [{ row: 0, column: 0, text: 'entire' }]]]);
    expect(page.active()).toBe('margin: entire');
  });

  test('Escape leaves the cell as it was; Enter opens what stands there', async () => {
    const page = await mounted();
    await page.press('Enter');
    expect((page.all('input.editor')[0] as HTMLInputElement).value).toBe('toothed');
    await page.type('nonsense');
    await page.press('Escape');
    expect(page.all('input.editor')).toHaveLength(0);
    expect(page.heard).toEqual([]);
  });

  test('empties and fills a selection in one change', async () => {
    const page = await mounted();
    await page.press('ArrowDown', { shiftKey: true });
    await page.press('d', { ctrlKey: true });
    await page.press('Delete');
    expect(page.heard).toEqual([
      ['edit', [{ row: 1, column: 0, text: 'toothed' }]],
      [
        'edit',
        [
          { row: 0, column: 0, text: '' },
          { row: 1, column: 0, text: '' },
        ],
      ],
    ]);
  });

  test('changes nothing for somebody who only views', async () => {
    const page = await mounted(false);
    await page.press('e');
    await page.press('Delete');
    await page.press('d', { ctrlKey: true });
    expect(page.all('input.editor')).toHaveLength(0);
    expect(page.heard).toEqual([]);
  });
});

test('a problem stands at its cell as an alert', async () => {
  const page = await mounted();
  page.props.problem = 'No state of margin';
  await nextTick();
  expect(page.all('[role=alert]')[0]?.textContent).toContain('No state of margin');
});

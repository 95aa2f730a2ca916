import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { nextTick, reactive } from 'vue';
import type { Cell } from '@/study-kernel';
import { mount } from '@/testing/mount';
import { SIZE, TOP } from '../logic/geometry';
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
  columns: ['margin', 'width'].map((label) => ({
    id: label,
    label,
    unit: '',
    scale: { min: 0, max: 1 },
    states: label === 'margin' ? ['entire', 'toothed'] : [],
    width: 118,
    sortable: true,
  })),
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
    structural: editable,
    problem: '',
    selection: { at: { row: 0, column: 0 }, anchor: { row: 0, column: 0 } } as Selection,
  });
  props['onUpdate:selection'] = (next: Selection) => (props.selection = next);
  const page = await mount(ScoreGrid, props, ['edit', 'find', 'run', 'width', 'wait']);
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

  test('selects rows, columns and everything', async () => {
    const page = await mounted();
    const selected = () => page.props['selection'];
    await page.press(' ', { shiftKey: true });
    expect(selected()).toEqual({ at: { row: 0, column: 0 }, anchor: { row: 0, column: 1 } });
    await page.press('ArrowDown');
    await page.press(' ', { ctrlKey: true });
    expect(selected()).toEqual({ at: { row: 0, column: 0 }, anchor: { row: 1, column: 0 } });
    await page.press('a', { ctrlKey: true });
    expect(page.text()).toContain('4 cells');
    expect(page.text()).toContain('3 scored · 1 not scored');
    await page.press('Delete');
    expect(page.heard[0]?.[1]).toHaveLength(4);
    await page.press('f', { ctrlKey: true });
    expect(page.heard[1]).toEqual(['find']);
  });

  test('arrows go on while a number is typed, and choose a state where there are some', async () => {
    const page = await mounted();
    await page.press('ArrowRight');
    await page.press('7');
    await page.press('ArrowDown');
    expect(page.heard).toEqual([['edit', [{ row: 0, column: 1, text: '7' }]]]);
    expect(page.active()).toBe('width: not scored');
    await page.press('8');
    await page.press('ArrowLeft');
    expect(page.active()).toBe('margin: entire');
    await page.press('t');
    expect(page.all('[role=option]').map((o) => o.textContent?.trim())).toEqual(['toothed', 'entire']);
    await page.press('ArrowDown');
    await page.press('Enter', { shiftKey: true });
    expect(page.heard.at(-1)).toEqual(['edit', [{ row: 1, column: 0, text: 'toothed' }]]);
    expect(page.active()).toBe('margin: toothed');
  });

  test('an opened text keeps the arrows to itself', async () => {
    const page = await mounted();
    await page.press('ArrowRight');
    await page.press('F2');
    await page.press('ArrowLeft');
    expect(page.all('input.editor')).toHaveLength(1);
  });

  test('Tab runs along a row, over cells that stay as they are; Enter begins the next where the run began', async () => {
    const page = await mounted();
    await page.press('e');
    await page.press('Tab');
    expect(page.active()).toBe('width: 5–9');
    await page.press('9');
    await page.press('Enter');
    expect(page.active()).toBe('margin: entire');
    await page.press('Tab');
    expect(page.active(), 'without a run it leaves the sheet').toBe('margin: entire');
  });

  test('fills what stands before into a single cell, and the first column to the right', async () => {
    const page = await mounted();
    await page.press('ArrowDown');
    await page.press('d', { ctrlKey: true });
    await page.press('a', { ctrlKey: true });
    await page.press('r', { ctrlKey: true });
    expect(page.heard).toEqual([
      ['edit', [{ row: 1, column: 0, text: 'toothed' }]],
      [
        'edit',
        [
          { row: 0, column: 1, text: 'toothed' },
          { row: 1, column: 1, text: 'entire' },
        ],
      ],
    ]);
  });

  test('nothing is copied or filled from what has not come yet', async () => {
    const page = await mounted();
    page.props['grid'] = { ...grid, cell: (r: number, c: number) => (c ? undefined : grid.cell(r, c)) };
    await page.press('a', { ctrlKey: true });
    await page.press('d', { ctrlKey: true });
    expect(page.heard).toEqual([['wait', 0, 1]]);
  });

  test('fills what was just typed, though it is still on its way', async () => {
    const page = await mounted();
    const draft = (r: number, c: number) => (r === 0 && c === 0 ? { text: 'lobed', refused: false } : undefined);
    page.props['grid'] = { ...grid, draft };
    await page.press('ArrowDown', { shiftKey: true });
    await page.press('d', { ctrlKey: true });
    expect(page.heard).toEqual([['edit', [{ row: 1, column: 0, text: 'lobed' }]]]);
  });

  test('a single cell is not filled from a neighbour that has not come yet', async () => {
    const page = await mounted();
    page.props['grid'] = { ...grid, cell: (r: number, c: number) => (c ? grid.cell(r, c) : undefined) };
    await page.press('ArrowRight');
    await page.press('r', { ctrlKey: true });
    expect(page.heard).toEqual([['wait', 0, 0]]);
  });

  test('the menu of the selection opens by keyboard and says what else can be done', async () => {
    const page = await mounted();
    await page.press('F10', { shiftKey: true });
    await vi.waitFor(() => expect(document.body.textContent).toContain('Order rows by this character'));
    const item = [...document.querySelectorAll<HTMLElement>('.v-list-item')].find((i) =>
      i.textContent?.includes('Order rows by this'),
    );
    item?.click();
    expect(page.heard.at(-1)).toEqual(['run', 'sortUp']);
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

describe('the pointer', () => {
  const x = SIZE.rowHeader + 10;
  const y = TOP + 10;

  async function pointed(editable = true) {
    const page = await mounted(editable);
    const box = page.all('[role=grid]')[0] as HTMLElement;
    Object.defineProperty(box, 'clientWidth', { value: 1000 });
    Object.defineProperty(box, 'clientHeight', { value: 1000 });
    const at = async (type: string, clientX: number, clientY: number) => {
      box.dispatchEvent(new MouseEvent(type, { clientX, clientY, bubbles: true, button: 0, buttons: 1 }));
      await nextTick();
    };
    const draw = async (from: [number, number], to: [number, number]) => {
      await at('mousedown', ...from);
      await at('mousemove', ...to);
      await at('mouseup', ...to);
    };
    return { ...page, draw };
  }

  test('selects by headings, one or several', async () => {
    const page = await pointed();
    await page.draw([x, SIZE.organBand + 5], [x, SIZE.organBand + 5]);
    expect(page.props['selection']).toEqual({ at: { row: 0, column: 0 }, anchor: { row: 1, column: 0 } });
    await page.draw([5, y], [5, y + SIZE.row]);
    expect(page.props['selection']).toEqual({ at: { row: 0, column: 0 }, anchor: { row: 1, column: 1 } });
  });

  test('draws a cell further by its corner, and a column wider by its border', async () => {
    const page = await pointed();
    await page.draw([SIZE.rowHeader + SIZE.column - 3, TOP + SIZE.row - 3], [x, y + SIZE.row]);
    expect(page.heard).toEqual([['edit', [{ row: 1, column: 0, text: 'toothed' }]]]);
    await page.draw([SIZE.rowHeader + SIZE.column - 1, SIZE.organBand + 5], [SIZE.rowHeader + 300, 40]);
    expect(page.heard.at(-1)).toEqual(['width', 0, 300]);
  });

  test('draws nothing for somebody who only views', async () => {
    const page = await pointed(false);
    await page.draw([SIZE.rowHeader + SIZE.column - 3, TOP + SIZE.row - 3], [x, y + SIZE.row]);
    expect(page.heard).toEqual([]);
  });
});

test('a problem stands at its cell as an alert', async () => {
  const page = await mounted();
  page.props.problem = 'No state of margin';
  await nextTick();
  expect(page.all('[role=alert]')[0]?.textContent).toContain('No state of margin');
});

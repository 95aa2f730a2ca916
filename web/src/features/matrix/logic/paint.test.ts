import { describe, expect, test } from 'vitest';
import type { Cell } from '@/study-kernel';
import { Geometry, SIZE, TOP } from './geometry';
import { paintGrid, type GridModel, type Ink } from './paint';

interface Mark {
  what: 'text' | 'rect' | 'stroke' | 'line';
  text: string;
  x: number;
  y: number;
  width: number;
  alpha: number;
  font: string;
  fill: string;
  dashed: boolean;
}

/** A canvas that notes what is drawn on it. */
function recorder() {
  const marks: Mark[] = [];
  const state = { fillStyle: '', strokeStyle: '', font: '', globalAlpha: 1, lineWidth: 1, textBaseline: '' };
  let dash: number[] = [];
  let depth = 0;
  const mark = (what: Mark['what'], text: string, x: number, y: number, width: number) =>
    marks.push({
      what,
      text,
      x,
      y,
      width,
      alpha: state.globalAlpha,
      font: state.font,
      fill: state.fillStyle,
      dashed: dash.length > 0,
    });
  const context = Object.assign(state, {
    save: () => (depth += 1),
    restore: () => (depth -= 1),
    beginPath: () => undefined,
    rect: () => undefined,
    clip: () => undefined,
    moveTo: (x: number, y: number) => mark('line', '', x, y, 0),
    fill: () => mark('rect', 'corner', 0, 0, 0),
    lineTo: () => undefined,
    stroke: () => undefined,
    setLineDash: (d: number[]) => (dash = d),
    measureText: (t: string) => ({ width: t.length * 7 }),
    fillText: (t: string, x: number, y: number) => mark('text', t, x, y, 0),
    fillRect: (x: number, y: number, width: number) => mark('rect', '', x, y, width),
    strokeRect: (x: number, y: number, width: number) => mark('stroke', '', x, y, width),
  });
  return { context: context as unknown as CanvasRenderingContext2D, marks, depth: () => depth };
}

const column = (label: string, unit: string, max: number) => ({
  id: label,
  label,
  unit,
  scale: { min: 0, max },
  states: [],
  width: SIZE.column,
  sortable: true,
});

const ink: Ink = {
  paper: 'paper',
  surface: 'surface',
  text: 'text',
  accent: 'accent',
  danger: 'danger',
  warning: 'warning',
  rule: 'rule',
  sans: 'sans',
  serif: 'serif',
};
const cell = (over: Partial<Cell>): Cell =>
  ({
    text: '',
    kind: 'states',
    parts: [],
    doubtful: false,
    basis: '',
    source: '',
    from: null,
    revision: 0,
    ...over,
  }) as Cell;

function painted(shown: Cell | undefined, over: Partial<GridModel> = {}) {
  const canvas = recorder();
  const model: GridModel = {
    rows: [{ label: 'Alpha beta', stage: '', depth: 0, hazard: 'NONE_KNOWN' }],
    columns: [column('leaf width', 'mm', 10)],
    bands: [{ organ: 'leaf', from: 0, to: 1 }],
    frozen: 0,
    cell: () => shown,
    flagged: () => false,
    commented: () => false,
    draft: () => undefined,
    ...over,
  };
  const at = { row: 0, column: 0 };
  const widths = model.columns.map((c) => c.width);
  const geometry = new Geometry(model.rows.length, widths, model.frozen);
  paintGrid(canvas.context, model, geometry, { at, anchor: at }, { left: 0, top: 0 }, { width: 600, height: 300 }, ink);
  const texts = canvas.marks.filter((m) => m.what === 'text');
  return { ...canvas, texts, word: (t: string) => texts.find((m) => m.text.startsWith(t)) };
}

test('whatever is painted, the canvas is left as it was found', () => {
  const kinds = ['states', 'range', 'not-applicable', 'unknown', 'any', 'empty', 'months'];
  for (const kind of kinds) {
    expect(painted(cell({ kind, text: 'x', range: { min: 1, low: 2, high: 3, max: 4 } })).depth()).toBe(0);
  }
});

describe('states', () => {
  test('weigh as often as they are shown', () => {
    const grid = painted(
      cell({
        parts: [
          { label: 'toothed', share: 0.95, mistaken: false },
          { label: 'entire', share: 0.05, mistaken: false },
        ],
      }),
    );
    expect(grid.word('toothed')?.font).toContain('600');
    expect(grid.word('entire')?.font).toContain('300');
    expect(grid.word('toothed')?.alpha ?? 0).toBeGreaterThan(grid.word('entire')?.alpha ?? 1);
    expect(grid.word('entire')?.x ?? 0).toBeGreaterThan(grid.word('toothed')?.x ?? 0);
  });

  test('that are only taken for it are marked, not by weight alone', () => {
    expect(painted(cell({ parts: [{ label: 'entire', share: 0, mistaken: true }] })).word('≈ entire')?.font).toContain(
      'italic',
    );
  });

  test('inherited ones are lighter than own ones', () => {
    const parts = [{ label: 'toothed', share: 1, mistaken: false }];
    const own = painted(cell({ parts })).word('toothed')?.alpha ?? 0;
    const inherited = painted(cell({ parts, from: 'genus' })).word('toothed')?.alpha ?? 1;
    expect(inherited).toBeLessThan(own);
  });

  test('however light, they keep 4.5 : 1 on paper', () => {
    for (const share of [0, 0.1, 1])
      for (const mistaken of [true, false])
        for (const from of ['', 'genus']) {
          const grid = painted(cell({ parts: [{ label: 'toothed', share, mistaken }], from }));
          const alpha = grid.word(mistaken ? '≈ toothed' : 'toothed')?.alpha ?? 0;
          expect(contrast('#22241f', '#faf7f0', alpha)).toBeGreaterThan(4.5);
        }
  });
});

describe('numbers', () => {
  test('lie on the common scale of the column: thick for the usual range, thin for its tails', () => {
    const grid = painted(cell({ kind: 'range', text: '(0–)5–10', range: { min: 0, low: 5, high: 10, max: 10 } }));
    const bars = grid.marks.filter(
      (m) => m.what === 'rect' && m.fill === 'accent' && m.y > TOP && m.width < SIZE.column,
    );
    const [tails, core] = bars;
    expect(tails?.width).toBeCloseTo((core?.width ?? 0) * 2);
    expect((tails?.x ?? 0) + (tails?.width ?? 0)).toBeCloseTo((core?.x ?? 0) + (core?.width ?? 0));
    expect(grid.word('(0–)5–10')).toBeDefined();
  });

  test('a single value is still seen', () => {
    const grid = painted(cell({ kind: 'range', text: '4', range: { min: 4, low: 4, high: 4, max: 4 } }));
    const bars = grid.marks.filter((m) => m.what === 'rect' && m.fill === 'accent' && m.y > TOP && m.width < 10);
    expect(Math.max(...bars.map((b) => b.width))).toBeGreaterThanOrEqual(3);
  });
});

test('not applicable is hatched, unknown is a question mark, unscored is empty', () => {
  expect(painted(cell({ kind: 'not-applicable' })).marks.filter((m) => m.what === 'line').length).toBeGreaterThan(5);
  expect(painted(cell({ kind: 'unknown', text: '?' })).word('?')).toBeDefined();
  const empty = painted(undefined);
  expect(empty.texts.map((t) => t.text)).toEqual(['Alpha beta', 'leaf', 'leaf width, mm']);
});

test('a doubt is dotted', () => {
  const doubtful = painted(cell({ doubtful: true, parts: [{ label: 'x', share: 1, mistaken: false }] }));
  expect(doubtful.marks.some((m) => m.what === 'stroke' && m.dashed)).toBe(true);
  expect(painted(cell({})).marks.some((m) => m.dashed)).toBe(false);
});

test('a dangerous row carries its mark in words and colour, stages their own name', () => {
  const row = { label: 'Bane alba', stage: '', depth: 0, hazard: 'LIFE_THREATENING' as const };
  const rows = [
    row,
    { ...row, stage: 'juvenile', depth: 1 },
    { ...row, label: 'Alpha beta subsp. gamma', depth: 1, hazard: 'NONE_KNOWN' as const },
  ];
  const texts = painted(undefined, { rows }).texts.map((t) => t.text);
  expect(texts).toContain('⚠ Bane alba');
  expect(texts).toContain('⚠ juvenile');
  expect(texts).toContain('subsp. gamma');
});

test('only what shows is asked for', () => {
  let asked = 0;
  const many = <T>(value: T, n: number) => Array.from({ length: n }, () => value);
  painted(undefined, {
    rows: many({ label: 'x', stage: '', depth: 0, hazard: 'NONE_KNOWN' as const }, 2000),
    columns: many(column('c', '', 1), 500),
    bands: [],
    frozen: 0,
    cell: () => {
      asked += 1;
      return undefined;
    },
  });
  expect(asked).toBeLessThan(100);
});

test('a cell in which a check found something has a folded corner', () => {
  const corners = (flagged: boolean) =>
    painted(undefined, { flagged: () => flagged }).marks.filter((m) => m.text === 'corner' && m.fill === 'warning');
  expect(corners(true)).toHaveLength(1);
  expect(corners(false)).toHaveLength(0);
});

test('a cell of which something is said carries a mark of its own', () => {
  const lines = (commented: boolean) =>
    painted(undefined, { commented: () => commented }).marks.filter((m) => m.what === 'rect' && m.width === 9);
  expect(lines(true)).toHaveLength(1);
  expect(lines(false)).toHaveLength(0);
});

/** Of ink laid over paper with some alpha, by WCAG 2.2. */
function contrast(ink: string, paper: string, alpha: number): number {
  const channels = (hex: string) => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255);
  const luminance = (rgb: number[]) =>
    rgb
      .map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4))
      .reduce((sum, c, i) => sum + c * ([0.2126, 0.7152, 0.0722][i] ?? 0), 0);
  const under = channels(paper);
  const seen = channels(ink).map((c, i) => c * alpha + (under[i] ?? 0) * (1 - alpha));
  return (luminance(under) + 0.05) / (luminance(seen) + 0.05);
}

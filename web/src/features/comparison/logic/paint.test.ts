import { expect, test } from 'vitest';
import type { PairTable, Sign } from './map';
import { extent, paint, SHAPES_FROM, type Ink } from './paint';

const ink: Ink = { text: 'text', faint: 'faint', doubt: 'doubt', accent: 'accent' };

interface Drawn {
  what: 'rect' | 'disc' | 'ring' | 'name' | 'box' | 'dash';
  colour: string;
  alpha: number;
  x: number;
  y: number;
  size: number;
  text: string;
}

/** A context that writes down what is drawn. */
function recorder() {
  const drawn: Drawn[] = [];
  const arc = { x: 0, y: 0, radius: 0, line: false };
  const g = {
    canvas: document.createElement('canvas'),
    globalAlpha: 1,
    fillStyle: '',
    strokeStyle: '',
    lineWidth: 1,
    font: '',
    textBaseline: '',
    clearRect: () => undefined,
    beginPath: () => (arc.line = false),
    moveTo: () => (arc.line = true),
    lineTo: () => undefined,
    arc: (x: number, y: number, radius: number) => Object.assign(arc, { x, y, radius }),
    fill: () => note('disc', g.fillStyle, arc.x, arc.y, arc.radius),
    stroke: () => note(arc.line ? 'dash' : 'ring', g.strokeStyle, arc.x, arc.y, arc.radius),
    fillRect: (x: number, y: number, width: number) => note('rect', g.fillStyle, x, y, width),
    strokeRect: (x: number, y: number, width: number) => note('box', g.strokeStyle, x, y, width),
    fillText: (text: string, x: number, y: number) => note('name', g.fillStyle, x, y, 0, text),
  };
  function note(what: Drawn['what'], colour: string, x: number, y: number, size: number, text = '') {
    drawn.push({ what, colour, alpha: g.globalAlpha, x, y, size, text });
  }
  return { g: g as unknown as CanvasRenderingContext2D, drawn };
}

const table = (n: number, sign: (a: number, b: number) => Sign): PairTable => ({
  rows: Array.from({ length: n }, (_, i) => ({ id: `r${i}`, name: `Row ${i}`, dangerous: i === 1 })),
  sign: (a, b) => sign(Math.max(a, b), Math.min(a, b)),
});
const view = (size: number) => ({ left: 0, top: 0, width: 800, height: 600, size });

test('each standing has a shape of its own, and the more doubt the more ink', () => {
  const signs: Record<string, Sign> = { '1 0': '0', '2 0': '1', '2 1': '2', '3 0': '3', '3 1': '-', '3 2': '0' };
  const { g, drawn } = recorder();
  paint(
    g,
    table(4, (a, b) => signs[`${a} ${b}`] ?? '3'),
    view(20),
    ink,
    undefined,
    false,
  );
  const at = (row: number, column: number) =>
    drawn.filter((d) => d.x === column * 20 + 10 && d.y === row * 20 + 10 && ['disc', 'ring'].includes(d.what));
  expect(at(1, 0).map((d) => d.what)).toEqual(['disc']);
  expect(at(2, 0).map((d) => d.what)).toEqual(['ring', 'disc']);
  expect(at(2, 1).map((d) => d.what)).toEqual(['ring']);
  expect(at(3, 0).map((d) => d.what)).toEqual(['disc']);
  expect(at(1, 0)[0]?.size).toBeGreaterThan(at(2, 1)[0]?.size ?? 99);
  expect(at(2, 1)[0]?.size).toBeGreaterThan(at(3, 0)[0]?.size ?? 99);
  expect(drawn.filter((d) => d.what === 'dash')).toHaveLength(1);
});

test('however small the cells are, a pair to worry about is seen and firm ones are paper', () => {
  const { g, drawn } = recorder();
  paint(
    g,
    table(400, (a, b) => (a === 300 && b === 10 ? '0' : a === 200 && b === 20 ? '2' : '3')),
    view(1),
    ink,
    undefined,
    false,
  );
  expect(1).toBeLessThan(SHAPES_FROM);
  const blots = drawn.filter((d) => d.what === 'rect' && d.alpha === 1);
  expect(blots.map((d) => [d.colour, d.size])).toEqual([
    ['text', 2.5],
    ['doubt', 4],
  ]);
  const names = drawn.filter((d) => d.what === 'name');
  expect(names.length).toBeLessThan(400 / 10);
  for (let k = 1; k < names.length; k++) expect((names[k]?.y ?? 0) - (names[k - 1]?.y ?? 0)).toBeGreaterThanOrEqual(11);
});

test('against dangers only their pairs stand out, with a frame', () => {
  const { g, drawn } = recorder();
  paint(
    g,
    table(3, () => '2'),
    view(20),
    ink,
    undefined,
    true,
  );
  expect(drawn.filter((d) => d.what === 'ring').map((d) => d.alpha)).toEqual([1, 0.18, 1]);
  expect(drawn.filter((d) => d.what === 'box')).toHaveLength(2);
  expect(drawn.find((d) => d.text === '⚠ Row 1')?.colour).toBe('doubt');
});

test('both names of the pair in focus are readable, wherever it is', () => {
  const { g, drawn } = recorder();
  paint(
    g,
    table(400, () => '3'),
    view(1),
    ink,
    { row: 201, column: 200 },
    false,
  );
  const names = drawn.filter((d) => d.what === 'name').sort((a, b) => a.y - b.y);
  expect(names.filter((d) => d.colour === 'accent').map((d) => d.text)).toEqual(['Row 200', 'Row 201']);
  for (let k = 1; k < names.length; k++) expect((names[k]?.y ?? 0) - (names[k - 1]?.y ?? 0)).toBeGreaterThanOrEqual(10);
});

test('what lies outside the window is not drawn', () => {
  const { g, drawn } = recorder();
  const all = table(2000, () => '0');
  expect(extent(2000, 20).height).toBeGreaterThan(40_000);
  paint(g, all, { ...view(20), left: 20_000, top: 30_000 }, ink, undefined, false);
  const discs = drawn.filter((d) => d.what === 'disc');
  expect(discs.length).toBeGreaterThan(1000);
  expect(discs.length).toBeLessThan(1400);
});

import { isGrave, type Cell, type PairTable, type Sign } from './map';

export interface Ink {
  text: string;
  faint: string;
  doubt: string;
  accent: string;
}

/** What of the picture is seen: its place in pixels, and the size of a cell. */
export interface View {
  left: number;
  top: number;
  width: number;
  height: number;
  size: number;
}

/** Cells smaller than this have no shapes, only weight of ink; names stand beside every few rows. */
export const SHAPES_FROM = 7;
const NAME_HEIGHT = 11;
const NAMES = 190;
const READ_BY_NAME = 90;
const NOBODY = { name: '', dangerous: false };

/** Room above the first row for its name. */
export const ABOVE = 8;

export const extent = (rows: number, size: number) => ({ width: rows * size + NAMES, height: rows * size + ABOVE + 4 });

/** Size at which all rows can be seen at once; at least a pixel, at most a size that is pleasant to point at. */
export const fitting = (rows: number, width: number, height: number) =>
  Math.max(1, Math.min(26, Math.floor(Math.min((width - NAMES) / rows, (height - ABOVE - 6) / rows) * 4) / 4));

/** Size to begin with: of as many rows as somebody reads name by name, every name is seen, and the rest by scrolling. */
export const beginning = (rows: number, width: number, height: number) =>
  Math.max(fitting(rows, width, height), rows <= READ_BY_NAME ? NAME_HEIGHT : 1);

export function cellAt(view: View, x: number, y: number, rows: number): Cell | undefined {
  const row = Math.floor((y + view.top) / view.size);
  const column = Math.floor((x + view.left) / view.size);
  return row >= 0 && row < rows && column >= 0 && column < row ? { row, column } : undefined;
}

/** Draws the visible part: the more doubt about a pair, the more ink. */
export function paint(
  g: CanvasRenderingContext2D,
  table: PairTable,
  view: View,
  ink: Ink,
  active: Cell | undefined,
  graveOnly: boolean,
) {
  const { size } = view;
  const n = table.rows.length;
  g.clearRect(0, 0, view.width, view.height);
  const from = Math.max(0, Math.floor(view.top / size));
  const to = Math.min(n, Math.ceil((view.top + view.height) / size));
  const last = Math.ceil((view.left + view.width) / size);
  const first = Math.max(0, Math.floor(view.left / size));
  for (let row = from; row < to; row++) {
    const y = row * size - view.top;
    g.globalAlpha = row % 2 ? 0.05 : 0.09;
    g.fillStyle = ink.text;
    g.fillRect(-view.left, y, row * size, size);
    for (let column = first; column < Math.min(row, last); column++) {
      const x = column * size - view.left;
      const grave = isGrave(table.rows[row], table.rows[column]);
      g.globalAlpha = graveOnly && !grave ? 0.18 : 1;
      const sign = table.sign(row, column);
      if (size < SHAPES_FROM) blot(g, sign, x, y, size, ink);
      else shape(g, sign, x, y, size, ink);
      if (graveOnly && grave && size >= SHAPES_FROM) {
        g.strokeStyle = ink.doubt;
        g.lineWidth = 1;
        g.strokeRect(x + 1.5, y + 1.5, size - 3, size - 3);
      }
    }
  }
  g.globalAlpha = 1;
  if (active) cross(g, view, active, ink);
  names(g, table, view, ink, active, from, to);
}

function blot(g: CanvasRenderingContext2D, sign: Sign, x: number, y: number, size: number, ink: Ink) {
  if (sign === '3' || sign === '-') return;
  g.fillStyle = sign === '2' ? ink.text : ink.doubt;
  // However small the cells are, a pair to worry about can be seen.
  const side = Math.max(sign === '2' ? 2.5 : 4, sign === '2' ? size * 0.6 : size);
  g.fillRect(x + (size - side) / 2, y + (size - side) / 2, side, side);
}

function shape(g: CanvasRenderingContext2D, sign: Sign, x: number, y: number, size: number, ink: Ink) {
  const cx = x + size / 2;
  const cy = y + size / 2;
  g.fillStyle = sign === '0' || sign === '1' ? ink.doubt : ink.faint;
  g.strokeStyle = g.fillStyle;
  g.lineWidth = Math.max(1, size / 12);
  g.beginPath();
  if (sign === '-') {
    g.moveTo(cx - size * 0.22, cy);
    g.lineTo(cx + size * 0.22, cy);
    g.stroke();
  } else if (sign === '3') {
    g.arc(cx, cy, Math.max(0.7, size * 0.07), 0, 2 * Math.PI);
    g.fill();
  } else if (sign === '2') {
    g.arc(cx, cy, size * 0.24, 0, 2 * Math.PI);
    g.stroke();
  } else if (sign === '1') {
    g.arc(cx, cy, size * 0.34, 0, 2 * Math.PI);
    g.stroke();
    g.beginPath();
    g.arc(cx, cy, size * 0.34, Math.PI / 2, (3 * Math.PI) / 2);
    g.fill();
  } else {
    g.arc(cx, cy, size * 0.4, 0, 2 * Math.PI);
    g.fill();
  }
}

function cross(g: CanvasRenderingContext2D, view: View, at: Cell, ink: Ink) {
  const { size } = view;
  const x = at.column * size - view.left;
  const y = at.row * size - view.top;
  g.fillStyle = ink.accent;
  g.globalAlpha = 0.14;
  g.fillRect(-view.left, y, at.row * size, size);
  g.fillRect(x, at.column * size - view.top + size, size, view.height);
  g.globalAlpha = 1;
  g.strokeStyle = ink.accent;
  g.lineWidth = 2;
  g.strokeRect(x - 1, y - 1, size + 2, size + 2);
}

function names(
  g: CanvasRenderingContext2D,
  table: PairTable,
  view: View,
  ink: Ink,
  active: Cell | undefined,
  from: number,
  to: number,
) {
  const { size } = view;
  const every = Math.max(1, Math.ceil(NAME_HEIGHT / size));
  g.textBaseline = 'middle';
  for (let row = from; row < to; row++) {
    const marked = active && (row === active.row || row === active.column);
    const near = (k: number, above: number) => row > k - above * every && row < k + every;
    const crowded = !marked && active && (near(active.row, 1) || near(active.column, size < NAME_HEIGHT ? 2.2 : 1));
    if ((row % every && !marked) || crowded) continue;
    const { name, dangerous } = table.rows[row] ?? NOBODY;
    g.font = `${marked ? '600 ' : ''}${Math.min(14, Math.max(10.5, size * 0.62))}px ${getComputedStyle(g.canvas).fontFamily}`;
    g.fillStyle = dangerous ? ink.doubt : marked ? ink.accent : ink.text;
    // The names of a pair of neighbours stand above each other.
    const up = active && row === active.column ? Math.max(0, NAME_HEIGHT + 2 - (active.row - row) * size) : 0;
    const y = (row + 0.5) * size - view.top - up;
    // At the very top there is no room above, but below the neighbour's name there is.
    g.fillText(
      (dangerous ? '⚠ ' : '') + name,
      (row + 0.3) * size + 4 - view.left,
      up ? Math.max(NAME_HEIGHT / 2, y) : y,
    );
  }
}

import type { Schemas } from '@/api/client';
import type { Cell } from '@/study-kernel';
import { isDangerous } from '@/shared/taxon/hazards';
import { SIZE, TOP, type Geometry } from './geometry';
import { corners, type Band, type Box as Cells, type Selection } from './grid';

/** How a text looks that was typed and is not in its cell yet. */
interface DraftFace {
  text: string;
  refused: boolean;
  stored: boolean;
}

export interface GridModel {
  rows: { label: string; stage: string; depth: number; hazard: Schemas['StudyRow']['hazard'] }[];
  columns: {
    id: string;
    label: string;
    unit: string;
    scale: { min: number; max: number };
    /** Labels of its states, which can be chosen while somebody types. */
    states: string[];
    width: number;
    /** Whether rows can stand in its order. */
    sortable: boolean;
    /** Whether they do, and in which. */
    sorted?: 'up' | 'down';
  }[];
  bands: Band[];
  /** How many columns are to stand still at the left. */
  frozen: number;
  cell: (row: number, column: number) => Cell | undefined;
  /** Whether a check found something in the cell. */
  flagged: (row: number, column: number) => boolean;
  /** Whether somebody said something of the cell that is not settled. */
  commented: (row: number, column: number) => boolean;
  /** A text that is on its way to the cell, or was refused and waits there. */
  draft: (row: number, column: number) => DraftFace | undefined;
  loaded?: number;
  findings?: number;
  drafts?: number;
}

export interface Ink {
  paper: string;
  surface: string;
  text: string;
  accent: string;
  danger: string;
  warning: string;
  rule: string;
  sans: string;
  serif: string;
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Lightest ink that keeps 4.5 : 1 on the paper of both themes. */
const READABLE = 0.68;
const PAD = 7;
/** Side of the corner by which a selection is drawn further. */
export const HANDLE = 8;

/** Paints the window of the grid: cells by meaning, headings frozen. */
export function paintGrid(
  g: CanvasRenderingContext2D,
  model: GridModel,
  geometry: Geometry,
  selection: Selection,
  scroll: { left: number; top: number },
  view: { width: number; height: number },
  ink: Ink,
  drawn: Cells | null = null,
) {
  g.fillStyle = ink.paper;
  g.fillRect(0, 0, view.width, view.height);
  const window = geometry.visible(scroll, view);
  const panes = panesOf(geometry, window.columns, scroll, view);
  for (const pane of panes) {
    g.save();
    g.beginPath();
    g.rect(pane.left, TOP, pane.width, view.height);
    g.clip();
    for (let row = window.rows[0]; row < window.rows[1]; row++) {
      for (let column = pane.columns[0]; column < pane.columns[1]; column++) {
        paintCell(g, model, row, column, boxOf(geometry, row, column, pane.scroll), ink);
      }
    }
    paintSelection(g, geometry, selection, pane.scroll, ink);
    if (drawn) paintDrawn(g, geometry, drawn, pane.scroll, ink);
    g.restore();
  }
  paintRowHeadings(g, model, window.rows, selection, scroll, view, ink);
  for (const pane of panes) paintColumnHeadings(g, model, geometry, pane, selection, view, ink);
  if (geometry.frozen) {
    g.fillStyle = ink.text;
    g.fillRect(geometry.still, 0, 1, view.height);
  }
}

/** A part of the window whose columns move together. */
interface Pane {
  left: number;
  width: number;
  columns: readonly [number, number];
  scroll: { left: number; top: number };
}

function panesOf(
  geometry: Geometry,
  columns: readonly [number, number],
  scroll: { left: number; top: number },
  view: { width: number },
): Pane[] {
  const edge = geometry.still;
  const moving: Pane = { left: edge, width: Math.max(0, view.width - edge), columns, scroll };
  if (!geometry.frozen) return [moving];
  const still: Pane = {
    left: SIZE.rowHeader,
    width: edge - SIZE.rowHeader,
    columns: [0, geometry.frozen],
    scroll: { left: 0, top: scroll.top },
  };
  return [moving, still];
}

function leftIn(geometry: Geometry, column: number, scroll: { left: number }): number {
  return geometry.left(column, { left: 0 }) - scroll.left;
}

/** In a pane: its own scroll offset says whether its columns stand still. */
function boxOf(geometry: Geometry, row: number, column: number, scroll: { left: number; top: number }): Box {
  return {
    x: leftIn(geometry, column, scroll),
    y: TOP + row * SIZE.row - scroll.top,
    width: geometry.width(column),
    height: SIZE.row,
  };
}

function paintCell(g: CanvasRenderingContext2D, model: GridModel, row: number, column: number, box: Box, ink: Ink) {
  const cell = model.cell(row, column);
  const draft = model.draft(row, column);
  g.strokeStyle = ink.rule;
  g.lineWidth = 1;
  g.strokeRect(box.x + 0.5, box.y + 0.5, box.width, box.height);
  if (model.flagged(row, column)) paintFlag(g, box, ink);
  if (model.commented(row, column)) paintComment(g, box, ink);
  if (draft) paintDraft(g, draft, box, ink);
  if (draft || !cell || cell.kind === 'empty') return;
  g.save();
  g.beginPath();
  g.rect(box.x + 1, box.y + 1, box.width - 2, box.height - 1);
  g.clip();
  const strength = cell.from ? READABLE : 1;
  if (cell.kind === 'not-applicable') paintHatch(g, box, ink);
  else if (cell.kind === 'range' && cell.range)
    paintRange(g, cell, model.columns[column]?.scale ?? { min: 0, max: 1 }, box, strength, ink);
  else if (cell.kind === 'states' || cell.kind === 'months') paintWords(g, cell, box, strength, ink);
  else if (cell.kind === 'any') text(g, cell.text, box, `italic 14px ${ink.sans}`, Math.min(0.8, strength), ink.text);
  else if (cell.kind === 'unknown') text(g, '?', box, `14px ${ink.sans}`, READABLE, ink.text);
  if (cell.doubtful) paintDoubt(g, box, ink);
  g.restore();
}

function text(g: CanvasRenderingContext2D, words: string, box: Box, font: string, alpha: number, color: string) {
  g.globalAlpha = alpha;
  g.fillStyle = color;
  g.font = font;
  g.textBaseline = 'middle';
  g.fillText(words, box.x + PAD, box.y + box.height / 2 + 1);
  g.globalAlpha = 1;
}

/** States as words, the more often shown the heavier. */
function paintWords(g: CanvasRenderingContext2D, cell: Cell, box: Box, strength: number, ink: Ink) {
  let x = box.x + PAD;
  cell.parts.forEach((part, i) => {
    const weight = part.share >= 0.6 ? 600 : part.share >= 0.15 ? 400 : 300;
    const font = `${part.mistaken ? 'italic ' : ''}${weight} 14px ${ink.sans}`;
    const word = (part.mistaken ? '≈ ' : '') + part.label + (i + 1 < cell.parts.length ? ', ' : '');
    const alpha = Math.min(strength, part.mistaken ? READABLE : READABLE + (1 - READABLE) * part.share);
    g.font = font;
    text(g, word, { ...box, x: x - PAD }, font, alpha, ink.text);
    x += g.measureText(word).width;
  });
}

/** A bar on the column's common scale: thick for the usual range, thin for its tails. */
function paintRange(
  g: CanvasRenderingContext2D,
  cell: Cell,
  scale: { min: number; max: number },
  box: Box,
  strength: number,
  ink: Ink,
) {
  if (!cell.range) return;
  const left = box.x + PAD;
  const width = box.width - 2 * PAD;
  const at = (value: number) => left + ((value - scale.min) / (scale.max - scale.min)) * width;
  const y = box.y + box.height - 8.5;
  g.globalAlpha = strength;
  g.fillStyle = ink.rule;
  g.fillRect(left, y, width, 1);
  g.fillStyle = ink.accent;
  g.fillRect(at(cell.range.min), y - 0.5, Math.max(1.5, at(cell.range.max) - at(cell.range.min)), 2);
  g.fillRect(at(cell.range.low), y - 2, Math.max(3, at(cell.range.high) - at(cell.range.low)), 5);
  text(g, cell.text, { ...box, height: box.height - 11 }, `13px ${ink.sans}`, strength, ink.text);
}

/** What was typed and is not kept: faint on its way; refused, with a mark and a wave below. */
function paintDraft(g: CanvasRenderingContext2D, draft: DraftFace, box: Box, ink: Ink) {
  g.save();
  g.beginPath();
  g.rect(box.x + 1, box.y + 1, box.width - 2, box.height - 1);
  g.clip();
  if (draft.stored) text(g, draft.text, box, `14px ${ink.sans}`, 1, ink.text);
  else if (!draft.refused) text(g, draft.text, box, `italic 14px ${ink.sans}`, 0.7, ink.text);
  else {
    text(g, `! ${draft.text}`, box, `600 14px ${ink.sans}`, 1, ink.danger);
    g.strokeStyle = ink.danger;
    g.lineWidth = 1.5;
    g.beginPath();
    for (let x = 0; x < box.width - 2 * PAD; x += 4) {
      const y = box.y + box.height - (x % 8 ? 4 : 6);
      if (x) g.lineTo(box.x + PAD + x, y);
      else g.moveTo(box.x + PAD, y);
    }
    g.stroke();
  }
  g.restore();
}

function paintHatch(g: CanvasRenderingContext2D, box: Box, ink: Ink) {
  g.strokeStyle = ink.rule;
  g.beginPath();
  for (let x = box.x - box.height; x < box.x + box.width; x += 7) {
    g.moveTo(x, box.y + box.height);
    g.lineTo(x + box.height, box.y);
  }
  g.stroke();
}

function paintDoubt(g: CanvasRenderingContext2D, box: Box, ink: Ink) {
  g.setLineDash([2, 3]);
  g.strokeStyle = ink.danger;
  g.lineWidth = 1.5;
  g.strokeRect(box.x + 3.5, box.y + 3.5, box.width - 7, box.height - 6);
  g.setLineDash([]);
}

/** A speech mark in the lower corner: two short lines. */
function paintComment(g: CanvasRenderingContext2D, box: Box, ink: Ink) {
  g.fillStyle = ink.accent;
  g.fillRect(box.x + box.width - 12, box.y + box.height - 7, 9, 2);
  g.fillRect(box.x + box.width - 12, box.y + box.height - 4, 5, 2);
}

/** A folded corner: a check found something here. */
function paintFlag(g: CanvasRenderingContext2D, box: Box, ink: Ink) {
  const right = box.x + box.width;
  g.fillStyle = ink.warning;
  g.beginPath();
  g.moveTo(right - 9, box.y + 1);
  g.lineTo(right, box.y + 1);
  g.lineTo(right, box.y + 10);
  g.fill();
}

function paintSelection(
  g: CanvasRenderingContext2D,
  geometry: Geometry,
  selection: Selection,
  scroll: { left: number; top: number },
  ink: Ink,
) {
  const all = outline(geometry, corners(selection), scroll);
  g.globalAlpha = 0.09;
  g.fillStyle = ink.accent;
  g.fillRect(all.x, all.y, all.width, all.height);
  g.globalAlpha = 1;
  const at = boxOf(geometry, selection.at.row, selection.at.column, scroll);
  g.strokeStyle = ink.accent;
  g.lineWidth = 2.5;
  g.strokeRect(at.x + 1.5, at.y + 1.5, at.width - 2, at.height - 2);
  // The corner by which a selection is drawn further.
  g.fillStyle = ink.accent;
  g.fillRect(all.x + all.width - HANDLE, all.y + all.height - HANDLE, HANDLE, HANDLE);
}

/** What a selection that is being drawn further will fill. */
function paintDrawn(
  g: CanvasRenderingContext2D,
  geometry: Geometry,
  drawn: Cells,
  scroll: { left: number; top: number },
  ink: Ink,
) {
  const all = outline(geometry, drawn, scroll);
  g.setLineDash([4, 3]);
  g.strokeStyle = ink.accent;
  g.lineWidth = 1.5;
  g.strokeRect(all.x + 1, all.y + 1, all.width - 2, all.height - 2);
  g.setLineDash([]);
}

function outline(geometry: Geometry, box: Cells, scroll: { left: number; top: number }): Box {
  const first = boxOf(geometry, box.top, box.left, scroll);
  return {
    ...first,
    width: leftIn(geometry, box.right + 1, scroll) - first.x,
    height: (box.bottom - box.top + 1) * SIZE.row,
  };
}

function paintRowHeadings(
  g: CanvasRenderingContext2D,
  model: GridModel,
  rows: readonly [number, number],
  selection: Selection,
  scroll: { left: number; top: number },
  view: { width: number; height: number },
  ink: Ink,
) {
  g.fillStyle = ink.surface;
  g.fillRect(0, TOP, SIZE.rowHeader, view.height);
  for (let r = rows[0]; r < rows[1]; r++) {
    const row = model.rows[r];
    if (!row) continue;
    const y = TOP + r * SIZE.row - scroll.top;
    if (r === selection.at.row) {
      g.globalAlpha = 0.12;
      g.fillStyle = ink.accent;
      g.fillRect(0, Math.max(TOP, y), SIZE.rowHeader, SIZE.row);
      g.globalAlpha = 1;
    }
    g.save();
    g.beginPath();
    g.rect(0, TOP, SIZE.rowHeader - 6, view.height);
    g.clip();
    const box = { x: row.depth * 14 + 4, y, width: SIZE.rowHeader, height: SIZE.row };
    const grave = isDangerous(row.hazard);
    const label = row.stage || (row.depth > 0 ? abbreviated(row.label) : row.label);
    const mark = grave ? '⚠ ' : row.hazard === 'CAUTION' ? '△ ' : '';
    text(
      g,
      mark + label,
      box,
      `${row.stage ? '' : 'italic '}15px ${row.stage ? ink.sans : ink.serif}`,
      1,
      grave ? ink.danger : ink.text,
    );
    g.restore();
    g.fillStyle = ink.rule;
    g.fillRect(0, y + SIZE.row, SIZE.rowHeader, 1);
  }
  g.fillStyle = ink.text;
  g.fillRect(SIZE.rowHeader - 1, 0, 1, view.height);
}

/** Under its species a subspecies needs only its own part of the name. */
function abbreviated(label: string): string {
  const own = /\s((?:subsp|var|f)\.\s.*)$/.exec(label);
  return own?.[1] ?? label;
}

function paintColumnHeadings(
  g: CanvasRenderingContext2D,
  model: GridModel,
  geometry: Geometry,
  { columns, scroll, ...pane }: Pane,
  selection: Selection,
  view: { width: number; height: number },
  ink: Ink,
) {
  g.save();
  g.beginPath();
  g.rect(pane.left, 0, pane.width, TOP);
  g.clip();
  g.fillStyle = ink.surface;
  g.fillRect(pane.left, 0, pane.width, TOP);
  for (const band of model.bands) {
    const x = leftIn(geometry, band.from, scroll);
    const width = leftIn(geometry, band.to, scroll) - x;
    const textX = Math.max(x, pane.left);
    g.fillStyle = ink.rule;
    g.fillRect(x, 0, 1, TOP);
    g.save();
    g.beginPath();
    g.rect(textX, 0, Math.max(0, x + width - textX), SIZE.organBand);
    g.clip();
    text(g, band.organ, { x: textX, y: 2, width, height: SIZE.organBand }, `600 13px ${ink.sans}`, 1, ink.accent);
    g.restore();
    g.fillStyle = ink.accent;
    g.fillRect(x + 1, SIZE.organBand, width - 2, 1.5);
  }
  for (let c = columns[0]; c < columns[1]; c++) {
    const x = leftIn(geometry, c, scroll);
    const width = geometry.width(c);
    if (c === selection.at.column) {
      g.globalAlpha = 0.12;
      g.fillStyle = ink.accent;
      g.fillRect(x, SIZE.organBand + 2, width, SIZE.header);
      g.globalAlpha = 1;
    }
    const column = model.columns[c];
    if (column) paintHeading(g, headingOf(column), x, width, ink);
  }
  g.restore();
  g.fillStyle = ink.surface;
  g.fillRect(0, 0, SIZE.rowHeader - 1, TOP);
  g.fillStyle = ink.text;
  g.fillRect(0, TOP, view.width, 1);
}

function headingOf(column: GridModel['columns'][number]): string {
  const order = column.sorted === 'up' ? '↑ ' : column.sorted === 'down' ? '↓ ' : '';
  return order + column.label + (column.unit ? `, ${column.unit}` : '');
}

function paintHeading(g: CanvasRenderingContext2D, label: string, x: number, width: number, ink: Ink) {
  g.font = `600 14px ${ink.sans}`;
  g.fillStyle = ink.text;
  g.textBaseline = 'alphabetic';
  let line = '';
  let y = SIZE.organBand + 22;
  for (const word of label.split(' ')) {
    if (line && g.measureText(`${line} ${word}`).width > width - 2 * PAD) {
      g.fillText(line, x + PAD, y);
      line = word;
      y += 18;
    } else line = line ? `${line} ${word}` : word;
  }
  g.fillText(line, x + PAD, y);
}

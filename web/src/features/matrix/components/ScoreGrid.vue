<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core';
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useCellEditing } from '../composables/useCellEditing';
import { usePointer } from '../composables/usePointer';
import { frozenOf, Geometry, SIZE, TOP, type Place } from '../logic/geometry';
import {
  cellsOf,
  corners,
  filled,
  moved,
  pastedCells,
  whole,
  type Box,
  type Pasted,
  type Selection,
} from '../logic/grid';
import { paintGrid, type GridModel, type Ink } from '../logic/paint';
import CellEditor from './CellEditor.vue';
import GridMenu, { type GridCommand } from './GridMenu.vue';
import SelectionStatus from './SelectionStatus.vue';

/**
 * The matrix, painted on a canvas: a window of any size costs the same to scroll. Beside it stands a small table of the
 * cells around the active one, which screen readers read.
 */
const props = defineProps<{ grid: GridModel; editable: boolean; structural: boolean; problem: string }>();
const selection = defineModel<Selection>('selection', { required: true });
const emit = defineEmits<{
  edit: [cells: (Place & { text: string })[]];
  over: [block: Pasted];
  dismiss: [];
  look: [from: number, to: number];
  wait: [from: number, to: number];
  find: [];
  run: [command: GridCommand];
  width: [column: number, width: number];
}>();
const { t } = useI18n();
const scroller = useTemplateRef<HTMLDivElement>('scroller');
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const scroll = ref({ left: 0, top: 0 });
const view = ref({ width: 800, height: 500 });
const drawn = ref<Box | null>(null);
const menu = ref(false);
const menuAt = ref<[number, number]>([0, 0]);
let frame = 0;

const geometry = computed(() => {
  const widths = props.grid.columns.map((c) => c.width);
  return new Geometry(props.grid.rows.length, widths, frozenOf(props.grid.frozen, widths, view.value.width));
});
const rows = computed(() => geometry.value.rows);
const columns = computed(() => geometry.value.columns);
const editing = useCellEditing({
  at: () => selection.value.at,
  size: () => ({ rows: rows.value, columns: columns.value }),
  focus: () => scroller.value?.focus(),
  go: (to) => select(to, false),
  write: (cell) => emit('edit', [cell]),
});
const { text: editingText, fresh } = editing;
const pointer = usePointer(scroller, {
  geometry: () => geometry.value,
  scroll: () => scroll.value,
  selection: () => selection.value,
  editable: () => props.editable,
  before: () => {
    if (editingText.value !== null) editing.commit('stay');
    editing.endRun();
  },
  select: (next, show) => choose(next, show),
  drawing: (box) => (drawn.value = box),
  fill: (box) => fill(box),
  width: (column, width) => emit('width', column, width),
});
/** The editor stays within the window, however far to the right its cell is: what sticks out would scroll the sheet away. */
const EDITOR = 288;
const inputBox = computed(() => ({
  left: `${Math.max(0, Math.min(geometry.value.left(selection.value.at.column, scroll.value), view.value.width - EDITOR))}px`,
  top: `${TOP + selection.value.at.row * SIZE.row - scroll.value.top}px`,
}));
const low = computed(() => TOP + selection.value.at.row * SIZE.row - scroll.value.top > view.value.height / 2);
const near = computed(() => {
  const { row, column } = selection.value.at;
  const around = (n: number, most: number) => [n - 1, n, n + 1].filter((k) => k >= 0 && k < most);
  return { rows: around(row, rows.value), columns: around(column, columns.value) };
});

function ink(): Ink {
  const style = getComputedStyle(scroller.value as HTMLElement);
  const rgb = (name: string) => `rgb(${style.getPropertyValue(`--v-theme-${name}`)})`;
  return {
    paper: rgb('background'),
    surface: rgb('surface'),
    text: rgb('on-surface'),
    accent: rgb('primary'),
    danger: rgb('error'),
    warning: rgb('warning'),
    rule: style.getPropertyValue('--grid-rule'),
    sans: style.getPropertyValue('--sans'),
    serif: style.getPropertyValue('--serif'),
  };
}

function paint() {
  cancelAnimationFrame(frame);
  frame = requestAnimationFrame(() => {
    const g = canvas.value?.getContext('2d');
    if (!g || !canvas.value || !scroller.value) return;
    const ratio = window.devicePixelRatio || 1;
    const { width, height } = view.value;
    if (canvas.value.width !== Math.round(width * ratio) || canvas.value.height !== Math.round(height * ratio)) {
      canvas.value.width = Math.round(width * ratio);
      canvas.value.height = Math.round(height * ratio);
    }
    g.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintGrid(g, props.grid, geometry.value, selection.value, scroll.value, view.value, ink(), drawn.value);
  });
}

function measure() {
  const box = scroller.value;
  if (!box) return;
  view.value = { width: box.clientWidth, height: box.clientHeight };
  scroll.value = { left: box.scrollLeft, top: box.scrollTop };
  const [from, to] = geometry.value.visible(scroll.value, view.value).columns;
  emit('look', from, to);
  paint();
}

onMounted(() => {
  measure();
  select(selection.value.at, true);
  void document.fonts?.ready.then(paint);
});
useResizeObserver(scroller, measure);
// Columns come into view when others are hidden, moved or narrowed, too.
watch(() => props.grid.columns.map((c) => `${c.id} ${c.width}`).join(), measure, { flush: 'post' });
watch(() => [props.grid, selection.value, drawn.value], paint);

function select(at: Place, keepAnchor: boolean) {
  choose({ at, anchor: keepAnchor ? selection.value.anchor : at }, true);
}

function choose(next: Selection, show: boolean) {
  selection.value = next;
  const box = scroller.value;
  if (box && show) {
    const to = geometry.value.scrolledTo(next.at, scroll.value, view.value);
    box.scrollLeft = to.left;
    box.scrollTop = to.top;
  }
}

async function begin(text: string, typed = false) {
  if (!props.editable) return;
  emit('dismiss');
  await editing.begin(text, typed);
}

function cancel() {
  editing.cancel();
  emit('dismiss');
}

function currentText(): string {
  const { row, column } = selection.value.at;
  const draft = props.grid.draft(row, column);
  const cell = props.grid.cell(row, column);
  return draft ? draft.text : cell && !cell.from ? cell.text : '';
}

/** What a screen reader reads of a cell. */
function spoken(row: number, column: number): string {
  const draft = props.grid.draft(row, column);
  const cell = props.grid.cell(row, column);
  if (draft && !draft.stored) return t(draft.refused ? 'score.refusedText' : 'score.sendingText', { text: draft.text });
  if (draft) return draft.text || t('score.emptyCell');
  return cell ? cell.text || t('score.emptyCell') : t('loading');
}

/** What stands in a cell, and first of all what was just typed into it. */
const textOf = ({ row, column }: Place) =>
  props.grid.draft(row, column)?.text ?? props.grid.cell(row, column)?.text ?? '';

function clear() {
  emit(
    'edit',
    cellsOf(corners(selection.value)).map((cell) => ({ ...cell, text: '' })),
  );
}

/** Fills a box with what a block holds, over and over; with nothing, while part of the block is still to come. */
function fillFrom(source: Box, to: Box) {
  if (!complete(source)) return;
  const cells = filled(source, to, textOf);
  if (cells.length) emit('edit', cells);
}

/** The selection is drawn further by its corner. */
function fill(to: Box) {
  fillFrom(corners(selection.value), to);
  selection.value = { at: { row: to.top, column: to.left }, anchor: { row: to.bottom, column: to.right } };
}

/** The first row, or the first column, of the selection goes into all others of it; into a single one goes what is before it. */
function fillWithin(way: 'down' | 'right') {
  const box = corners(selection.value);
  if (way === 'down' && box.top === box.bottom) box.top = Math.max(0, box.top - 1);
  if (way === 'right' && box.left === box.right) box.left = Math.max(0, box.left - 1);
  fillFrom(way === 'down' ? { ...box, bottom: box.top } : { ...box, right: box.left }, box);
}

/** Whether all of a block is here; if not, it is asked for, and the writer is told to try again. */
function complete(box = corners(selection.value)): boolean {
  for (let column = box.left; column <= box.right; column++) {
    if (props.grid.cell(box.top, column)) continue;
    emit('wait', box.left, box.right);
    return false;
  }
  return true;
}

/** The selection as lines of texts between tabs. */
function block(): string {
  const box = corners(selection.value);
  const lines = [];
  for (let row = box.top; row <= box.bottom; row++)
    lines.push(
      cellsOf({ ...box, top: row, bottom: row })
        .map(textOf)
        .join('\t'),
    );
  return lines.join('\n');
}

function run(command: GridCommand) {
  if ((command === 'copy' || command === 'cut') && !complete()) return;
  if (command === 'copy' || command === 'cut') void navigator.clipboard.writeText(block());
  if (command === 'clear' || command === 'cut') clear();
  else if (command === 'fillDown') fillWithin('down');
  else if (command === 'fillRight') fillWithin('right');
  else if (command !== 'copy') emit('run', command);
}

/** What Ctrl and a letter do; nothing, if it is for somebody else. */
function commandOf(key: string): (() => void) | null {
  const size = [rows.value, columns.value] as const;
  const change = (what: () => void) => () => {
    if (props.editable) what();
  };
  switch (key) {
    case 'a':
      return () => choose(whole('all', selection.value, ...size), false);
    case ' ':
      return () => choose(whole('columns', selection.value, ...size), false);
    case 'd':
      return change(() => fillWithin('down'));
    case 'r':
      return change(() => fillWithin('right'));
    case 'f':
      return () => emit('find');
    default:
      return null;
  }
}

function openMenu() {
  const box = (scroller.value as HTMLElement).getBoundingClientRect();
  const at = selection.value.at;
  const y = TOP + (at.row + 1) * SIZE.row - scroll.value.top;
  menuAt.value = [box.left + geometry.value.left(at.column, scroll.value), box.top + Math.min(y, box.height)];
  menu.value = true;
}

function onMenu(event: MouseEvent) {
  if (editingText.value !== null) editing.commit('stay');
  pointer.reach(event);
  menuAt.value = [event.clientX, event.clientY];
  menu.value = true;
}

function onKey(event: KeyboardEvent) {
  if (editingText.value !== null) return;
  const command = event.ctrlKey || event.metaKey;
  const page = Math.max(1, Math.floor((view.value.height - TOP) / SIZE.row) - 1);
  const to = moved(selection.value.at, event.key, command, rows.value, columns.value, page);
  const does = (command ? commandOf(event.key.toLowerCase()) : null) ?? plain(event);
  if (to) {
    editing.endRun();
    select(to, event.shiftKey);
  } else if (does) does();
  else if (event.key.length === 1 && !command && !event.altKey && (event.key !== '?' || event.location === 3))
    void begin(event.key, true);
  else return;
  event.preventDefault();
}

/** Keys that stand for something without Ctrl. */
function plain({ key, shiftKey }: KeyboardEvent): (() => void) | null {
  if (key === 'Tab') return editing.running() ? () => editing.step(shiftKey ? 'previous' : 'next') : null;
  if (key === ' ' && shiftKey) return () => choose(whole('rows', selection.value, rows.value, columns.value), false);
  if (key === 'Enter' || key === 'F2') return () => void begin(currentText());
  if (key === 'ContextMenu' || (key === 'F10' && shiftKey)) return openMenu;
  if (key === 'Delete' || key === 'Backspace') return () => props.editable && clear();
  if (key === 'Escape')
    return () => {
      editing.endRun();
      emit('dismiss');
    };
  return null;
}

function onCopy(event: ClipboardEvent) {
  if (editingText.value !== null) return;
  event.preventDefault();
  if (!complete()) return;
  event.clipboardData?.setData('text/plain', block());
  if (event.type === 'cut' && props.editable) clear();
}

function onPaste(event: ClipboardEvent) {
  if (editingText.value !== null || !props.editable) return;
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (text) {
    const pasted = pastedCells(text, selection.value, rows.value, columns.value);
    if (pasted.below.length || pasted.columns) emit('over', pasted);
    else emit('edit', pasted.cells);
  }
  event.preventDefault();
}

function focus() {
  scroller.value?.focus();
}

defineExpose({ begin, focus });
</script>

<template>
  <div class="grid-wrap">
    <div
      ref="scroller"
      class="scroller"
      role="grid"
      tabindex="0"
      :aria-label="$t('score.grid')"
      :aria-rowcount="rows"
      :aria-colcount="columns"
      aria-activedescendant="active-cell"
      @scroll="measure"
      @keydown="onKey"
      @copy="onCopy"
      @cut="onCopy"
      @paste="onPaste"
      @contextmenu.prevent="onMenu"
      @dblclick="pointer.overCells($event) && begin(currentText())"
    >
      <canvas ref="canvas" aria-hidden="true" />
      <div
        class="extent"
        :style="{ width: `${geometry.extent.width}px`, height: `${geometry.extent.height}px` }"
        aria-hidden="true"
      />
      <div class="sr-only" role="rowgroup">
        <div v-for="row in near.rows" :key="row" role="row" :aria-rowindex="row + 1">
          <span role="rowheader">{{ grid.rows[row]?.label }} {{ grid.rows[row]?.stage }}</span>
          <span
            v-for="column in near.columns"
            :id="row === selection.at.row && column === selection.at.column ? 'active-cell' : undefined"
            :key="column"
            role="gridcell"
            :aria-colindex="column + 1"
            :aria-selected="row === selection.at.row && column === selection.at.column"
            >{{ grid.columns[column]?.label }}: {{ spoken(row, column) }}</span
          >
        </div>
      </div>
    </div>
    <CellEditor
      v-if="editingText !== null"
      v-model="editingText"
      :style="inputBox"
      :states="grid.columns[selection.at.column]?.states ?? []"
      :fresh="fresh"
      :above="low"
      @leave="editing.commit"
      @cancel="cancel"
    />
    <p
      v-if="problem && editingText === null"
      class="bubble"
      :style="{ left: inputBox.left, top: `calc(${inputBox.top} + ${SIZE.row}px)` }"
      role="alert"
    >
      {{ problem }}
    </p>
    <GridMenu
      v-model="menu"
      :at="menuAt"
      :editable="editable"
      :structural="structural"
      :sortable="grid.columns[selection.at.column]?.sortable ?? false"
      @run="run"
      @closed="focus"
    />
  </div>
  <SelectionStatus :grid="grid" :selection="selection" />
</template>

<style scoped>
.grid-wrap {
  position: relative;
  min-height: 0;
  height: 100%;
  overflow: hidden;
}

.scroller {
  --grid-rule: color-mix(in srgb, rgb(var(--v-theme-on-background)) 20%, rgb(var(--v-theme-background)));

  position: absolute;
  inset: 0;
  overflow: auto;
}

.scroller:focus-visible {
  outline-offset: -3px;
}

canvas {
  position: sticky;
  left: 0;
  top: 0;
  display: block;
  width: 100%;
  height: 100%;
}

.extent {
  position: absolute;
  left: 0;
  top: 0;
  pointer-events: none;
}

.bubble {
  position: absolute;
  max-width: 24rem;
  padding: 0.5rem 0.75rem;
  background: rgb(var(--v-theme-surface));
  border: 2px solid rgb(var(--v-theme-error));
  z-index: 2;
}
</style>

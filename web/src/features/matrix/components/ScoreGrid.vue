<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core';
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import {
  corners,
  frozenOf,
  leftOf,
  moved,
  pastedCells,
  placeAt,
  scrolledTo,
  SIZE,
  TOP,
  visible,
  type Pasted,
  type Place,
  type Selection,
} from '../logic/grid';
import { paintGrid, type GridModel, type Ink } from '../logic/paint';

/**
 * The matrix, painted on a canvas: a window of any size costs the same to scroll. Beside it stands a small table of the
 * cells around the active one, which screen readers read.
 */
const props = defineProps<{ grid: GridModel; editable: boolean; problem: string }>();
const selection = defineModel<Selection>('selection', { required: true });
const emit = defineEmits<{
  edit: [cells: (Place & { text: string })[]];
  over: [block: Pasted];
  dismiss: [];
  look: [from: number, to: number];
}>();
const { t } = useI18n();
const scroller = useTemplateRef<HTMLDivElement>('scroller');
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const input = useTemplateRef<HTMLInputElement>('input');
const scroll = ref({ left: 0, top: 0 });
const view = ref({ width: 800, height: 500 });
const editing = ref<string | null>(null);
let dragging = false;
let frame = 0;

const rows = computed(() => props.grid.rows.length);
const columns = computed(() => props.grid.columns.length);
const frozen = computed(() => frozenOf(props.grid.frozen, view.value.width));
/** The editor stays within the window, however far to the right its cell is: what sticks out would scroll the sheet away. */
const EDITOR = 288;
const inputBox = computed(() => ({
  left: `${Math.max(0, Math.min(leftOf(selection.value.at.column, scroll.value, frozen.value), view.value.width - EDITOR))}px`,
  top: `${TOP + selection.value.at.row * SIZE.row - scroll.value.top}px`,
}));
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
    paintGrid(g, { ...props.grid, frozen: frozen.value }, selection.value, scroll.value, view.value, ink());
  });
}

function measure() {
  const box = scroller.value;
  if (!box) return;
  view.value = { width: box.clientWidth, height: box.clientHeight };
  scroll.value = { left: box.scrollLeft, top: box.scrollTop };
  const [from, to] = visible(scroll.value, view.value, rows.value, columns.value, frozen.value).columns;
  emit('look', from, to);
  paint();
}

onMounted(() => {
  measure();
  select(selection.value.at, true);
  void document.fonts?.ready.then(paint);
});
useResizeObserver(scroller, measure);
watch(() => [props.grid, selection.value], paint);

function select(at: Place, keepAnchor: boolean) {
  selection.value = { at, anchor: keepAnchor ? selection.value.anchor : at };
  const box = scroller.value;
  if (box) {
    const to = scrolledTo(at, scroll.value, view.value, frozen.value);
    box.scrollLeft = to.left;
    box.scrollTop = to.top;
  }
}

async function begin(text: string) {
  if (!props.editable) return;
  emit('dismiss');
  editing.value = text;
  await nextTick();
  input.value?.focus({ preventScroll: true });
}

function commit(then: Place | null) {
  const text = editing.value;
  if (text !== null) emit('edit', [{ ...selection.value.at, text: text.trim() }]);
  editing.value = null;
  scroller.value?.focus();
  if (then) select(then, false);
}

function cancel() {
  editing.value = null;
  emit('dismiss');
  scroller.value?.focus();
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
  if (draft) return t(draft.refused ? 'score.refusedText' : 'score.sendingText', { text: draft.text });
  return cell ? cell.text || t('score.emptyCell') : t('loading');
}

function clear() {
  const box = corners(selection.value);
  const cells = [];
  for (let row = box.top; row <= box.bottom; row++)
    for (let column = box.left; column <= box.right; column++) cells.push({ row, column, text: '' });
  emit('edit', cells);
}

function fillDown() {
  const box = corners(selection.value);
  const cells = [];
  for (let column = box.left; column <= box.right; column++)
    for (let row = box.top + 1; row <= box.bottom; row++)
      cells.push({ row, column, text: props.grid.cell(box.top, column)?.text ?? '' });
  if (cells.length) emit('edit', cells);
}

function onKey(event: KeyboardEvent) {
  if (editing.value !== null) return;
  const command = event.ctrlKey || event.metaKey;
  const page = Math.max(1, Math.floor((view.value.height - TOP) / SIZE.row) - 1);
  const to = moved(selection.value.at, event.key, command, rows.value, columns.value, page);
  if (to) {
    event.preventDefault();
    select(to, event.shiftKey);
  } else if (event.key === 'Enter' || event.key === 'F2') {
    event.preventDefault();
    void begin(currentText());
  } else if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault();
    if (props.editable) clear();
  } else if (command && event.key.toLowerCase() === 'd') {
    event.preventDefault();
    if (props.editable) fillDown();
  } else if (event.key === 'Escape') {
    emit('dismiss');
  } else if (event.key.length === 1 && !command && !event.altKey && (event.key !== '?' || event.location === 3)) {
    event.preventDefault();
    void begin(event.key);
  }
}

function onInputKey(event: KeyboardEvent) {
  const { row, column } = selection.value.at;
  if (event.key === 'Enter') {
    event.preventDefault();
    commit({ row: Math.min(rows.value - 1, row + 1), column });
  } else if (event.key === 'Tab') {
    event.preventDefault();
    commit({ row, column: Math.max(0, Math.min(columns.value - 1, column + (event.shiftKey ? -1 : 1))) });
  } else if (event.key === 'Escape') {
    event.preventDefault();
    cancel();
  }
}

function onCopy(event: ClipboardEvent) {
  if (editing.value !== null) return;
  const box = corners(selection.value);
  const lines = [];
  for (let row = box.top; row <= box.bottom; row++) {
    const line = [];
    for (let column = box.left; column <= box.right; column++) line.push(props.grid.cell(row, column)?.text ?? '');
    lines.push(line.join('\t'));
  }
  event.clipboardData?.setData('text/plain', lines.join('\n'));
  event.preventDefault();
}

function onPaste(event: ClipboardEvent) {
  if (editing.value !== null || !props.editable) return;
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (text) {
    const pasted = pastedCells(text, selection.value, rows.value, columns.value);
    if (pasted.below.length || pasted.columns) emit('over', pasted);
    else emit('edit', pasted.cells);
  }
  event.preventDefault();
}

function point(event: MouseEvent): Place | null {
  const box = (scroller.value as HTMLElement).getBoundingClientRect();
  return placeAt(
    event.clientX - box.left,
    event.clientY - box.top,
    scroll.value,
    rows.value,
    columns.value,
    frozen.value,
  );
}

function onDown(event: MouseEvent) {
  const place = point(event);
  if (!place) return;
  if (editing.value !== null) commit(null);
  dragging = true;
  select(place, event.shiftKey);
}

function onMove(event: MouseEvent) {
  const place = dragging && event.buttons === 1 ? point(event) : null;
  if (place) select(place, true);
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
      @paste="onPaste"
      @mousedown="onDown"
      @mousemove="onMove"
      @mouseup="dragging = false"
      @dblclick="begin(currentText())"
    >
      <canvas ref="canvas" aria-hidden="true" />
      <div
        class="extent"
        :style="{ width: `${SIZE.rowHeader + columns * SIZE.column + 1}px`, height: `${TOP + rows * SIZE.row + 1}px` }"
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
    <input
      v-if="editing !== null"
      ref="input"
      v-model="editing"
      class="editor"
      :style="inputBox"
      :aria-label="$t('score.edit')"
      spellcheck="false"
      autocomplete="off"
      @keydown="onInputKey"
    />
    <p
      v-if="problem && editing === null"
      class="bubble"
      :style="{ left: inputBox.left, top: `calc(${inputBox.top} + ${SIZE.row}px)` }"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
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

.editor {
  position: absolute;
  min-width: 18rem;
  height: 2.1rem;
  padding: 0 0.5rem;
  background: rgb(var(--v-theme-surface));
  color: inherit;
  border: 2px solid rgb(var(--v-theme-primary));
  font-size: 0.95rem;
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

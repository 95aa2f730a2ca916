<script setup lang="ts">
import { mdiFitToScreenOutline, mdiMagnifyMinusOutline, mdiMagnifyPlusOutline } from '@mdi/js';
import { useResizeObserver } from '@vueuse/core';
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue';
import { nextWeak, VERDICTS, type Cell, type PairTable } from '../logic/map';
import { ABOVE, beginning, cellAt, extent, fitting, paint, type Ink } from '../logic/paint';

/** Every pair of rows in one triangle: the more ink, the more doubt. Drawn on a canvas, with the pair in focus as words. */
const props = defineProps<{ table: PairTable; danger: boolean; chosen: string[] }>();
const emit = defineEmits<{ choose: [pair: [string, string]] }>();
const scroller = useTemplateRef<HTMLElement>('scroller');
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const size = ref(0);
const box = ref({ width: 0, height: 0 });
const active = ref<Cell>({ row: 1, column: 0 });
const n = computed(() => props.table.rows.length);
const pair = computed(() => {
  const { row, column } = active.value;
  const first = props.table.rows[column];
  const second = props.table.rows[row];
  return first && second ? { first, second, verdict: VERDICTS[props.table.sign(row, column)] } : undefined;
});
const LARGEST = 60;
let ink: Ink | undefined;
let drawing = 0;
/** Whether a first pair was chosen to look at: the first that is not firmly separated. */
let looked = false;

function inks(of: Element): Ink {
  const css = getComputedStyle(of);
  const themed = (name: string, share = 1) => `rgba(${css.getPropertyValue(`--v-theme-${name}`)}, ${share})`;
  return {
    text: themed('on-background'),
    faint: themed('on-background', 0.72),
    doubt: themed('error'),
    accent: themed('primary'),
  };
}

function draw() {
  cancelAnimationFrame(drawing);
  drawing = requestAnimationFrame(() => {
    const element = canvas.value;
    const g = element?.getContext('2d');
    const outer = scroller.value;
    if (!element || !g || !outer || !size.value) return;
    const ratio = window.devicePixelRatio || 1;
    element.width = box.value.width * ratio;
    element.height = box.value.height * ratio;
    g.setTransform(ratio, 0, 0, ratio, 0, 0);
    ink ??= inks(element);
    paint(g, props.table, view(outer), ink, n.value > 1 ? active.value : undefined, props.danger);
  });
}

const view = (outer: HTMLElement) => ({
  left: outer.scrollLeft,
  top: outer.scrollTop - ABOVE,
  width: box.value.width,
  height: box.value.height,
  size: size.value,
});

function measure() {
  const outer = scroller.value;
  if (!outer) return;
  box.value = { width: outer.clientWidth, height: outer.clientHeight };
  if (!size.value) begin();
  draw();
}

function fit() {
  size.value = fitting(Math.max(1, n.value), box.value.width, box.value.height);
}

function begin() {
  size.value = beginning(Math.max(1, n.value), box.value.width, box.value.height);
}

async function zoom(factor: number) {
  const before = size.value;
  size.value = Math.max(1, Math.min(LARGEST, before * factor));
  await nextTick();
  reveal(true);
}

/** Brings the active pair into view; in the middle after a zoom. */
function reveal(middle = false) {
  const outer = scroller.value;
  if (!outer) return;
  const x = active.value.column * size.value;
  const y = active.value.row * size.value;
  const { width, height } = box.value;
  if (middle || x < outer.scrollLeft || x + size.value > outer.scrollLeft + width) outer.scrollLeft = x - width / 2;
  if (middle || y < outer.scrollTop || y + size.value > outer.scrollTop + height) outer.scrollTop = y - height / 2;
  draw();
}

function move(row: number, column: number) {
  const r = Math.max(1, Math.min(n.value - 1, row));
  active.value = { row: r, column: Math.max(0, Math.min(r - 1, column)) };
  reveal();
}

function choose() {
  if (pair.value) emit('choose', [pair.value.first.id, pair.value.second.id]);
}

function onKey(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey || n.value < 2) return;
  const by = event.shiftKey ? 10 : 1;
  const { row, column } = active.value;
  const weak = (back: boolean) => {
    const found = nextWeak(props.table, active.value, back, props.danger);
    if (found) move(found.row, found.column);
  };
  const keys: Record<string, () => void> = {
    ArrowDown: () => move(row + by, column),
    ArrowUp: () => move(row - by, column),
    ArrowLeft: () => move(row, column - by),
    ArrowRight: () => move(row, column + by),
    Home: () => move(row, 0),
    End: () => move(row, row - 1),
    n: () => weak(false),
    p: () => weak(true),
    Enter: choose,
    '+': () => void zoom(1.5),
    '-': () => void zoom(1 / 1.5),
    '0': () => {
      fit();
      draw();
    },
  };
  const does = keys[event.key];
  if (!does) return;
  event.preventDefault();
  does();
}

function onClick(event: MouseEvent) {
  const outer = scroller.value;
  if (!outer) return;
  const at = outer.getBoundingClientRect();
  const cell = cellAt(view(outer), event.clientX - at.left, event.clientY - at.top, n.value);
  if (!cell) return;
  move(cell.row, cell.column);
  choose();
}

function onWheel(event: WheelEvent) {
  if (!event.ctrlKey) return;
  event.preventDefault();
  void zoom(event.deltaY < 0 ? 1.2 : 1 / 1.2);
}

watch(
  () => [props.table, props.danger] as const,
  () => {
    const chosen = props.chosen.map((id) => props.table.rows.findIndex((r) => r.id === id)).filter((k) => k >= 0);
    if (chosen.length === 2) active.value = { row: Math.max(...chosen), column: Math.min(...chosen) };
    else if (!looked)
      active.value =
        nextWeak(props.table, { row: n.value - 1, column: n.value - 2 }, false, props.danger) ?? active.value;
    else move(active.value.row, active.value.column);
    looked = true;
    draw();
  },
  { immediate: true },
);
watch([n, () => box.value.width > 0], () => {
  if (box.value.width) begin();
  draw();
});
useResizeObserver(scroller, measure);
onBeforeUnmount(() => cancelAnimationFrame(drawing));
</script>

<template>
  <div class="triangle">
    <div
      ref="scroller"
      class="scroller"
      role="grid"
      tabindex="0"
      :aria-label="$t('apart.mapLabel')"
      :aria-rowcount="n"
      :aria-colcount="n"
      aria-activedescendant="active-pair"
      @scroll="draw"
      @keydown="onKey"
      @click="onClick"
      @wheel="onWheel"
    >
      <canvas ref="canvas" aria-hidden="true" />
      <div
        class="extent"
        :style="{ width: `${extent(n, size).width}px`, height: `${extent(n, size).height}px` }"
        aria-hidden="true"
      />
      <div v-if="pair" class="sr-only" role="rowgroup">
        <div role="row" :aria-rowindex="active.row + 1">
          <span id="active-pair" role="gridcell" :aria-colindex="active.column + 1" aria-selected="true">{{
            $t('apart.pairSays', {
              first: pair.first.name,
              second: pair.second.name,
              verdict: $t(`apart.verdict.${pair.verdict}`),
            })
          }}</span>
        </div>
      </div>
    </div>
    <div class="foot">
      <span v-if="pair" class="readout" aria-hidden="true">
        <i>{{ pair.first.name }}</i> / <i>{{ pair.second.name }}</i>: <b>{{ $t(`apart.verdict.${pair.verdict}`) }}</b>
      </span>
      <v-btn
        :icon="mdiMagnifyMinusOutline"
        size="x-small"
        variant="text"
        :aria-label="$t('apart.zoomOut')"
        @click="zoom(1 / 1.5)"
      />
      <v-btn
        :icon="mdiMagnifyPlusOutline"
        size="x-small"
        variant="text"
        :aria-label="$t('apart.zoomIn')"
        @click="zoom(1.5)"
      />
      <v-btn
        :icon="mdiFitToScreenOutline"
        size="x-small"
        variant="text"
        :aria-label="$t('apart.zoomFit')"
        @click="(fit(), draw())"
      />
    </div>
  </div>
</template>

<style scoped>
.triangle {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
  height: 100%;
}

.scroller {
  position: relative;
  overflow: auto;
  min-height: 16rem;
}

canvas {
  position: sticky;
  left: 0;
  top: 0;
  display: block;
  width: 100%;
  height: 100%;
  font-family: var(--sans);
  cursor: pointer;
}

.extent {
  position: absolute;
  inset: 0 auto auto 0;
  pointer-events: none;
}

.foot {
  display: flex;
  gap: 0.2rem;
  align-items: center;
  padding: 0.2rem 0.6rem;
  border-top: 1px solid var(--rule);
}

.readout {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
</style>

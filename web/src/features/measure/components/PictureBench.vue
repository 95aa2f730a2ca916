<script setup lang="ts">
import { computed, nextTick, onMounted, onScopeDispose, ref, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { isEnough, pointsOf, type BenchMark, type Shape } from '../logic/marks';
import { usePictureLevels } from '../composables/usePictureLevels';
import { fit, moved, onPicture, onScreen, shown, within, zoomed, type Point, type Viewport } from '../logic/viewport';

/**
 * A picture on which points are placed: by mouse, pen, finger, or keys alone. A drag moves the picture, or a point that it
 * begins on; a short press places a point; two fingers or the wheel zoom.
 */
const props = defineProps<{
  src: string;
  /** Address of its thumbnail. */
  small: string;
  width: number;
  height: number;
  shape: Shape | undefined;
  parts: 1 | 2;
  marks: BenchMark[];
  chosen: string;
}>();
const emit = defineEmits<{
  done: [parts: Point[][]];
  moved: [id: string, parts: Point[][]];
  choose: [id: string];
}>();
const { t } = useI18n();

const bench = useTemplateRef<HTMLElement>('bench');
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const loupe = useTemplateRef<HTMLCanvasElement>('loupe');
const size = ref({ width: 600, height: 400 });
const view = ref<Viewport>({ scale: 1, left: 0, top: 0 });
const cursor = ref<Point>({ x: props.width / 2, y: props.height / 2 });
/** Points of what is being marked, part by part. */
const draft = ref<Point[][]>([[]]);
/** The point that arrow keys and the pad move; of the draft if it names no mark. */
const held = ref<{ mark: string; part: number; point: number } | null>(null);
/** Points of a mark while they are moved. */
const shifted = ref<{ id: string; parts: Point[][] } | null>(null);
const byKeys = ref(false);
const LOUPE = 104;
const LOUPE_ZOOM = 6;

const picture = computed(() => ({ width: props.width, height: props.height }));
const { levels, failed, levelFor } = usePictureLevels(
  () => props.src,
  () => props.small,
  () => props.width,
);

const drawn = computed<BenchMark[]>(() =>
  props.marks.map((m) => (shifted.value?.id === m.id ? { ...m, parts: shifted.value.parts } : m)),
);
const now = computed(() => draft.value[draft.value.length - 1] ?? []);
const canFinish = computed(
  () => props.shape !== undefined && pointsOf(props.shape) === undefined && isEnough(props.shape, now.value),
);
const focus = computed<Point>(() => heldPoint() ?? cursor.value);

function heldPoint(): Point | undefined {
  const h = held.value;
  if (!h) return undefined;
  const parts = h.mark ? drawn.value.find((m) => m.id === h.mark)?.parts : draft.value;
  return parts?.[h.part]?.[h.point];
}

// --- drawing -----------------------------------------------------------------

let asked = 0;
function redraw() {
  if (!asked) asked = requestAnimationFrame(paint);
}

function paint() {
  asked = 0;
  const pen = canvas.value?.getContext('2d');
  if (!pen || !canvas.value) return;
  const ratio = window.devicePixelRatio || 1;
  const { width, height } = size.value;
  if (canvas.value.width !== Math.round(width * ratio) || canvas.value.height !== Math.round(height * ratio)) {
    canvas.value.width = Math.round(width * ratio);
    canvas.value.height = Math.round(height * ratio);
  }
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  pen.clearRect(0, 0, width, height);
  const level = levelFor(view.value.scale * ratio);
  if (!level) return;
  draw(pen, level.bitmap, view.value, size.value);
  paintLoupe(ratio);
}

/** Only what can be seen is drawn, however large the picture is. */
function draw(
  pen: CanvasRenderingContext2D,
  bitmap: ImageBitmap,
  at: Viewport,
  area: { width: number; height: number },
) {
  const from = within(onPicture(at, { x: 0, y: 0 }), picture.value);
  const to = within(onPicture(at, { x: area.width, y: area.height }), picture.value);
  const place = onScreen(at, from);
  // Thumbnails are smaller, and drawings are decoded in their own pixels.
  const own = bitmap.width / props.width;
  pen.imageSmoothingEnabled = at.scale < 3;
  pen.drawImage(
    bitmap,
    from.x * own,
    from.y * own,
    (to.x - from.x) * own,
    (to.y - from.y) * own,
    place.x,
    place.y,
    (to.x - from.x) * at.scale,
    (to.y - from.y) * at.scale,
  );
}

function paintLoupe(ratio: number) {
  const pen = loupe.value?.getContext('2d');
  const level = levels.value[0];
  if (!pen || !loupe.value || !level) return;
  if (loupe.value.width !== LOUPE * ratio) loupe.value.width = loupe.value.height = LOUPE * ratio;
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  pen.clearRect(0, 0, LOUPE, LOUPE);
  const zoom = Math.max(LOUPE_ZOOM, view.value.scale * 2);
  const at = { scale: zoom, left: LOUPE / 2 - focus.value.x * zoom, top: LOUPE / 2 - focus.value.y * zoom };
  draw(pen, level.bitmap, at, { width: LOUPE, height: LOUPE });
}

watch([view, size, levels, focus], redraw, { deep: true });

watch(
  () => [props.src, props.width],
  () => {
    cancel();
    view.value = fit(picture.value, size.value);
    cursor.value = { x: props.width / 2, y: props.height / 2 };
  },
);
watch(() => [props.shape, props.parts], cancel);

let observer: ResizeObserver | undefined;
onMounted(() => {
  observer = new ResizeObserver(([entry]) => {
    if (!entry) return;
    size.value = { width: entry.contentRect.width, height: entry.contentRect.height };
    view.value = fit(picture.value, size.value);
  });
  if (bench.value) observer.observe(bench.value);
});
onScopeDispose(() => {
  observer?.disconnect();
  cancelAnimationFrame(asked);
});

// --- marking -----------------------------------------------------------------

function cancel() {
  draft.value = [[]];
  held.value = null;
  shifted.value = null;
}

function place(point: Point) {
  const shape = props.shape;
  if (!shape) return;
  const points = [...now.value, within(point, picture.value)];
  draft.value = [...draft.value.slice(0, -1), points];
  held.value = null;
  if (points.length === pointsOf(shape)) finish();
}

/** Ends the part; the last part ends the mark. */
function finish() {
  const shape = props.shape;
  if (!shape || !isEnough(shape, now.value)) return;
  if (draft.value.length < props.parts) {
    draft.value = [...draft.value, []];
    return;
  }
  const parts = draft.value;
  draft.value = [[]];
  held.value = null;
  emit('done', parts);
}

function stepBack() {
  if (now.value.length) draft.value = [...draft.value.slice(0, -1), now.value.slice(0, -1)];
  else if (draft.value.length > 1) {
    const before = draft.value[draft.value.length - 2] ?? [];
    draft.value = [...draft.value.slice(0, -2), before.slice(0, -1)];
  }
  held.value = null;
}

function moveHeld(to: Point) {
  const h = held.value;
  if (!h) return;
  const point = within(to, picture.value);
  const change = (parts: Point[][]) =>
    parts.map((p, i) => (i === h.part ? p.map((q, j) => (j === h.point ? point : q)) : p));
  if (!h.mark) draft.value = change(draft.value);
  else {
    const mark = drawn.value.find((m) => m.id === h.mark);
    if (mark?.movable) shifted.value = { id: h.mark, parts: change(mark.parts) };
  }
  view.value = shown(view.value, point, picture.value, size.value);
}

/** What was moved is kept once the hand rests. */
let resting: ReturnType<typeof setTimeout> | undefined;
function keepMoved(after: number) {
  clearTimeout(resting);
  resting = setTimeout(() => {
    if (shifted.value) emit('moved', shifted.value.id, shifted.value.parts);
  }, after);
}
watch(
  () => props.marks,
  () => {
    if (!dragging) shifted.value = null;
  },
);

function nudge(dx: number, dy: number) {
  const from = focus.value;
  const to = within({ x: from.x + dx, y: from.y + dy }, picture.value);
  if (held.value) {
    moveHeld(to);
    keepMoved(700);
  } else {
    cursor.value = to;
    view.value = shown(view.value, to, picture.value, size.value);
  }
}

/** All points that can be held, those of the draft first. */
const handles = computed(() => [
  ...draft.value.flatMap((p, part) => p.map((_, point) => ({ mark: '', part, point }))),
  ...drawn.value
    .filter((m) => m.id === props.chosen && m.movable)
    .flatMap((m) => m.parts.flatMap((p, part) => p.map((_, point) => ({ mark: m.id, part, point })))),
]);

function holdNext(step: number) {
  const all = handles.value;
  if (!all.length) return;
  const at = all.findIndex((h) => JSON.stringify(h) === JSON.stringify(held.value));
  held.value = all[(at + step + all.length) % all.length] ?? null;
}

// --- keys --------------------------------------------------------------------

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function onKey(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey) return;
  const arrow = ARROWS[event.key];
  // One pixel of the picture, or so many that the cursor crosses the bench in some twenty presses.
  const far = Math.max(10, Math.round(size.value.width / view.value.scale / 20));
  byKeys.value = true;
  if (arrow) nudge(arrow[0] * (event.shiftKey ? far : 1), arrow[1] * (event.shiftKey ? far : 1));
  else if (event.key === ' ') place(cursor.value);
  else if (event.key === 'Enter') (canFinish.value ? finish : () => place(cursor.value))();
  else if (event.key === 'Backspace') stepBack();
  else if (event.key === 'Escape') cancel();
  else if (event.key === '+' || event.key === '=') zoomAt(1.4, onScreen(view.value, focus.value));
  else if (event.key === '-') zoomAt(1 / 1.4, onScreen(view.value, focus.value));
  else if (event.key === '0') view.value = fit(picture.value, size.value);
  else if (event.key === ']') holdNext(1);
  else if (event.key === '[') holdNext(-1);
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function zoomAt(factor: number, at: Point) {
  view.value = zoomed(view.value, factor, at, picture.value, size.value);
}

// --- mouse, pen, fingers -------------------------------------------------------

const SHORT_WAY = 5;
const NEAR = 14;
const pointers = new Map<number, Point>();
let began: Point | null = null;
let far = false;
let dragging = false;

function at(event: PointerEvent | WheelEvent): Point {
  const box = bench.value?.getBoundingClientRect();
  return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
}

function near(point: Point, reach: number) {
  return handles.value.find((h) => {
    const parts = h.mark ? drawn.value.find((m) => m.id === h.mark)?.parts : draft.value;
    const handle = parts?.[h.part]?.[h.point];
    if (!handle) return false;
    const there = onScreen(view.value, handle);
    return Math.hypot(there.x - point.x, there.y - point.y) <= reach;
  });
}

function onDown(event: PointerEvent) {
  if (event.button > 1) return;
  byKeys.value = false;
  bench.value?.focus({ preventScroll: true });
  bench.value?.setPointerCapture(event.pointerId);
  const point = at(event);
  pointers.set(event.pointerId, point);
  began = point;
  far = pointers.size > 1;
  const reach = event.pointerType === 'touch' ? NEAR * 1.6 : NEAR;
  const handle = pointers.size === 1 ? near(point, reach) : undefined;
  if (handle) {
    held.value = handle;
    dragging = true;
  }
}

function onMove(event: PointerEvent) {
  const point = at(event);
  const before = pointers.get(event.pointerId);
  if (!before) {
    if (event.pointerType !== 'touch') cursor.value = within(onPicture(view.value, point), picture.value);
    return;
  }
  const others = [...pointers.entries()].filter(([id]) => id !== event.pointerId).map(([, p]) => p);
  pointers.set(event.pointerId, point);
  const other = others[0];
  if (other) {
    const was = Math.hypot(before.x - other.x, before.y - other.y);
    const is = Math.hypot(point.x - other.x, point.y - other.y);
    if (was > 0) zoomAt(is / was, { x: (point.x + other.x) / 2, y: (point.y + other.y) / 2 });
    return;
  }
  if (began && Math.hypot(point.x - began.x, point.y - began.y) > SHORT_WAY) far = true;
  if (!far) return;
  if (dragging) moveHeld(onPicture(view.value, point));
  else view.value = moved(view.value, point.x - before.x, point.y - before.y, picture.value, size.value);
}

function onUp(event: PointerEvent) {
  if (!pointers.delete(event.pointerId)) return;
  const point = at(event);
  if (dragging) {
    dragging = false;
    keepMoved(0);
  } else if (!far && pointers.size === 0 && event.type === 'pointerup') {
    cursor.value = within(onPicture(view.value, point), picture.value);
    place(onPicture(view.value, point));
    // A finger hides what it points at: what it placed can be moved by the pad.
    if (event.pointerType === 'touch' && now.value.length) {
      held.value = { mark: '', part: draft.value.length - 1, point: now.value.length - 1 };
    }
  }
  if (!pointers.size) began = null;
}

function onWheel(event: WheelEvent) {
  zoomAt(Math.exp(-event.deltaY * (event.deltaMode ? 0.05 : 0.0015)), at(event));
}

function onDouble() {
  if (canFinish.value) finish();
}

// --- what lies on the picture ---------------------------------------------------

function line(points: Point[], shape: Shape): string {
  const placed = points.map((p) => onScreen(view.value, p));
  const path = placed.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('');
  return shape === 'OUTLINE' && points.length > 2 ? `${path}Z` : path;
}

/** While it is marked, a line leads on to the cursor. */
const going = computed(() => {
  const points = now.value;
  const shape = props.shape;
  if (!shape || shape === 'COUNT' || !points.length || held.value) return '';
  return line([...points.slice(-1), cursor.value], 'LINE');
});

const cross = computed(() => onScreen(view.value, cursor.value));
const points = computed(() =>
  drawn.value
    .filter((m) => m.id === props.chosen || m.shape === 'COUNT')
    .flatMap((m) => m.parts.flat().map((p) => onScreen(view.value, p))),
);
const draftPoints = computed(() => draft.value.flat().map((p) => onScreen(view.value, p)));
const heldAt = computed(() => {
  const point = heldPoint();
  return point && onScreen(view.value, point);
});

/** Behind the end that lies farthest to the right, where it covers nothing of the mark. */
function labelAt(mark: BenchMark): Point {
  const placed = mark.parts.flat().map((p) => onScreen(view.value, p));
  const end = placed.reduce((a, b) => (b.x > a.x ? b : a), placed[0] ?? { x: 0, y: 0 });
  return { x: end.x + 7, y: end.y + 4 };
}

const state = computed(() => {
  const held = heldPoint();
  if (held) return t('measure.bench.held', { x: held.x.toFixed(0), y: held.y.toFixed(0) });
  return t('measure.bench.cursor', {
    x: cursor.value.x.toFixed(0),
    y: cursor.value.y.toFixed(0),
    n: now.value.length,
  });
});

/** Of a held point the pad moves that, else the cursor. */
const PAD: [string, number, number][] = [
  ['up', 0, -1],
  ['left', -1, 0],
  ['right', 1, 0],
  ['down', 0, 1],
];

defineExpose({ finish, cancel, focus: () => nextTick(() => bench.value?.focus()) });
</script>

<template>
  <div class="bench-frame">
    <div
      ref="bench"
      class="bench"
      tabindex="0"
      role="application"
      :aria-label="$t('measure.bench.label')"
      aria-describedby="bench-help"
      :data-sharp="levels[0]?.scale === 1"
      @keydown="onKey"
      @pointerdown="onDown"
      @pointermove="onMove"
      @pointerup="onUp"
      @pointercancel="onUp"
      @wheel.prevent="onWheel"
      @dblclick="onDouble"
      @contextmenu.prevent
    >
      <canvas ref="canvas" aria-hidden="true" />
      <svg aria-hidden="true" :width="size.width" :height="size.height">
        <g v-for="mark in drawn" :key="mark.id" :class="{ chosen: mark.id === chosen }" class="mark">
          <template v-if="mark.shape !== 'COUNT'">
            <path v-for="(part, i) in mark.parts" :key="`h${i}`" class="halo" :d="line(part, mark.shape)" />
            <path v-for="(part, i) in mark.parts" :key="i" class="line" :d="line(part, mark.shape)" />
          </template>
          <text v-if="mark.label" :x="labelAt(mark).x" :y="labelAt(mark).y">{{ mark.label }}</text>
        </g>
        <circle v-for="(p, i) in points" :key="`p${i}`" class="point" :cx="p.x" :cy="p.y" r="4" />
        <template v-if="shape">
          <path v-for="(part, i) in draft" :key="`dh${i}`" class="halo" :d="line(part, shape)" />
          <path v-for="(part, i) in draft" :key="`d${i}`" class="line draft" :d="line(part, shape)" />
          <path class="going" :d="going" />
        </template>
        <circle v-for="(p, i) in draftPoints" :key="`dp${i}`" class="point" :cx="p.x" :cy="p.y" r="4.5" />
        <circle v-if="heldAt" class="held" :cx="heldAt.x" :cy="heldAt.y" r="9" />
        <g v-if="byKeys" class="cross">
          <path :d="`M${cross.x - 14} ${cross.y}h10m8 0h10M${cross.x} ${cross.y - 14}v10m0 8v10`" />
        </g>
      </svg>
      <p v-if="failed" class="failed">{{ $t('measure.bench.failed') }}</p>
      <p v-else-if="!levels.length" class="failed">{{ $t('loading') }}</p>
    </div>
    <div class="aids">
      <div class="loupe" aria-hidden="true">
        <canvas ref="loupe" :style="{ width: `${LOUPE}px`, height: `${LOUPE}px` }" />
        <svg :width="LOUPE" :height="LOUPE">
          <path :d="`M0 ${LOUPE / 2}h44m16 0h44M${LOUPE / 2} 0v44m0 16v44`" />
          <circle :cx="LOUPE / 2" :cy="LOUPE / 2" r="1" />
        </svg>
      </div>
      <div class="pad" role="group" :aria-label="$t('measure.bench.pad')">
        <button
          v-for="[way, dx, dy] in PAD"
          :key="way"
          type="button"
          :class="way"
          :aria-label="$t(`measure.bench.${way}`)"
          @click="nudge(dx, dy)"
        >
          <svg viewBox="0 0 10 10" aria-hidden="true">
            <path
              :d="
                {
                  up: 'M2 7L5 3L8 7',
                  down: 'M2 3L5 7L8 3',
                  left: 'M7 2L3 5L7 8',
                  right: 'M3 2L7 5L3 8',
                }[way]
              "
            />
          </svg>
        </button>
      </div>
      <p id="bench-help" class="quiet help">{{ $t('measure.bench.help') }}</p>
      <p class="figures quiet" role="status">{{ state }}</p>
      <v-btn v-if="canFinish" size="small" color="primary" variant="flat" @click="finish">{{
        $t('measure.bench.finish')
      }}</v-btn>
    </div>
  </div>
</template>

<style scoped>
.bench-frame {
  display: flex;
  flex-direction: column;
  min-height: 0;
  gap: 0.5rem;
}

.bench {
  position: relative;
  flex: 1 1 auto;
  min-height: 18rem;
  overflow: hidden;
  touch-action: none;
  cursor: crosshair;
  background: color-mix(in srgb, rgb(var(--v-theme-on-background)) 14%, rgb(var(--v-theme-background)));
  border: 1px solid var(--rule);
}

.bench:focus-visible {
  outline: 3px solid rgb(var(--v-theme-primary));
  outline-offset: 1px;
}

.bench canvas,
.bench svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

.halo {
  fill: none;
  stroke: #fffdf8;
  stroke-opacity: 0.85;
  stroke-width: 5;
  stroke-linecap: round;
}

.line {
  fill: none;
  stroke: #14463b;
  stroke-width: 2;
  stroke-linecap: round;
}

.chosen .line,
.draft {
  stroke: #8c2f1b;
}

.going {
  fill: none;
  stroke: #8c2f1b;
  stroke-width: 1.4;
  stroke-dasharray: 4 4;
}

.point {
  fill: #fffdf8;
  stroke: #8c2f1b;
  stroke-width: 2;
}

.held {
  fill: none;
  stroke: #8c2f1b;
  stroke-width: 2;
  stroke-dasharray: 3 2;
}

.cross path {
  fill: none;
  stroke: #22241f;
  stroke-width: 2;
  paint-order: stroke;
}

.mark text {
  font: 600 0.78rem var(--sans);
  fill: #22241f;
  paint-order: stroke;
  stroke: #fffdf8;
  stroke-width: 3px;
}

.failed {
  position: absolute;
  inset: auto 0 45%;
  text-align: center;
}

.aids {
  display: grid;
  grid-template-columns: auto auto 1fr auto;
  gap: 0.2rem 0.8rem;
  align-items: center;
}

.aids .help,
.aids [role='status'] {
  grid-column: 3;
  margin: 0;
  font-size: 0.85rem;
}

.aids .v-btn {
  grid-column: 4;
  grid-row: 1 / 3;
}

.loupe {
  position: relative;
  grid-row: 1 / 3;
  width: 104px;
  height: 104px;
  overflow: hidden;
  border-radius: 50%;
  border: 1px solid var(--rule);
  background: rgb(var(--v-theme-surface));
}

.loupe svg {
  position: absolute;
  inset: 0;
}

.loupe path,
.loupe circle {
  fill: none;
  stroke: #8c2f1b;
  stroke-width: 1;
}

.pad {
  grid-row: 1 / 3;
  display: grid;
  grid-template: repeat(3, 2rem) / repeat(3, 2rem);
}

.pad button {
  display: grid;
  place-items: center;
  border: 1px solid var(--rule);
  border-radius: 4px;
  background: rgb(var(--v-theme-surface));
}

.pad svg {
  width: 1.1rem;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.4;
}

.pad .up {
  grid-area: 1 / 2;
}

.pad .left {
  grid-area: 2 / 1;
}

.pad .right {
  grid-area: 2 / 3;
}

.pad .down {
  grid-area: 3 / 2;
}

@media (width <= 900px) {
  .aids {
    grid-template-columns: auto auto 1fr;
  }

  .aids .help {
    display: none;
  }

  .aids .v-btn {
    grid-column: 1 / -1;
    grid-row: 3;
  }
}
</style>

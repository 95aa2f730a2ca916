<script setup lang="ts">
import { computed } from 'vue';
import type { BenchMark, Shape } from '../logic/marks';
import type { Marking } from '../composables/useMarking';
import type { View } from '../composables/useView';
import type { Point } from '../logic/viewport';

/** What lies on the picture: marks, the one that is being placed, and the cursor of keys. */
const props = defineProps<{
  view: View;
  marking: Marking;
  shape: Shape | undefined;
  chosen: string;
  byKeys: boolean;
}>();

function line(points: Point[], shape: Shape): string {
  const placed = points.map(props.view.toScreen);
  const path = placed.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('');
  return (shape === 'OUTLINE' || shape === 'LARGEST') && points.length > 2 ? `${path}Z` : path;
}

/** Behind the end that lies farthest to the right, where it covers nothing of the mark. */
function labelAt(mark: BenchMark): Point {
  const placed = mark.parts.flat().map(props.view.toScreen);
  const end = placed.reduce((a, b) => (b.x > a.x ? b : a), placed[0] ?? { x: 0, y: 0 });
  return { x: end.x + 7, y: end.y + 4 };
}

/** While it is marked, a line leads on to the cursor. */
const going = computed(() => {
  const { now, held, cursor } = props.marking;
  const none = !props.shape || props.shape === 'COUNT' || !now.value.length || held.value;
  return none ? '' : line([...now.value.slice(-1), cursor.value], 'LINE');
});
const draft = computed(() => (props.shape ? props.marking.draft.value : []));
const points = computed(() => {
  const kept = props.marking.drawn.value.filter((m) => m.id === props.chosen || m.shape === 'COUNT');
  return [...kept.flatMap((m) => m.parts.flat()), ...draft.value.flat()].map(props.view.toScreen);
});
const held = computed(() => props.marking.heldPoint.value && props.view.toScreen(props.marking.heldPoint.value));
const cross = computed(() => props.view.toScreen(props.marking.cursor.value));
</script>

<template>
  <svg aria-hidden="true" :width="view.size.value.width" :height="view.size.value.height">
    <g v-for="mark in marking.drawn.value" :key="mark.id" class="mark" :class="{ chosen: mark.id === chosen }">
      <template v-if="mark.shape !== 'COUNT'">
        <path v-for="(part, i) in mark.parts" :key="`h${i}`" class="halo" :d="line(part, mark.shape)" />
        <path v-for="(part, i) in mark.parts" :key="i" class="line" :d="line(part, mark.shape)" />
      </template>
      <text v-if="mark.label" :x="labelAt(mark).x" :y="labelAt(mark).y">{{ mark.label }}</text>
    </g>
    <template v-if="shape && shape !== 'COUNT'">
      <path v-for="(part, i) in draft" :key="`h${i}`" class="halo" :d="line(part, shape)" />
      <path v-for="(part, i) in draft" :key="i" class="line draft" :d="line(part, shape)" />
      <path class="going" :d="going" />
    </template>
    <circle v-for="(p, i) in points" :key="i" class="point" :cx="p.x" :cy="p.y" r="4" />
    <circle v-if="held" class="held" :cx="held.x" :cy="held.y" r="9" />
    <path
      v-if="byKeys"
      class="cross"
      :d="`M${cross.x - 14} ${cross.y}h10m8 0h10M${cross.x} ${cross.y - 14}v10m0 8v10`"
    />
  </svg>
</template>

<style scoped>
path,
.held {
  fill: none;
  stroke-linecap: round;
}

.halo {
  stroke: #fffdf8;
  stroke-opacity: 0.85;
  stroke-width: 5;
}

.line {
  stroke: #14463b;
  stroke-width: 2;
}

.chosen .line,
.draft,
.going,
.held {
  stroke: #8c2f1b;
}

.going {
  stroke-width: 1.4;
  stroke-dasharray: 4 4;
}

.point {
  fill: #fffdf8;
  stroke: #8c2f1b;
  stroke-width: 2;
}

.held {
  stroke-width: 2;
  stroke-dasharray: 3 2;
}

.cross {
  stroke: #22241f;
  stroke-width: 2;
}

text {
  font: 600 0.78rem var(--sans);
  fill: #22241f;
  paint-order: stroke;
  stroke: #fffdf8;
  stroke-width: 3px;
}
</style>

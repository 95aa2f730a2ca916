<script setup lang="ts">
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import type { Schemas } from '@/api/client';

/** Ranges of the rows of a card on one scale, with the cuts and their bands of doubt. */
const props = defineProps<{
  cells: Schemas['ShownCell'][];
  names: string[];
  cuts: Schemas['CutView'][];
}>();
const WIDTH = 230;
const LINE = 15;
const scale = computed(() => {
  const ends = props.cells.flatMap((c) => (c.range ? [c.range.min, c.range.max] : []));
  const cuts = props.cuts.map((c) => c.at);
  return scaleLinear([Math.min(...ends, ...cuts), Math.max(...ends, ...cuts)], [18, WIDTH - 14]).nice(4);
});
const height = computed(() => props.cells.length * LINE + 16);
const bands = computed(() =>
  props.cuts.flatMap(({ from, to }) =>
    typeof from === 'number' && typeof to === 'number' ? [{ x: scale.value(from), to: scale.value(to) }] : [],
  ),
);
</script>

<template>
  <svg class="ranges figures" :viewBox="`0 0 ${WIDTH} ${height}`" aria-hidden="true">
    <rect
      v-for="(band, i) in bands"
      :key="`band ${i}`"
      :x="band.x"
      y="0"
      :width="Math.max(1, band.to - band.x)"
      :height="height - 14"
      class="band"
    />
    <g v-for="(cell, i) in cells" :key="i">
      <template v-if="cell.range">
        <line
          :x1="scale(cell.range.min)"
          :x2="scale(cell.range.max)"
          :y1="i * LINE + 8"
          :y2="i * LINE + 8"
          class="tail"
        />
        <rect
          :x="scale(cell.range.low) - 0.75"
          :width="scale(cell.range.high) - scale(cell.range.low) + 1.5"
          :y="i * LINE + 4"
          height="8"
          class="range"
        />
        <text :x="2" :y="i * LINE + 11" class="letter">{{ String.fromCharCode(65 + i) }}</text>
      </template>
    </g>
    <line
      v-for="cut in cuts"
      :key="cut.below"
      :x1="scale(cut.at)"
      :x2="scale(cut.at)"
      y1="0"
      :y2="height - 14"
      class="cut"
    />
    <text v-for="tick in scale.ticks(4)" :key="tick" :x="scale(tick)" :y="height - 3" text-anchor="middle">
      {{ tick }}
    </text>
  </svg>
</template>

<style scoped>
.ranges {
  width: 100%;
  max-width: 21rem;
}

.band {
  fill: rgb(var(--v-theme-warning));
  opacity: 0.18;
}

.tail {
  stroke: currentcolor;
}

.range {
  fill: rgb(var(--v-theme-info));
}

.cut {
  stroke: rgb(var(--v-theme-error));
  stroke-width: 1.4;
  stroke-dasharray: 4 2;
}

text {
  font-size: 9px;
  fill: currentcolor;
}

.letter {
  font-weight: 700;
}
</style>

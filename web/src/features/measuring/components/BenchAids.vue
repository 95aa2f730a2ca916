<script setup lang="ts">
import { mdiChevronDown, mdiChevronLeft, mdiChevronRight, mdiChevronUp } from '@mdi/js';
import { computed, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Marking } from '../composables/useMarking';
import type { View } from '../composables/useView';

/** Beside the picture: a magnifier, a pad that moves by a pixel, and what the keys do. */
const props = defineProps<{ view: View; marking: Marking }>();
const { t } = useI18n();
const loupe = useTemplateRef<HTMLCanvasElement>('loupe');
const SIDE = 104;
const LEAST_ZOOM = 6;

watch(
  [props.marking.focus, props.view.view, props.view.levels],
  () => {
    const zoom = Math.max(LEAST_ZOOM, props.view.view.value.scale * 2);
    props.view.lookAt(loupe.value, props.marking.focus.value, zoom, SIDE);
  },
  { deep: true, flush: 'post' },
);

const PAD = [
  { way: 'up', icon: mdiChevronUp, dx: 0, dy: -1 },
  { way: 'left', icon: mdiChevronLeft, dx: -1, dy: 0 },
  { way: 'right', icon: mdiChevronRight, dx: 1, dy: 0 },
  { way: 'down', icon: mdiChevronDown, dx: 0, dy: 1 },
] as const;

const state = computed(() => {
  const held = props.marking.heldPoint.value;
  const { x, y } = held ?? props.marking.cursor.value;
  const told = { x: x.toFixed(0), y: y.toFixed(0), n: props.marking.now.value.length };
  return held ? t('measure.bench.held', told) : t('measure.bench.cursor', told, told.n);
});
</script>

<template>
  <div class="aids">
    <div class="loupe" aria-hidden="true">
      <canvas ref="loupe" :style="{ width: `${SIDE}px`, height: `${SIDE}px` }" />
      <svg :width="SIDE" :height="SIDE">
        <path :d="`M0 ${SIDE / 2}h44m16 0h44M${SIDE / 2} 0v44m0 16v44`" />
        <circle :cx="SIDE / 2" :cy="SIDE / 2" r="1" />
      </svg>
    </div>
    <div class="pad" role="group" :aria-label="$t('measure.bench.pad')">
      <button
        v-for="key in PAD"
        :key="key.way"
        type="button"
        :class="key.way"
        :aria-label="$t(`measure.bench.${key.way}`)"
        @click="marking.nudge(key.dx, key.dy)"
      >
        <v-icon :icon="key.icon" size="small" />
      </button>
    </div>
    <p id="bench-help" class="quiet help">{{ $t('measure.bench.help') }}</p>
    <p class="figures quiet" role="status">{{ state }}</p>
    <v-btn v-if="marking.canFinish.value" color="primary" variant="flat" @click="marking.finish">{{
      $t('measure.bench.finish')
    }}</v-btn>
  </div>
</template>

<style scoped>
.aids {
  display: grid;
  grid-template-columns: auto auto 1fr auto;
  gap: 0.2rem 0.8rem;
  align-items: center;
}

.help,
[role='status'] {
  grid-column: 3;
  margin: 0;
  font-size: 0.85rem;
}

.aids > .v-btn {
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
  fill: none;
  stroke: #8c2f1b;
}

.pad {
  grid-row: 1 / 3;
  display: grid;
  grid-template: repeat(3, 2rem) / repeat(3, 2rem);
}

.pad button {
  border: 1px solid var(--rule);
  border-radius: 4px;
  background: rgb(var(--v-theme-surface));
}

.up {
  grid-area: 1 / 2;
}

.left {
  grid-area: 2 / 1;
}

.right {
  grid-area: 2 / 3;
}

.down {
  grid-area: 3 / 2;
}

@media (width <= 900px) {
  .aids {
    grid-template-columns: auto auto 1fr;
  }

  .help {
    display: none;
  }

  .aids > .v-btn {
    grid-column: 1 / -1;
    grid-row: 3;
  }
}
</style>

<script setup lang="ts">
import { nextTick, useTemplateRef } from 'vue';
import { useMarking } from '../composables/useMarking';
import { usePointing } from '../composables/usePointing';
import { useView } from '../composables/useView';
import type { BenchMark, Shape } from '../logic/marks';
import type { Point } from '../logic/viewport';
import BenchAids from './BenchAids.vue';
import MarkLayer from './MarkLayer.vue';

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
  /** How many the mark has; Infinity: as many as the hand gives it. */
  parts: number;
  marks: BenchMark[];
  chosen: string;
}>();
const emit = defineEmits<{
  done: [parts: Point[][]];
  moved: [id: string, parts: Point[][]];
}>();

const bench = useTemplateRef<HTMLElement>('bench');
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const view = useView(() => props, bench, canvas);
const marking = useMarking(
  props,
  view,
  (parts) => emit('done', parts),
  (id, parts) => emit('moved', id, parts),
);
const pointing = usePointing(bench, view, marking);
const { levels, failed } = view;

defineExpose({ focus: () => nextTick(() => bench.value?.focus()), restore: marking.restore });
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
      @keydown="pointing.keydown"
      @pointerdown="pointing.pointerdown"
      @pointermove="pointing.pointermove"
      @pointerup="pointing.pointerup"
      @pointercancel="pointing.pointerup"
      @wheel.prevent="pointing.wheel"
      @dblclick="pointing.dblclick(shape)"
      @contextmenu.prevent
    >
      <canvas ref="canvas" aria-hidden="true" />
      <MarkLayer :view="view" :marking="marking" :shape="shape" :chosen="chosen" :by-keys="pointing.byKeys.value" />
      <p v-if="failed" class="failed">{{ $t('measure.bench.failed') }}</p>
      <p v-else-if="!levels.length" class="failed">{{ $t('loading') }}</p>
    </div>
    <BenchAids :view="view" :marking="marking" />
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

.bench > canvas,
.bench > svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

.failed {
  position: absolute;
  inset: auto 0 45%;
  text-align: center;
}
</style>

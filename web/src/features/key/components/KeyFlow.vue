<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import type { Schemas } from '@/api/client';
import { isDangerous } from '@/shared/taxon/hazards';
import { flowIn, labelOf } from '../logic/flow';

/** The key as a river whose bands are as wide as what they carry. */
const props = defineProps<{ view: Schemas['KeyView']; selected: number | null }>();
const emit = defineEmits<{ select: [couplet: number] }>();
/** The width of the pane, as soon as it is known. */
const room = ref(0);
const pane = useTemplateRef('pane');
useResizeObserver(pane, ([entry]) => (room.value = entry?.contentRect.width ?? 0));
const flow = computed(() => flowIn(props.view, room.value));

const grave = (names: Schemas['NameView'][]) => names.some((n) => isDangerous(n.hazard));
</script>

<template>
  <div ref="pane" class="river" tabindex="0" role="region" :aria-label="$t('key.flow')">
    <svg :width="flow.width" :height="flow.height" :viewBox="`0 0 ${flow.width} ${flow.height}`" aria-hidden="true">
      <path
        v-for="(r, i) in flow.ribbons"
        :key="i"
        :d="r.path"
        class="ribbon"
        :class="{ danger: r.dangerous, on: r.couplet === selected }"
        @click="emit('select', r.couplet)"
      />
      <g v-for="k in flow.knots" :key="k.couplet" class="knot" @click="emit('select', k.couplet)">
        <rect :x="k.x" :y="k.y" width="7" :height="k.height" :class="{ on: k.couplet === selected }" />
        <text :x="k.x - 3" :y="k.y + k.height / 2 + 4" text-anchor="end">{{ k.couplet }}</text>
      </g>
      <text
        v-for="(s, i) in flow.stops"
        :key="`s${i}`"
        :x="s.x + 6"
        :y="s.y + 4.5"
        class="stop"
        :class="{ danger: grave(s.names) }"
      >
        {{ labelOf(s.names) }}
      </text>
    </svg>
  </div>
</template>

<style scoped>
.river {
  overflow: auto;
}

.ribbon {
  fill: color-mix(in srgb, rgb(var(--v-theme-primary)) 20%, rgb(var(--v-theme-background)));
  cursor: pointer;
}

.ribbon.danger {
  fill: color-mix(in srgb, rgb(var(--v-theme-error)) 26%, rgb(var(--v-theme-background)));
}

.ribbon.on {
  fill: color-mix(in srgb, rgb(var(--v-theme-primary)) 48%, rgb(var(--v-theme-background)));
}

.ribbon.danger.on {
  fill: color-mix(in srgb, rgb(var(--v-theme-error)) 52%, rgb(var(--v-theme-background)));
}

.knot {
  cursor: pointer;
}

.knot rect {
  fill: rgb(var(--v-theme-primary));
}

.knot rect.on {
  fill: rgb(var(--v-theme-on-background));
}

text {
  font-size: 13px;
  fill: rgb(var(--v-theme-on-background));
  font-variant-numeric: tabular-nums;
}

.stop {
  font-family: var(--serif);
  font-style: italic;
  font-size: 13.5px;
}

.stop.danger {
  fill: rgb(var(--v-theme-error));
  font-weight: 700;
}
</style>

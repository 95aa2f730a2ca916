<script setup lang="ts">
import { bodyPlans } from './bodyPlans';

/** An outline of the organism, on which a part is chosen. */
defineProps<{
  plan: string;
  /** Name of a part as this study calls it, with how much there is to say of it. */
  named: (part: string) => { organ: string; count: number };
  selected: string;
}>();
const emit = defineEmits<{ select: [organ: string] }>();
</script>

<template>
  <svg viewBox="0 0 300 260" class="plan" role="group" :aria-label="$t('plan.outline')">
    <g
      v-for="part in bodyPlans[plan] ?? []"
      :key="part.part"
      role="button"
      tabindex="0"
      :class="{ on: named(part.part).organ === selected, some: named(part.part).count }"
      :aria-pressed="named(part.part).organ === selected"
      :aria-label="$t('plan.part', { name: named(part.part).organ, n: named(part.part).count })"
      @click="emit('select', named(part.part).organ)"
      @keydown.enter.prevent="emit('select', named(part.part).organ)"
      @keydown.space.prevent="emit('select', named(part.part).organ)"
    >
      <title>{{ $t('plan.part', { name: named(part.part).organ, n: named(part.part).count }) }}</title>
      <path v-for="shape in part.shapes" :key="shape" :d="shape" />
    </g>
  </svg>
</template>

<style scoped>
.plan {
  width: 100%;
  max-height: 17rem;
  background: #fdfaf2;
  border: 1px solid var(--rule);
}

g {
  cursor: pointer;
}

path {
  fill: #fdfaf2;
  stroke: #2b2a26;
  stroke-width: 1.4;
  stroke-linejoin: round;
}

.some path {
  fill: #e6d8b6;
}

g:hover path,
g:focus-visible path {
  fill: #cfe0c9;
}

.on path {
  fill: #9fc3a6;
  stroke-width: 2.6;
}

g:focus-visible {
  outline: 2px solid #2b2a26;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import { COUNTED, counted } from '../logic/counted';
import { corners, sizeOf, type Selection } from '../logic/grid';
import type { GridModel } from '../logic/paint';

/** What the selection holds, in one line. */
const props = defineProps<{ grid: GridModel; selection: Selection }>();
const box = computed(() => corners(props.selection));
const cells = computed(() => sizeOf(box.value));
const count = computed(() =>
  counted(props.grid, cells.value > COUNTED ? { ...box.value, bottom: box.value.top - 1 } : box.value),
);
const parts = computed(() =>
  (['scored', 'inherited', 'unknown', 'empty', 'doubtful', 'unsourced'] as const).filter((part) => count.value[part]),
);
</script>

<template>
  <p class="status figures quiet" role="status">
    <template v-if="cells > 1">
      {{ $t('score.selected.cells', { n: cells.toLocaleString('en') }) }}
      <template v-for="part in parts" :key="part"> · {{ $t(`score.selected.${part}`, { n: count[part] }) }}</template>
    </template>
    <template v-else>{{ $t('score.size', { rows: grid.rows.length, columns: grid.columns.length }) }}</template>
  </p>
</template>

<style scoped>
.status {
  margin: 0;
  padding: 0.15rem 0.8rem;
  border-top: 1px solid var(--rule);
  font-size: 0.82rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

@media (max-height: 560px) {
  .status {
    display: none;
  }
}
</style>

<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { GridModel } from '../logic/paint';

/** The sheet on paper: as many tables as it takes, each with some of the characters; made only while it is printed. */
const props = defineProps<{ grid: GridModel; title: string }>();
/** So many columns stand on one page, upright. */
const COLUMNS = 6;
const printing = ref(false);
const parts = computed(() =>
  Array.from({ length: Math.ceil(props.grid.columns.length / COLUMNS) }, (_, part) =>
    props.grid.columns.slice(part * COLUMNS, (part + 1) * COLUMNS).map((c, i) => ({ ...c, at: part * COLUMNS + i })),
  ),
);
useEventListener(window, 'beforeprint', () => (printing.value = true));
useEventListener(window, 'afterprint', () => (printing.value = false));

/** As it is typed; in brackets what is inherited, with a question mark what is doubtful. */
function text(row: number, column: number): string {
  const cell = props.grid.cell(row, column);
  if (!cell) return '…';
  return `${cell.from && cell.text ? `(${cell.text})` : cell.text}${cell.doubtful ? ' ?' : ''}`;
}
</script>

<template>
  <section v-if="printing" class="printed" aria-hidden="true">
    <h1>{{ title }}</h1>
    <p>{{ $t('score.printed') }}</p>
    <table v-for="(columns, part) in parts" :key="part">
      <thead>
        <tr>
          <td></td>
          <th v-for="c in columns" :key="c.id" scope="col">{{ c.label }}{{ c.unit ? `, ${c.unit}` : '' }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, r) in grid.rows" :key="r">
          <th scope="row" :style="{ paddingLeft: `${row.depth * 0.8}rem` }">
            <i v-if="!row.stage">{{ row.label }}</i><template v-else>{{ row.stage }}</template>
          </th>
          <td v-for="c in columns" :key="c.id">{{ text(r, c.at) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.printed {
  display: none;
}

@media print {
  .printed {
    display: block;
    color: #000;
    font-size: 8.5pt;
  }

  table {
    width: 100%;
    border-collapse: collapse;
    table-layout: fixed;
    break-after: page;
  }

  table:last-child {
    break-after: auto;
  }

  tr {
    break-inside: avoid;
  }

  th,
  td {
    padding: 1pt 3pt;
    border: 0.5pt solid #999;
    text-align: left;
    vertical-align: top;
    font-weight: 400;
    overflow-wrap: anywhere;
  }

  thead th {
    font-weight: 600;
  }
}
</style>

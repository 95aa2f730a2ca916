<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';

/** What became of every line and cell of a table. */
const props = defineProps<{ account: Schemas['ImportAccount']; transposed: boolean }>();
const out = computed(() => props.account.leftOut.length);
const lost = computed(() => out.value + props.account.columns.length);
</script>

<template>
  <details :open="lost > 0" class="account">
    <summary>{{ $t('import.account') }}</summary>
    <p class="figures">
      {{
        transposed
          ? $t('import.linesTurned', { lines: account.lines, taxa: account.taxa })
          : $t('import.lines', {
              lines: account.lines,
              taxa: account.taxa,
              out,
              headings: account.lines - account.taxa - out,
            })
      }}
    </p>
    <table class="figures">
      <tbody>
        <tr v-for="one in account.cells" :key="one.fate">
          <td>{{ one.cells }}</td>
          <th scope="row">{{ $t(`import.fate.${one.fate}`) }}</th>
        </tr>
      </tbody>
    </table>
    <template v-if="out">
      <h3>{{ $t('import.leftOut') }}</h3>
      <ul>
        <li v-for="line in account.leftOut" :key="line.line">
          {{ $t('import.line', { row: line.line, text: line.text }) }}
          <span class="quiet">({{ $t(`import.reason.${line.reason}`) }})</span>
        </li>
      </ul>
    </template>
    <template v-if="account.columns.length">
      <h3>{{ $t('import.leftOutColumns') }}</h3>
      <ul>
        <li v-for="one in account.columns" :key="one.column">
          {{ $t('import.columnOut', { column: one.column, text: one.text }, one.cells) }}
        </li>
      </ul>
    </template>
  </details>
</template>

<style scoped>
.account {
  margin: 1rem 0;
}

summary {
  cursor: pointer;
  font-weight: 600;
}

td {
  text-align: right;
  padding-right: 0.75rem;
}

th {
  text-align: left;
  font-weight: 400;
}

h3 {
  font-size: 1rem;
  margin: 0.75rem 0 0.25rem;
}

ul {
  max-height: 14rem;
  overflow: auto;
}
</style>

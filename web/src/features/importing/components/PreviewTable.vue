<script setup lang="ts">
import type { Schemas } from '@/api/client';

/** How each column of an upload was understood. */
defineProps<{ columns: Schemas['Column'][] }>();
</script>

<template>
  <div class="scroll" tabindex="0" role="region" :aria-label="$t('import.understood')">
    <table class="figures">
      <thead>
        <tr>
          <th scope="col">{{ $t('import.character') }}</th>
          <th scope="col">{{ $t('import.type') }}</th>
          <th scope="col">{{ $t('import.organ') }}</th>
          <th scope="col">{{ $t('import.states') }}</th>
          <th scope="col">{{ $t('import.cells') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="column in columns" :key="column.character">
          <th scope="row">{{ column.character }}</th>
          <td>
            {{ $t(`type.${column.type}`) }} {{ column.unit }}
            <span v-if="column.guessed" class="guess">{{ $t('import.guessed') }}</span>
          </td>
          <td>{{ column.organ }}</td>
          <td>{{ column.states.join(' · ') }}</td>
          <td>{{ column.scored }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  vertical-align: top;
  padding: 0.35rem 0.75rem 0.35rem 0;
  border-bottom: 1px solid var(--rule);
}

.guess {
  font-style: italic;
  color: rgb(var(--v-theme-warning));
}
</style>

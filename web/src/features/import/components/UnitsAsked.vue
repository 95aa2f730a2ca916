<script setup lang="ts">
import { unitsOf } from '@/features/characters';
import type { Schemas } from '@/api/client';
import type { Choice } from './PreviewTable.vue';

/** Columns whose bare numbers may be in any unit: it is asked for, and never guessed. */
defineProps<{ columns: Schemas['Column'][] }>();
const emit = defineEmits<{ choose: [label: string, choice: Choice] }>();
</script>

<template>
  <section aria-labelledby="asked">
    <h2 id="asked">{{ $t('import.asked') }}</h2>
    <p>{{ $t('import.askedLead') }}</p>
    <ul>
      <li v-for="column in columns" :key="column.character">
        <span :id="`unit-${column.column}`">{{ column.character }}</span>
        <v-btn-toggle :aria-labelledby="`unit-${column.column}`" density="comfortable" divided variant="outlined">
          <v-btn
            v-for="unit in unitsOf(column.type)"
            :key="unit"
            @click="emit('choose', column.character, { type: column.type, unit })"
            >{{ unit }}</v-btn
          >
        </v-btn-toggle>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  border-top: 2px solid rgb(var(--v-theme-warning));
  margin-top: 1.5rem;
  padding-top: 1rem;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.5rem;
  align-items: center;
  padding: 0.35rem 0;
}

li > span {
  min-width: 14rem;
  font-weight: 600;
}

.v-btn {
  text-transform: none;
}
</style>

<script setup lang="ts">
import { useI18n } from 'vue-i18n';
import { unitsOf } from '@/features/characters';
import type { Schemas } from '@/api/client';

export interface Choice {
  type: Schemas['Column']['type'];
  unit: string;
}

/** How each column of an upload was understood; what was only proposed can be taken as something else. */
defineProps<{ columns: Schemas['Column'][] }>();
const emit = defineEmits<{ retype: [label: string, choice: Choice] }>();
const { t } = useI18n();
const TYPES = ['STATES', 'ORDERED', 'LENGTH', 'MASS', 'ANGLE', 'PERCENT', 'COUNT', 'RATIO', 'MONTHS'] as const;
const types = TYPES.map((value) => ({ value, title: t(`type.${value}`) }));
const unitsFor = (column: Schemas['Column']) => [...new Set([...unitsOf(column.type), column.unit])];
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
            <template v-if="column.guessed">
              <v-select
                class="type"
                :model-value="column.type"
                :items="types"
                :aria-label="$t('import.typeOf', { name: column.character })"
                hide-details
                @update:model-value="emit('retype', column.character, { type: $event, unit: '' })"
              />
              <span class="guess">{{ $t('import.guessed') }}</span>
            </template>
            <template v-else>{{ $t(`type.${column.type}`) }}</template>
            <select
              v-if="column.guessed && unitsOf(column.type).length"
              class="unit"
              :value="column.unit"
              :aria-label="$t('import.unitOf', { name: column.character })"
              @change="
                emit('retype', column.character, {
                  type: column.type,
                  unit: ($event.target as HTMLSelectElement).value,
                })
              "
            >
              <option v-for="unit in unitsFor(column)" :key="unit">{{ unit }}</option>
            </select>
            <template v-else>{{ ` ${column.unit}` }}</template>
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

.type {
  min-width: 10rem;
}

.unit {
  margin-left: 0.5rem;
  padding: 0.2rem;
  border: 1px solid var(--rule);
}

.guess {
  font-style: italic;
  color: rgb(var(--v-theme-warning));
}
</style>

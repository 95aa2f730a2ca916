<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { inPercent } from '../logic/share';

/** What keys for all aims are like, of which one is shown. */
defineProps<{ keys: Schemas['ComparedView'][]; objective: string }>();
const emit = defineEmits<{ choose: [objective: string] }>();

const OUTCOMES = ['right', 'wrong', 'dangerousWrong', 'stuck'] as const;
const READERS = ['trained', 'novice'] as const;
</script>

<template>
  <details class="comparison figures">
    <summary>
      {{ $t('key.compare') }}
    </summary>
    <p class="quiet">{{ $t('key.compareLead') }}</p>
    <div class="scroll" tabindex="0" role="region" :aria-label="$t('key.compare')">
      <table>
        <thead>
          <tr>
            <th rowspan="2" scope="col">{{ $t('key.objective') }}</th>
            <th rowspan="2" scope="col" class="number">{{ $t('key.couplets') }}</th>
            <th rowspan="2" scope="col" class="number">{{ $t('key.steps') }}</th>
            <th rowspan="2" scope="col" class="number">{{ $t('key.most') }}</th>
            <th v-for="reader in READERS" :key="reader" :colspan="OUTCOMES.length" scope="colgroup">
              {{ $t(`key.readers.${reader}`) }}, %
            </th>
          </tr>
          <tr>
            <template v-for="reader in READERS" :key="reader">
              <th v-for="outcome in OUTCOMES" :key="outcome" scope="col" class="number">{{ $t(`key.${outcome}`) }}</th>
            </template>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in keys" :key="one.objective" :class="{ shown: one.objective === objective }">
            <th scope="row">
              <button type="button" :aria-pressed="one.objective === objective" @click="emit('choose', one.objective)">
                {{ $t(`objective.${one.objective}`) }}
              </button>
            </th>
            <td class="number">{{ one.couplets }}</td>
            <td class="number">{{ one.expectedSteps.toFixed(2) }}</td>
            <td class="number">{{ one.longestPath }}</td>
            <template v-for="reader in READERS" :key="reader">
              <td v-for="outcome in OUTCOMES" :key="outcome" class="number">{{ inPercent(one[reader][outcome]) }}</td>
            </template>
          </tr>
        </tbody>
      </table>
    </div>
  </details>
</template>

<style scoped>
.comparison {
  padding: 0.35rem 1rem;
  border-bottom: 1px solid var(--rule);
}

summary {
  cursor: pointer;
}

.scroll {
  overflow-x: auto;
}

table {
  border-collapse: collapse;
}

th,
td {
  padding: 0.25rem 0.9rem 0.25rem 0;
  text-align: left;
  vertical-align: bottom;
  font-weight: 400;
}

tbody tr {
  border-top: 1px solid var(--rule);
}

.number {
  text-align: right;
}

.shown {
  font-weight: 600;
}

button {
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}

.shown button {
  font-weight: 600;
}
</style>

<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useCompact } from '@/shared/ui/useCompact';

/** What a range was measured on, and how the individuals spread: the next one may lie outside it. */
const sample = defineModel<Schemas['SampleView']>({ required: true });
defineProps<{ unit: string }>();
const field = useCompact(() => false);
const NUMBERS = [
  { name: 'items', measure: false },
  { name: 'individuals', measure: false },
  { name: 'collections', measure: false },
  { name: 'mean', measure: true },
  { name: 'sd', measure: true },
] as const;

function write(name: (typeof NUMBERS)[number]['name'], typed: string) {
  sample.value = { ...sample.value, [name]: typed.trim() === '' ? undefined : Number(typed) };
}
</script>

<template>
  <fieldset>
    <legend>{{ $t('sample.title') }}</legend>
    <div class="numbers">
      <v-text-field
        v-for="{ name, measure } in NUMBERS"
        v-bind="field"
        :key="name"
        :model-value="sample[name] ?? ''"
        type="number"
        :min="measure ? undefined : 1"
        :step="measure ? 'any' : 1"
        :suffix="measure ? unit : undefined"
        :label="$t(`sample.${name}`)"
        @update:model-value="write(name, $event)"
      />
    </div>
    <v-checkbox v-bind="field" v-model="sample.provisional" :label="$t('sample.provisional')" />
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
}

legend {
  font-weight: 600;
  margin-bottom: 0.4rem;
}

.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.45rem;
}
</style>

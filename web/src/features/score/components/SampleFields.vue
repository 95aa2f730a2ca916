<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { useCompact } from '@/shared/useCompact';

/** What a range was measured on, and how the individuals spread: the next one may lie outside it. */
const origin = defineModel<Schemas['Origin']>({ required: true });
defineProps<{ unit: string }>();
const field = useCompact(() => false);
const NOTHING: Schemas['Spread'] = { provisional: false };
const spread = computed(() => origin.value.spread ?? NOTHING);

function say(what: Partial<Schemas['Spread']>) {
  origin.value = { ...origin.value, spread: { ...spread.value, ...what } };
}

const number = (typed: string) => (typed.trim() === '' || Number.isNaN(Number(typed)) ? undefined : Number(typed));
</script>

<template>
  <fieldset>
    <legend>{{ $t('sample.title') }}</legend>
    <div class="numbers">
      <v-text-field
        v-bind="field"
        :model-value="spread.items ?? ''"
        type="number"
        min="1"
        :label="$t('sample.items')"
        @update:model-value="say({ items: number($event) })"
      />
      <v-text-field
        v-bind="field"
        :model-value="origin.individuals ?? ''"
        type="number"
        min="1"
        :label="$t('origin.individuals')"
        @update:model-value="origin = { ...origin, individuals: number($event) }"
      />
      <v-text-field
        v-bind="field"
        :model-value="spread.collections ?? ''"
        type="number"
        min="1"
        :label="$t('sample.collections')"
        @update:model-value="say({ collections: number($event) })"
      />
      <v-text-field
        v-bind="field"
        :model-value="spread.mean ?? ''"
        type="number"
        step="any"
        :suffix="unit"
        :label="$t('sample.mean')"
        @update:model-value="say({ mean: number($event) })"
      />
      <v-text-field
        v-bind="field"
        :model-value="spread.sd ?? ''"
        type="number"
        min="0"
        step="any"
        :suffix="unit"
        :label="$t('sample.sd')"
        @update:model-value="say({ sd: number($event) })"
      />
    </div>
    <v-checkbox
      v-bind="field"
      :model-value="spread.provisional"
      :label="$t('sample.provisional')"
      @update:model-value="say({ provisional: $event === true })"
    />
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
  grid-template-columns: repeat(auto-fill, minmax(7.5rem, 1fr));
  gap: 0.45rem;
}
</style>

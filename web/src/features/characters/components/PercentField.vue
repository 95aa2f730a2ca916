<script setup lang="ts">
import { computed } from 'vue';

/** A rate, of up to 0.5 unless more is said, written in percent; empty, where that may be: as usual. */
const rate = defineModel<number | undefined>({ required: true });
withDefaults(defineProps<{ label: string; readonly: boolean; optional?: boolean; most?: number }>(), { most: 50 });
const percent = computed({
  get: () => (rate.value === undefined ? '' : Math.round(rate.value * 1000) / 10),
  set: (typed: string | number) => (rate.value = typed === '' ? undefined : Number(typed) / 100),
});
</script>

<template>
  <v-text-field
    v-model="percent"
    type="number"
    min="0"
    :max="most"
    step="any"
    density="compact"
    :label="label"
    :placeholder="optional ? $t('trust.usual') : undefined"
    :persistent-placeholder="optional"
    :readonly="readonly"
    hide-details
  />
</template>

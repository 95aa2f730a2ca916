<script setup lang="ts" generic="T extends object">
import { mdiClose, mdiPlus } from '@mdi/js';
import { useCompact } from './useCompact';

/** Entries of one kind below each other, each with its fields, to add to and to take from. */
const entries = defineModel<T[]>({ required: true });
const props = defineProps<{ title: string; add: string; remove: (entry: T) => string; blank: T; readonly: boolean }>();
const field = useCompact(() => props.readonly);
</script>

<template>
  <fieldset>
    <legend>{{ title }}</legend>
    <div v-for="(entry, i) in entries" :key="i" class="one">
      <slot :entry="entry" :field="field" />
      <v-btn
        v-if="!readonly"
        class="out"
        :icon="mdiClose"
        size="x-small"
        variant="text"
        :aria-label="remove(entry)"
        @click="entries.splice(i, 1)"
      />
    </div>
    <v-btn v-if="!readonly" class="add" size="small" :prepend-icon="mdiPlus" @click="entries.push({ ...blank })">{{
      add
    }}</v-btn>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  gap: 0.6rem;
}

legend {
  font-weight: 600;
  margin-bottom: 0.4rem;
}

.one {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: center;
  gap: 0.4rem;
  position: relative;
  padding: 0 2rem 0 0.8rem;
  border-left: 3px solid var(--rule);
}

.out {
  position: absolute;
  top: 0.3rem;
  right: 0;
}

.add {
  justify-self: start;
}
</style>

<script setup lang="ts">
import { mdiContentCopy } from '@mdi/js';
import { useClipboard } from '@vueuse/core';

/** A secret that the server tells once and cannot tell again. */
defineProps<{ text: string }>();
const { copy, copied } = useClipboard();
</script>

<template>
  <div role="status">
    <p><slot /></p>
    <code>{{ text }}</code>
    <v-btn size="small" :prepend-icon="mdiContentCopy" @click="copy(text)">{{
      copied ? $t('tokens.copied') : $t('tokens.copy')
    }}</v-btn>
  </div>
</template>

<style scoped>
div {
  border: 1px solid var(--rule);
  padding: 0.8rem 1rem;
  margin: 1rem 0;
  display: grid;
  gap: 0.5rem;
  justify-items: start;
}

code {
  overflow-wrap: anywhere;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import ConfirmDialog from './ConfirmDialog.vue';
import { asked } from './leaving';

/** Asks before a page is left on which something is typed that is not saved. */
const open = computed({
  get: () => asked.value !== null,
  set: (wanted) => {
    if (!wanted) asked.value?.(false);
  },
});
</script>

<template>
  <ConfirmDialog
    v-model="open"
    :title="$t('lose.title')"
    :text="$t('lose.text')"
    :yes="$t('discard')"
    @confirm="asked?.(true)"
  />
</template>

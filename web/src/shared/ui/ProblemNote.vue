<script setup lang="ts">
import { mdiAlertCircleOutline } from '@mdi/js';

defineProps<{ problem: Error | null | undefined }>();
</script>

<template>
  <p v-if="problem" class="problem" role="alert">
    <v-icon :icon="mdiAlertCircleOutline" aria-hidden="true" /> {{ problem.message }}
  </p>
</template>

<style scoped>
.problem {
  border-left: 4px solid rgb(var(--v-theme-error));
  padding: 0.5rem 0.75rem;
  background: color-mix(in srgb, rgb(var(--v-theme-error)) 8%, transparent);
}
</style>

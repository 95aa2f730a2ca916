<script setup lang="ts">
import { mdiStop } from '@mdi/js';

/** What is under way with a file, how far it is, and a way out. */
defineProps<{ stage: string; progress: number }>();
defineEmits<{ cancel: [] }>();
</script>

<template>
  <div class="under-way">
    <v-progress-linear
      :model-value="100 * progress"
      :indeterminate="progress === 0"
      :aria-label="$t(`import.stage.${stage}`)"
    />
    <span class="figures" role="status">{{
      progress
        ? $t('import.share', { stage: $t(`import.stage.${stage}`), share: Math.floor(100 * progress) })
        : $t(`import.stage.${stage}`)
    }}</span>
    <v-btn size="small" :prepend-icon="mdiStop" @click="$emit('cancel')">{{ $t('leave') }}</v-btn>
  </div>
</template>

<style scoped>
.under-way {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1rem;
  margin: 0.75rem 0;
}

.v-progress-linear {
  flex: 1 1 12rem;
  width: auto;
}
</style>

<script setup lang="ts">
import { mdiReload, mdiStop } from '@mdi/js';

/** How far a key is that is being made, or that it was cancelled. */
defineProps<{ working: boolean; progress: number; stopped: boolean; unfinished: boolean }>();
const emit = defineEmits<{ stop: []; make: [] }>();
</script>

<template>
  <div v-if="working" class="making">
    <v-progress-linear :model-value="100 * progress" :indeterminate="progress === 0" :aria-label="$t('key.working')" />
    <span v-if="progress" class="figures" role="status">{{
      $t(unfinished ? 'key.progressSoFar' : 'key.progress', { share: Math.floor(100 * progress) })
    }}</span>
    <v-btn v-if="progress" size="small" :prepend-icon="mdiStop" @click="emit('stop')">{{
      $t(unfinished ? 'key.takeBest' : 'key.stop')
    }}</v-btn>
  </div>
  <div v-else-if="stopped" class="making">
    <span role="status">{{ $t(unfinished ? 'key.stoppedAtBest' : 'key.stopped') }}</span>
    <v-btn size="small" :prepend-icon="mdiReload" @click="emit('make')">{{
      $t(unfinished ? 'key.searchOn' : 'key.again')
    }}</v-btn>
  </div>
</template>

<style scoped>
.making {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 1rem;
  padding: 0 1rem 0.4rem;
}

.making .v-progress-linear {
  flex-basis: 100%;
}
</style>

<script setup lang="ts">
import { mdiAlert } from '@mdi/js';
import type { Schemas } from '@/api/client';

/** A hazard, by icon and by words, never by colour alone. */
defineProps<{ hazard: Schemas['StudyRow']['hazard']; text?: string; full?: boolean }>();
</script>

<template>
  <span
    v-if="hazard !== 'NONE_KNOWN' && hazard !== 'NOT_ASSESSED'"
    class="hazard"
    :class="{ grave: hazard !== 'CAUTION' }"
  >
    <v-icon :icon="mdiAlert" size="1.05em" aria-hidden="true" />
    <span>{{ full && text ? text : $t(`hazard.${hazard}`) }}</span>
  </span>
  <span v-else-if="hazard === 'NOT_ASSESSED' || full" class="known">{{ $t(`hazard.${hazard}`) }}</span>
</template>

<style scoped>
.hazard,
.known {
  margin-left: 0.4em;
}

.hazard {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

.grave {
  font-weight: 700;
}

.known {
  color: var(--faint);
  font-size: 0.92em;
}

.hazard .v-icon {
  margin-right: 0.25em;
  vertical-align: -0.1em;
}
</style>

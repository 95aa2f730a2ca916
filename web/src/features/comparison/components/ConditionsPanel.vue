<script setup lang="ts">
import type { Schemas } from '@/api/client';
import type { ViewingConditions } from '@/shared/viewing/conditions';
import ViewingChoices from '@/shared/viewing/ViewingChoices.vue';
import ViewingShortcuts from '@/shared/viewing/ViewingShortcuts.vue';
import MonthRing from './MonthRing.vue';

/** What can be seen: when, of which parts, with which equipment. */
const conditions = defineModel<ViewingConditions>({ required: true });
defineProps<{ study: Schemas['StudyView'] }>();

const change = (changes: Partial<ViewingConditions>) => (conditions.value = { ...conditions.value, ...changes });
</script>

<template>
  <section class="conditions" :aria-label="$t('apart.conditions')">
    <h2>{{ $t('apart.conditions') }}</h2>
    <ViewingShortcuts v-model="conditions" :study="study" />
    <MonthRing :model-value="conditions.months" @update:model-value="change({ months: $event })" />
    <ViewingChoices v-model="conditions" :study="study" stages />
    <v-switch
      :model-value="conditions.novice"
      :label="$t('apart.novice')"
      density="compact"
      color="primary"
      hide-details
      @update:model-value="change({ novice: $event === true })"
    />
    <v-switch
      :model-value="conditions.safely"
      :label="$t('apart.danger')"
      density="compact"
      color="primary"
      hide-details
      @update:model-value="change({ safely: $event === true })"
    />
    <p v-if="conditions.safely" class="quiet">{{ $t('apart.dangerSays') }}</p>
  </section>
</template>

<style scoped>
.conditions {
  display: grid;
  gap: 0.55rem;
  align-content: start;
}

.conditions :deep(.v-switch) {
  margin-left: 0.6rem;
}

.conditions :deep(.v-switch .v-label) {
  font-size: 0.9rem;
}
</style>

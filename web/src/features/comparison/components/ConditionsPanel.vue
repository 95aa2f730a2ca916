<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { EVERYTHING, isEverything, TREATMENTS, WINTER, type ViewingConditions } from '@/shared/viewing/conditions';
import MonthRing from './MonthRing.vue';

/** What can be seen: when, of which parts, with which equipment. */
const conditions = defineModel<ViewingConditions>({ required: true });
const props = defineProps<{ study: Schemas['StudyView'] }>();
const { t } = useI18n();

const names = (values: string[]) => [...new Set(values.filter(Boolean))].sort((a, b) => a.localeCompare(b, 'en'));
const named = (values: string[]) => values.map((value) => ({ value, title: value }));
const choices = computed(() => {
  const all = [
    { of: 'organs' as const, items: named(names(props.study.characters.map((c) => c.organ.toLowerCase()))) },
    { of: 'methods' as const, items: named(names(props.study.characters.map((c) => c.method.toLowerCase()))) },
    { of: 'stages' as const, items: named(names(props.study.rows.map((r) => r.stage.toLowerCase()))) },
    { of: 'preserved' as const, items: TREATMENTS.map((value) => ({ value, title: t(`apart.treated.${value}`) })) },
  ];
  return all.filter((choice) => choice.items.length);
});

const change = (changes: Partial<ViewingConditions>) => (conditions.value = { ...conditions.value, ...changes });
</script>

<template>
  <section class="conditions" :aria-label="$t('apart.conditions')">
    <h2>{{ $t('apart.conditions') }}</h2>
    <div class="ready">
      <v-btn size="small" variant="text" :disabled="isEverything(conditions)" @click="conditions = { ...EVERYTHING }">{{
        $t('apart.all')
      }}</v-btn>
      <v-btn size="small" variant="text" @click="change({ months: [...WINTER] })">{{ $t('apart.winter') }}</v-btn>
      <v-btn size="small" variant="text" @click="change({ methods: ['eye'] })">{{ $t('apart.byEye') }}</v-btn>
    </div>
    <MonthRing :model-value="conditions.months" @update:model-value="change({ months: $event })" />
    <v-select
      v-for="choice in choices"
      :key="choice.of"
      :model-value="conditions[choice.of]"
      :items="choice.items"
      :label="$t(`apart.${choice.of}`)"
      multiple
      clearable
      hide-details
      @update:model-value="change({ [choice.of]: $event ?? [] })"
    />
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

.ready {
  display: flex;
  flex-wrap: wrap;
  margin-left: -0.5rem;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { equipmentOf, names, partsOf } from './choices';
import { TREATMENTS, type ViewingConditions } from './conditions';

/** Which parts can be seen, of what, with what. */
const conditions = defineModel<ViewingConditions>({ required: true });
/** @property stages whether sexes and stages can be chosen, too */
const props = defineProps<{ study: Schemas['StudyView']; stages?: boolean }>();
const { t } = useI18n();

const named = (values: string[]) => values.map((value) => ({ value, title: value }));
const choices = computed(() => {
  const all = [
    { of: 'organs' as const, items: named(partsOf(props.study)) },
    { of: 'methods' as const, items: named(equipmentOf(props.study)) },
    { of: 'stages' as const, items: named(props.stages ? names(props.study.rows.map((r) => r.stage)) : []) },
    { of: 'preserved' as const, items: TREATMENTS.map((value) => ({ value, title: t(`apart.treated.${value}`) })) },
  ];
  return all.filter((choice) => choice.items.length);
});
</script>

<template>
  <v-select
    v-for="choice in choices"
    :key="choice.of"
    :model-value="conditions[choice.of]"
    :items="choice.items"
    :label="$t(`apart.${choice.of}`)"
    multiple
    clearable
    hide-details
    @update:model-value="conditions = { ...conditions, [choice.of]: $event ?? [] }"
  />
</template>

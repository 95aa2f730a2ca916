<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { EVERYTHING, isEverything, TREATMENTS, WINTER, type Hand } from '../logic/hand';
import MonthRing from './MonthRing.vue';

/** What is in the hand: when, of what, by what means. */
const hand = defineModel<Hand>({ required: true });
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

const change = (changes: Partial<Hand>) => (hand.value = { ...hand.value, ...changes });
</script>

<template>
  <section class="hand" :aria-label="$t('apart.hand')">
    <h2>{{ $t('apart.hand') }}</h2>
    <div class="ready">
      <v-btn size="small" variant="text" :disabled="isEverything(hand)" @click="hand = { ...EVERYTHING }">{{
        $t('apart.all')
      }}</v-btn>
      <v-btn size="small" variant="text" @click="change({ months: [...WINTER] })">{{ $t('apart.winter') }}</v-btn>
      <v-btn size="small" variant="text" @click="change({ methods: ['eye'] })">{{ $t('apart.byEye') }}</v-btn>
    </div>
    <MonthRing :model-value="hand.months" @update:model-value="change({ months: $event })" />
    <v-select
      v-for="choice in choices"
      :key="choice.of"
      :model-value="hand[choice.of]"
      :items="choice.items"
      :label="$t(`apart.${choice.of}`)"
      multiple
      clearable
      hide-details
      @update:model-value="change({ [choice.of]: $event ?? [] })"
    />
    <v-switch
      :model-value="hand.novice"
      :label="$t('apart.novice')"
      density="compact"
      color="primary"
      hide-details
      @update:model-value="change({ novice: $event === true })"
    />
    <v-switch
      :model-value="hand.safely"
      :label="$t('apart.danger')"
      density="compact"
      color="primary"
      hide-details
      @update:model-value="change({ safely: $event === true })"
    />
    <p v-if="hand.safely" class="quiet">{{ $t('apart.dangerSays') }}</p>
  </section>
</template>

<style scoped>
.hand {
  display: grid;
  gap: 0.55rem;
  align-content: start;
}

.hand :deep(.v-switch) {
  margin-left: 0.6rem;
}

.hand :deep(.v-switch .v-label) {
  font-size: 0.9rem;
}

.ready {
  display: flex;
  flex-wrap: wrap;
  margin-left: -0.5rem;
}
</style>

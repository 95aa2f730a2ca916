<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import MonthBand from '@/shared/calendar/MonthBand.vue';
import { EVERYTHING, isEverything, TREATMENTS, WINTER, type ViewingConditions } from '@/shared/viewing/conditions';

/** For what can be seen a key is made: when, on which parts, with which equipment, of fresh or preserved material. */
const conditions = defineModel<ViewingConditions>({ required: true });
/** Ids of the taxa that the key is for; none: all. */
const taxa = defineModel<string[]>('taxa', { required: true });
/** Whether common taxa come sooner; else all count the same. */
const common = defineModel<boolean>('common', { required: true });
const props = defineProps<{ study: Schemas['StudyView'] }>();
const { t } = useI18n();

const names = (values: string[]) =>
  [...new Set(values.map((v) => v.toLowerCase()).filter(Boolean))].sort((a, b) => a.localeCompare(b, 'en'));
const parts = computed(() => names(props.study.characters.map((c) => c.organ)));
const leaf = computed(() => parts.value.find((part) => /\bleaf\b|\bleaves\b/.test(part)));
const choices = computed(() =>
  [
    { of: 'organs' as const, items: parts.value.map((value) => ({ value, title: value })) },
    {
      of: 'methods' as const,
      items: names(props.study.characters.map((c) => c.method)).map((value) => ({ value, title: value })),
    },
    { of: 'preserved' as const, items: TREATMENTS.map((value) => ({ value, title: t(`apart.treated.${value}`) })) },
  ].filter((choice) => choice.items.length),
);
const taxonChoices = computed(() =>
  props.study.rows.filter((r) => !r.stage).map((r) => ({ value: r.id, title: r.label })),
);
const months = computed(() => conditions.value.months.map((m) => t(`month.${m}`)).join(', '));
const said = computed(() =>
  [
    months.value,
    conditions.value.organs.join(', '),
    conditions.value.methods.join(', '),
    conditions.value.preserved.map((p) => t(`apart.treated.${p as (typeof TREATMENTS)[number]}`)).join(', '),
    common.value ? t('key.common') : '',
    taxa.value.length ? t('key.someTaxa', { n: taxa.value.length }, taxa.value.length) : '',
  ].filter(Boolean),
);

const change = (changes: Partial<ViewingConditions>) => (conditions.value = { ...conditions.value, ...changes });
</script>

<template>
  <details class="conditions">
    <summary>
      {{ $t('key.conditions') }}: <strong>{{ said.length ? said.join('; ') : $t('key.everything') }}</strong>
    </summary>
    <div class="ready">
      <v-btn size="small" :disabled="isEverything(conditions)" @click="conditions = { ...EVERYTHING }">{{
        $t('apart.all')
      }}</v-btn>
      <v-btn size="small" @click="change({ months: [...WINTER] })">{{ $t('key.winter') }}</v-btn>
      <v-btn v-if="leaf" size="small" @click="change({ organs: [leaf] })">{{ $t('key.leafOnly') }}</v-btn>
      <v-btn size="small" @click="change({ methods: ['eye', 'ruler'] })">{{ $t('key.noLens') }}</v-btn>
    </div>
    <MonthBand
      :model-value="conditions.months"
      :label="$t('key.months')"
      :none="$t('key.anyMonth')"
      @update:model-value="change({ months: $event })"
    />
    <p class="quiet">{{ $t('key.monthsMean') }}</p>
    <div class="choices">
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
      <v-autocomplete
        v-model="taxa"
        :items="taxonChoices"
        :label="$t('key.taxa')"
        multiple
        chips
        closable-chips
        clearable
        hide-details
      />
      <v-switch v-model="common" :label="$t('key.commonSooner')" density="compact" color="primary" hide-details />
    </div>
  </details>
</template>

<style scoped>
.conditions {
  padding: 0.35rem 1rem;
  border-top: 1px solid var(--rule);
}

summary {
  cursor: pointer;
}

.ready,
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin: 0.6rem 0;
}

.choices .v-input {
  min-width: 14rem;
  max-width: 24rem;
}
</style>

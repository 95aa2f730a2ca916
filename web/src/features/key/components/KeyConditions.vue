<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import MonthBand from '@/shared/calendar/MonthBand.vue';
import { TREATMENTS, type ViewingConditions } from '@/shared/viewing/conditions';
import ViewingChoices from '@/shared/viewing/ViewingChoices.vue';
import ViewingShortcuts from '@/shared/viewing/ViewingShortcuts.vue';

/** For what a key is made: what can be seen when it is used, and of which taxa. */
const conditions = defineModel<ViewingConditions>({ required: true });
/** Ids of the taxa that the key is for; none: all. */
const taxa = defineModel<string[]>('taxa', { required: true });
/** Whether common taxa come sooner; else all count the same. */
const common = defineModel<boolean>('common', { required: true });
const props = defineProps<{ study: Schemas['StudyView'] }>();
const emit = defineEmits<{ beginners: [] }>();
const { t } = useI18n();

const taxonChoices = computed(() =>
  props.study.rows.filter((r) => !r.stage).map((r) => ({ value: r.id, title: r.label })),
);
const said = computed(() =>
  [
    conditions.value.months.map((m) => t(`month.${m}`)).join(', '),
    conditions.value.organs.join(', '),
    conditions.value.methods.join(', '),
    conditions.value.preserved.map((p) => t(`apart.treated.${p as (typeof TREATMENTS)[number]}`)).join(', '),
    common.value ? t('key.common') : '',
    taxa.value.length ? t('key.someTaxa', { n: taxa.value.length }, taxa.value.length) : '',
  ].filter(Boolean),
);
</script>

<template>
  <details class="conditions">
    <summary>
      {{ $t('key.conditions') }}: <strong>{{ said.length ? said.join('; ') : $t('key.everything') }}</strong>
    </summary>
    <ViewingShortcuts v-model="conditions" :study="study">
      <v-btn size="small" variant="text" @click="emit('beginners')">{{ $t('key.forBeginners') }}</v-btn>
    </ViewingShortcuts>
    <MonthBand
      :model-value="conditions.months"
      :label="$t('key.months')"
      :none="$t('key.anyMonth')"
      @update:model-value="conditions = { ...conditions, months: $event }"
    />
    <p class="quiet">{{ $t('key.monthsMean') }}</p>
    <div class="choices">
      <ViewingChoices v-model="conditions" :study="study" />
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

.choices {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
  margin: 0.6rem 0;
}

.choices :deep(.v-input) {
  min-width: 14rem;
  max-width: 24rem;
}
</style>

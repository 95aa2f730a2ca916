<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import RepeatedFields from '@/shared/ui/RepeatedFields.vue';
import { useCompact } from '@/shared/ui/useCompact';
import { isFound } from '../logic/specimens';

/** What is known of a specimen beside its names: when and where it was found, what it is, what was done to it. */
const specimen = defineModel<Schemas['Specimen']>({ required: true });
const { t } = useI18n();
const field = useCompact(() => false);
/** Open to begin with where something is known. */
const found = isFound(specimen.value);
const WHERE = ['place', 'collector', 'habitat', 'host'] as const;
const treated = (['CUT', 'DISSECTED', 'MOUNTED', 'FLUID', 'DRIED'] as const).map((value) => ({
  value,
  title: t(`gather.treated.${value}`),
}));
const untreated: Schemas['Treatment'] = { how: 'DRIED', date: '', note: '' };

const uncertainty = computed({
  get: () => specimen.value.event.uncertainty ?? '',
  set: (typed: number | string) => (specimen.value.event.uncertainty = typed === '' ? undefined : Number(typed)),
});
</script>

<template>
  <details :open="found">
    <summary>{{ $t('gather.event') }}</summary>
    <div class="fields">
      <v-text-field v-bind="field" v-model="specimen.event.date" :label="$t('gather.date')" />
      <v-text-field
        v-bind="field"
        v-model="specimen.event.coordinates"
        :label="$t('gather.coordinates')"
        :placeholder="$t('gather.likeCoordinates')"
      />
      <v-text-field v-bind="field" v-model="uncertainty" type="number" min="1" :label="$t('gather.uncertainty')" />
      <v-text-field
        v-for="part in WHERE"
        :key="part"
        v-bind="field"
        v-model="specimen.event[part]"
        :label="$t(`gather.${part}`)"
      />
    </div>
  </details>
  <div class="fields">
    <v-text-field v-bind="field" v-model="specimen.stage" :label="$t('gather.stage')" />
    <v-text-field v-bind="field" v-model="specimen.sex" :label="$t('gather.sex')" />
    <v-text-field v-bind="field" v-model="specimen.storage" :label="$t('gather.storage')" />
  </div>
  <RepeatedFields
    v-model="specimen.treatments"
    :title="$t('gather.treatments')"
    :add="$t('gather.treat')"
    :remove="(entry) => $t('gather.untreat', { how: t(`gather.treated.${entry.how}`) })"
    :blank="untreated"
    :readonly="false"
  >
    <template #default="{ entry, field: close }">
      <v-select v-bind="close" v-model="entry.how" :items="treated" :label="$t('gather.treatment')" />
      <v-text-field v-bind="close" v-model="entry.date" :label="$t('gather.date')" />
      <v-text-field v-bind="close" v-model="entry.note" class="wide" :label="$t('gather.note')" />
    </template>
  </RepeatedFields>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0.7rem;
  margin-top: 0.4rem;
}

summary {
  cursor: pointer;
  padding: 0.4rem 0;
  font-weight: 600;
}

.wide {
  grid-column: 1 / -1;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { KNOWLEDGE, RANKS, STATUS } from '../logic/hazards';
import MonthBand from '@/shared/calendar/MonthBand.vue';
import RepeatedFields from '@/shared/ui/RepeatedFields.vue';
import CoverageFields from './CoverageFields.vue';
import HazardList from './HazardList.vue';
import HazardSource from './HazardSource.vue';
import NameList from './NameList.vue';

/** All that is said of a taxon, or of a sex or stage. */
const row = defineModel<Schemas['StudyRow']>({ required: true });
const props = defineProps<{ rows: Schemas['StudyRow'][]; readonly: boolean; isStage: boolean }>();
const emit = defineEmits<{ next: [] }>();
const { t } = useI18n();

/** Of a new one, Enter in its name saves it and begins the next. */
function next(event: KeyboardEvent) {
  if (row.value.id || event.isComposing) return;
  event.preventDefault();
  emit('next');
}

const notFurther = computed({
  get: () => row.value.naming === 'NOT_FURTHER',
  set: (yes) => (row.value.naming = yes ? 'NOT_FURTHER' : 'POSSIBLE'),
});
const before = computed(() => props.rows.find((r) => r.id === row.value.id));
const children = computed(() => props.rows.filter((r) => r.parent !== undefined && r.parent === row.value.id));
const knowledge = KNOWLEDGE.map((value) => ({ value, title: t(`hazard.${value}`) }));
const others = computed(() =>
  props.rows.filter((r) => r.id !== row.value.id && !r.stage).map((r) => ({ value: r.id, title: r.label })),
);
const status = computed({
  get: () => row.value.status.join('\n'),
  set: (text) => (row.value.status = text === '' ? [] : text.split('\n')),
});
</script>

<template>
  <div class="fields">
    <template v-if="!isStage">
      <v-text-field
        v-model="row.label"
        :label="$t('taxon.label')"
        :readonly="readonly"
        :autofocus="!row.id"
        hide-details
        @keydown.enter="next"
      />
      <v-text-field v-model="row.plain" :label="$t('taxon.plain')" :readonly="readonly" hide-details />
      <v-combobox
        v-model="row.rank"
        :items="RANKS"
        :label="$t('taxon.rank')"
        :readonly="readonly"
        density="comfortable"
        variant="outlined"
        hide-details
      />
      <v-select
        :model-value="row.parent ?? null"
        :items="others"
        :label="$t('taxon.parent')"
        :readonly="readonly"
        clearable
        hide-details
        @update:model-value="row.parent = $event ?? undefined"
      />
    </template>
    <v-text-field v-else v-model="row.stage" :label="$t('taxon.stage')" :readonly="readonly" hide-details />
    <v-select
      v-model="row.hazard"
      :items="knowledge"
      :label="$t('taxon.hazard')"
      :readonly="readonly"
      :hint="row.hazards.length ? $t('taxon.worst') : ''"
      persistent-hint
      :hide-details="!row.hazards.length"
    />
    <HazardList v-model="row.hazards" :readonly="readonly" :worst="row.hazard" />
    <HazardSource v-model="row" :readonly="readonly" :before="before" />
    <CoverageFields v-if="children.length" v-model="row" :children="children" :readonly="readonly" />
    <NameList v-if="!isStage" v-model="row.names" :readonly="readonly" />
    <MonthBand
      v-model="row.occurrence.months"
      :label="$t('taxon.months')"
      :none="$t('months.notSaid')"
      :readonly="readonly"
    />
    <v-text-field v-model="row.occurrence.habitat" :label="$t('taxon.habitat')" :readonly="readonly" hide-details />
    <RepeatedFields
      v-model="row.occurrence.regions"
      :title="$t('regions.title')"
      :add="$t('regions.add')"
      :remove="(one) => $t('regions.remove', { region: one.region })"
      :blank="{ region: '', status: '', doubtful: false }"
      :readonly="readonly"
    >
      <template #default="{ entry, field }">
        <v-text-field v-bind="field" v-model="entry.region" :label="$t('regions.region')" />
        <v-combobox v-bind="field" v-model="entry.status" :items="STATUS" :label="$t('regions.status')" />
        <v-checkbox v-bind="field" v-model="entry.doubtful" :label="$t('regions.doubtful')" />
      </template>
    </RepeatedFields>
    <RepeatedFields
      v-if="!isStage"
      v-model="row.placements"
      :title="$t('placements.title')"
      :add="$t('placements.add')"
      :remove="(one) => $t('placements.remove', { parent: one.parent })"
      :blank="{ parent: '', source: '' }"
      :readonly="readonly"
    >
      <template #default="{ entry, field }">
        <v-text-field v-bind="field" v-model="entry.parent" :label="$t('placements.parent')" />
        <v-text-field v-bind="field" v-model="entry.source" :label="$t('placements.source')" />
      </template>
    </RepeatedFields>
    <v-textarea v-model="status" :label="$t('taxon.status')" :readonly="readonly" rows="1" auto-grow hide-details />
    <v-text-field
      v-model.number="row.weight"
      type="number"
      min="0"
      step="any"
      :label="$t('taxon.weight')"
      :readonly="readonly"
      hide-details
    />
    <template v-if="!isStage">
      <v-select
        v-model="row.hybridOf"
        :items="others"
        :label="$t('taxon.hybridOf')"
        :readonly="readonly"
        multiple
        clearable
        hide-details
      />
      <v-checkbox
        v-model="row.stopsHere"
        :label="$t('taxon.stopsHere')"
        :readonly="readonly"
        density="compact"
        hide-details
      />
      <v-checkbox
        v-model="notFurther"
        :label="$t('taxon.notFurther')"
        :readonly="readonly"
        density="compact"
        hide-details
      />
    </template>
    <v-textarea
      v-model="row.description"
      :label="$t('taxon.description')"
      :readonly="readonly"
      rows="2"
      auto-grow
      hide-details
    />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 0.9rem;
}
</style>

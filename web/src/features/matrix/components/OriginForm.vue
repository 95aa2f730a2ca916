<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import type { Cell } from '@/study-kernel';
import { useTyped } from '@/shared/ui/leaving';
import { useCompact } from '@/shared/ui/useCompact';
import SampleFields from './SampleFields.vue';

/** Where a score comes from, and what else there is to say of it. */
const props = defineProps<{
  cell: Cell;
  references: Schemas['Reference'][];
  specimens: Schemas['Specimen'][];
  unit: string;
}>();
const emit = defineEmits<{ save: [origin: Schemas['Origin']] }>();
const { t } = useI18n();
const draft = ref(fromCell());
const BASES = ['SPECIMENS', 'REFERENCE', 'JUDGEMENT', 'IMPORT'] as const;
const bases = BASES.map((value) => ({ value, title: t(`basis.${value}`) }));
const months = Array.from({ length: 12 }, (_, i) => ({ value: i + 1, title: t(`month.${i + 1}`) }));
const sources = computed(() => props.references.map((r) => ({ value: r.id, title: r.citation })));
const codes = computed(() => props.specimens.map((s) => ({ value: s.id, title: s.code })));
const dirty = computed(() => JSON.stringify(draft.value) !== JSON.stringify(fromCell()));
useTyped(() => dirty.value);

function fromCell() {
  const { source, doubtful, note, months, concept, sample } = props.cell;
  return {
    basis: props.cell.basis as Schemas['Origin']['basis'],
    source,
    doubtful,
    note,
    months: [...months],
    concept,
    sample: { ...sample, specimens: [...sample.specimens] },
  };
}

/** A cell is loaded every few seconds: what somebody is choosing stays until they save it. */
let saved = false;
watch(
  () => JSON.stringify(fromCell()),
  (_, before) => {
    if (saved || JSON.stringify(draft.value) === before) draft.value = fromCell();
    saved = false;
  },
);
function save() {
  saved = true;
  emit('save', draft.value);
}
const field = useCompact(() => false);
</script>

<template>
  <form @submit.prevent="save">
    <v-select v-bind="field" v-model="draft.basis" :items="bases" :label="$t('origin.basis')" />
    <v-combobox
      v-bind="field"
      :model-value="sources.find((s) => s.value === draft.source) ?? draft.source"
      :items="sources"
      :label="$t('origin.source')"
      @update:model-value="draft.source = typeof $event === 'string' ? $event : ($event?.value ?? '')"
    />
    <v-text-field v-bind="field" v-model="draft.concept" :label="$t('origin.concept')" />
    <v-select v-bind="field" v-model="draft.months" :items="months" :label="$t('origin.months')" multiple clearable />
    <SampleFields v-if="cell.kind === 'range'" v-model="draft.sample" :unit="unit" />
    <v-autocomplete
      v-if="draft.basis === 'SPECIMENS' && specimens.length"
      v-bind="field"
      v-model="draft.sample.specimens"
      :items="codes"
      :label="$t('origin.specimens')"
      multiple
      chips
      closable-chips
      clearable
    />
    <v-textarea v-bind="field" v-model="draft.note" :label="$t('origin.note')" rows="1" auto-grow />
    <v-checkbox v-bind="field" v-model="draft.doubtful" :label="$t('shelf.doubtful')" />
    <v-btn v-if="dirty" type="submit" color="primary" variant="flat">{{ $t('save') }}</v-btn>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.6rem;
  margin-top: 0.4rem;
  justify-items: start;
}

form > * {
  width: 100%;
}

form > .v-btn {
  width: auto;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { rowChoices } from '@/shared/taxon/rowNames';
import { useCompact } from '@/shared/ui/useCompact';

/** One name that was given to a specimen: by whom, when, with what, and by which characters. */
const determination = defineModel<Schemas['Determination']>({ required: true });
const props = defineProps<{ rows: Schemas['StudyRow'][]; characters: Schemas['StudyCharacter'][] }>();
const { t } = useI18n();
const field = useCompact(() => false);
const rows = computed(() => rowChoices(props.rows));
const characters = computed(() => props.characters.map((c) => ({ value: c.id, title: c.label })));
const qualifiers = ['', 'cf.', 'aff.'].map((value) => ({ value, title: value || t('gather.sure') }));
const kinds = (['DETERMINED', 'CONFIRMED'] as const).map((value) => ({ value, title: t(`gather.kinds.${value}`) }));
</script>

<template>
  <div class="fields">
    <v-autocomplete v-bind="field" v-model="determination.row" class="wide" :items="rows" :label="$t('gather.row')" />
    <v-select v-bind="field" v-model="determination.qualifier" :items="qualifiers" :label="$t('gather.qualifier')" />
    <v-select v-bind="field" v-model="determination.kind" :items="kinds" :label="$t('gather.kind')" />
    <v-text-field v-bind="field" v-model="determination.by" :label="$t('gather.by')" />
    <v-text-field v-bind="field" v-model="determination.date" :label="$t('gather.date')" />
    <v-text-field v-bind="field" v-model="determination.how" class="wide" :label="$t('gather.how')" />
    <v-autocomplete
      v-bind="field"
      v-model="determination.characters"
      class="wide"
      :items="characters"
      :label="$t('gather.characters')"
      multiple
      chips
      closable-chips
    />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0.7rem;
}

.wide {
  grid-column: 1 / -1;
}
</style>

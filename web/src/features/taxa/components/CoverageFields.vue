<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';

/** Whether what stands below a taxon is all there is of it, what remains is called, and what its own scores describe. */
const row = defineModel<Schemas['StudyRow']>({ required: true });
const props = defineProps<{ children: Schemas['StudyRow'][]; readonly: boolean }>();
const { t } = useI18n();
const names = computed(() => props.children.map((c) => c.stage || c.label).join(', '));
const covers = (['BY_RULE', 'ALL', 'NOT_ALL'] as const).map((value) => ({ value, title: t(`coverage.${value}`) }));
const describes = (['BY_KIND', 'REST', 'WHOLE'] as const).map((value) => ({ value, title: t(`describes.${value}`) }));
</script>

<template>
  <fieldset>
    <legend>{{ $t('coverage.title', { names }) }}</legend>
    <v-select
      v-model="row.coverage.covers"
      :items="covers"
      :label="$t('coverage.covers')"
      :hint="$t('coverage.rule')"
      :readonly="readonly"
      persistent-hint
    />
    <v-text-field
      v-if="row.coverage.covers !== 'ALL'"
      v-model="row.coverage.rest"
      :label="$t('coverage.rest')"
      :readonly="readonly"
      density="compact"
      hide-details
    />
    <v-select
      v-model="row.coverage.describes"
      :items="describes"
      :label="$t('describes.label')"
      :readonly="readonly"
      hide-details
    />
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  gap: 0.8rem;
}

legend {
  font-weight: 600;
  margin-bottom: 0.3rem;
}
</style>

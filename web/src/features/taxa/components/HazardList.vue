<script setup lang="ts">
import { mdiClose, mdiPlus } from '@mdi/js';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { isDangerous } from '@/shared/taxon/hazards';
import { KINDS, ROUTES, SEVERITIES } from '../logic/hazards';

/** Recorded hazards of a taxon: kind, severity, routes, parts, caution. */
const hazards = defineModel<Schemas['HazardRecord'][]>({ required: true });
/** @param worst what is known of the taxon already: a hazard that is recorded is no less severe unless somebody says so */
const props = defineProps<{ readonly: boolean; worst: Schemas['StudyRow']['hazard'] }>();
const { t } = useI18n();
const severities = SEVERITIES.map((value) => ({ value, title: t(`hazard.${value}`) }));

function add() {
  hazards.value = [
    ...hazards.value,
    { kind: '', severity: isDangerous(props.worst) ? props.worst : 'CAUTION', routes: [], parts: '', caution: '' },
  ];
}

function remove(index: number) {
  hazards.value = hazards.value.filter((_, i) => i !== index);
}
</script>

<template>
  <fieldset>
    <legend>{{ $t('taxon.hazards') }}</legend>
    <div v-for="(hazard, i) in hazards" :key="i" class="hazard">
      <v-combobox
        v-model="hazard.kind"
        :items="KINDS"
        :label="$t('taxon.kind')"
        :readonly="readonly"
        density="compact"
        variant="outlined"
        hide-details
      />
      <v-select
        v-model="hazard.severity"
        :items="severities"
        :label="$t('taxon.severity')"
        :readonly="readonly"
        hide-details
      />
      <v-select
        v-model="hazard.routes"
        :items="ROUTES"
        :label="$t('taxon.routes')"
        :readonly="readonly"
        multiple
        hide-details
      />
      <v-text-field
        v-model="hazard.parts"
        :label="$t('taxon.parts')"
        :readonly="readonly"
        density="compact"
        hide-details
      />
      <v-textarea
        v-model="hazard.caution"
        class="wide"
        :label="$t('taxon.caution')"
        :readonly="readonly"
        density="compact"
        rows="1"
        auto-grow
        hide-details
      />
      <v-btn v-if="!readonly" class="wide" size="small" variant="text" :prepend-icon="mdiClose" @click="remove(i)">{{
        $t('taxon.removeHazard')
      }}</v-btn>
    </div>
    <v-btn v-if="!readonly" size="small" :prepend-icon="mdiPlus" @click="add">{{ $t('taxon.addHazard') }}</v-btn>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  gap: 0.8rem;
  justify-items: start;
}

legend {
  font-weight: 600;
  margin-bottom: 0.3rem;
}

.hazard {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem;
  width: 100%;
  padding-left: 0.8rem;
  border-left: 3px solid rgb(var(--v-theme-error));
}

.wide {
  grid-column: 1 / 3;
  justify-self: start;
}

.wide.v-textarea {
  justify-self: stretch;
}
</style>

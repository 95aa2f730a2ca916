<script setup lang="ts">
import { mdiClose, mdiPencilOutline, mdiPlus } from '@mdi/js';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import type { StudyModel } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { useTyped } from '@/shared/ui/leaving';
import { useAction } from '@/shared/ui/useAction';
import WriteProblem from '@/shared/ui/WriteProblem.vue';
import { KNOWLEDGE } from '@/features/taxa';

/** Relatives and doubles that the study does not score, and may yet be dangerous. */
const props = defineProps<{ model: StudyModel; taxa: Schemas['OutsideTaxon'][]; editable: boolean }>();
const { t } = useI18n();
const knowledge = KNOWLEDGE.map((value) => ({ value, title: t(`hazard.${value}`) }));
const draft = ref<Schemas['OutsideTaxon'][] | null>(null);
const { busy, problem, run } = useAction();
let baseRevision = 0;
let original = '';
useTyped(() => draft.value !== null && JSON.stringify(draft.value) !== original);

function begin() {
  draft.value = props.taxa.map((taxon) => ({ ...taxon }));
  original = JSON.stringify(draft.value);
  baseRevision = props.model.baseRevision('outside');
  if (!draft.value.length) add();
}

function add() {
  draft.value?.push({ name: '', why: '', hazard: 'NOT_ASSESSED' });
}

function save(over?: number) {
  return run(async () => {
    const body = { taxa: draft.value ?? [], baseRevision: over ?? baseRevision };
    await api.put('/api/v1/studies/{slug}/outside', { slug: props.model.slug }, body);
    draft.value = null;
    await props.model.reload();
  });
}

async function theirs() {
  await props.model.reload();
  problem.value = null;
  draft.value = null;
}
</script>

<template>
  <form v-if="draft" @submit.prevent="save()">
    <div v-for="(taxon, i) in draft" :key="i" class="line">
      <v-text-field v-model="taxon.name" :label="$t('taxon.label')" density="compact" hide-details />
      <v-text-field v-model="taxon.why" :label="$t('scope.why')" density="compact" hide-details />
      <v-select v-model="taxon.hazard" :items="knowledge" :label="$t('taxon.hazard')" hide-details />
      <v-btn
        :icon="mdiClose"
        size="small"
        variant="text"
        :aria-label="$t('scope.removeOutside', { name: taxon.name })"
        @click="draft?.splice(i, 1)"
      />
    </div>
    <WriteProblem :problem="problem" @theirs="theirs" @mine="save" />
    <div class="buttons">
      <v-btn size="small" :prepend-icon="mdiPlus" @click="add">{{ $t('scope.addOutside') }}</v-btn>
      <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{ $t('save') }}</v-btn>
      <v-btn size="small" variant="text" @click="draft = null">{{ $t('discard') }}</v-btn>
    </div>
  </form>
  <template v-else>
    <ul>
      <li v-for="taxon in taxa" :key="taxon.name">
        <span class="who"><TaxonName :label="taxon.name" /></span>
        <span>{{ taxon.why }} <HazardMark :hazard="taxon.hazard" full /></span>
      </li>
      <li v-if="!taxa.length" class="quiet">{{ $t('scope.outsideNone') }}</li>
    </ul>
    <v-btn v-if="editable" size="small" :prepend-icon="mdiPencilOutline" @click="begin">{{
      $t('scope.editOutside')
    }}</v-btn>
  </template>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0.5rem 0 1rem;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.6fr);
  gap: 0.75rem;
  padding: 0.3rem 0.4rem;
  border-bottom: 1px solid var(--rule);
}

.who {
  font-family: var(--serif);
}

form {
  display: grid;
  gap: 0.7rem;
}

.line {
  display: grid;
  grid-template-columns: 1fr 1.4fr 11rem auto;
  gap: 0.5rem;
}

.buttons {
  display: flex;
  gap: 0.6rem;
}

@media (max-width: 900px) {
  .line {
    grid-template-columns: 1fr auto;
  }
}
</style>

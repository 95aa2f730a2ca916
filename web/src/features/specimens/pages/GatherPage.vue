<script setup lang="ts">
import { mdiPlus, mdiTableArrowDown } from '@mdi/js';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Schemas } from '@/api/client';
import { EntryList, useStudy } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import { useSession } from '@/stores/session';
import DeterminationFields from '../components/DeterminationFields.vue';
import DeterminationLine from '../components/DeterminationLine.vue';
import GatherTabs from '../components/GatherTabs.vue';
import ShelfOrder from '../components/ShelfOrder.vue';
import SpecimenFields from '../components/SpecimenFields.vue';
import { useShelf } from '../composables/useShelf';
import { inShelfOrder } from '../logic/shelf';
import { blankSpecimen, foundAt, matching, present, renamed } from '../logic/specimens';

const model = useStudy();
const route = useRoute();
const router = useRouter();
const session = useSession();
const study = model.study;
const editable = computed(() => ['EDITOR', 'OWNER'].includes(study.value?.role ?? ''));
const find = ref('');
const nameOf = (id: string) => study.value?.rows.find((r) => r.id === id)?.label ?? id;
const shelf = useShelf();
const found = computed(() =>
  inShelfOrder(matching(study.value?.specimens ?? [], find.value, nameOf), study.value?.rows ?? [], shelf.value),
);
const hazardOf = (specimen: Schemas['Specimen']) =>
  study.value?.rows.find((r) => r.id === present(specimen)?.row)?.hazard;
const evidence = (id: string) => study.value?.counts.specimens[id] ?? 0;

const today = () => new Date().toISOString().slice(0, 10);
const name = (draft: Schemas['Specimen']) =>
  draft.determinations.push(renamed(draft, session.account?.displayName ?? '', today()));

const chosen = computed({
  get: () => String(route.query.specimen ?? ''),
  set: (specimen) => void router.replace({ query: { ...route.query, specimen: specimen || undefined } }),
});
</script>

<template>
  <div class="page">
    <GatherTabs v-if="study" :slug="study.slug" />
    <EntryList
      v-if="study"
      v-model:chosen="chosen"
      :title="$t('gather.title')"
      :lead="$t('gather.lead')"
      :add="$t('gather.add')"
      :entries="found"
      kind="specimen"
      :blank="blankSpecimen"
      :editable="editable"
    >
      <template #above>
        <p v-if="!study.specimens.length">{{ $t('gather.none') }}</p>
        <div class="above">
          <v-text-field
            v-if="study.specimens.length"
            v-model="find"
            class="find"
            :label="$t('gather.find')"
            density="compact"
            clearable
            hide-details
          />
          <ShelfOrder v-if="study.specimens.length > 1" :rows="study.rows" />
          <v-btn v-if="editable" size="small" :prepend-icon="mdiTableArrowDown" :to="`/import?into=${study.slug}`">{{
            $t('gather.table')
          }}</v-btn>
        </div>
      </template>
      <template #line="{ entry }">
        <strong class="figures">{{ entry.code }}</strong>
        &nbsp;<DeterminationLine v-if="present(entry)" :determination="present(entry)!" />
        <span v-else class="quiet">{{ $t('gather.nothing') }}</span>
        <HazardMark v-if="hazardOf(entry)" :hazard="hazardOf(entry)!" />
        <span v-if="foundAt(entry)" class="quiet"> · {{ foundAt(entry) }}</span>
        <span v-if="evidence(entry.id)" class="quiet"> · {{ $t('gather.evidence', evidence(entry.id)) }}</span>
      </template>
      <template #form="{ draft }">
        <v-text-field v-model="draft.code" :label="$t('gather.code')" autofocus hide-details />
        <h3 v-if="draft.determinations.length">{{ $t('gather.determinations') }}</h3>
        <details
          v-for="(_, i) in draft.determinations"
          :key="i"
          :open="i === draft.determinations.length - 1"
          class="determination"
        >
          <summary><DeterminationLine :determination="draft.determinations[i]!" /></summary>
          <DeterminationFields v-model="draft.determinations[i]!" :rows="study.rows" :characters="study.characters" />
          <v-btn size="small" variant="text" @click="draft.determinations.splice(i, 1)">{{
            $t('gather.forget')
          }}</v-btn>
        </details>
        <div>
          <v-btn size="small" :prepend-icon="mdiPlus" @click="name(draft)">{{
            $t(draft.determinations.length ? 'gather.redetermine' : 'gather.determine')
          }}</v-btn>
        </div>
        <SpecimenFields :model-value="draft" />
        <v-textarea v-model="draft.note" :label="$t('gather.note')" rows="1" auto-grow hide-details />
      </template>
    </EntryList>
  </div>
</template>

<style scoped>
.above {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.8rem;
}

.find {
  min-width: min(20rem, 100%);
  max-width: 26rem;
}

.determination > .v-btn {
  margin-top: 0.4rem;
}

.determination summary {
  cursor: pointer;
  padding: 0.4rem 0;
}
</style>

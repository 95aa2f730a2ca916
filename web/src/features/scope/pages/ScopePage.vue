<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/features/study';
import HazardMark from '@/shared/HazardMark.vue';
import ProblemNote from '@/shared/ProblemNote.vue';
import TaxonName from '@/shared/TaxonName.vue';
import { useAction } from '@/shared/useAction';
import { taxonTree } from '../logic/taxonTree';

const model = useStudy();
const draft = ref<Schemas['StudyScope'] | null>(null);
const title = ref('');
const cautions = ref('');
const { busy, problem, run } = useAction();
const saved = ref(false);
const tree = computed(() => taxonTree(model.study.value?.rows ?? []));
const mayEdit = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const fields = ['group', 'covers', 'leavesOut', 'region', 'stages', 'audience', 'equipment'] as const;

watch(
  () => model.study.value?.slug,
  () => {
    const study = model.study.value;
    if (!study) return;
    draft.value = { ...study.scope };
    title.value = study.title;
    cautions.value = study.scope.cautions.join('\n');
  },
  { immediate: true },
);

function save() {
  return run(async () => {
    const study = model.study.value;
    if (!study || !draft.value) return;
    const scope = {
      ...draft.value,
      cautions: cautions.value
        .split('\n')
        .map((c) => c.trim())
        .filter(Boolean),
    };
    await api.put(`/api/studies/${study.slug}/scope`, { title: title.value, scope, seen: study.revision });
    await model.reload();
    saved.value = true;
  });
}
</script>

<template>
  <div v-if="draft && model.study.value" class="page">
    <section aria-labelledby="taxa">
      <h2 id="taxa">{{ $t('scope.taxa') }}</h2>
      <ul class="tree">
        <li v-for="entry in tree" :key="entry.row.id" :class="`depth-${Math.min(entry.depth, 4)}`">
          <span class="who">
            <TaxonName :label="entry.row.label" :stage="entry.row.stage" />
            <span v-if="entry.row.plain && !entry.row.stage" class="quiet">{{ entry.row.plain }}</span>
          </span>
          <span class="quiet rank">{{ entry.row.stage ? $t('scope.stage') : entry.row.rank }}</span>
          <HazardMark :hazard="entry.row.hazard" full />
        </li>
      </ul>
      <h2>{{ $t('scope.outside') }}</h2>
      <p class="quiet">{{ $t('scope.outsideWhy') }}</p>
      <ul class="tree">
        <li v-for="taxon in model.study.value.nearButOutside" :key="taxon.name">
          <span class="who"><TaxonName :label="taxon.name" /></span>
          <span class="why">{{ taxon.why }} <HazardMark :hazard="taxon.hazard" full /></span>
        </li>
        <li v-if="!model.study.value.nearButOutside.length" class="quiet">{{ $t('scope.outsideNone') }}</li>
      </ul>
    </section>
    <section aria-labelledby="about">
      <h2 id="about">{{ $t('scope.about') }}</h2>
      <form @submit.prevent="save" @input="saved = false">
        <v-text-field v-model="title" :label="$t('scope.title')" :readonly="!mayEdit" hide-details />
        <v-textarea
          v-for="field in fields"
          :key="field"
          v-model="draft[field]"
          :label="$t(`scope.${field}`)"
          :readonly="!mayEdit"
          rows="1"
          auto-grow
          hide-details
        />
        <v-textarea
          v-model="cautions"
          :label="$t('scope.cautions')"
          :readonly="!mayEdit"
          rows="2"
          auto-grow
          hide-details
        />
        <v-checkbox
          v-model="draft.gatheredForFood"
          :label="$t('scope.food')"
          :readonly="!mayEdit"
          density="compact"
          hide-details
        />
        <ProblemNote :problem="problem" />
        <div v-if="mayEdit">
          <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{ $t('save') }}</v-btn>
          <span v-if="saved" class="ml-3" role="status">{{ $t('saved') }}</span>
        </div>
      </form>
    </section>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(18rem, 1fr);
  gap: 3rem;
}

.tree {
  list-style: none;
  padding: 0;
  margin: 0.75rem 0 2rem;
}

.tree li {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) 6rem minmax(9rem, 1fr);
  gap: 0.75rem;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--rule);
}

.who {
  font-family: var(--serif);
}

.who .quiet {
  font-family: var(--sans);
  font-size: 0.9rem;
  margin-left: 0.5rem;
}

.why {
  grid-column: 2 / 4;
}

.rank {
  font-size: 0.9rem;
}

.depth-1 .who {
  padding-left: 1.5rem;
}

.depth-2 .who {
  padding-left: 3rem;
}

.depth-3 .who,
.depth-4 .who {
  padding-left: 4.5rem;
}

form {
  display: grid;
  gap: 0.9rem;
  margin-top: 0.75rem;
}

@media (max-width: 900px) {
  .page {
    grid-template-columns: 1fr;
  }
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import StatePicture from '@/shared/picture/StatePicture.vue';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { letterOf, rowsByLead } from '../logic/arrivals';

/** Who goes down each lead of a couplet, with the pictures of its states and the cells that it rests on. */
const props = defineProps<{ view: Schemas['KeyView']; couplet: Schemas['CoupletView'] }>();
const model = useStudy();
const study = computed(() => model.study.value);
const character = computed(() => study.value?.characters.find((c) => c.id === props.couplet.character));

/** Why the cells are not here. */
const problem = ref<Error | null>(null);

async function fetchCells() {
  problem.value = null;
  try {
    if (props.couplet.character) await model.columns.want([props.couplet.character]);
  } catch (failure) {
    problem.value = failure as Error;
  }
}

watch(() => props.couplet.character, fetchCells, { immediate: true });

const leads = computed(() =>
  rowsByLead(props.view, props.couplet).map((ids, l) => {
    const deciding = props.couplet.leads[l]?.statements.find((s) => s.role === 'DECIDING');
    const states = character.value?.states.filter((s) => deciding?.states?.includes(s.id)) ?? [];
    const rows = (study.value?.rows ?? []).flatMap((row, place) =>
      ids.includes(row.id) ? [{ row, cell: model.columns.cell(place, props.couplet.character) }] : [],
    );
    return { states, rows };
  }),
);
</script>

<template>
  <ProblemNote :problem="problem" />
  <v-btn v-if="problem" size="small" @click="fetchCells">{{ $t('tryAgain') }}</v-btn>
  <section v-for="(lead, l) in leads" :key="l">
    <h4>{{ $t('key.lead', { which: letterOf(l), n: lead.rows.length }, lead.rows.length) }}</h4>
    <div v-if="lead.states.some((s) => s.picture)" class="pictures">
      <figure v-for="state in lead.states" :key="state.id">
        <StatePicture :id="state.picture" decorative />
        <figcaption>{{ state.label }}</figcaption>
      </figure>
    </div>
    <ul>
      <li v-for="{ row, cell } in lead.rows" :key="row.id">
        <TaxonName :label="row.label" :stage="row.stage" /> <HazardMark :hazard="row.hazard" />
        <router-link
          v-if="cell"
          class="cell figures"
          :to="`/studies/${model.slug}/score?row=${row.id}&character=${encodeURIComponent(couplet.character)}`"
          :aria-label="$t('key.cellOf', { row: row.label, text: cell.text || $t('key.notScored') })"
          >{{ cell.text || $t('key.notScored') }}</router-link
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
h4 {
  margin: 1rem 0 0.2rem;
}

ul {
  list-style: none;
  padding: 0;
}

li {
  padding: 0.15rem 0;
}

.cell {
  display: block;
  font-size: 0.88rem;
}

.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

figure {
  margin: 0;
}

figcaption {
  font-size: 0.88rem;
}
</style>

<script setup lang="ts">
import { mdiClose, mdiDeleteOutline, mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { LoseDialog, OperationDialog, useEditing, useStudy } from '@/study-kernel';
import ConfirmDialog from '@/shared/ui/ConfirmDialog.vue';
import { rowName } from '@/shared/taxon/rowNames';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import WriteProblem from '@/shared/ui/WriteProblem.vue';
import AboutStudy from '../components/AboutStudy.vue';
import OutsideTaxa from '../components/OutsideTaxa.vue';
import { AddTaxaDialog, AssessDialog, TaxonEditor, TaxonOperations, taxonTree, TaxonTree } from '@/features/taxa';

const model = useStudy();
const { t } = useI18n();
const rows = computed(() => model.study.value?.rows ?? []);
const tree = computed(() => taxonTree(rows.value));
const recorded = computed(() => model.study.value?.recorded ?? []);
const editable = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const editing = useEditing(model, { path: 'rows', object: 'row' }, recorded);
const draft = editing.draft;
const isStage = computed(() => Boolean(draft.value && (draft.value.stage || (editing.fresh.value && newStage.value))));
const newStage = ref(false);
const removing = ref('');
const asksRemoval = computed({ get: () => removing.value !== '', set: (open) => open || (removing.value = '') });

const blank: Schemas['StudyRow'] = {
  id: '',
  label: '',
  plain: '',
  rank: 'species',
  stage: '',
  hazard: 'NOT_ASSESSED',
  hazards: [],
  status: [],
  weight: 1,
  stopsHere: false,
  hybridOf: [],
  description: '',
  names: { authorship: '', synonyms: [], vernacular: [] },
  occurrence: { months: [], habitat: '', regions: [] },
  placements: [],
  naming: 'POSSIBLE',
  coverage: { covers: 'BY_RULE', rest: '', describes: 'BY_KIND' },
  assessment: { source: '' },
  constant: [],
};

function addTaxon() {
  newStage.value = false;
  editing.begin(structuredClone(blank));
}

async function saveAndAdd() {
  if (await editing.save()) addTaxon();
}

/** A sex or stage belongs to the taxon that is selected, or to that of the sex or stage that is. */
function addStage() {
  const at = editing.current.value;
  const taxon = at?.stage ? rows.value.find((r) => r.id === at.parent) : at;
  if (!taxon) return;
  newStage.value = true;
  editing.begin({
    ...structuredClone(blank),
    label: taxon.label,
    plain: taxon.plain,
    rank: taxon.rank,
    parent: taxon.id,
    hazard: taxon.hazard,
    hazards: taxon.hazards.map((h) => ({ ...h, routes: [...h.routes] })),
  });
}

const addingMany = ref(false);
const assessing = ref(false);
const assessment = ref<Schemas['AssessHazards'] | null>(null);
const notAssessed = computed(() => recorded.value.filter((r) => r.hazard === 'NOT_ASSESSED').length);
const removal = computed(() => {
  const row = rows.value.find((r) => r.id === removing.value);
  if (!row) return '';
  const children = rows.value.filter((r) => r.parent === row.id);
  const stages = children.filter((r) => r.stage);
  const gone = new Set([row.id, ...stages.map((r) => r.id)]);
  const counts = model.study.value?.counts.rows ?? [];
  const scores = rows.value.reduce((n, r, i) => n + (gone.has(r.id) ? (counts[i] ?? 0) : 0), 0);
  const name = rowName(row);
  const parts = children.length - stages.length;
  return [
    t('taxon.removal', { name, n: scores }, scores),
    stages.length ? t('taxon.removalStages', { n: stages.length }, stages.length) : '',
    parts ? t('taxon.removalParts', { n: parts }, parts) : '',
    t('taxon.undoable'),
  ]
    .filter(Boolean)
    .join(' ');
});
</script>

<template>
  <div v-if="model.study.value" class="page">
    <section aria-labelledby="taxa">
      <header>
        <h2 id="taxa">{{ $t('scope.taxa') }}</h2>
        <template v-if="editable">
          <v-btn size="small" :prepend-icon="mdiPlus" @click="addTaxon">{{ $t('taxon.add') }}</v-btn>
          <v-btn size="small" :prepend-icon="mdiPlus" @click="addingMany = true">{{ $t('addTaxa.open') }}</v-btn>
          <v-btn size="small" :prepend-icon="mdiPlus" :disabled="!editing.current.value" @click="addStage">{{
            $t('taxon.addStage')
          }}</v-btn>
        </template>
      </header>
      <v-btn v-if="editable && notAssessed > 1" size="small" class="assess" @click="assessing = true">{{
        $t('assess.open', { n: notAssessed })
      }}</v-btn>
      <p v-if="editable" class="quiet hint">{{ tree.length ? $t('taxon.hint') : $t('taxon.none') }}</p>
      <TaxonTree
        :tree="tree"
        :selected="editing.selected.value"
        :editable="editable"
        @select="editing.select"
        @move="editing.move"
        @remove="removing = $event"
      />
      <WriteProblem v-if="!draft" :problem="editing.problem.value" @theirs="editing.theirs" />
      <h2>{{ $t('scope.outside') }}</h2>
      <p class="quiet">{{ $t('scope.outsideWhy') }}</p>
      <OutsideTaxa :model="model" :taxa="model.study.value.nearButOutside" :editable="editable" />
    </section>
    <section v-if="draft" class="shelf" aria-labelledby="taxon">
      <header>
        <h2 id="taxon">
          <template v-if="editing.fresh.value">{{ isStage ? $t('taxon.newStage') : $t('taxon.new') }}</template>
          <TaxonName v-else :label="draft.label" :stage="draft.stage" />
        </h2>
        <v-btn
          :icon="mdiClose"
          size="small"
          variant="text"
          :aria-label="$t('close')"
          @click="editing.fresh.value ? editing.discard() : editing.select('')"
        />
      </header>
      <form @submit.prevent="editing.save()">
        <TaxonEditor
          :key="draft.id"
          v-model="draft"
          :rows="recorded"
          :readonly="!editable"
          :is-stage="isStage"
          @next="saveAndAdd"
        />
        <div v-if="editable" class="shelf-buttons">
          <WriteProblem :problem="editing.problem.value" @theirs="editing.theirs" @mine="editing.save" />
          <v-btn type="submit" color="primary" variant="flat" :loading="editing.busy.value">{{ $t('save') }}</v-btn>
          <v-btn variant="text" :disabled="!editing.dirty.value" @click="editing.discard">{{ $t('discard') }}</v-btn>
          <span v-if="editing.saved.value && !editing.dirty.value" role="status">{{ $t('saved') }}</span>
          <v-spacer />
          <v-btn
            v-if="!editing.fresh.value"
            color="error"
            :prepend-icon="mdiDeleteOutline"
            @click="removing = draft.id"
            >{{ $t('remove') }}</v-btn
          >
        </div>
      </form>
      <TaxonOperations
        v-if="editable && !editing.fresh.value && editing.current.value"
        :row="editing.current.value"
        @done="editing.discard"
      />
    </section>
    <section v-else aria-labelledby="about">
      <h2 id="about">{{ $t('scope.about') }}</h2>
      <AboutStudy :model="model" :editable="editable" />
    </section>
    <ConfirmDialog
      v-model="asksRemoval"
      :title="$t('taxon.removeTitle')"
      :text="removal"
      :yes="$t('remove')"
      @confirm="editing.remove(removing)"
    />
    <LoseDialog :editing="editing" />
    <AddTaxaDialog v-model="addingMany" />
    <AssessDialog v-model="assessing" :rows="recorded" @show="assessment = $event" />
    <OperationDialog
      :title="$t('assess.title')"
      :yes="$t('assess.yes')"
      :operation="assessment"
      @done="assessment = null"
      @closed="assessment = null"
    />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(18rem, 1fr);
  gap: 3rem;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
}

header h2 {
  flex: 1 0 12rem;
}

.assess {
  margin: 0.3rem 0;
}

.hint {
  font-size: 0.9rem;
  margin: 0;
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

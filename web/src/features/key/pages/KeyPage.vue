<script setup lang="ts">
import { mdiCheckDecagramOutline, mdiDownload, mdiReload, mdiStop } from '@mdi/js';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter, type LocationQueryRaw } from 'vue-router';
import { useStudy } from '@/study-kernel';
import { isDangerous } from '@/shared/taxon/hazards';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { fromQuery, toQuery, type ViewingConditions } from '@/shared/viewing/conditions';
import { usePreferences } from '@/stores/preferences';
import CoupletShelf from '../components/CoupletShelf.vue';
import KeyComparison from '../components/KeyComparison.vue';
import KeyConditions from '../components/KeyConditions.vue';
import KeyFlow from '../components/KeyFlow.vue';
import KeyRisks from '../components/KeyRisks.vue';
import LeadEditor from '../components/LeadEditor.vue';
import PrintedKey from '../components/PrintedKey.vue';
import { useKey, type Wish } from '../composables/useKey';
import { bound, claim, taxaOf } from '../logic/claim';

const model = useStudy();
const route = useRoute();
const router = useRouter();
const preferences = usePreferences();
const { t } = useI18n();

const asText = (value: unknown) => (typeof value === 'string' ? value : '');
const objective = computed(() => asText(route.query.objective) || 'CAUTIOUS');
const forbidden = computed(() => asText(route.query.forbidden).split(',').filter(Boolean));
const conditions = computed(() => fromQuery(route.query));
const common = computed(() => route.query.common === 'true');
const taxa = computed(() => asText(route.query.taxa).split(',').filter(Boolean));
/** The first couplet until another one is chosen. */
const selected = computed(() => Number(asText(route.query.couplet)) || 1);

const wish = computed<Wish>((before) => {
  const now: Wish = {
    objective: objective.value as Wish['objective'],
    evenWeights: !common.value,
    months: conditions.value.months,
    organs: conditions.value.organs,
    methods: conditions.value.methods,
    preserved: conditions.value.preserved as Wish['preserved'],
    taxa: taxa.value,
    forbidden: forbidden.value,
  };
  return before && JSON.stringify(before) === JSON.stringify(now) ? before : now;
});
const key = useKey(
  model.slug,
  wish,
  computed(() => model.study.value?.revision),
);
const view = key.view;
const editable = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const couplet = computed(() => view.value?.couplets.find((c) => c.number === selected.value));
/** Whether the key itself leads to something dangerous; of what it leaves out it says so at its head. */
const dangers = computed(() => {
  const there = new Set(view.value?.couplets[0]?.rows);
  return model.study.value?.rows.some((r) => there.has(r.id) && isDangerous(r.hazard)) ?? false;
});
const objectives = ['CAUTIOUS', 'FEWEST', 'RELATIVES', 'EQUIPMENT', 'BEGINNER'].map((value) => ({
  value,
  title: t(`objective.${value}`),
}));
function ask(changes: LocationQueryRaw) {
  void router.replace({ query: { ...route.query, ...changes } });
}

function see(wanted: ViewingConditions) {
  ask({ ...toQuery(wanted), couplet: undefined });
}

function select(number: number) {
  ask({ couplet: String(number) });
}

function forbid(character: string) {
  ask({ forbidden: [...forbidden.value, character].join(','), couplet: undefined });
}

function allow(character: string) {
  ask({ forbidden: forbidden.value.filter((c) => c !== character).join(',') || undefined, couplet: undefined });
}

const labelOf = (id: string) => model.study.value?.characters.find((c) => c.id === id)?.label ?? id;
</script>

<template>
  <div class="studio">
    <div class="wishes no-print">
      <h1 class="sr-only">{{ $t('stage.key') }}</h1>
      <v-select
        :model-value="objective"
        :items="objectives"
        :label="$t('key.objective')"
        hide-details
        @update:model-value="ask({ objective: $event, couplet: undefined })"
      />
      <v-switch v-model="preferences.plain" :label="$t('plain')" hide-details density="compact" color="primary" />
      <v-chip v-for="id in forbidden" :key="id" closable size="small" @click:close="allow(id)">{{
        $t('key.without', { name: labelOf(id) })
      }}</v-chip>
      <v-spacer />
      <v-menu>
        <template #activator="{ props }">
          <v-btn v-bind="props" size="small" :disabled="!view" :prepend-icon="mdiDownload">{{ $t('key.save') }}</v-btn>
        </template>
        <v-list density="compact">
          <v-list-item
            v-for="format in ['html', 'text', 'markdown', 'json']"
            :key="format"
            :title="$t(`format.${format}`)"
            :href="`/api/v1/studies/${model.slug}/keys/${key.shown.value}/file?format=${format}&plain=${preferences.plain}`"
          />
        </v-list>
      </v-menu>
    </div>
    <KeyConditions
      v-if="model.study.value"
      class="no-print"
      :model-value="conditions"
      :taxa="taxa"
      :common="common"
      :study="model.study.value"
      @update:model-value="see"
      @beginners="ask({ objective: 'BEGINNER', couplet: undefined })"
      @update:common="ask({ common: $event ? 'true' : undefined, couplet: undefined })"
      @update:taxa="ask({ taxa: $event.join(',') || undefined, couplet: undefined })"
    />
    <ProblemNote :problem="key.problem.value" />
    <div v-if="key.working.value" class="making">
      <v-progress-linear
        :model-value="100 * key.progress.value"
        :indeterminate="key.progress.value === 0"
        :aria-label="$t('key.working')"
      />
      <span v-if="key.progress.value" class="figures" role="status">{{
        $t('key.progress', { share: Math.floor(100 * key.progress.value) })
      }}</span>
      <v-btn v-if="key.progress.value" size="small" :prepend-icon="mdiStop" @click="key.stop">{{
        $t('key.stop')
      }}</v-btn>
    </div>
    <div v-else-if="key.stopped.value" class="making">
      <span role="status">{{ $t('key.stopped') }}</span>
      <v-btn size="small" :prepend-icon="mdiReload" @click="key.make">{{ $t('key.again') }}</v-btn>
    </div>
    <div v-if="view" class="figures proof" :class="{ broken: !view.figures.proven }">
      <v-icon :icon="mdiCheckDecagramOutline" aria-hidden="true" />
      <span v-if="view.figures.proven">{{
        $t('key.proven', { taxa: taxaOf(view), n: view.figures.observations }, taxaOf(view))
      }}</span>
      <span v-else>{{ $t('key.notProven') }}</span>
      <span>{{
        $t(
          'key.figures',
          {
            couplets: view.figures.couplets,
            steps: view.figures.expectedSteps.toFixed(2),
            longest: view.figures.longestPath,
            bound: bound(view).toFixed(2),
          },
          view.figures.couplets,
        )
      }}</span>
      <span>{{ $t(`completion.${claim(view)}`) }}</span>
      <KeyRisks :figures="view.figures" :dangers="dangers" />
      <ul v-if="view.figures.failures.length">
        <li v-for="f in view.figures.failures" :key="f">{{ f }}</li>
      </ul>
    </div>
    <KeyComparison
      v-if="view && key.compared.value.length"
      class="no-print"
      :keys="key.compared.value"
      :objective="objective"
      @choose="ask({ objective: $event, couplet: undefined })"
    />
    <div v-if="view" class="desk">
      <KeyFlow class="pane no-print" :view="view" :selected="selected" @select="select" />
      <div class="pane print" tabindex="0" role="region" :aria-label="$t('key.printed')">
        <PrintedKey :view="view" :plain="preferences.plain" :selected="selected" @select="select" />
      </div>
      <aside class="pane no-print" :aria-label="$t('shelf.title')">
        <CoupletShelf
          v-if="couplet && model.study.value"
          :couplet="couplet"
          :study="model.study.value"
          @forbid="forbid"
        >
          <LeadEditor v-if="editable" :couplet="couplet" />
        </CoupletShelf>
        <p v-else class="quiet">{{ $t('key.pick') }}</p>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.studio {
  display: flex;
  flex-direction: column;
  height: 100%;
  overflow-y: auto;
}

.wishes {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.9rem;
  padding: 0.7rem 1rem;
}

.wishes .v-select {
  max-width: 15rem;
}

.making {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 1rem;
  padding: 0 1rem 0.4rem;
}

.making .v-progress-linear {
  flex-basis: 100%;
}

.proof {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.4rem;
  padding: 0.35rem 1rem;
  border-block: 1px solid var(--rule);
  color: rgb(var(--v-theme-success));
  font-weight: 600;
}

.proof span + span {
  color: var(--faint);
  font-weight: 400;
}

.proof.broken {
  color: rgb(var(--v-theme-error));
}

.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 15rem;
  /* What is opened above pushes it down; it never shrinks to a slit. */
  min-height: 22rem;
  flex: 1 0 0;
}

.pane {
  overflow: auto;
  padding: 0.75rem 1rem;
  min-height: 0;
}

.pane + .pane {
  border-left: 1px solid var(--rule);
}

@media print {
  .studio,
  .desk {
    display: block;
    height: auto;
  }

  .pane {
    overflow: visible;
  }
}

@media (max-width: 1000px) {
  .desk {
    display: block;
  }
}
</style>

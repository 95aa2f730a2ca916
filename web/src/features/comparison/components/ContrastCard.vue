<script setup lang="ts">
import { mdiCardTextOutline, mdiFileDocumentOutline } from '@mdi/js';
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { addressOf, api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { rowChoices } from '@/shared/taxon/rowNames';
import { usePreferences } from '@/stores/preferences';
import { asked, type ViewingConditions } from '@/shared/viewing/conditions';
import ContrastPoint from './ContrastPoint.vue';
import YearStrip from './YearStrip.vue';

/** Two to six taxa side by side: what tells them apart, most trustworthy first; what does not; what would, and when. */
const props = defineProps<{ rows: string[]; conditions: ViewingConditions; possible: string[] }>();
const emit = defineEmits<{ rows: [ids: string[]] }>();
const model = useStudy();
const preferences = usePreferences();
const { t } = useI18n();
const MOST = 6;
const wanted = computed(() => asked(props.conditions, { rows: props.rows }));
const query = useQuery({
  queryKey: computed(() => ['contrast', model.slug, wanted.value, model.study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/apart/card', { slug: model.slug, ...wanted.value }),
  placeholderData: (old) => old,
  retry: false,
});
const card = computed(() => query.data.value);
const answer = computed(() => (preferences.plain ? card.value?.answer.plain : card.value?.answer.technical));
const choices = computed(() =>
  rowChoices(
    (model.study.value?.rows ?? []).filter((r) => props.possible.includes(r.id) && !props.rows.includes(r.id)),
  ),
);
const print = (wallet: boolean) =>
  addressOf('/api/v1/studies/{slug}/apart/card/print', {
    slug: model.slug,
    ...asked(props.conditions, { rows: props.rows, wallet, plain: preferences.plain }),
  });
const pairName = (pair: Schemas['PairView']) =>
  [pair.first, pair.second]
    .map((i) => card.value?.names[i])
    .map((n) => (n ? n.label + (n.stage ? `, ${n.stage}` : '') : ''));
const graver = computed(() => card.value?.names.filter((n) => !['NONE_KNOWN'].includes(n.hazard)) ?? []);
const unscoredOf = (open: Schemas['OpenView']) =>
  t('apart.unscoredFor', {
    subject: open.subject,
    names: open.rows.map((i) => card.value?.names[i]?.label).join('; '),
  });
</script>

<template>
  <section class="card" :aria-label="$t('apart.card')">
    <ProblemNote :problem="query.error.value" />
    <v-progress-linear v-if="query.isFetching.value && !card" indeterminate :aria-label="$t('loading')" />
    <template v-if="card">
      <h2 class="names">
        <template v-for="(name, i) in card.names" :key="name.row">
          <span class="who">
            <TaxonName :label="name.label" :stage="name.stage" />
            <button
              v-if="card.names.length > 2"
              type="button"
              class="away"
              :aria-label="$t('apart.without', { name: name.label })"
              @click="
                emit(
                  'rows',
                  rows.filter((r) => r !== name.row),
                )
              "
            >
              ×
            </button>
          </span>
          <span v-if="i < card.names.length - 1" class="quiet"> / </span>
        </template>
      </h2>
      <ul v-if="graver.length" class="hazards">
        <li v-for="name in graver" :key="name.row">
          <TaxonName :label="name.label" :stage="name.stage" />
          <HazardMark :hazard="name.hazard" :text="name.hazardText" full />
        </li>
      </ul>
      <p class="answer" aria-live="polite">{{ answer || $t('apart.noAnswer') }}</p>
      <p v-if="card.gentle" class="quiet">{{ $t('apart.gentle') }}</p>
      <div class="tools">
        <v-switch v-model="preferences.plain" :label="$t('plain')" hide-details density="compact" color="primary" />
        <v-btn size="small" variant="text" :prepend-icon="mdiFileDocumentOutline" :href="print(false)">{{
          $t('apart.plate')
        }}</v-btn>
        <v-btn size="small" variant="text" :prepend-icon="mdiCardTextOutline" :href="print(true)">{{
          $t('apart.wallet')
        }}</v-btn>
      </div>
      <div v-for="pair in card.pairs" :key="`${pair.first}-${pair.second}`" class="pair">
        <p v-if="card.pairs.length > 1" class="pairname">
          <i>{{ pairName(pair)[0] }}</i> / <i>{{ pairName(pair)[1] }}</i>
        </p>
        <div class="standing">
          <b>{{ $t(`apart.verdict.${pair.verdict}`) }}</b>
          <span class="figures quiet" :title="$t('apart.bitsSay')">{{
            $t('apart.bits', { n: pair.bits.toFixed(1) })
          }}</span>
          <YearStrip :firm="pair.firm" :thin="pair.thin" />
        </div>
        <p v-if="pair.settles" class="settles">{{ pair.settles }}</p>
      </div>
      <h3>{{ $t('apart.differs', { n: card.points.length }, card.points.length) }}</h3>
      <ContrastPoint
        v-for="point in card.points"
        :key="point.character"
        :point="point"
        :names="card.names"
        :plain="preferences.plain"
        :pairs="card.pairs.length"
      />
      <template v-if="card.later.length">
        <h3>{{ $t('apart.later') }}</h3>
        <ContrastPoint
          v-for="point in card.later"
          :key="point.character"
          :point="point"
          :names="card.names"
          :plain="preferences.plain"
          :pairs="card.pairs.length"
        />
      </template>
      <details v-if="card.shared.length" class="fold">
        <summary>{{ $t('apart.shared', { n: card.shared.length }, card.shared.length) }}</summary>
        <ul>
          <li v-for="point in card.shared" :key="point.character">
            {{ point.subject }}: {{ point.cells.map((c) => (preferences.plain ? c.plain : c.text)).join(' / ') }}
          </li>
        </ul>
      </details>
      <details v-if="card.unscored.length" class="fold">
        <summary>{{ $t('apart.unscored', { n: card.unscored.length }, card.unscored.length) }}</summary>
        <ul>
          <li v-for="open in card.unscored" :key="open.character">
            <router-link
              :to="{
                path: `/studies/${model.slug}/score`,
                query: { row: card.names[open.rows[0] ?? 0]?.row, character: open.character },
              }"
              >{{ unscoredOf(open) }}</router-link
            >
          </li>
        </ul>
      </details>
      <v-autocomplete
        v-if="rows.length < MOST"
        :model-value="null"
        :items="choices"
        :label="$t('apart.beside')"
        hide-details
        @update:model-value="$event && emit('rows', [...rows, $event])"
      />
      <p class="quiet caution">{{ $t('apart.caution') }}</p>
    </template>
  </section>
</template>

<style scoped>
.names {
  font-size: 1.25rem;
}

.away {
  width: 1.5rem;
  height: 1.5rem;
}

.hazards {
  list-style: none;
  padding: 0;
}

.answer {
  font-family: var(--serif);
  font-size: 1.08rem;
  margin: 0.6rem 0;
}

.tools,
.standing {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: center;
}

.pair {
  padding: 0.4rem 0;
  border-top: 1px solid var(--rule);
}

.pairname,
.settles {
  margin: 0;
}

.settles {
  font-weight: 600;
}

h3 {
  margin-top: 0.9rem;
}

.fold {
  padding: 0.4rem 0;
  border-top: 1px solid var(--rule);
}

.fold ul {
  padding-left: 1.2rem;
}

.caution {
  margin-top: 0.8rem;
}
</style>

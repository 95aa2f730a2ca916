<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, defineAsyncComponent, useTemplateRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute } from 'vue-router';
import { api, Problem, type Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import { provideGlossary } from '@/shared/glossary/glossary';
import { providePictures } from '@/shared/picture/pictures';
import { asText } from '@/shared/ui/asText';
import ChoiceLinks from '@/shared/ui/ChoiceLinks.vue';
import { useSubject } from '@/shared/ui/pageTitle';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { usePreferences } from '@/stores/preferences';
import { editionInPage, useCover } from '../logic/cover';

/** The cover is read first; the keys come when somebody opens one. */
const PublishedKeys = defineAsyncComponent(() => import('../components/PublishedKeys.vue'));
const AnyOrderKey = defineAsyncComponent(() => import('@/features/identify').then((m) => m.AnyOrderKey));
const HandfulKey = defineAsyncComponent(() => import('@/features/identify').then((m) => m.loadHandfulKey()));
const PrintedKey = defineAsyncComponent(() => import('@/features/key').then((m) => m.PrintedKey));
const TaxonPage = defineAsyncComponent(() => import('../components/TaxonPage.vue'));
const StepByStep = defineAsyncComponent(() => import('@/features/reading').then((m) => m.StepByStep));
const NameCheck = defineAsyncComponent(() => import('@/features/reading').then((m) => m.NameCheck));

const props = defineProps<{ slug: string; number?: string }>();
const route = useRoute();
const { t } = useI18n();
const preferences = usePreferences();
const identify = (request: Schemas['IdentifyRequest']) =>
  api.post('/api/v1/editions/{slug}/{number}/identify', { slug: props.slug, number: doc.value?.number ?? 0 }, request);
const handful = (request: Schemas['HandfulRequest']) =>
  api.post('/api/v1/editions/{slug}/{number}/handful', { slug: props.slug, number: doc.value?.number ?? 0 }, request);
const newest = useQuery({
  queryKey: computed(() => ['editions', props.slug]),
  queryFn: () => api.get('/api/v1/editions/{slug}', { slug: props.slug }),
  retry: false,
});
/** What came with the page is asked for at once; who comes from another edition learns it first. */
const came = editionInPage();
const number = computed(() => Number(props.number) || (newest.data.value?.number ?? came?.number));
const format = computed(() => came?.format ?? newest.data.value?.format);
const edition = useQuery({
  queryKey: computed(() => ['edition', props.slug, number.value]),
  queryFn: () =>
    api.get('/api/v1/editions/{slug}/{number}', {
      slug: props.slug,
      number: number.value ?? 0,
      format: format.value,
    }),
  enabled: computed(() => number.value !== undefined && format.value !== undefined),
  retry: false,
  staleTime: Infinity,
});
const doc = computed(() => edition.data.value);
useSubject(() => doc.value?.title);
providePictures(
  () => `/api/v1/editions/${props.slug}/${number.value}/pictures`,
  () => doc.value?.study.pictures,
);
provideGlossary(() => doc.value?.study.glossary);
const VIEWS = ['key', 'any-order', 'handful', 'taxa', 'taxon', 'check'];
const view = computed(() => VIEWS.find((v) => v === route.query.view) ?? 'cover');
const problem = computed(() => newest.error.value ?? edition.error.value);
const isMissing = computed(() => problem.value instanceof Problem && problem.value.status === 404);
useCover(useTemplateRef('cover'), view);
const taxon = computed(() => asText(route.query.taxon));
const of = computed(() => `edition/${props.slug}/${doc.value?.number}`);
const named = computed(() => taxa.value.find((r) => r.id === taxon.value));
/** A key is read step by step, unless somebody wants all of it. */
const whole = computed(() => route.query.read === 'whole');
const ways = computed(() =>
  (['stepByStep', 'whole'] as const).map((way) => ({
    title: t(`reading.${way}`),
    to: { query: { ...route.query, read: way === 'whole' ? 'whole' : undefined } },
    chosen: whole.value === (way === 'whole'),
  })),
);
/** The key of all taxa, or one of the others that the edition holds. */
const further = computed(() => doc.value?.keys?.[Number(route.query.key) - 1]);
/** What the key names, called as it calls them, and what has nothing below it. */
const taxa = computed(() => {
  const rows = doc.value?.study.rows ?? [];
  const parents = new Set(rows.map((r) => r.parent));
  const ends = (doc.value?.key.couplets ?? []).flatMap((c) => c.leads.map((l) => l.terminal));
  const named = new Map([...ends, doc.value?.key.whole].flatMap((e) => e?.names ?? []).map((n) => [n.row, n]));
  return rows
    .filter((r) => named.has(r.id) || !parents.has(r.id))
    .map((r) => ({ ...r, stage: named.get(r.id)?.stage ?? r.stage, label: named.get(r.id)?.label ?? r.label }));
});
</script>

<template>
  <v-main class="edition">
    <div ref="cover" />
    <div v-if="problem" class="page">
      <h1 v-if="isMissing">{{ $t('edition.missing') }}</h1>
      <ProblemNote :problem="problem" />
    </div>
    <template v-else-if="doc">
      <div v-if="view === 'key'" class="page narrow">
        <PublishedKeys v-if="doc.keys?.length" :keys="doc.keys" :shown="further" />
        <div class="choices no-print">
          <ChoiceLinks :label="$t('reading.ways')" :choices="ways" />
          <v-switch v-model="preferences.plain" :label="$t('plain')" hide-details density="compact" color="primary" />
        </div>
        <p v-if="whole" class="quiet">{{ $t('edition.oneKey') }}</p>
        <PrintedKey
          v-if="whole"
          :key="further?.name"
          :view="further?.key ?? doc.key"
          :plain="preferences.plain"
          taxon-link="?view=taxon&taxon="
        />
        <StepByStep
          v-else
          :key="further?.name"
          :view="further?.key ?? doc.key"
          :characters="doc.study.characters"
          :plain="preferences.plain"
          taxon-link="?view=taxon&taxon="
          :outside="doc.study.nearButOutside"
          :of="of"
          :address="`/k/${slug}`"
          :whole-key="further ? doc.key : undefined"
          :number="further ? Number(route.query.key) : 0"
          :identify="identify"
        />
      </div>
      <div v-else-if="view === 'handful'" class="page narrow">
        <HandfulKey
          :characters="doc.study.characters"
          :outside="doc.study.nearButOutside"
          :of="of"
          :handful="handful"
        />
      </div>
      <AnyOrderKey
        v-else-if="view === 'any-order'"
        :characters="doc.study.characters"
        :outside="doc.study.nearButOutside"
        :plan="doc.study.scope.bodyPlan"
        :of="of"
        :address="`/k/${slug}/${doc.number}`"
        :handful="{ view: 'handful' }"
        :identify="identify"
      />
      <div v-else-if="view === 'check'" class="page narrow">
        <template v-if="named">
          <h2>{{ $t('check.isIt') }} <TaxonName :label="named.label" :stage="named.stage" />?</h2>
          <p class="quiet">{{ $t('check.how') }}</p>
          <NameCheck
            :key="named.id"
            :row="named.id"
            :characters="doc.study.characters"
            :outside="doc.study.nearButOutside"
            :plain="preferences.plain"
            :of="of"
            :identify="identify"
          />
          <p class="quiet">{{ $t('reading.noPermission') }}</p>
        </template>
        <p v-else>{{ $t('edition.noTaxon') }}</p>
      </div>
      <TaxonPage
        v-else-if="view === 'taxon'"
        :slug="slug"
        :number="doc.number"
        :study="doc.study"
        :view="doc.key"
        :row="taxon"
        :plain="preferences.plain"
      />
      <div v-else-if="view === 'taxa'" class="page narrow">
        <ul class="taxa">
          <li v-for="r in taxa" :key="r.id">
            <router-link :to="{ query: { view: 'taxon', taxon: r.id } }"
              ><TaxonName :label="r.label" :stage="r.stage"
            /></router-link>
            <span class="quiet">{{ r.plain }}</span>
            <HazardMark :hazard="r.hazard" full />
          </li>
        </ul>
      </div>
    </template>
    <v-progress-linear v-else-if="view !== 'cover'" indeterminate :aria-label="$t('loading')" />
  </v-main>
</template>

<style scoped>
.narrow {
  max-width: 56rem;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 1.4rem;
}

.taxa {
  list-style: none;
  padding: 0;
}

.taxa li {
  display: grid;
  grid-template-columns: 1.4fr 1fr 1fr;
  gap: 0.75rem;
  padding: 0.55rem 0;
  border-bottom: 1px solid var(--rule);
  font-family: var(--serif);
}

@media (max-width: 600px) {
  .taxa li {
    grid-template-columns: 1fr;
    gap: 0.1rem;
  }
}
</style>

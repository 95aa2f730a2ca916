<script setup lang="ts">
import { mdiAlert } from '@mdi/js';
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { AnyOrderKey } from '@/features/identify';
import { PrintedKey } from '@/features/key';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import { rowName } from '@/shared/taxon/rowNames';
import { provideGlossary } from '@/shared/glossary/glossary';
import { useMonths } from '@/shared/calendar/months';
import { providePictures } from '@/shared/picture/pictures';
import { useSubject } from '@/shared/ui/pageTitle';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { usePreferences } from '@/stores/preferences';
import TaxonPage from '../components/TaxonPage.vue';

const props = defineProps<{ slug: string; number?: string }>();
const route = useRoute();
const preferences = usePreferences();
const identify = (request: Schemas['IdentifyRequest']) =>
  api.post('/api/v1/editions/{slug}/{number}/identify', { slug: props.slug, number: doc.value?.number ?? 0 }, request);
const newest = useQuery({
  queryKey: computed(() => ['editions', props.slug]),
  queryFn: () => api.get('/api/v1/editions/{slug}', { slug: props.slug }),
  retry: false,
});
const number = computed(() => Number(props.number) || newest.data.value?.number);
const edition = useQuery({
  queryKey: computed(() => ['edition', props.slug, number.value]),
  queryFn: () =>
    api.get('/api/v1/editions/{slug}/{number}', {
      slug: props.slug,
      number: number.value ?? 0,
      format: newest.data.value?.format,
    }),
  enabled: computed(() => newest.data.value !== undefined),
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
const status = computed(() => newest.data.value?.editions.find((e) => e.number === number.value));
const view = computed(() => (typeof route.query.view === 'string' ? route.query.view : 'cover'));
const taxon = computed(() => (typeof route.query.taxon === 'string' ? route.query.taxon : ''));
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
const nameOf = (id: string) => {
  const row = doc.value?.study.rows.find((r) => r.id === id);
  return row ? rowName(row) : id;
};
const monthsOf = useMonths();
const undivided = computed(() => (doc.value?.declarations ?? []).filter((d) => d.text));
const hard = computed(() => (doc.value?.declarations ?? []).filter((d) => !d.text));
const othersOf = (d: Schemas['Declaration']) => d.others.map(nameOf).join('; ');
const views = ['cover', 'key', 'any-order', 'taxa'];
</script>

<template>
  <v-main class="edition">
    <div v-if="newest.error.value || edition.error.value" class="page">
      <h1>{{ $t('edition.missing') }}</h1>
      <ProblemNote :problem="newest.error.value ?? edition.error.value" />
    </div>
    <template v-else-if="doc">
      <header class="mast">
        <p class="quiet figures">
          {{ $t('edition.line', { n: doc.number, date: doc.date }) }} · {{ doc.authors.join(', ') }}
        </p>
        <h1>{{ doc.title }}</h1>
        <p v-if="status?.status === 'WITHDRAWN'" class="withdrawn" role="alert">
          <v-icon :icon="mdiAlert" aria-hidden="true" /> {{ $t('edition.withdrawn', { reason: status.reason }) }}
        </p>
        <p v-else-if="status?.status === 'SUPERSEDED'" class="superseded">
          {{ $t('edition.superseded') }}
          <router-link :to="`/k/${slug}`">{{ $t('edition.newest') }}</router-link>
        </p>
        <nav :aria-label="$t('edition.parts')" class="no-print">
          <router-link
            v-for="v in views"
            :key="v"
            :to="{ query: { view: v === 'cover' ? undefined : v } }"
            :aria-current="v === view || (v === 'taxa' && view === 'taxon') ? 'page' : undefined"
            >{{ $t(`edition.view.${v}`) }}</router-link
          >
        </nav>
      </header>
      <div v-if="view === 'cover'" class="page cover">
        <section class="cautions" aria-labelledby="cautions">
          <h2 id="cautions"><v-icon :icon="mdiAlert" aria-hidden="true" /> {{ $t('edition.cautions') }}</h2>
          <p v-for="c in doc.cautions" :key="c">{{ c }}</p>
          <p v-for="(d, i) in undivided" :key="i">
            <strong v-if="d.others.length"
              >{{ $t('edition.notApart', { danger: d.name || nameOf(d.danger), others: othersOf(d) }) }}
              {{
                d.months.length === 12
                  ? $t('edition.inEveryMonth')
                  : $t('edition.inMonths', { months: monthsOf(d.months) })
              }}</strong
            >
            <strong v-else>{{ $t('edition.notInKey', { danger: d.name || nameOf(d.danger) }) }}</strong>
            {{ d.text }}
          </p>
          <template v-if="hard.length">
            <p>{{ $t('edition.hard') }}</p>
            <ul>
              <li v-for="(d, i) in hard" :key="i">
                {{ $t('edition.hardOne', { danger: d.name, others: othersOf(d) })
                }}{{ d.months.length === 12 ? '' : ` (${monthsOf(d.months)})` }}
              </li>
            </ul>
          </template>
        </section>
        <section aria-labelledby="about">
          <h2 id="about">{{ $t('edition.about') }}</h2>
          <dl>
            <dt>{{ $t('scope.covers') }}</dt>
            <dd>{{ doc.study.scope.covers }}</dd>
            <dt>{{ $t('scope.leavesOut') }}</dt>
            <dd>{{ doc.study.scope.leavesOut }}</dd>
            <template v-if="doc.study.scope.region">
              <dt>{{ $t('scope.region') }}</dt>
              <dd>{{ doc.study.scope.region }}</dd>
            </template>
            <template v-if="doc.study.scope.stages">
              <dt>{{ $t('scope.stages') }}</dt>
              <dd>{{ doc.study.scope.stages }}</dd>
            </template>
            <template v-if="doc.study.scope.equipment || doc.kit?.length">
              <dt>{{ $t('edition.kit') }}</dt>
              <dd>
                <p v-if="doc.study.scope.equipment">{{ doc.study.scope.equipment }}</p>
                <p v-if="doc.kit?.length">{{ $t('edition.asksFor', { things: doc.kit.join(', ') }) }}</p>
              </dd>
            </template>
          </dl>
          <template v-if="doc.study.nearButOutside.length">
            <h3>{{ $t('scope.outside') }}</h3>
            <ul>
              <li v-for="o in doc.study.nearButOutside" :key="o.name">
                <TaxonName :label="o.name" /> — {{ o.why }} <HazardMark :hazard="o.hazard" full />
              </li>
            </ul>
          </template>
        </section>
        <div class="doors no-print">
          <v-btn :to="{ query: { view: 'key' } }" color="primary" variant="flat" size="large">{{
            $t('edition.view.key')
          }}</v-btn>
          <v-btn :to="{ query: { view: 'any-order' } }" color="primary" size="large">{{
            $t('edition.view.any-order')
          }}</v-btn>
        </div>
        <details>
          <summary>{{ $t('edition.firstAid') }}</summary>
          <p>{{ $t('firstAid') }}</p>
        </details>
        <p class="quiet">{{ $t('edition.decide') }}</p>
      </div>
      <div v-else-if="view === 'key'" class="page narrow">
        <v-switch
          v-model="preferences.plain"
          :label="$t('plain')"
          hide-details
          density="compact"
          color="primary"
          class="no-print"
        />
        <p class="quiet">{{ $t('edition.oneKey') }}</p>
        <PrintedKey :view="doc.key" :plain="preferences.plain" taxon-link="?view=taxon&taxon=" />
      </div>
      <AnyOrderKey
        v-else-if="view === 'any-order'"
        :characters="doc.study.characters"
        :outside="doc.study.nearButOutside"
        :of="`edition/${slug}/${doc.number}`"
        :identify="identify"
      />
      <TaxonPage
        v-else-if="view === 'taxon'"
        :slug="slug"
        :number="doc.number"
        :study="doc.study"
        :row="taxon"
        :plain="preferences.plain"
      />
      <div v-else class="page narrow">
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
    <v-progress-linear v-else indeterminate :aria-label="$t('loading')" />
  </v-main>
</template>

<style scoped>
.mast {
  border-bottom: 1px solid var(--rule);
  padding: 1rem 1.25rem 0;
  max-width: 76rem;
  margin: 0 auto;
}

.mast p {
  margin: 0;
}

nav {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.5rem;
  margin-top: 0.5rem;
}

nav a {
  padding: 0.6rem 0;
  text-decoration: none;
  color: inherit;
  border-bottom: 3px solid transparent;
}

nav a[aria-current='page'] {
  border-bottom-color: rgb(var(--v-theme-primary));
  font-weight: 700;
}

.withdrawn {
  color: rgb(var(--v-theme-error));
  font-weight: 700;
}

.cover {
  max-width: 48rem;
}

.narrow {
  max-width: 56rem;
}

.cautions {
  border: 2px solid rgb(var(--v-theme-error));
  padding: 0.75rem 1.1rem;
  margin-bottom: 1.5rem;
}

.cautions h2 {
  color: rgb(var(--v-theme-error));
}

.cautions p {
  margin: 0.5rem 0;
}

dl {
  display: grid;
  grid-template-columns: 10rem 1fr;
  gap: 0.4rem 1rem;
  margin: 0.75rem 0 1.25rem;
}

dt {
  font-weight: 600;
}

dd,
dd p {
  margin: 0;
}

.cover ul {
  padding-left: 1.1rem;
}

.doors {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  margin: 1.5rem 0;
}

details {
  margin: 1rem 0;
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
  dl,
  .taxa li {
    grid-template-columns: 1fr;
    gap: 0.1rem;
  }

  .doors .v-btn {
    flex: 1 1 100%;
    min-height: 3.2rem;
  }

  .mast h1 {
    font-size: 1.5rem;
  }
}
</style>

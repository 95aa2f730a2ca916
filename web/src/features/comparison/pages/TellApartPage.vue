<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { api } from '@/api/client';
import { useStudy } from '@/study-kernel';
import { isDangerous } from '@/shared/taxon/hazards';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { rowChoices, rowName } from '@/shared/taxon/rowNames';
import CalendarView from '../components/CalendarView.vue';
import ContrastCard from '../components/ContrastCard.vue';
import ConditionsPanel from '../components/ConditionsPanel.vue';
import LookalikeGroups from '../components/LookalikeGroups.vue';
import NextCells from '../components/NextCells.vue';
import PairList from '../components/PairList.vue';
import PairTriangle from '../components/PairTriangle.vue';
import RecognitionNote from '../components/RecognitionNote.vue';
import { asked, fromQuery, toQuery, type ViewingConditions } from '@/shared/viewing/conditions';
import { ORDERS, pairTable, type Order } from '../logic/map';

/** What separates taxa under the viewing conditions: all pairs, each pair, the year, and what to score next. */
const model = useStudy();
const route = useRoute();
const router = useRouter();
const { t } = useI18n();
const VIEWS = ['map', 'list', 'calendar', 'next'] as const;
const MOST_ON_CARD = 6;

const conditions = computed<ViewingConditions>({
  get: () => fromQuery(route.query),
  set: (now) => void router.replace({ query: { ...route.query, ...toQuery(now) } }),
});
const view = computed({
  get: () => VIEWS.find((v) => v === route.query.view) ?? 'map',
  set: (now) => void router.replace({ query: { ...route.query, view: now === 'map' ? undefined : now } }),
});
const order = computed({
  get: () => ORDERS.find((o) => o === route.query.order) ?? 'similar',
  set: (now: Order) => void router.replace({ query: { ...route.query, order: now === 'similar' ? undefined : now } }),
});
const rows = computed(() => (typeof route.query.rows === 'string' ? route.query.rows.split(',').filter(Boolean) : []));
const wanted = computed(() => asked(conditions.value));
const query = useQuery({
  queryKey: computed(() => ['pair-map', model.slug, wanted.value, model.study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/apart/map', { slug: model.slug, ...wanted.value }),
  placeholderData: (old) => old,
  retry: false,
});
const map = computed(() => query.data.value);
const byId = computed(() => new Map((model.study.value?.rows ?? []).map((row, place) => [row.id, { row, place }])));
const table = computed(() =>
  map.value
    ? pairTable(
        map.value,
        order.value,
        (id) => {
          const row = byId.value.get(id)?.row;
          return { name: row ? rowName(row) : id, dangerous: isDangerous(row?.hazard) };
        },
        (id) => byId.value.get(id)?.place ?? 0,
      )
    : null,
);
const groups = computed(() =>
  (map.value?.groups ?? []).map((places) => places.map((p) => map.value?.rows[p] ?? '').filter(Boolean)),
);
const choices = computed(() =>
  rowChoices((model.study.value?.rows ?? []).filter((r) => map.value?.rows.includes(r.id))),
);
const orders = ORDERS.map((value) => ({ value, title: t(`apart.order.${value}`) }));

function choose(ids: string[]) {
  void router.push({ query: { ...route.query, rows: ids.join(',') || undefined } });
}

function chooseGroup(ids: string[]) {
  const calendar = ids.length > MOST_ON_CARD ? 'calendar' : route.query.view;
  void router.push({ query: { ...route.query, rows: ids.join(','), view: calendar } });
}

function toggleMonth(month: number) {
  const { months } = conditions.value;
  conditions.value = {
    ...conditions.value,
    months: months.includes(month) ? months.filter((m) => m !== month) : [...months, month],
  };
}
</script>

<template>
  <div class="apart" :class="{ beside: rows.length && rows.length <= MOST_ON_CARD && view !== 'next' }">
    <h1 class="sr-only">{{ $t('stage.apart') }}</h1>
    <aside class="left">
      <ConditionsPanel v-if="model.study.value" v-model="conditions" :study="model.study.value" />
      <LookalikeGroups :found="groups" :chosen="rows" @choose="chooseGroup" />
    </aside>
    <main class="middle">
      <div class="tools" role="toolbar" :aria-label="$t('apart.views')">
        <v-btn-toggle v-model="view" mandatory density="compact" variant="outlined" divided>
          <v-btn v-for="v in VIEWS" :key="v" :value="v" size="small">{{ $t(`apart.view.${v}`) }}</v-btn>
        </v-btn-toggle>
        <v-select
          v-if="view === 'map' || view === 'list'"
          v-model="order"
          class="order"
          :items="orders"
          :label="$t('apart.sorted')"
          hide-details
        />
        <v-autocomplete
          v-if="view !== 'next'"
          class="one"
          :model-value="rows.length === 1 ? rows[0] : null"
          :items="choices"
          :label="$t('apart.recognise')"
          clearable
          hide-details
          @update:model-value="choose($event ? [$event] : [])"
        />
      </div>
      <p v-if="map" class="totals figures" role="status">
        <b>{{
          $t('apart.open', { n: map.totals.none + map.totals.tendency }, map.totals.none + map.totals.tendency)
        }}</b>{{ $t('apart.totals', { thin: map.totals.thin, firm: map.totals.firm, pairs: map.totals.pairs }) }}
      </p>
      <ProblemNote :problem="query.error.value" />
      <v-progress-linear v-if="query.isFetching.value && !map" indeterminate :aria-label="$t('loading')" />
      <NextCells v-if="view === 'next'" :conditions="conditions" />
      <CalendarView
        v-else-if="view === 'calendar'"
        :rows="rows"
        :conditions="conditions"
        @choose="choose"
        @month="toggleMonth"
      />
      <template v-else-if="table">
        <p v-if="table.rows.length < 2" class="empty">{{ $t('apart.tooFew') }}</p>
        <PairList v-else-if="view === 'list'" :table="table" :conditions="conditions" :chosen="rows" @choose="choose" />
        <template v-else>
          <ul class="key" :aria-label="$t('apart.signs')">
            <li>
              <svg viewBox="0 0 16 16" aria-hidden="true"><circle cx="8" cy="8" r="6.4" class="full" /></svg
              >{{ $t('apart.verdict.NONE') }}
            </li>
            <li>
              <svg viewBox="0 0 16 16" aria-hidden="true">
                <circle cx="8" cy="8" r="5.4" class="outline" />
                <path d="M8 2.6a5.4 5.4 0 0 0 0 10.8z" class="full" /></svg
              >{{ $t('apart.verdict.TENDENCY') }}
            </li>
            <li>
              <svg viewBox="0 0 16 16" aria-hidden="true"><circle cx="8" cy="8" r="3.8" class="ring" /></svg
              >{{ $t('apart.verdict.THIN') }}
            </li>
            <li>
              <svg viewBox="0 0 16 16" aria-hidden="true"><circle cx="8" cy="8" r="1.1" class="dot" /></svg
              >{{ $t('apart.verdict.FIRM') }}
            </li>
          </ul>
          <PairTriangle :table="table" :danger="conditions.safely" :chosen="rows" @choose="choose" />
        </template>
      </template>
    </main>
    <aside v-if="rows.length && rows.length <= MOST_ON_CARD && view !== 'next'" class="right">
      <v-btn size="small" variant="text" class="leave" @click="choose([])">{{ $t('close') }}</v-btn>
      <RecognitionNote v-if="rows.length === 1" :key="rows[0]" :row="rows[0]!" :conditions="conditions" />
      <ContrastCard v-else :rows="rows" :conditions="conditions" :possible="map?.rows ?? []" @rows="choose" />
    </aside>
  </div>
</template>

<style scoped>
.apart {
  display: grid;
  grid-template-columns: 13.5rem minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}

.apart.beside {
  grid-template-columns: 13.5rem minmax(0, 1fr) minmax(22rem, 27rem);
}

.left,
.right {
  overflow: auto;
  padding: 0.8rem;
}

.left {
  border-right: 1px solid var(--rule);
}

.right {
  position: relative;
  border-left: 1px solid var(--rule);
}

.leave {
  position: absolute;
  top: 0.3rem;
  right: 0.3rem;
}

.left h2 {
  font-size: 1.05rem;
}

.middle {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}

.middle > :last-child {
  flex: 1;
  min-height: 0;
}

.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.8rem;
  align-items: center;
  padding: 0.6rem 0.8rem 0.4rem;
}

.order {
  max-width: 11rem;
}

.one {
  max-width: 17rem;
}

.totals {
  margin: 0;
  padding: 0 0.8rem;
}

.empty {
  padding: 2rem;
}

.key {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  padding: 0.2rem 0.8rem;
  list-style: none;
  font-size: 0.88rem;
}

.key svg {
  width: 1rem;
  height: 1rem;
  margin-right: 0.3rem;
  vertical-align: -0.15rem;
}

.key .full {
  fill: rgb(var(--v-theme-error));
}

.key .outline {
  fill: none;
  stroke: rgb(var(--v-theme-error));
}

.key .ring {
  fill: none;
  stroke: var(--faint);
}

.key .dot {
  fill: var(--faint);
}

@media (max-width: 900px) {
  .apart,
  .apart.beside {
    display: block;
    height: auto;
  }

  .left,
  .right {
    border: 0;
  }
}
</style>

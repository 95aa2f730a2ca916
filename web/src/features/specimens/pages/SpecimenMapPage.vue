<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { rowName } from '@/shared/taxon/rowNames';
import GatherTabs from '../components/GatherTabs.vue';
import { drawn, projectionFor } from '../logic/map';
import { present } from '../logic/specimens';

/** Where the specimens were found, on a plain map that needs no network. */
const model = useStudy();
const route = useRoute();
const router = useRouter();
const { t } = useI18n();
const study = model.study;
const WIDTH = 860;
const HEIGHT = 430;
const far = ref(1);

const row = computed({
  get: () => String(route.query.row ?? ''),
  set: (value) => void router.replace({ query: { ...route.query, row: value || undefined } }),
});
const query = useQuery({
  queryKey: computed(() => ['places', model.slug, study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/specimens/places', { slug: model.slug }),
  enabled: computed(() => study.value !== undefined),
  placeholderData: (old) => old,
  retry: false,
});

const specimenOf = (id: string) => study.value?.specimens.find((s) => s.id === id);
const named = (id: string) => present(specimenOf(id) as Schemas['Specimen'])?.row ?? '';
const places = computed(() => (query.data.value ?? []).filter((p) => specimenOf(p.specimen)));
const shown = computed(() => places.value.filter((p) => !row.value || named(p.specimen) === row.value));
const projection = computed(() => projectionFor(places.value, WIDTH, HEIGHT, far.value));
const map = computed(() => drawn(projection.value, WIDTH, HEIGHT));
const taxa = computed(() => [
  { value: '', title: t('gather.map.all') },
  ...(study.value?.rows ?? [])
    .filter((r) => places.value.some((p) => named(p.specimen) === r.id))
    .map((r) => ({ value: r.id, title: rowName(r) })),
]);

/** Specimens that lie in one place on the map are one dot, larger with their number. */
const dots = computed(() => {
  const at = new Map<string, { x: number; y: number; specimens: Schemas['Place'][] }>();
  for (const place of shown.value) {
    const [x = 0, y = 0] = projection.value([place.longitude, place.latitude]) ?? [];
    const key = `${Math.round(x / 18)} ${Math.round(y / 18)}`;
    const dot = at.get(key) ?? { x, y, specimens: [] };
    dot.specimens.push(place);
    at.set(key, dot);
  }
  return [...at.values()];
});
const chosen = ref<string[]>([]);
const listed = computed(() => chosen.value.flatMap((id) => specimenOf(id) ?? []));
const codes = (of: Schemas['Place'][]) => of.map((p) => specimenOf(p.specimen)?.code ?? '').join(', ');

/** A bar of round kilometres. */
const bar = computed(() => {
  const wanted = map.value.kilometres / 5;
  const power = 10 ** Math.floor(Math.log10(wanted));
  const kilometres = ([5, 2, 1].find((n) => n * power <= wanted) ?? 1) * power;
  return { width: (kilometres / map.value.kilometres) * WIDTH, text: t('gather.map.kilometres', { n: kilometres }) };
});
</script>

<template>
  <div class="page">
    <GatherTabs :slug="model.slug" />
    <h2>{{ $t('gather.map.title') }}</h2>
    <p class="quiet">{{ $t('gather.map.lead') }}</p>
    <div class="ways">
      <v-select v-model="row" class="taxon" :items="taxa" :label="$t('gather.row')" density="compact" hide-details />
      <v-btn size="small" @click="far = Math.max(0.1, far / 2)">{{ $t('gather.map.nearer') }}</v-btn>
      <v-btn size="small" @click="far = Math.min(4096, far * 2)">{{ $t('gather.map.farther') }}</v-btn>
      <v-btn size="small" :disabled="far === 1" @click="far = 1">{{ $t('gather.map.fit') }}</v-btn>
      <span class="quiet" role="status">{{ $t('gather.map.count', shown.length) }}</span>
    </div>
    <ProblemNote :problem="query.error.value" />
    <p v-if="query.data.value && !places.length">{{ $t('gather.map.none') }}</p>
    <div v-else class="areas">
      <svg class="map" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" :aria-label="$t('gather.map.title')">
        <path class="land" :d="map.coasts" />
        <path class="graticule" :d="map.graticule" />
        <text v-for="line in map.longitudes" :key="line.text" class="degrees" :x="line.x + 3" :y="HEIGHT - 5">
          {{ line.text }}
        </text>
        <text v-for="line in map.latitudes" :key="line.text" class="degrees" x="4" :y="line.y - 3">
          {{ line.text }}
        </text>
        <g
          v-for="dot in dots"
          :key="`${dot.x} ${dot.y}`"
          class="dot"
          role="button"
          tabindex="0"
          :aria-label="codes(dot.specimens)"
          @click="chosen = dot.specimens.map((p) => p.specimen)"
          @keydown.enter="chosen = dot.specimens.map((p) => p.specimen)"
        >
          <circle :cx="dot.x" :cy="dot.y" :r="5 + 2 * Math.sqrt(dot.specimens.length)" />
          <text v-if="dot.specimens.length > 1" :x="dot.x" :y="dot.y + 4">{{ dot.specimens.length }}</text>
        </g>
        <g class="bar" :transform="`translate(${WIDTH - bar.width - 16} ${HEIGHT - 22})`">
          <path :d="`M0 -4V0H${bar.width}V-4`" />
          <text :x="bar.width / 2" y="-6">{{ bar.text }}</text>
        </g>
      </svg>
      <section v-if="listed.length" :aria-label="$t('gather.title')">
        <ul>
          <li v-for="specimen in listed" :key="specimen.id">
            <router-link :to="`/studies/${model.slug}/gather?specimen=${specimen.id}`">{{ specimen.code }}</router-link>
            <em>&nbsp;{{ taxa.find((x) => x.value === named(specimen.id))?.title }}</em>
            <span class="quiet">&nbsp;{{ specimen.event.place }} {{ specimen.event.date }}</span>
          </li>
        </ul>
      </section>
    </div>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin-bottom: 0.5rem;
}

.taxon {
  flex: 0 1 18rem;
}

.areas {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
}

.map {
  flex: 1 1 34rem;
  max-width: 860px;
  border: 1px solid var(--rule);
  background: rgb(var(--v-theme-surface));
}

.land {
  fill: color-mix(in srgb, rgb(var(--v-theme-primary)) 12%, transparent);
  stroke: rgb(var(--v-theme-secondary));
}

.graticule {
  fill: none;
  stroke: var(--rule);
}

.degrees {
  font-size: 11px;
  fill: rgb(var(--v-theme-secondary));
}

.dot {
  cursor: pointer;
}

.dot circle {
  fill: color-mix(in srgb, rgb(var(--v-theme-primary)) 70%, transparent);
  stroke: rgb(var(--v-theme-surface));
}

.dot:focus-visible circle {
  stroke: rgb(var(--v-theme-error));
  stroke-width: 3;
}

.dot text,
.bar text {
  font-size: 11px;
  text-anchor: middle;
}

.dot text {
  fill: rgb(var(--v-theme-surface));
  font-weight: 600;
}

.bar path {
  fill: none;
  stroke: rgb(var(--v-theme-on-surface));
}

.bar text {
  fill: rgb(var(--v-theme-on-surface));
}
</style>

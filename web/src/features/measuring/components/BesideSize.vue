<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { scaleLog } from 'd3-scale';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import { rowName } from '@/shared/taxon/rowNames';

/** How a size goes with another: the individuals of a row beside those of the others, on scales of logarithms. */
const props = defineProps<{
  rows: Schemas['StudyRow'][];
  characters: Schemas['StudyCharacter'][];
  character: Schemas['StudyCharacter'];
  row: string;
  specimen: string;
}>();
const emit = defineEmits<{ choose: [specimen: string] }>();
const { t } = useI18n();
const model = useStudy();
const other = ref('');

const WIDTH = 340;
const HEIGHT = 250;
const LEFT = 40;
const FOOT = 34;
const SIZES = ['LENGTH', 'MASS', 'COUNT'];

const isSize = computed(() => SIZES.includes(props.character.type));
const others = computed(() => [
  { value: '', title: t('measure.beside.none') },
  ...props.characters
    .filter((c) => c.id !== props.character.id && SIZES.includes(c.type))
    .map((c) => ({ value: c.id, title: c.label })),
]);
watch(
  () => props.character.id,
  () => (other.value = ''),
);

const query = useQuery({
  queryKey: computed(() => ['beside', model.slug, props.character.id, other.value, model.study.value?.revision]),
  queryFn: () =>
    api.get('/api/v1/studies/{slug}/readings/of-character/{id}/beside/{other}', {
      slug: model.slug,
      id: props.character.id,
      other: other.value,
    }),
  enabled: computed(() => other.value !== ''),
  retry: false,
});
const beside = computed(() => (other.value ? query.data.value : undefined));
const x = computed(() => props.characters.find((c) => c.id === other.value));
const own = computed(() => beside.value?.rows.find((r) => r.row === props.row));
const strange = computed(() => own.value?.individuals.filter((i) => i.unforeseen) ?? []);

const plot = computed(() => {
  const all = beside.value?.rows.flatMap((r) => r.individuals) ?? [];
  if (!all.length) return null;
  const extent = (values: number[]): [number, number] => [Math.min(...values) / 1.06, Math.max(...values) * 1.06];
  const across = scaleLog(extent(all.map((i) => i.x)), [LEFT, LEFT + WIDTH]);
  const up = scaleLog(extent(all.map((i) => i.y)), [HEIGHT, 8]);
  const path = (points: [number, number][]) => points.map(([a, b]) => `${across(a)},${up(b)}`).join(' ');
  const band = own.value?.band ?? [];
  return {
    across,
    up,
    dots: beside.value?.rows.flatMap((r) =>
      r.individuals.map((i) => ({ ...i, mine: r.row === props.row, row: r.row })),
    ),
    band: path([
      ...band.map((b): [number, number] => [b.x, b.high]),
      ...[...band].reverse().map((b): [number, number] => [b.x, b.low]),
    ]),
    xTicks: labelled(across.ticks()),
    yTicks: labelled(up.ticks()),
  };
});

/** A scale of logarithms has more ticks than labels find room for: 1, 2, 5 and so on will do, where they are enough. */
function labelled(ticks: number[]): number[] {
  const round = ticks.filter((tick) => '125'.includes(tick.toExponential().charAt(0)));
  return round.length > 2 ? round : ticks.slice(0, 7);
}

const nameOf = (id: string) => {
  const found = props.rows.find((r) => r.id === id);
  return found ? rowName(found) : id;
};
const codeOf = (id: string) => model.study.value?.specimens.find((s) => s.id === id)?.code ?? id;
</script>

<template>
  <section v-if="isSize && others.length > 1" :aria-label="$t('measure.beside.title')">
    <v-select v-model="other" :items="others" :label="$t('measure.beside.which')" density="compact" hide-details />
    <template v-if="beside && x">
      <p v-if="!plot" class="quiet">{{ $t('measure.beside.nothing') }}</p>
      <figure v-else>
        <svg
          :viewBox="`0 0 ${LEFT + WIDTH + 8} ${HEIGHT + FOOT}`"
          role="img"
          :aria-label="
            $t(
              'measure.beside.label',
              { y: character.label, x: x.label, n: plot.dots?.length ?? 0 },
              plot.dots?.length ?? 0,
            )
          "
        >
          <polygon v-if="plot.band" class="band" :points="plot.band" />
          <g v-for="tick in plot.xTicks" :key="`x${tick}`">
            <line :x1="plot.across(tick)" :x2="plot.across(tick)" :y1="HEIGHT" :y2="HEIGHT + 4" class="ground" />
            <text class="tick" :x="plot.across(tick)" :y="HEIGHT + 15">{{ tick }}</text>
          </g>
          <g v-for="tick in plot.yTicks" :key="`y${tick}`">
            <line :x1="LEFT - 4" :x2="LEFT" :y1="plot.up(tick)" :y2="plot.up(tick)" class="ground" />
            <text class="end" :x="LEFT - 7" :y="plot.up(tick) + 4">{{ tick }}</text>
          </g>
          <path class="ground" :d="`M${LEFT} 0V${HEIGHT}H${LEFT + WIDTH}`" fill="none" />
          <text class="end" :x="LEFT + WIDTH" :y="HEIGHT + 30">{{ x.label }} ({{ x.unit }})</text>
          <circle
            v-for="dot in plot.dots"
            :key="dot.specimen"
            :cx="plot.across(dot.x)"
            :cy="plot.up(dot.y)"
            :r="dot.specimen === specimen ? 5.5 : 3.2"
            :class="{ mine: dot.mine, unforeseen: dot.unforeseen }"
            @click="emit('choose', dot.specimen)"
          >
            <title>{{ codeOf(dot.specimen) }}, {{ nameOf(dot.row) }}</title>
          </circle>
        </svg>
        <figcaption class="quiet">{{ $t('measure.beside.key') }}</figcaption>
      </figure>
      <p v-if="own?.exponent != null" class="figures">
        {{ $t('measure.beside.grows', { power: own.exponent.toFixed(2), n: own.individuals.length }) }}
      </p>
      <p v-else-if="own" class="quiet">{{ $t('measure.beside.few', own.individuals.length) }}</p>
      <ul v-if="strange.length" class="strange">
        <li v-for="one in strange" :key="one.specimen">
          <button type="button" @click="emit('choose', one.specimen)">{{ codeOf(one.specimen) }}</button>
          {{ $t('measure.beside.strange') }}
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
section {
  margin-top: 0.6rem;
}

figure {
  margin: 0.3rem 0 0;
}

svg {
  width: 100%;
  height: auto;
  font: 0.72rem var(--sans);
}

text {
  fill: rgb(var(--v-theme-on-surface));
  font-variant-numeric: tabular-nums;
}

.tick {
  text-anchor: middle;
}

.end {
  text-anchor: end;
}

.band {
  fill: color-mix(in srgb, rgb(var(--v-theme-primary)) 16%, transparent);
}

.ground {
  stroke: var(--rule);
}

circle {
  fill: none;
  stroke: color-mix(in srgb, rgb(var(--v-theme-on-surface)) 55%, transparent);
  cursor: pointer;
}

circle.mine {
  fill: rgb(var(--v-theme-primary));
  stroke: none;
}

circle.unforeseen {
  fill: rgb(var(--v-theme-surface));
  stroke: rgb(var(--v-theme-error));
  stroke-width: 2.5;
}

figcaption,
p {
  font-size: 0.86rem;
  margin: 0.2rem 0;
}

.strange {
  list-style: none;
  padding: 0;
  font-size: 0.88rem;
  color: rgb(var(--v-theme-error));
}

.strange button {
  text-decoration: underline;
  min-height: 1.75rem;
}
</style>

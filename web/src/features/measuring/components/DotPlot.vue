<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { domainOf, stacked } from '../logic/dots';
import { rowName } from '@/shared/taxon/rowNames';

/** Readings of a character, row under row on one scale: the row of the specimen at hand first, then its lookalikes. */
const props = defineProps<{
  measured: Schemas['MeasuredView'];
  rows: Schemas['StudyRow'][];
  /** The row of the specimen at hand, and the specimen. */
  row: string;
  specimen: string;
  /** Where to cut between two rows, and where not to decide; in the unit. */
  threshold?: Schemas['ThresholdView'] | null;
}>();
const emit = defineEmits<{ choose: [specimen: string] }>();
const { t } = useI18n();

const WIDTH = 340;
const LEFT = 12;
const DOT = 6.5;
const LINE = 46;
const MOST = 7;

const strips = computed(() => {
  const read = props.measured.rows.filter((r) => r.row && r.items.some((i) => i.value != null && !i.barred));
  const own = read.filter((r) => r.row === props.row);
  const middle = own[0]?.summary?.median;
  const others = read
    .filter((r) => r.row !== props.row)
    .sort((a, b) => distance(a, middle) - distance(b, middle))
    .slice(0, MOST - own.length);
  return [...own, ...others];
});

function distance(row: Schemas['MeasuredRow'], middle: number | undefined): number {
  return middle === undefined || !row.summary ? 0 : Math.abs(Math.log((row.summary.median || 1) / (middle || 1)));
}

const domain = computed(() => {
  const values = strips.value.flatMap((r) => [
    // One that is far off for a slip would leave no room for the others.
    ...r.items.filter((i) => !i.barred && !i.cause).map((i) => i.value ?? 0),
    ...(r.cell.range ? [r.cell.range.low, r.cell.range.high] : []),
  ]);
  return values.length ? domainOf(values) : null;
});

/** What lies off the scale is drawn at its end. */
const clamped = (value: number) => {
  const d = domain.value;
  return d ? Math.max(d.low, Math.min(d.high, value)) : value;
};

const x = (value: number) => {
  const d = domain.value;
  return d ? LEFT + ((clamped(value) - d.low) / (d.high - d.low || 1)) * WIDTH : 0;
};

const lines = computed(() =>
  strips.value.map((strip, n) => ({
    strip,
    top: n * LINE,
    name: nameOf(strip.row),
    hazard: hazardOf(strip.row),
    dots: domain.value
      ? stacked(
          strip.items.filter((i) => i.value != null && !i.barred),
          (i) => clamped(i.value ?? 0),
          domain.value,
          WIDTH,
          DOT,
          4,
        )
      : [],
  })),
);

function nameOf(id: string): string {
  const row = props.rows.find((r) => r.id === id);
  return row ? rowName(row) : id;
}

function hazardOf(id: string) {
  const hazard = props.rows.find((r) => r.id === id)?.hazard;
  return hazard === 'NONE_KNOWN' || hazard === 'NOT_ASSESSED' ? undefined : hazard;
}

const told = computed(() =>
  strips.value
    .map((s) =>
      t(
        'measure.plot.strip',
        {
          row: nameOf(s.row),
          n: s.cell.counts.individuals,
          low: s.summary?.min.toPrecision(3) ?? '',
          high: s.summary?.max.toPrecision(3) ?? '',
          unit: props.measured.unit,
        },
        // Without a summary there is no span to tell.
        s.summary ? Math.max(s.cell.counts.individuals, 1) : 0,
      ),
    )
    .join('; '),
);
</script>

<template>
  <figure v-if="domain" class="plot">
    <svg
      :viewBox="`0 0 ${WIDTH + 2 * LEFT} ${lines.length * LINE + 30}`"
      role="img"
      :aria-label="$t('measure.plot.label', { rows: told })"
    >
      <template v-if="threshold">
        <rect
          class="doubt"
          :x="x(threshold.doubtLow)"
          y="0"
          :width="Math.max(1, x(threshold.doubtHigh) - x(threshold.doubtLow))"
          :height="lines.length * LINE"
        />
        <line class="cut" :x1="x(threshold.cut)" :x2="x(threshold.cut)" y1="0" :y2="lines.length * LINE" />
      </template>
      <g v-for="line in lines" :key="line.strip.row" :transform="`translate(0 ${line.top})`">
        <text class="name" x="8" y="11">
          {{ line.name }}
          <tspan v-if="line.hazard" class="hazard" dx="8">
            {{ $t('measure.plot.hazard', { hazard: $t(`hazard.${line.hazard}`) }) }}
          </tspan>
        </text>
        <text class="n" :x="WIDTH + LEFT" y="11">
          {{ $t('measure.plot.n', { n: line.strip.cell.counts.individuals }) }}
        </text>
        <rect
          v-if="line.strip.cell.range"
          class="range"
          :x="x(line.strip.cell.range.low)"
          :width="Math.max(1, x(line.strip.cell.range.high) - x(line.strip.cell.range.low))"
          y="16"
          height="26"
        />
        <circle
          v-for="(dot, i) in line.dots"
          :key="i"
          :cx="LEFT + dot.x"
          :cy="37 - dot.level * (DOT - 1)"
          :r="DOT / 2"
          :class="{ own: dot.of.specimen === specimen, suspect: dot.of.cause }"
          @click="emit('choose', dot.of.specimen)"
        >
          <title>{{ dot.of.specimen }}: {{ dot.of.typed }}</title>
        </circle>
        <line class="ground" :x1="LEFT" :x2="WIDTH + LEFT" y1="42" y2="42" />
      </g>
      <g :transform="`translate(0 ${lines.length * LINE})`">
        <text class="n" :x="WIDTH + 2 * LEFT" y="27">{{ measured.unit }}</text>
        <g v-for="tick in domain.ticks" :key="tick">
          <line :x1="x(tick)" :x2="x(tick)" y1="0" y2="4" class="ground" />
          <text class="tick" :x="x(tick)" y="15">{{ tick }}</text>
        </g>
      </g>
    </svg>
    <figcaption class="quiet">
      {{ $t('measure.plot.key') }}
    </figcaption>
  </figure>
  <p v-else class="quiet">{{ $t('measure.plot.none') }}</p>
</template>

<style scoped>
.plot {
  margin: 0;
}

svg {
  width: 100%;
  height: auto;
  font: 0.72rem var(--sans);
}

text {
  fill: rgb(var(--v-theme-on-surface));
}

.name {
  font-style: italic;
}

.hazard {
  fill: rgb(var(--v-theme-error));
  font-style: normal;
  font-weight: 600;
}

.n,
.tick {
  font-variant-numeric: tabular-nums;
}

.n {
  text-anchor: end;
}

.tick {
  text-anchor: middle;
}

.range {
  fill: color-mix(in srgb, rgb(var(--v-theme-primary)) 16%, transparent);
}

.doubt {
  fill: color-mix(in srgb, rgb(var(--v-theme-warning)) 18%, transparent);
}

.cut {
  stroke: rgb(var(--v-theme-warning));
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
}

.ground {
  stroke: var(--rule);
}

circle {
  fill: color-mix(in srgb, rgb(var(--v-theme-on-surface)) 55%, transparent);
  cursor: pointer;
}

circle.own {
  fill: rgb(var(--v-theme-primary));
  stroke: rgb(var(--v-theme-on-surface));
}

circle.suspect {
  fill: none;
  stroke: rgb(var(--v-theme-error));
  stroke-width: 2;
}

figcaption {
  font-size: 0.8rem;
}
</style>

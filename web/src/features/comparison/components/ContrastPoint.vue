<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import StatePicture from '@/shared/picture/StatePicture.vue';
import RangePlot from './RangePlot.vue';
import { useMonths } from '@/shared/calendar/months';

/** One character of a contrast card: what each row shows of it, side by side, and how and when to look. */
const props = defineProps<{
  point: Schemas['PointView'];
  names: Schemas['NameView'][];
  plain: boolean;
  pairs: number;
}>();
const { t } = useI18n();
const numbers = computed(() => props.point.cells.some((c) => c.range));
const kind = computed(() =>
  props.point.kind === 'SEPARATES' && props.point.tells.length < props.pairs
    ? t('apart.kind.SOME', { n: props.point.tells.length, all: props.pairs })
    : t(`apart.kind.${props.point.kind}`),
);
const monthsOf = useMonths();
const how = computed(() =>
  [
    props.point.where,
    props.point.method,
    props.point.months.length < 12 ? monthsOf(props.point.months) || t('apart.noMonth') : '',
    props.point.harms ? t('apart.harms') : '',
    props.point.hazardous ? t('apart.hazardous') : '',
  ].filter(Boolean),
);
const rounded = (x: number) => Number(x.toPrecision(3));
const said = (place: number) => [props.names[place]?.label, props.names[place]?.stage].filter(Boolean).join(', ');
const cuts = computed(() =>
  props.point.cuts.map((cut) => {
    const side = t('apart.cutSays', { below: said(cut.below), cut: cut.text, above: said(cut.above) });
    const read = cut.individuals ? t('apart.cutRead', cut.individuals) : '';
    const doubt =
      typeof cut.from === 'number' && typeof cut.to === 'number'
        ? t('apart.doubt', { from: rounded(cut.from), to: rounded(cut.to), error: Math.round(100 * cut.error) })
        : '';
    return [side, doubt, read].filter(Boolean).join(' ');
  }),
);
</script>

<template>
  <article class="point">
    <header>
      <h4><GlossaryText :text="plain && point.plainQuestion ? point.plainQuestion : point.subject" /></h4>
      <span class="kind">{{ kind }}</span>
      <span v-if="point.kind !== 'SHARED'" class="figures quiet" :title="$t('apart.bitsSay')">{{
        $t('apart.bits', { n: point.bits.toFixed(1) })
      }}</span>
    </header>
    <div class="sides" :style="{ gridTemplateColumns: `repeat(${names.length}, minmax(6rem, 1fr))` }">
      <div v-for="(cell, i) in point.cells" :key="i" class="side">
        <div v-if="cell.states.some((s) => s.picture)" class="pictures">
          <StatePicture
            v-for="state in cell.states.filter((s) => s.picture && s.share > 0)"
            :id="state.picture"
            :key="state.label"
            decorative
          />
        </div>
        <span class="figures"
          ><b v-if="numbers" class="letter">{{ String.fromCharCode(65 + i) }}</b
          ><GlossaryText :text="plain ? cell.plain : cell.text" /><span v-if="cell.doubtful" class="quiet">
            {{ $t('apart.doubtful') }}</span
          ><span v-if="cell.individuals" class="quiet">{{ $t('apart.individuals', cell.individuals) }}</span></span
        >
      </div>
    </div>
    <RangePlot v-if="numbers" :cells="point.cells" :names="names.map((n) => n.label)" :cuts="point.cuts" />
    <p v-for="cut in cuts" :key="cut">{{ cut }}</p>
    <p v-if="point.lack" class="lack">
      {{ $t(`apart.lack.${point.lack}`, { organ: point.organ, method: point.method }) }}
    </p>
    <p v-if="how.length" class="quiet">{{ how.join(' · ') }}</p>
    <details v-if="point.note || point.pitfalls">
      <summary>{{ $t('apart.how') }}</summary>
      <p><GlossaryText :text="point.note" /></p>
      <p v-if="point.pitfalls" class="quiet">{{ point.pitfalls }}</p>
    </details>
  </article>
</template>

<style scoped>
.point {
  padding: 0.6rem 0;
  border-top: 1px solid var(--rule);
}

header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.7rem;
  align-items: baseline;
}

h4 {
  flex: 1 1 9rem;
  font-size: 1rem;
}

.kind {
  font-size: 0.85rem;
  font-weight: 600;
}

.sides {
  display: grid;
  gap: 0.3rem 0.8rem;
  overflow-x: auto;
}

.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem;
}

.letter {
  margin-right: 0.4em;
}

.lack {
  font-weight: 600;
}

p {
  margin: 0.25rem 0;
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { ladder } from '../logic/ladder';

/** All names ranked; beside each, what every answer says for it (up) or against it (down). */
const props = defineProps<{
  standings: Schemas['StandingView'][];
  selected: string[];
  strikeOut: boolean;
  month: number;
}>();
const emit = defineEmits<{ select: [row: string] }>();
const MOST_BITS = 5;
const BAR = 13;
const shown = computed(() => ladder(props.standings).slice(0, 60));

function height(bits: number): number {
  return Math.max(1.5, (Math.min(MOST_BITS, Math.abs(bits)) / MOST_BITS) * BAR);
}
</script>

<template>
  <ol class="ladder">
    <li
      v-for="rung in shown"
      :key="rung.taxon.row"
      :class="{ out: rung.best.struckOut, on: selected.includes(rung.best.name.row) }"
    >
      <button
        type="button"
        :aria-pressed="selected.includes(rung.best.name.row)"
        @click="emit('select', rung.best.name.row)"
      >
        <span class="who">
          <TaxonName :label="rung.taxon.label" :stage="rung.rows.length > 1 ? '' : rung.best.name.stage" />
          <HazardMark :hazard="rung.taxon.hazard" />
          <span v-if="rung.rows.length > 1" class="note">{{
            $t('ask.forms', { forms: rung.rows.map((r) => r.name.stage || r.name.label).join(', ') })
          }}</span>
          <span v-if="rung.contradicts.length" class="note contra">{{
            $t('ask.contradictsWhat', { characters: rung.contradicts.join(', ') })
          }}</span>
          <span v-if="rung.best.outOfSeason" class="note">{{
            $t('ask.outOfSeason', { month: $t(`month.${month}`) })
          }}</span>
        </span>
        <svg :width="Math.max(10, rung.best.why.length * 9)" :height="2 * BAR + 2" aria-hidden="true">
          <line x1="0" :x2="rung.best.why.length * 9" :y1="BAR + 1" :y2="BAR + 1" class="axis" />
          <rect
            v-for="(w, i) in rung.best.why"
            :key="w.character"
            :x="i * 9 + 1"
            width="7"
            :y="w.bits >= 0 ? BAR + 1 - height(w.bits) : BAR + 1"
            :height="height(w.bits)"
            :class="{ against: w.bits < 0, unknown: !w.known }"
          />
        </svg>
        <span class="share figures">
          <span class="bar" :style="{ width: `${Math.max(1, rung.best.namePosterior * 100)}%` }" />
          <template v-if="strikeOut">{{
            $t('ask.mismatches', { n: rung.best.mismatches }, rung.best.mismatches)
          }}</template>
          <template v-else>{{ percent(rung.best.namePosterior) }}</template>
        </span>
      </button>
    </li>
  </ol>
</template>

<script lang="ts">
function percent(share: number): string {
  return share >= 0.995 ? '> 99 %' : share >= 0.01 ? `${Math.round(share * 100)} %` : '< 1 %';
}
</script>

<style scoped>
.ladder {
  list-style: none;
  padding: 0;
  margin: 0;
}

li {
  border-bottom: 1px solid var(--rule);
}

li.on {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 10%, transparent);
}

li.out {
  opacity: 0.62;
  text-decoration: line-through;
}

button {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 7.5rem;
  gap: 0.75rem;
  align-items: center;
  width: 100%;
  text-align: left;
  padding: 0.2rem 0.25rem;
  min-height: 2.3rem;
}

.who {
  font-family: var(--serif);
}

.who .hazard {
  font-family: var(--sans);
  font-size: 0.85rem;
  margin-left: 0.4rem;
}

.note {
  display: block;
  font-family: var(--sans);
  font-size: 0.8rem;
  color: var(--faint);
}

.contra {
  color: rgb(var(--v-theme-error));
}

.axis {
  stroke: var(--rule);
}

rect {
  fill: rgb(var(--v-theme-primary));
}

rect.against {
  fill: rgb(var(--v-theme-error));
}

rect.unknown {
  fill: var(--rule);
}

.share {
  position: relative;
  text-align: right;
  padding-right: 0.3rem;
}

.bar {
  position: absolute;
  right: 0;
  bottom: -0.15rem;
  height: 3px;
  background: rgb(var(--v-theme-primary));
}

@media (max-width: 600px) {
  button {
    grid-template-columns: minmax(0, 1fr) auto 4.5rem;
    min-height: 3rem;
  }
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import { isDangerous } from '@/shared/taxon/hazards';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { ladder } from '../logic/ladder';

/** What can be said now. */
const props = defineProps<{
  result: Schemas['IdentifyResponse'];
  answers: number;
  outside: Schemas['OutsideTaxon'][];
  characters: Map<string, Schemas['StudyCharacter']>;
}>();
const MOST_NAMED = 4;
const LEADS = 0.9;
const remaining = computed(() => props.result.standings.filter((s) => props.result.remaining.includes(s.name.row)));
/** One entry a name; with its sex or stage where only one of them remains. */
const names = computed(() =>
  ladder(remaining.value).map((r) => ({ name: r.rows.length > 1 ? r.taxon : r.best.name, rows: r.rows })),
);
const forms = computed(() => {
  const [only, ...others] = names.value;
  return only && !others.length && only.rows.length > 1 ? only.rows : [];
});
const mustShow = computed(() =>
  props.result.standings[0] && props.result.standings[0].namePosterior >= LEADS
    ? props.result.mustShow.flatMap((c) => props.characters.get(c)?.label ?? [])
    : [],
);
/** What dangerous thing it may still be stands beside every result, on the smallest screen, too: each name once. */
const dangers = computed(() => {
  const inside = props.result.margins.filter((m) => !m.ruledOut).map((m) => m.name);
  const outside = props.outside.filter((o) => isDangerous(o.hazard)).map((o) => ({ label: o.name, hazard: o.hazard }));
  return [...new Map([...inside, ...outside].map(({ label, hazard }) => [label, { label, hazard }])).values()];
});
/** Nothing asks whether one name alone is the right one. */
const conclusion = computed(() =>
  props.result.conclusion === 'REMAINING' && names.value.length === 1 ? 'ALONE' : props.result.conclusion,
);
</script>

<template>
  <section aria-live="polite" class="verdict">
    <h3>{{ $t(`conclusion.${answers ? conclusion : 'START'}`) }}</h3>
    <p v-if="answers && result.conclusion !== 'NONE_LEFT'">
      <template v-for="(s, i) in names.slice(0, MOST_NAMED)" :key="s.name.row"
        ><template v-if="i">, </template><strong><TaxonName :label="s.name.label" :stage="s.name.stage" /></strong
        ><HazardMark v-if="isDangerous(s.name.hazard)" :hazard="s.name.hazard" /></template
      ><template v-if="names.length > MOST_NAMED"
        >{{ ' ' }}{{ $t('ask.more', { n: names.length - MOST_NAMED }) }}</template
      >
    </p>
    <p v-if="answers && result.conclusion === 'SETTLED' && forms.length">
      {{ $t('ask.formOpen', { forms: forms.map((f) => f.name.stage || f.name.label).join(', ') }) }}
    </p>
    <p v-if="answers && mustShow.length">{{ $t('ask.mustShow', { characters: mustShow.join(', ') }) }}</p>
    <p v-if="result.conclusion === 'OUTSIDE'">
      {{ $t('ask.outside') }}
      <template v-for="(o, i) in outside" :key="o.name"
        ><template v-if="i">; </template><TaxonName :label="o.name" /> <HazardMark :hazard="o.hazard"
      /></template>
    </p>
    <p v-if="answers && dangers.length" class="dangers">
      {{ $t('margin.title') }}:
      <template v-for="(d, i) in dangers.slice(0, MOST_NAMED)" :key="d.label"
        ><template v-if="i">, </template><TaxonName :label="d.label" /><HazardMark :hazard="d.hazard"
      /></template>
      <template v-if="dangers.length > MOST_NAMED">{{ $t('ask.more', { n: dangers.length - MOST_NAMED }) }}</template>
    </p>
    <p class="quiet">{{ $t('ask.noPermission') }}</p>
  </section>
</template>

<style scoped>
.verdict {
  border-left: 4px solid rgb(var(--v-theme-primary));
  padding: 0.25rem 0.9rem;
}

.verdict p {
  margin: 0.15rem 0;
}

.dangers {
  color: rgb(var(--v-theme-error));
}
</style>

<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { api } from '@/api/client';
import { useFindings, useStudy } from '@/study-kernel';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { usePreferences } from '@/stores/preferences';
import { asked, type ViewingConditions } from '@/shared/viewing/conditions';

/** The cheapest way to recognise one row under the viewing conditions, as a sentence. */
const props = defineProps<{ row: string; conditions: ViewingConditions }>();
const model = useStudy();
const preferences = usePreferences();
const { t } = useI18n();
const wanted = computed(() => asked(props.conditions, { rows: [props.row] }));
const query = useQuery({
  queryKey: computed(() => ['recognition', model.slug, wanted.value, model.study.value?.revision]),
  queryFn: () => api.get('/api/v1/studies/{slug}/apart/recognitions', { slug: model.slug, ...wanted.value }),
  retry: false,
});
const MOST_NAMES = 8;
const listed = (names: string[]) =>
  names.length > MOST_NAMES
    ? t('apart.andMore', { names: names.slice(0, MOST_NAMES).join('; '), n: names.length - MOST_NAMES })
    : names.join('; ');
const found = computed(() => query.data.value?.[0]);
/** Dangers that two kinds of evidence tell from it; those that fewer do are named as such. */
const ruledOut = computed(() =>
  (found.value?.dangers ?? []).filter(
    (d) => ![...(found.value?.thin ?? []), ...(found.value?.notTold ?? [])].includes(d),
  ),
);
const taxon = computed(() => model.study.value?.rows.find((r) => r.id === props.row));
const findings = useFindings(
  model.slug,
  computed(() => model.study.value?.revision),
);
/** What the author claims of the row or of the taxon that it belongs to, and what testing it came to. */
const claims = computed(() =>
  (model.study.value?.claims ?? [])
    .filter((c) => c.row === props.row || c.row === taxon.value?.parent)
    .map((claim) => {
      const finding = findings.data.value?.find(
        (f) => ['CLAIM_FAILS', 'CLAIM_UNTESTABLE'].includes(f.kind) && f.other === claim.id,
      );
      return { ...claim, standing: finding?.kind ?? 'HOLDS', reason: finding?.reason ?? '' };
    }),
);
</script>

<template>
  <section v-if="taxon" class="note" :aria-label="$t('apart.recognise')">
    <h2><TaxonName :label="taxon.label" :stage="taxon.stage" /> <HazardMark :hazard="taxon.hazard" /></h2>
    <ProblemNote :problem="query.error.value" />
    <v-progress-linear v-if="query.isFetching.value" indeterminate :aria-label="$t('loading')" />
    <template v-if="found">
      <p class="sentence" aria-live="polite">{{ preferences.plain ? found.plainSentence : found.sentence }}</p>
      <v-switch v-model="preferences.plain" :label="$t('plain')" hide-details density="compact" color="primary" />
      <p v-if="found.dangerous">{{ $t('apart.twofold') }}</p>
      <p v-else-if="ruledOut.length">{{ $t('apart.twofoldAgainst', { names: listed(ruledOut) }) }}</p>
      <p v-if="found.thin.length" class="thin">{{ $t('apart.thinAgainst', { names: listed(found.thin) }) }}</p>
      <p class="quiet figures">
        {{
          found.completion === 'OPTIMAL'
            ? $t('apart.cheapest', { cost: found.cost.toFixed(1) })
            : $t('apart.notProven', { cost: found.cost.toFixed(1), bound: found.bound.toFixed(1) })
        }}
      </p>
      <template v-if="claims.length && findings.data.value">
        <h3>{{ $t('apart.claims') }}</h3>
        <ul>
          <li v-for="claim in claims" :key="claim.id">
            {{ claim.text || claim.kind }}: <b>{{ $t(`apart.claim.${claim.standing}`) }}</b>{{ ' ' }}
            <span v-if="claim.reason" class="quiet">{{ claim.reason }}</span>
          </li>
        </ul>
      </template>
      <p class="quiet">{{ $t('apart.caution') }}</p>
    </template>
  </section>
</template>

<style scoped>
.sentence {
  font-family: var(--serif);
  font-size: 1.15rem;
}

.thin {
  font-weight: 600;
}
</style>

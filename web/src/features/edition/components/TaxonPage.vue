<script setup lang="ts">
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { WaysTo } from '@/features/reading';

/** One taxon of an edition: name, hazard, and what it shows. */
const props = defineProps<{
  slug: string;
  number: number;
  study: Schemas['Study'];
  view: Schemas['KeyView'];
  row: string;
  plain: boolean;
}>();
const { t } = useI18n();
const taxon = computed(() => props.study.rows.find((r) => r.id === props.row));
/** Everywhere, then by region. */
const status = computed(() => [
  ...(taxon.value?.status ?? []),
  ...(taxon.value?.occurrence.regions ?? []).map((r) =>
    t(r.doubtful ? 'edition.perhapsIn' : 'edition.statusIn', { status: r.status, region: r.region }),
  ),
]);
const protectedSomewhere = computed(() => status.value.some((s) => /\b(protected|regulated|quarantine)\b/i.test(s)));
const told = useQuery({
  queryKey: computed(() => ['edition', props.slug, props.number, 'taxon', props.row]),
  queryFn: () =>
    api.get('/api/v1/editions/{slug}/{number}/taxa/{row}', {
      slug: props.slug,
      number: props.number,
      row: props.row,
    }),
  enabled: computed(() => taxon.value !== undefined),
  staleTime: Infinity,
  retry: false,
});
/** What is said of one organ stands together. */
const organs = computed(() => {
  const byOrgan = new Map<string, string[]>();
  for (const line of told.data.value ?? []) {
    const text = props.plain ? line.plain : line.technical;
    byOrgan.set(line.organ, [...(byOrgan.get(line.organ) ?? []), text]);
  }
  return [...byOrgan].map(([organ, texts]) => ({ organ, text: `${capital(texts.join('; '))}.` }));
});
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
</script>

<template>
  <article v-if="taxon" class="page taxon">
    <h2><TaxonName :label="taxon.label" :stage="taxon.stage" /></h2>
    <p class="quiet">{{ taxon.plain }} <template v-if="taxon.plain && taxon.rank">·</template> {{ taxon.rank }}</p>
    <p><HazardMark :hazard="taxon.hazard" full /></p>
    <section v-if="taxon.hazards.length" class="hazards">
      <p v-for="h in taxon.hazards" :key="h.kind">
        <strong>{{ h.kind }}</strong> ({{ $t(`hazard.${h.severity}`) }}): {{ h.parts }}. {{ h.caution }}
      </p>
    </section>
    <p v-if="status.length">{{ status.join('; ') }}</p>
    <p v-if="protectedSomewhere">{{ $t('edition.permit') }}</p>
    <p v-if="taxon.description"><GlossaryText :text="taxon.description" /></p>
    <ProblemNote :problem="told.error.value" />
    <v-progress-linear v-if="told.isPending.value" indeterminate :aria-label="$t('loading')" />
    <dl>
      <template v-for="line in organs" :key="line.organ">
        <dt>{{ line.organ || $t('edition.general') }}</dt>
        <dd><GlossaryText :text="line.text" /></dd>
      </template>
    </dl>
    <p class="no-print">
      <router-link :to="{ query: { view: 'check', taxon: row } }">{{ $t('check.think') }}</router-link>
    </p>
    <WaysTo :view="view" :row="row" :plain="plain" />
  </article>
  <p v-else class="page">{{ $t('edition.noTaxon') }}</p>
</template>

<style scoped>
.taxon {
  max-width: 46rem;
}

.hazards {
  border: 2px solid rgb(var(--v-theme-error));
  padding: 0.5rem 1rem;
  margin: 0.75rem 0;
}

dl {
  display: grid;
  grid-template-columns: minmax(8rem, 13rem) 1fr;
  gap: 0.25rem 1rem;
  margin-top: 1rem;
}

dt {
  color: var(--faint);
}

dd {
  margin: 0;
  font-family: var(--serif);
}

@media (max-width: 600px) {
  dl {
    grid-template-columns: 1fr;
  }

  dd + dt {
    margin-top: 0.5rem;
  }
}
</style>

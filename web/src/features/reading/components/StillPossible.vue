<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import { isDangerous } from '@/shared/taxon/hazards';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { stillPossible, type Place } from '../logic/path';

/** What it may still be, what is dangerous of it always in view. */
const props = defineProps<{ view: Schemas['KeyView']; place: Place; taxonLink: string }>();
const names = computed(() => stillPossible(props.view, props.place));
const dangers = computed(() => names.value.filter((n) => isDangerous(n.hazard)));
const doubtful = computed(() => props.place.steps.some((s) => s.doubtful));
/** At an end that is certain there is nothing more to tell. */
const shown = computed(() => props.place.couplet !== undefined || doubtful.value);
</script>

<template>
  <section v-if="shown" class="possible">
    <p v-if="dangers.length" class="dangers">
      {{ $t('reading.dangers') }}
      <template v-for="(n, i) in dangers" :key="n.row"
        >{{ i ? '; ' : '' }}<TaxonName :label="n.label" :stage="n.stage" /><HazardMark
          :hazard="n.hazard"
          :text="n.hazardText" /></template
      >.
    </p>
    <details>
      <summary>{{ $t('reading.possible', { n: names.length }, names.length) }}</summary>
      <ul>
        <li v-for="n in names" :key="n.row">
          <router-link :to="`${taxonLink}${n.row}`"><TaxonName :label="n.label" :stage="n.stage" /></router-link>
          <HazardMark :hazard="n.hazard" :text="n.hazardText" />
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.possible {
  margin-top: 1rem;
  border-top: 1px solid var(--rule);
  padding-top: 0.5rem;
}

summary {
  cursor: pointer;
  min-height: 2rem;
}

ul {
  list-style: none;
  padding: 0;
}

li {
  padding: 0.2rem 0;
}
</style>

<script setup lang="ts">
import type { Schemas } from '@/api/client';
import HazardMark from '@/shared/taxon/HazardMark.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';

/** A dangerous taxon that the way to an end of a key does not rule out, and what else to look at. */
defineProps<{ danger: Schemas['OpenDangerView'] }>();
</script>

<template>
  <p class="open">
    {{ $t('key.notRuledOut') }} <TaxonName :label="danger.name.label" :stage="danger.name.stage" />
    <HazardMark :hazard="danger.name.hazard" :text="danger.name.hazardText" />{{ ' ' }}
    <span>{{
      danger.signs.length ? $t('key.lookAlso', { signs: danger.signs.join('; ') }) : $t('key.nothingRulesOut')
    }}</span>
  </p>
</template>

<style scoped>
.open {
  font-family: var(--sans);
  font-size: 0.85rem;
  margin: 0.15rem 0 0;
}
</style>

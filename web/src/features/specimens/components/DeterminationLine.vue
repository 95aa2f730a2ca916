<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import TaxonName from '@/shared/taxon/TaxonName.vue';

/** A name given to a specimen, as on its label. */
const props = defineProps<{ determination: Schemas['Determination'] }>();
const study = useStudy().study;
const row = computed(() => study.value?.rows.find((r) => r.id === props.determination.row));
const characters = computed(() =>
  props.determination.characters.map((id) => study.value?.characters.find((c) => c.id === id)?.label ?? id),
);
</script>

<template>
  <span>
    {{ determination.qualifier }}
    <TaxonName v-if="row" :label="row.label" :stage="row.stage" /><template v-else>{{ determination.row }}</template>
    <span class="quiet">
      &nbsp;{{ $t(`gather.short.${determination.kind}`) }} {{ determination.by }}
      <span class="figures">{{ determination.date }}</span>
      <template v-if="characters.length"> · {{ $t('gather.used', { characters: characters.join(', ') }) }}</template>
    </span>
  </span>
</template>

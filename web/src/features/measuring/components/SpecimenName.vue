<script setup lang="ts">
import TaxonName from '@/shared/taxon/TaxonName.vue';

/** What a specimen was named last, or that it was not. */
defineProps<{ label: string; stage: string }>();
</script>

<template>
  <TaxonName v-if="label" class="of" :label="label" :stage="stage" />
  <span v-else class="of">{{ $t('measure.unnamed') }}</span>
</template>

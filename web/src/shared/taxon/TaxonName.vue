<script setup lang="ts">
import { computed } from 'vue';
import { nameParts } from './taxonName';

/** A scientific name in italics where due: connecting words such as "subsp." stand upright. */
const props = defineProps<{ label: string; stage?: string }>();
const parts = computed(() => nameParts(props.label));
</script>

<template>
  <span class="name"
    ><template v-for="(part, i) in parts" :key="i"
      ><i v-if="part.italic">{{ part.text }}</i
      ><template v-else>{{ part.text }}</template></template
    ><template v-if="stage">{{ $t('name.stage', { stage }) }}</template></span
  >
</template>

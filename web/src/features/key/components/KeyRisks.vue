<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { inPercent } from '../logic/share';

/** What becomes of readers of a key; nothing in editions from before that was worked out. */
const props = defineProps<{ figures: Schemas['FiguresView']; dangers: boolean }>();

const readers = computed(() =>
  (['trained', 'novice'] as const).flatMap((who) => {
    const risk = props.figures[who];
    return risk ? [{ who, risk }] : [];
  }),
);
</script>

<template>
  <span v-for="{ who, risk } in readers" :key="who" :title="$t('key.riskMeans')">{{
    $t(dangers ? 'key.riskOfDanger' : 'key.risk', {
      readers: $t(`key.readers.${who}`),
      right: inPercent(risk.right),
      wrong: inPercent(risk.wrong),
      dangerous: inPercent(risk.dangerousWrong),
      stuck: inPercent(risk.stuck),
    })
  }}</span>
</template>

<style scoped>
/* An expectation, not a part of the proof beside it. */
span {
  color: var(--faint);
  font-weight: 400;
}
</style>

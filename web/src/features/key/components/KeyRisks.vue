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
  <span v-for="{ who, risk } in readers" :key="who">{{
    $t(dangers ? 'key.riskOfDanger' : 'key.risk', {
      readers: $t(`key.readers.${who}`),
      right: inPercent(risk.right),
      wrong: inPercent(risk.wrong),
      dangerous: inPercent(risk.dangerousWrong),
      stuck: inPercent(risk.stuck),
    })
  }}</span>
  <details v-if="readers.length">
    <summary>{{ $t('key.riskAssumes') }}</summary>
    {{ $t('key.riskMeans') }}
  </details>
</template>

<style scoped>
/* An expectation, not a part of the proof beside it. */
span,
details {
  color: var(--faint);
  font-weight: 400;
}
</style>

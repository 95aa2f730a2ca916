<script setup lang="ts">
import { mdiCheckDecagramOutline } from '@mdi/js';
import type { Schemas } from '@/api/client';
import { bound, claim, taxaOf } from '../logic/claim';
import KeyRisks from './KeyRisks.vue';

/** Whether a key is proven, how long it is, and what becomes of its readers. */
defineProps<{
  view: Schemas['KeyView'];
  dangers: boolean;
  /** Whether its proof does not hold any more. */
  outdated: boolean;
}>();
</script>

<template>
  <div class="figures proof" :class="{ broken: outdated || !view.figures.proven }">
    <v-icon :icon="mdiCheckDecagramOutline" aria-hidden="true" />
    <span v-if="outdated">{{ $t('namedKeys.wasProven') }}</span>
    <span v-else-if="view.figures.proven">{{
      $t('key.proven', { taxa: taxaOf(view), n: view.figures.observations }, taxaOf(view))
    }}</span>
    <span v-else>{{ $t('key.notProven') }}</span>
    <span>{{
      $t(
        'key.figures',
        {
          couplets: view.figures.couplets,
          steps: view.figures.expectedSteps.toFixed(2),
          longest: view.figures.longestPath,
          bound: bound(view).toFixed(2),
        },
        view.figures.couplets,
      )
    }}</span>
    <span>{{ $t(`completion.${claim(view)}`) }}</span>
    <KeyRisks :figures="view.figures" :dangers="dangers" />
    <ul v-if="view.figures.failures.length">
      <li v-for="f in view.figures.failures" :key="f">{{ f }}</li>
    </ul>
  </div>
</template>

<style scoped>
.proof {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.4rem;
  padding: 0.35rem 1rem;
  border-block: 1px solid var(--rule);
  color: rgb(var(--v-theme-success));
  font-weight: 600;
}

.proof span + span {
  color: var(--faint);
  font-weight: 400;
}

.proof.broken {
  color: rgb(var(--v-theme-error));
}
</style>

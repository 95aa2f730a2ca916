<script setup lang="ts">
import type { Schemas } from '@/api/client';

/** What keeps a file from being imported, each with its place. */
defineProps<{ problems: Schemas['Problem'][]; toChoose: boolean }>();
</script>

<template>
  <section aria-labelledby="problems">
    <h2 id="problems">{{ $t('import.problems', { n: problems.length }, problems.length) }}</h2>
    <p>{{ $t(toChoose ? 'import.chooseBelow' : 'import.nothing') }}</p>
    <ol>
      <li v-for="(p, i) in problems" :key="i">
        <span v-if="p.row" class="place figures">{{ $t('import.place', { row: p.row, column: p.column }) }}</span>
        <strong v-if="p.heading">{{ p.heading }}</strong> {{ p.text }}
      </li>
    </ol>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--rule);
  margin-top: 1.5rem;
  padding-top: 1rem;
}

li {
  margin: 0.35rem 0;
}

.place {
  display: inline-block;
  min-width: 10rem;
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
</style>

<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router';

/** Links of which one is chosen: other ways to see the same. */
defineProps<{ label: string; choices: { title: string; to: RouteLocationRaw; chosen: boolean }[] }>();
</script>

<template>
  <nav class="choices no-print" :aria-label="label">
    <router-link
      v-for="choice in choices"
      :key="choice.title"
      :to="choice.to"
      :aria-current="choice.chosen ? 'true' : undefined"
      >{{ choice.title }}</router-link
    >
  </nav>
</template>

<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.4rem;
}

a {
  min-height: 2.75rem;
  display: inline-flex;
  align-items: center;
}

a[aria-current] {
  font-weight: 600;
  color: inherit;
  text-decoration: none;
}
</style>

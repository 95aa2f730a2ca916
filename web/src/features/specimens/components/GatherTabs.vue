<script setup lang="ts">
import { useRoute } from 'vue-router';

/** The pages of gathering: what there is, where it is from, what is read of it, what comes of that. */
const props = defineProps<{ slug: string }>();
const route = useRoute();
const PAGES = ['', 'table', 'map', 'measure', 'cells', 'sheets'] as const;
const to = (page: string) => `/studies/${props.slug}/gather${page ? `/${page}` : ''}`;
</script>

<template>
  <nav class="tabs no-print" :aria-label="$t('gather.pages')">
    <router-link
      v-for="page in PAGES"
      :key="page"
      :to="to(page)"
      :aria-current="route.path === to(page) ? 'page' : undefined"
      >{{ $t(`gather.page.${page || 'list'}`) }}</router-link
    >
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.1rem;
  font-size: 0.92rem;
  margin-bottom: 0.5rem;
}

a {
  padding: 0.15rem 0;
  color: inherit;
  text-decoration: none;
  border-bottom: 2px solid transparent;
}

a:hover {
  border-color: var(--rule);
}

a[aria-current] {
  font-weight: 600;
  border-color: rgb(var(--v-theme-primary));
}
</style>

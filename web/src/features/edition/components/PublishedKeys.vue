<script setup lang="ts">
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { madeFor } from '@/features/key';

/** The keys of an edition to choose from, and what the one that is shown is made for. */
defineProps<{ keys: Schemas['PublishedKey'][]; shown?: Schemas['PublishedKey'] }>();
const { t } = useI18n();
</script>

<template>
  <nav class="keys no-print" :aria-label="$t('namedKeys.inEdition')">
    <router-link :to="{ query: { view: 'key' } }" :aria-current="shown ? undefined : 'true'">{{
      $t('namedKeys.whole')
    }}</router-link>
    <router-link
      v-for="(key, i) in keys"
      :key="key.name"
      :to="{ query: { view: 'key', key: String(i + 1) } }"
      :aria-current="shown === key ? 'true' : undefined"
      >{{ key.name }}</router-link
    >
  </nav>
  <h2 v-if="shown">{{ shown.name }}</h2>
  <p v-if="shown">{{ $t('namedKeys.madeFor', { what: madeFor(shown.request, t) }) }}</p>
</template>

<style scoped>
.keys {
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

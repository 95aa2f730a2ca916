<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { useShelf } from '../composables/useShelf';
import { shelfKeys } from '../logic/shelf';

/** By what specimens are ordered: first by what was chosen first. */
const props = defineProps<{ rows: Schemas['StudyRow'][] }>();
const { t } = useI18n();
const scheme = useShelf();
const keys = computed(() =>
  shelfKeys(props.rows).map((value) => ({
    value,
    title: value.startsWith('rank:') ? value.slice('rank:'.length) : t(`gather.shelf.${value}`),
  })),
);
const chosen = computed({
  get: () => scheme.value.filter((key) => keys.value.some((k) => k.value === key)),
  set: (value) => (scheme.value = value),
});
</script>

<template>
  <v-select
    v-model="chosen"
    :items="keys"
    :label="$t('gather.shelf.label')"
    multiple
    density="compact"
    hide-details
    class="scheme"
  >
    <template #selection="{ item, index }">
      <span class="key">{{ index ? $t('gather.shelf.then', { key: item.title }) : item.title }}</span>
    </template>
  </v-select>
</template>

<style scoped>
.scheme {
  min-width: 13rem;
}

.key {
  margin-right: 0.3em;
}
</style>

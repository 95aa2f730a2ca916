<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { usePreferences } from '@/stores/preferences';
import { onlyIn } from '../logic/difference';
import PrintedKey from './PrintedKey.vue';

/** A key that was kept, beside the one that is shown. */
const props = defineProps<{ other: Schemas['NamedKey']; shown: Schemas['KeyView'] }>();
const emit = defineEmits<{ close: [] }>();
const preferences = usePreferences();
const marked = computed(() => onlyIn(props.other.key, props.shown));
</script>

<template>
  <section tabindex="0" role="region" :aria-label="other.line.name">
    <header>
      <h2>{{ other.line.name }}</h2>
      <v-btn
        size="small"
        variant="text"
        :icon="mdiClose"
        :aria-label="$t('namedKeys.putAway')"
        @click="emit('close')"
      />
    </header>
    <p class="quiet">
      {{ $t('namedKeys.alike', { n: other.key.couplets.length - marked.size, all: other.key.couplets.length }) }}
    </p>
    <PrintedKey :view="other.key" :plain="preferences.plain" :marked="marked" anchor="beside" />
  </section>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
</style>

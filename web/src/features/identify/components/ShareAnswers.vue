<script setup lang="ts">
import { useClipboard, useLocalStorage } from '@vueuse/core';
import { computed, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** A link that leads back to these answers, and what this device keeps of them, so that they can be gone on with. */
const props = defineProps<{ of: string; address: string; begun: boolean }>();
const route = useRoute();
const router = useRouter();

/** On this device only; nothing of a reader is kept anywhere else. */
const kept = useLocalStorage<Record<string, { query: Record<string, string>; at: string }>>('polyclave.begun', {});
const before = kept.value[props.of];
const offered = computed(() => (props.begun ? undefined : before));
const link = computed(() => location.origin + router.resolve({ path: props.address, query: route.query }).href);
const { copy, copied } = useClipboard({ source: link, legacy: true });

watch(
  () => route.query,
  (query) => {
    if (!query.seen) return;
    const texts = Object.entries(query).filter((e): e is [string, string] => typeof e[1] === 'string');
    kept.value = { ...kept.value, [props.of]: { query: Object.fromEntries(texts), at: new Date().toISOString() } };
  },
  { immediate: true },
);

function resume() {
  if (before) void router.push({ query: before.query });
}
</script>

<template>
  <p class="share no-print">
    <v-btn v-if="offered" variant="outlined" size="small" @click="resume">{{
      $t('ask.resume', { when: offered.at.slice(0, 10) })
    }}</v-btn>
    <v-btn v-if="begun" variant="text" size="small" @click="copy()">{{
      copied ? $t('ask.copied') : $t('ask.share')
    }}</v-btn>
    <span class="sr-only" aria-live="polite">{{ copied ? $t('ask.copied') : '' }}</span>
  </p>
</template>

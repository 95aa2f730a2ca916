<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core';
import { computed, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import CopyLink from '@/shared/ui/CopyLink.vue';

/** A link that leads back to these answers, and what this device keeps of them, so that they can be gone on with. */
const props = defineProps<{ of: string; address: string; begun: boolean }>();
const route = useRoute();
const router = useRouter();

/** On this device only; nothing of a reader is kept anywhere else. */
const kept = useLocalStorage<Record<string, { query: Record<string, string>; at: string }>>('polyclave.begun', {});
const before = kept.value[props.of];
const offered = computed(() => (props.begun ? undefined : before));

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
    <CopyLink v-if="begun" :to="{ path: address, query: route.query }" :label="$t('ask.share')" />
  </p>
</template>

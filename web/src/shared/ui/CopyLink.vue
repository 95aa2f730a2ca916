<script setup lang="ts">
import { useClipboard } from '@vueuse/core';
import { computed } from 'vue';
import { useRouter, type RouteLocationRaw } from 'vue-router';

/** Copies an address, and says so. */
const props = defineProps<{ to: RouteLocationRaw; label: string }>();
const router = useRouter();
const link = computed(() => location.origin + router.resolve(props.to).href);
const { copy, copied } = useClipboard({ source: link, legacy: true });
</script>

<template>
  <v-btn variant="text" size="small" @click="copy()">{{ copied ? $t('linkCopied') : label }}</v-btn>
  <span class="sr-only" aria-live="polite">{{ copied ? $t('linkCopied') : '' }}</span>
</template>

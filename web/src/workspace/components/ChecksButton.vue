<script setup lang="ts">
import { mdiClipboardCheckOutline } from '@mdi/js';
import { computed } from 'vue';
import { isOpen, useFindings } from '@/study-kernel';

/** Leads to the checks and tells how many findings are open, or nothing of their number before it is known. */
const props = defineProps<{ slug: string; revision: number | undefined }>();
const findings = useFindings(
  props.slug,
  computed(() => props.revision),
);
const open = computed(() => findings.data.value?.filter(isOpen).length);
</script>

<template>
  <v-btn
    :to="`/studies/${slug}/checks`"
    :prepend-icon="mdiClipboardCheckOutline"
    variant="text"
    size="small"
    class="figures"
    >{{ open === undefined ? $t('checks.title') : $t('checks.open', { n: open }, open) }}</v-btn
  >
</template>

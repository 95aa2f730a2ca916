<script setup lang="ts">
import { mdiClipboardCheckOutline } from '@mdi/js';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { isOpen, useFindings } from '@/study-kernel';

/** Leads to the checks and tells how many findings are open, or nothing of their number before it is known. */
const props = defineProps<{ slug: string; revision: number | undefined }>();
const findings = useFindings(
  props.slug,
  computed(() => props.revision),
);
const open = computed(() => findings.data.value?.filter(isOpen).length);
const { t } = useI18n();
const words = computed(() =>
  open.value === undefined ? t('checks.title') : t('checks.open', { n: open.value }, open.value),
);
</script>

<template>
  <v-btn
    :to="`/studies/${slug}/checks`"
    :prepend-icon="mdiClipboardCheckOutline"
    variant="text"
    size="small"
    class="figures"
    :aria-label="words"
    ><span class="words">{{ words }}</span
    ><span class="count" aria-hidden="true">{{ open }}</span></v-btn
  >
</template>

<style scoped>
.count {
  display: none;
}

@media (max-width: 700px) {
  .words {
    display: none;
  }

  .count {
    display: inline;
  }
}
</style>

<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { madeFor } from '@/features/key';
import ChoiceLinks from '@/shared/ui/ChoiceLinks.vue';

/** The keys of an edition to choose from, and what the one that is shown is made for. */
const props = defineProps<{ keys: Schemas['PublishedKey'][]; shown?: Schemas['PublishedKey'] }>();
const { t } = useI18n();
const choices = computed(() => [
  { title: t('namedKeys.whole'), to: { query: { view: 'key' } }, chosen: !props.shown },
  ...props.keys.map((key, i) => ({
    title: key.name,
    to: { query: { view: 'key', key: String(i + 1) } },
    chosen: props.shown === key,
  })),
]);
</script>

<template>
  <ChoiceLinks :label="$t('namedKeys.inEdition')" :choices="choices" />
  <h2 v-if="shown">{{ shown.name }}</h2>
  <p v-if="shown">{{ $t('namedKeys.madeFor', { what: madeFor(shown.request, t) }) }}</p>
</template>

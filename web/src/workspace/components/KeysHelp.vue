<script setup lang="ts">
import { computed } from 'vue';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** The keys of the present screen. */
const props = defineProps<{ screen: string | undefined }>();
const open = defineModel<boolean>({ required: true });
const EVERYWHERE = ['undo', 'redo', 'palette', 'help'];
const SCREENS: Record<string, string[]> = {
  scope: ['treeArrows', 'treeEnter', 'treeMove', 'treeDelete'],
  apart: ['pairArrows', 'pairNext', 'pairEnter', 'pairZoom'],
  score: [
    'arrows',
    'type',
    'typing',
    'enter',
    'tab',
    'escape',
    'delete',
    'all',
    'copy',
    'paste',
    'fill',
    'find',
    'menu',
  ],
};
const keys = computed(() => [...(SCREENS[props.screen ?? ''] ?? []), ...EVERYWHERE]);
</script>

<template>
  <ModalDialog v-model="open" max-width="32rem" :aria-label="$t('keys.title')">
    <v-card class="pa-4">
      <h2>{{ $t('keys.title') }}</h2>
      <dl>
        <template v-for="key in keys" :key="key">
          <dt>{{ $t(`keys.${key}.key`) }}</dt>
          <dd>{{ $t(`keys.${key}.does`) }}</dd>
        </template>
      </dl>
      <v-btn @click="open = false">{{ $t('close') }}</v-btn>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 10rem 1fr;
  gap: 0.3rem 1rem;
  margin: 1rem 0;
}

dt {
  font-weight: 600;
}

dd {
  margin: 0;
}
</style>

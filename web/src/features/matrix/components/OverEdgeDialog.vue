<script setup lang="ts">
import { computed } from 'vue';
import type { Pasted } from '../logic/grid';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

/** A block that reaches beyond the sheet: what would not fit, and what can be done. */
const props = defineProps<{ block: Pasted | null; canAdd: boolean }>();
const emit = defineEmits<{ write: []; add: []; closed: [] }>();
const open = computed({ get: () => props.block !== null, set: (now) => now || emit('closed') });
</script>

<template>
  <ModalDialog v-model="open" max-width="36rem" :aria-label="$t('overEdge.title')">
    <v-card v-if="block" :title="$t('overEdge.title')">
      <v-card-text>
        <p v-if="block.below.length">{{ $t('overEdge.rows', block.below.length) }}</p>
        <p v-if="block.columns">{{ $t('overEdge.columns', block.columns) }}</p>
        <p>{{ $t('overEdge.nothing') }}</p>
      </v-card-text>
      <v-card-actions>
        <v-btn variant="text" @click="open = false">{{ $t('leave') }}</v-btn>
        <v-btn variant="text" :disabled="!block.cells.length" @click="emit('write')">{{
          $t('overEdge.write', block.cells.length)
        }}</v-btn>
        <v-btn v-if="canAdd && block.below.length" color="primary" variant="flat" @click="emit('add')">{{
          $t('overEdge.add', block.below.length)
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

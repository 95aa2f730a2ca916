<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Schemas } from '@/api/client';
import { OperationDialog } from '@/study-kernel';

/** Adds taxa by a list of names: typed or pasted, one a line. What they become is shown before. */
const props = defineProps<{
  /** How many are wanted, if that is known. */
  wanted?: number;
}>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ added: [names: string[]] }>();
const text = ref('');
const operation = ref<Schemas['AddTaxa'] | null>(null);
/** Of a table, the first column is the names. */
const names = computed(() =>
  text.value
    .split(/\r?\n/)
    .map((line) => (line.split('\t')[0] ?? '').trim())
    .filter(Boolean),
);

watch(open, (now) => {
  if (now) text.value = '';
});

function done() {
  operation.value = null;
  open.value = false;
  emit('added', names.value);
}
</script>

<template>
  <v-dialog v-model="open" max-width="36rem" :aria-label="$t('addTaxa.title')">
    <v-card>
      <v-card-title>{{ $t('addTaxa.title') }}</v-card-title>
      <v-card-text>
        <p v-if="props.wanted">{{ $t('addTaxa.wanted', props.wanted) }}</p>
        <v-textarea
          v-model="text"
          :label="$t('addTaxa.names')"
          :hint="$t('addTaxa.hint')"
          persistent-hint
          rows="8"
          autofocus
          spellcheck="false"
        />
      </v-card-text>
      <v-card-actions>
        <v-btn variant="text" @click="open = false">{{ $t('leave') }}</v-btn>
        <v-btn
          color="primary"
          variant="flat"
          :disabled="!names.length"
          @click="operation = { operation: 'AddTaxa', names }"
          >{{ $t('addTaxa.show', names.length) }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
  <OperationDialog
    :title="$t('addTaxa.title')"
    :yes="$t('addTaxa.add')"
    :operation="operation"
    @done="done"
    @closed="operation = null"
  />
</template>

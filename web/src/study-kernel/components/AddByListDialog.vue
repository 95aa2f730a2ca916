<script setup lang="ts">
import { ref, watch } from 'vue';
import type { Schemas } from '@/api/client';
import OperationDialog from './OperationDialog.vue';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

type Operation = Schemas['OperationRequest']['operation'];

/** Adds many things by a list that is typed or pasted, one a line. What they become is shown before. */
const props = defineProps<{
  title: string;
  label: string;
  hint: string;
  /** Of what is wanted, if that is known. */
  lead?: string;
  /** Words of the button that shows what n lines would add. */
  show: (lines: number) => string;
  operationOf: (lines: string[]) => Operation;
  /** Makes a line of a row of cells that was pasted from a table. */
  lineOf: (cells: string[]) => string;
}>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ added: [lines: string[]] }>();
const text = ref('');
const operation = ref<Operation | null>(null);
const lines = () =>
  text.value
    .split(/\r?\n/)
    .map((line) => props.lineOf(line.split('\t')).trim())
    .filter(Boolean);

watch(open, (now) => {
  if (now) text.value = '';
});

function done() {
  operation.value = null;
  open.value = false;
  emit('added', lines());
}
</script>

<template>
  <ModalDialog v-model="open" max-width="40rem" :aria-label="title">
    <v-card>
      <v-card-title>{{ title }}</v-card-title>
      <v-card-text>
        <p v-if="lead">{{ lead }}</p>
        <v-textarea v-model="text" :label="label" :hint="hint" persistent-hint rows="8" autofocus spellcheck="false" />
      </v-card-text>
      <v-card-actions>
        <v-btn variant="text" @click="open = false">{{ $t('leave') }}</v-btn>
        <v-btn color="primary" variant="flat" :disabled="!lines().length" @click="operation = operationOf(lines())">{{
          show(lines().length)
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
  <OperationDialog
    :title="title"
    :yes="$t('addByList.add')"
    :operation="operation"
    @done="done"
    @closed="operation = null"
  />
</template>

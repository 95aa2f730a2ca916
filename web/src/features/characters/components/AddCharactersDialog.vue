<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { AddByListDialog } from '@/study-kernel';

/** Adds characters by a list, with their states, unit or type. */
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ added: [] }>();
const operationOf = (lines: string[]): Schemas['AddCharacters'] => ({ operation: 'AddCharacters', lines });
const lineOf = ([name = '', ...states]: string[]) => {
  const told = states.map((s) => s.trim()).filter(Boolean);
  return told.length ? `${name}: ${told.join(' | ')}` : name;
};
</script>

<template>
  <AddByListDialog
    v-model="open"
    :title="$t('addCharacters.title')"
    :label="$t('addCharacters.lines')"
    :hint="$t('addCharacters.hint')"
    :show="(n) => $t('addByList.show', n)"
    :operation-of="operationOf"
    :line-of="lineOf"
    @added="emit('added')"
  />
</template>

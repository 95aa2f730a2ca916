<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { AddByListDialog } from '@/study-kernel';

/** Adds taxa by a list of names. */
const props = defineProps<{
  /** How many are wanted, if that is known. */
  wanted?: number;
}>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ added: [names: string[]] }>();
const operationOf = (names: string[]): Schemas['AddTaxa'] => ({ operation: 'AddTaxa', names });
</script>

<template>
  <AddByListDialog
    v-model="open"
    :title="$t('addTaxa.title')"
    :label="$t('addTaxa.names')"
    :hint="$t('addTaxa.hint')"
    :lead="props.wanted ? $t('addTaxa.wanted', props.wanted) : undefined"
    :show="(n) => $t('addByList.show', n)"
    :operation-of="operationOf"
    :line-of="(cells) => cells[0] ?? ''"
    @added="emit('added', $event)"
  />
</template>

<script setup lang="ts">
import { computed } from 'vue';

/** What can be done with the selection, or with the row or character whose heading was pressed. */
export type GridCommand =
  | 'cut'
  | 'copy'
  | 'clear'
  | 'fillDown'
  | 'fillRight'
  | 'doubt'
  | 'certain'
  | 'sortUp'
  | 'sortDown'
  | 'like'
  | 'freeze'
  | 'hide'
  | 'widen'
  | 'addTaxa'
  | 'addCharacters';

const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  at: [number, number];
  editable: boolean;
  structural: boolean;
  sortable: boolean;
}>();
const emit = defineEmits<{ run: [command: GridCommand]; closed: [] }>();
const KEYS: Partial<Record<GridCommand, string>> = {
  cut: 'Ctrl X',
  copy: 'Ctrl C',
  clear: 'Delete',
  fillDown: 'Ctrl D',
  fillRight: 'Ctrl R',
};
const groups = computed<GridCommand[][]>(() =>
  [
    props.editable ? (['cut', 'copy', 'clear', 'fillDown', 'fillRight'] as const) : (['copy'] as const),
    props.editable ? (['doubt', 'certain'] as const) : [],
    [...(props.sortable ? (['sortUp', 'sortDown'] as const) : []), 'like', 'freeze', 'hide', 'widen'] as const,
    props.structural ? (['addTaxa', 'addCharacters'] as const) : [],
  ]
    .map((group) => [...group])
    .filter((group) => group.length),
);

function run(command: GridCommand) {
  open.value = false;
  emit('run', command);
}
</script>

<template>
  <v-menu v-model="open" :target="at" location="bottom start" @after-leave="emit('closed')">
    <v-list density="compact" :aria-label="$t('score.menu.title')">
      <template v-for="(group, i) in groups" :key="i">
        <v-divider v-if="i" />
        <v-list-item v-for="command in group" :key="command" :title="$t(`score.menu.${command}`)" @click="run(command)">
          <template v-if="KEYS[command]" #append>
            <span class="quiet">{{ KEYS[command] }}</span>
          </template>
        </v-list-item>
      </template>
    </v-list>
  </v-menu>
</template>

<style scoped>
.quiet {
  margin-left: 2rem;
  font-size: 0.85rem;
}
</style>

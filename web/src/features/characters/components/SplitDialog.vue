<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Schemas } from '@/api/client';
import { useStudy } from '@/features/study';
import type { Character } from '../logic/characters';

/** What a state is to be split into, and where each of its scores goes; what is not assigned stays open and doubtful. */
const props = defineProps<{ character: Character | null; state: string }>();
const emit = defineEmits<{ show: [operation: Schemas['SplitState']]; closed: [] }>();
const model = useStudy();
/** One a line. */
const names = ref('');
const into = computed(() =>
  names.value
    .split('\n')
    .map((n) => n.trim())
    .filter(Boolean),
);
const assigned = ref<Record<string, string[]>>({});
const state = computed(() => props.character?.states.find((s) => s.id === props.state));
const rows = computed(() =>
  (model.study.value?.rows ?? []).filter((_, i) => {
    const cell = model.columns.cell(i, props.character?.id ?? '');
    return cell && !cell.from && cell.parts.some((p) => p.label === state.value?.label);
  }),
);

watch(
  () => props.state,
  () => {
    names.value = state.value ? `${state.value.label}\n` : '';
    assigned.value = {};
    if (props.character) void model.columns.want([props.character.id]);
  },
);

function show() {
  emit('show', {
    operation: 'SplitState',
    character: props.character?.id,
    state: props.state,
    into: into.value,
    assigned: Object.fromEntries(Object.entries(assigned.value).filter(([, to]) => to.length)),
  });
}
</script>

<template>
  <v-dialog
    :model-value="state !== undefined"
    max-width="38rem"
    scrollable
    :aria-label="$t('character.splitTitle')"
    @update:model-value="$event || emit('closed')"
  >
    <v-card>
      <v-card-title>{{ $t('character.splitTitle') }}</v-card-title>
      <v-card-text>
        <form id="split" @submit.prevent="show">
          <v-textarea v-model="names" :label="$t('character.splitInto')" rows="2" auto-grow autofocus hide-details />
          <p v-if="rows.length" class="quiet">{{ $t('character.splitRows') }}</p>
          <v-select
            v-for="row in rows"
            :key="row.id"
            v-model="assigned[row.id]"
            :items="into"
            :label="row.label + (row.stage ? `, ${row.stage}` : '')"
            multiple
            clearable
            hide-details
          />
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn variant="text" @click="emit('closed')">{{ $t('leave') }}</v-btn>
        <v-btn type="submit" form="split" color="primary" variant="flat" :disabled="into.length < 2">{{
          $t('score.find.show')
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.7rem;
}
</style>

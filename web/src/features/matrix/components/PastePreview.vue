<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Schemas } from '@/api/client';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

export interface Rejection {
  row: string;
  character: string;
  text: string;
  reason: string;
}

/** What of a pasted block is not a score: corrected here, or left out. Nothing is written before. */
const props = defineProps<{
  edits: Schemas['CellEdit'][];
  rejections: Rejection[];
  rows: Schemas['StudyRow'][];
  characters: Schemas['StudyCharacter'][];
}>();
const emit = defineEmits<{ write: [edits: Schemas['CellEdit'][]]; closed: [] }>();
const texts = ref<string[]>([]);
const readable = computed(() => props.edits.length - props.rejections.length);

watch(
  () => props.rejections,
  (found) => (texts.value = found.map((r) => r.text)),
  { immediate: true },
);

function name(rejection: Rejection): string {
  const row = props.rows.find((r) => r.id === rejection.row);
  const character = props.characters.find((c) => c.id === rejection.character);
  return `${row?.label ?? ''}${row?.stage ? `, ${row.stage}` : ''} × ${character?.label ?? ''}`;
}

const place = (cell: { row: string; character: string }) => `${cell.row} ${cell.character}`;

function corrected() {
  const now = new Map(props.rejections.map((r, i) => [place(r), texts.value[i] ?? '']));
  emit(
    'write',
    props.edits.map((e) => ({ ...e, text: now.get(place(e)) ?? e.text })),
  );
}

function others() {
  const out = new Set(props.rejections.map(place));
  emit(
    'write',
    props.edits.filter((e) => !out.has(place(e))),
  );
}
</script>

<template>
  <ModalDialog
    :model-value="rejections.length > 0"
    max-width="46rem"
    scrollable
    :aria-label="$t('paste.title')"
    @update:model-value="$event || emit('closed')"
  >
    <v-card>
      <v-card-title>{{ $t('paste.title') }}</v-card-title>
      <v-card-text>
        <p>{{ $t('paste.lead', { bad: rejections.length, all: edits.length }) }}</p>
        <form id="paste" @submit.prevent="corrected">
          <div v-for="(rejection, i) in rejections" :key="place(rejection)" class="one">
            <v-text-field v-model="texts[i]" :label="name(rejection)" density="compact" hide-details />
            <p class="reason">{{ rejection.reason }}</p>
          </div>
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn variant="text" @click="emit('closed')">{{ $t('paste.nothing') }}</v-btn>
        <v-btn v-if="readable" variant="text" @click="others">{{ $t('paste.others', { n: readable }) }}</v-btn>
        <v-btn type="submit" form="paste" color="primary" variant="flat">{{ $t('paste.corrected') }}</v-btn>
      </v-card-actions>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
.one {
  margin: 0.7rem 0;
}

.reason {
  color: rgb(var(--v-theme-error));
  margin: 0.2rem 0 0;
}
</style>

<script setup lang="ts">
import type { Schemas } from '@/api/client';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

export interface Conflict {
  row: string;
  character: string;
  yours: string;
  theirs: string;
  who: string;
  revision: number;
}

/** Two people changed one cell: both versions, and a decision. */
defineProps<{ conflicts: Conflict[]; rows: Schemas['StudyRow'][]; characters: Schemas['StudyCharacter'][] }>();
const emit = defineEmits<{ keep: [which: 'yours' | 'theirs']; closed: [] }>();
</script>

<template>
  <ModalDialog
    :model-value="conflicts.length > 0"
    persistent
    max-width="40rem"
    :aria-label="$t('conflict.title')"
    @after-leave="emit('closed')"
  >
    <v-card class="pa-5">
      <h2>{{ $t('conflict.title') }}</h2>
      <p>{{ $t('conflict.lead') }}</p>
      <table>
        <thead>
          <tr>
            <th scope="col">{{ $t('conflict.cell') }}</th>
            <th scope="col">{{ $t('conflict.yours') }}</th>
            <th scope="col">{{ $t('conflict.theirs', { who: conflicts[0]?.who }) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in conflicts" :key="c.row + c.character">
            <th scope="row">
              {{ rows.find((r) => r.id === c.row)?.label }} · {{ characters.find((k) => k.id === c.character)?.label }}
            </th>
            <td>{{ c.yours || $t('score.emptyCell') }}</td>
            <td>{{ c.theirs || $t('score.emptyCell') }}</td>
          </tr>
        </tbody>
      </table>
      <div class="choices">
        <v-btn autofocus @click="emit('keep', 'theirs')">{{ $t('conflict.keepTheirs') }}</v-btn>
        <v-btn color="primary" @click="emit('keep', 'yours')">{{ $t('conflict.keepYours') }}</v-btn>
      </div>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  margin: 1rem 0;
}

th,
td {
  text-align: left;
  padding: 0.4rem;
  border-bottom: 1px solid var(--rule);
}

.choices {
  display: flex;
  gap: 1rem;
}
</style>

<script setup lang="ts">
import { mdiMenuDown, mdiRedo, mdiUndo } from '@mdi/js';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useStudy } from '@/study-kernel';
import { useUndo } from '../composables/useUndo';

/** Undo and redo, which say what they would do, and a list of one's own changes. */
const model = useStudy();
const { t, d } = useI18n();
const { undoable, redoable, undoTo } = useUndo(model, () => true);
const undoes = computed(() =>
  undoable.value[0] ? t('undo.undoes', { what: undoable.value[0].says }) : t('undo.noneToUndo'),
);
const redoes = computed(() =>
  redoable.value[0] ? t('undo.redoes', { what: redoable.value[0].says }) : t('undo.noneToRedo'),
);
</script>

<template>
  <span class="undo">
    <v-btn
      :icon="mdiUndo"
      variant="text"
      size="small"
      :aria-label="undoes"
      :title="undoes"
      :disabled="!undoable.length"
      @click="model.undo()"
    />
    <v-menu :disabled="!undoable.length" max-height="24rem">
      <template #activator="{ props: activator }">
        <v-btn
          v-bind="activator"
          :icon="mdiMenuDown"
          variant="text"
          size="x-small"
          :aria-label="$t('undo.list')"
          :title="$t('undo.list')"
          :disabled="!undoable.length"
        />
      </template>
      <v-list density="compact" :aria-label="$t('undo.list')">
        <v-list-subheader>{{ $t('undo.downTo') }}</v-list-subheader>
        <v-list-item
          v-for="change in undoable"
          :key="change.id"
          :title="change.says"
          :subtitle="d(new Date(change.at), { dateStyle: 'medium', timeStyle: 'short' })"
          @click="undoTo(change.id)"
        />
      </v-list>
    </v-menu>
    <v-btn
      :icon="mdiRedo"
      variant="text"
      size="small"
      :aria-label="redoes"
      :title="redoes"
      :disabled="!redoable.length"
      @click="model.redo()"
    />
  </span>
</template>

<style scoped>
.undo {
  display: inline-flex;
  align-items: center;
}
</style>

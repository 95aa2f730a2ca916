<script setup lang="ts">
import { mdiDelete } from '@mdi/js';
import { ref, watch } from 'vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { textOf, type Entry } from '../composables/useEntries';

/** A reading on its way; refused, its text stays here to be corrected. */
const props = defineProps<{
  entry: Entry;
  problem: Error | null;
  /** Of which specimen and character, if not those at hand. */
  of: string;
}>();
const emit = defineEmits<{ retry: [text: string]; discard: [] }>();
const text = ref(textOf(props.entry));
watch(
  () => props.entry,
  (entry) => (text.value = textOf(entry)),
);
</script>

<template>
  <li class="waiting">
    <template v-if="entry.refused">
      <form class="again" @submit.prevent="text.trim() && emit('retry', text)">
        <v-text-field
          v-model="text"
          :label="of ? $t('measure.tray.rightOf', { of }) : $t('measure.tray.right')"
          density="compact"
          hide-details
          autocomplete="off"
        />
        <v-btn type="submit" :disabled="!text.trim()">{{ $t('measure.tray.retry') }}</v-btn>
        <v-btn
          :icon="mdiDelete"
          size="x-small"
          variant="text"
          :aria-label="$t('measure.tray.discard', { typed: text })"
          @click="emit('discard')"
        />
      </form>
      <ProblemNote :problem="problem" />
    </template>
    <p v-else class="quiet" role="status">{{ $t('measure.tray.taking', { typed: textOf(entry) }) }}</p>
  </li>
</template>

<style scoped>
.again {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 0.4rem;
  align-items: center;
}

.waiting {
  border-left: 3px solid rgb(var(--v-theme-error));
  padding: 0.3rem 0.4rem;
  margin-bottom: 0.3rem;
}

.waiting:has(> .quiet) {
  border-left-color: var(--rule);
}

.waiting > p {
  margin: 0;
}
</style>

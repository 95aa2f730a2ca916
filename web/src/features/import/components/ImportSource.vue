<script setup lang="ts">
import { mdiFileTableOutline } from '@mdi/js';
import { computed, ref } from 'vue';

/** Where a table comes from: a file that is chosen or dropped, or what is pasted. */
const props = defineProps<{ file: File | null; busy: boolean }>();
const pasted = defineModel<string>('pasted', { required: true });
const emit = defineEmits<{ choose: [files: FileList | null | undefined]; paste: [] }>();

const dragging = ref(false);
const size = computed(() => {
  const bytes = props.file?.size ?? 0;
  return bytes < 1_000_000
    ? `${Math.max(1, Math.round(bytes / 1000)).toLocaleString('en')} kB`
    : `${(bytes / 1_000_000).toLocaleString('en', { maximumFractionDigits: 1 })} MB`;
});

function drop(event: DragEvent) {
  dragging.value = false;
  emit('choose', event.dataTransfer?.files);
}

/** The same file may be chosen again: somebody may have corrected it. */
function chosen(event: Event) {
  const input = event.target as HTMLInputElement;
  emit('choose', input.files);
  input.value = '';
}
</script>

<template>
  <div class="sources">
    <label
      class="drop"
      :class="{ dragging }"
      @dragover.prevent="dragging = true"
      @dragleave="dragging = false"
      @drop.prevent="drop"
    >
      <v-icon :icon="mdiFileTableOutline" size="2rem" aria-hidden="true" />
      <strong v-if="file" class="name">{{ $t('import.chosen', { name: file.name, size }) }}</strong>
      <span>{{ $t(file ? 'import.another' : 'import.file') }}</span>
      <span class="quiet">{{ $t('import.kinds') }}</span>
      <input
        class="sr-only"
        type="file"
        accept=".csv,.tsv,.txt,.xlsx,.nex,.nexus,.nxs,.json,text/csv"
        @change="chosen"
      />
    </label>
    <div>
      <v-textarea v-model="pasted" :label="$t('import.paste')" rows="5" spellcheck="false" hide-details />
      <v-btn class="mt-2" :disabled="!pasted.trim()" :loading="busy && !file" @click="emit('paste')">{{
        $t('import.read')
      }}</v-btn>
    </div>
  </div>
</template>

<style scoped>
.sources {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 1.5rem;
  margin: 1.5rem 0;
}

.drop {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 0.4rem;
  padding: 0 1rem;
  text-align: center;
  border: 2px dashed var(--rule);
  min-height: 10rem;
  min-width: 0;
  cursor: pointer;
}

.name {
  max-width: 100%;
  overflow-wrap: anywhere;
}

.drop.dragging {
  border-color: rgb(var(--v-theme-primary));
}

.drop:focus-within {
  outline: 3px solid rgb(var(--v-theme-primary));
}

@media (max-width: 700px) {
  .sources {
    grid-template-columns: 1fr;
  }
}
</style>

<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { matching } from '../logic/stages';
import ModalDialog from '@/shared/ui/ModalDialog.vue';

interface Command {
  label: string;
  run: () => unknown;
}

const props = defineProps<{
  commands: Command[];
  /** What the study holds; found only once something is typed. */
  things: Command[];
}>();
const MOST = 40;
const field = ref<HTMLInputElement | null>(null);
const open = defineModel<boolean>({ required: true });
const typed = ref('');
const at = ref(0);
const found = computed(() =>
  matching(typed.value.trim() ? [...props.commands, ...props.things] : props.commands, typed.value).slice(0, MOST),
);

watch(open, async () => {
  typed.value = '';
  at.value = 0;
  await nextTick();
  field.value?.focus();
});
watch(typed, () => (at.value = 0));

function run(command: Command | undefined) {
  if (!command) return;
  open.value = false;
  void command.run();
}

function move(by: number) {
  if (found.value.length) at.value = (at.value + by + found.value.length) % found.value.length;
}
</script>

<template>
  <ModalDialog v-model="open" max-width="34rem" transition="fade-transition" :aria-label="$t('palette.open')">
    <v-card class="pa-3">
      <input
        ref="field"
        v-model="typed"
        class="field"
        autofocus
        spellcheck="false"
        autocomplete="off"
        :placeholder="$t('palette.label')"
        :aria-label="$t('palette.label')"
        role="combobox"
        aria-autocomplete="list"
        aria-expanded="true"
        aria-controls="palette-list"
        :aria-activedescendant="found.length ? `palette-${at}` : undefined"
        @keydown.down.prevent="move(1)"
        @keydown.up.prevent="move(-1)"
        @keydown.enter.prevent="run(found[at])"
      />
      <ul id="palette-list" role="listbox" :aria-label="$t('palette.open')">
        <li
          v-for="(command, i) in found"
          :id="`palette-${i}`"
          :key="`${i} ${command.label}`"
          role="option"
          :aria-selected="i === at"
          :class="{ at: i === at }"
          @click="run(command)"
        >
          {{ command.label }}
        </li>
      </ul>
      <p v-if="!found.length" class="quiet">{{ $t('palette.none') }}</p>
    </v-card>
  </ModalDialog>
</template>

<style scoped>
.field {
  width: 100%;
  padding: 0.6rem 0.75rem;
  border: 1px solid var(--rule);
  font-size: 1.05rem;
}

ul {
  list-style: none;
  padding: 0;
  margin: 0.5rem 0 0;
  max-height: 22rem;
  overflow: auto;
}

li {
  padding: 0.4rem 0.6rem;
  cursor: pointer;
}

.at {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 14%, transparent);
}
</style>

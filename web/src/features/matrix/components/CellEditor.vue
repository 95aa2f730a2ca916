<script setup lang="ts">
import { computed, onMounted, ref, useId, useTemplateRef } from 'vue';
import { completed, suggested } from '../logic/states';
import type { Way } from '../composables/useCellEditing';

/** The text of one cell while it is typed; the states that it may mean stand below. */
const text = defineModel<string>({ required: true });
const props = defineProps<{ states: string[]; fresh: boolean; above: boolean }>();
const emit = defineEmits<{ leave: [way: Way]; cancel: [] }>();
const input = useTemplateRef<HTMLInputElement>('input');
const id = useId();
/** The state that the arrows chose; none at first, so that Enter keeps what was typed. */
const chosen = ref(-1);
const states = computed(() => suggested(text.value, props.states));

onMounted(() => input.value?.focus({ preventScroll: true }));

function leave(way: Way) {
  const state = states.value[chosen.value];
  if (state) text.value = completed(text.value, state);
  emit('leave', way);
}

/** Goes on typing: another state may follow. */
function take(state: string) {
  text.value = completed(text.value, state);
  chosen.value = -1;
  input.value?.focus();
}

function onKey(event: KeyboardEvent) {
  const way = wayOf(event);
  if (event.key === 'Escape') emit('cancel');
  else if (way) leave(way);
  else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    const n = states.value.length + 1;
    chosen.value = ((chosen.value + 1 + (event.key === 'ArrowDown' ? 1 : n - 1)) % n) - 1;
  } else return;
  event.preventDefault();
}

function wayOf(event: KeyboardEvent): Way | null {
  if (event.key === 'Enter') return event.shiftKey ? 'up' : 'down';
  if (event.key === 'Tab') return event.shiftKey ? 'previous' : 'next';
  const listed = states.value.length > 0;
  if (!props.fresh || event.shiftKey) return null;
  if (event.key === 'ArrowDown') return listed ? null : 'down';
  if (event.key === 'ArrowUp') return listed ? null : 'up';
  if (event.key === 'ArrowLeft') return 'left';
  return event.key === 'ArrowRight' ? 'right' : null;
}
</script>

<template>
  <div class="box">
    <input
      ref="input"
      v-model="text"
      class="editor"
      role="combobox"
      :aria-label="$t('score.edit')"
      aria-autocomplete="list"
      :aria-expanded="states.length > 0"
      :aria-controls="`${id}-states`"
      :aria-activedescendant="chosen < 0 ? undefined : `${id}-${chosen}`"
      spellcheck="false"
      autocomplete="off"
      @input="chosen = -1"
      @keydown="onKey"
    />
    <ul v-show="states.length" :id="`${id}-states`" role="listbox" :aria-label="$t('shelf.states')" :class="{ above }">
      <li
        v-for="(state, i) in states"
        :id="`${id}-${i}`"
        :key="state"
        role="option"
        :aria-selected="i === chosen"
        @mousedown.prevent="take(state)"
      >
        {{ state }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.box {
  position: absolute;
  min-width: 18rem;
  z-index: 1;
}

.editor {
  width: 100%;
  height: 2.1rem;
  padding: 0 0.5rem;
  background: rgb(var(--v-theme-surface));
  color: inherit;
  border: 2px solid rgb(var(--v-theme-primary));
  font-size: 0.95rem;
  outline: none;
}

ul {
  position: absolute;
  left: 0;
  right: 0;
  top: 2.1rem;
  max-height: 12rem;
  overflow: auto;
  list-style: none;
  padding: 0.2rem 0;
  background: rgb(var(--v-theme-surface));
  border: 1px solid var(--rule);
  border-top: 0;
}

ul.above {
  top: auto;
  bottom: 2.1rem;
  border-top: 1px solid var(--rule);
}

li {
  padding: 0.2rem 0.6rem;
  cursor: pointer;
}

li:hover,
li[aria-selected='true'] {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 16%, transparent);
}
</style>

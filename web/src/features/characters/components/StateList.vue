<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiCallMerge, mdiCallSplit, mdiClose, mdiPlus } from '@mdi/js';
import { nextTick, ref } from 'vue';
import type { Schemas } from '@/api/client';
import { PictureChooser } from '@/features/pictures';
import { emptyState, shifted } from '../logic/characters';

/** The states of a character, in their order. Enter in the last one adds another. */
const states = defineModel<Schemas['StudyState'][]>({ required: true });
defineProps<{ readonly: boolean }>();
const emit = defineEmits<{ merge: [from: string, into: string]; split: [state: string] }>();
const list = ref<HTMLElement>();

async function add() {
  states.value = [...states.value, emptyState()];
  await nextTick();
  list.value?.querySelector<HTMLInputElement>('li:last-child input')?.focus();
}

function remove(index: number) {
  states.value = states.value.filter((_, i) => i !== index);
}

const others = (id: string) => states.value.filter((s) => s.id && s.id !== id);
</script>

<template>
  <fieldset>
    <legend>{{ $t('character.states') }}</legend>
    <ol ref="list">
      <li v-for="(state, i) in states" :key="i">
        <v-text-field
          v-model="state.label"
          :label="$t('character.state', { n: i + 1 })"
          :readonly="readonly"
          density="compact"
          hide-details
          @keydown.enter.prevent="i === states.length - 1 && add()"
        />
        <v-text-field
          v-model="state.plain"
          :label="$t('character.plainState')"
          :readonly="readonly"
          density="compact"
          hide-details
        />
        <v-text-field
          v-model="state.definition"
          class="wide"
          :label="$t('character.definition')"
          :readonly="readonly"
          density="compact"
          hide-details
        />
        <v-select
          v-if="others(state.id).length && state.id"
          v-model="state.mistakenFor"
          :items="others(state.id).map((s) => ({ value: s.id, title: s.label }))"
          :label="$t('character.mistakenFor')"
          :readonly="readonly"
          multiple
          clearable
          hide-details
        />
        <PictureChooser v-if="state.id" v-model="state.picture" :name="state.label" :readonly="readonly" />
        <div v-if="state.id" class="colour">
          <input v-if="state.swatch" v-model="state.swatch" type="color" :aria-label="$t('character.swatch')" />
          <v-btn
            v-else-if="!readonly"
            size="small"
            variant="text"
            :aria-label="$t('character.addSwatch', { name: state.label })"
            @click="state.swatch = '#888888'"
            >{{ $t('character.swatch') }}</v-btn
          >
          <v-text-field
            v-if="state.swatch"
            v-model="state.comparedWith"
            :label="$t('character.comparedWith')"
            :readonly="readonly"
            density="compact"
            hide-details
          />
        </div>
        <span v-if="!readonly" class="tools">
          <v-btn
            :icon="mdiArrowUp"
            size="x-small"
            variant="text"
            :disabled="i === 0"
            :aria-label="$t('character.up', { name: state.label })"
            @click="states = shifted(states, i, -1)"
          />
          <v-btn
            :icon="mdiArrowDown"
            size="x-small"
            variant="text"
            :disabled="i === states.length - 1"
            :aria-label="$t('character.down', { name: state.label })"
            @click="states = shifted(states, i, 1)"
          />
          <v-menu v-if="state.id && others(state.id).length">
            <template #activator="{ props }">
              <v-btn
                v-bind="props"
                :icon="mdiCallMerge"
                size="x-small"
                variant="text"
                :aria-label="$t('character.mergeInto', { name: state.label })"
              />
            </template>
            <v-list density="compact">
              <v-list-subheader>{{ $t('character.mergeInto', { name: state.label }) }}</v-list-subheader>
              <v-list-item
                v-for="other in others(state.id)"
                :key="other.id"
                :title="other.label"
                @click="emit('merge', state.id, other.id)"
              />
            </v-list>
          </v-menu>
          <v-btn
            v-if="state.id"
            :icon="mdiCallSplit"
            size="x-small"
            variant="text"
            :aria-label="$t('character.split', { name: state.label })"
            @click="emit('split', state.id)"
          />
          <v-btn
            :icon="mdiClose"
            size="x-small"
            variant="text"
            :aria-label="$t('character.removeState', { name: state.label })"
            @click="remove(i)"
          />
        </span>
      </li>
    </ol>
    <v-btn v-if="!readonly" size="small" :prepend-icon="mdiPlus" @click="add">{{ $t('character.addState') }}</v-btn>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
}

legend {
  font-weight: 600;
  margin-bottom: 0.4rem;
}

ol {
  list-style: none;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.45rem;
  margin-bottom: 0.8rem;
  padding-left: 0.8rem;
  border-left: 3px solid var(--rule);
}

.wide {
  grid-column: 1 / 3;
}

.colour {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}

.colour input {
  width: 3rem;
  height: 2rem;
}

.tools {
  grid-column: 1 / 3;
  display: flex;
  margin-top: -0.3rem;
}
</style>

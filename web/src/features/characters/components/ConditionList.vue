<script setup lang="ts">
import { mdiClose, mdiPlus } from '@mdi/js';
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { hasStates, type Character } from '../logic/characters';

/** What other characters must show for one to apply. */
const conditions = defineModel<Schemas['AppliesWhen'][]>({ required: true });
const props = defineProps<{ characters: Character[]; self: string; readonly: boolean }>();
const choices = computed(() =>
  props.characters
    .filter((c) => c.id !== props.self && hasStates(c.type))
    .map((c) => ({ value: c.id, title: c.label })),
);
const statesOf = (id: string) =>
  (props.characters.find((c) => c.id === id)?.states ?? []).map((s) => ({ value: s.id, title: s.label }));

function add() {
  conditions.value = [...conditions.value, { character: '', states: [] }];
}

function remove(index: number) {
  conditions.value = conditions.value.filter((_, i) => i !== index);
}
</script>

<template>
  <fieldset>
    <legend>{{ $t('character.conditions') }}</legend>
    <div v-for="(condition, i) in conditions" :key="i" class="line">
      <v-select
        v-model="condition.character"
        :items="choices"
        :label="$t('character.condition')"
        :readonly="readonly"
        hide-details
        @update:model-value="condition.states = []"
      />
      <v-select
        v-model="condition.states"
        :items="statesOf(condition.character)"
        :label="$t('character.conditionStates')"
        :readonly="readonly"
        multiple
        hide-details
      />
      <v-btn
        v-if="!readonly"
        :icon="mdiClose"
        size="small"
        variant="text"
        :aria-label="$t('character.removeCondition')"
        @click="remove(i)"
      />
    </div>
    <v-btn v-if="!readonly" size="small" :prepend-icon="mdiPlus" @click="add">{{ $t('character.addCondition') }}</v-btn>
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

.line {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 0.45rem;
  margin-bottom: 0.6rem;
}
</style>

<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Schemas } from '@/api/client';
import MonthBand from '@/shared/calendar/MonthBand.vue';
import AskDialog from '@/shared/ui/AskDialog.vue';
import { METHODS, type Character } from '../logic/characters';

/** The same for several characters: what is ticked is changed in all of them, the rest stays with each as it is. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ chosen: string[]; characters: Character[] }>();
const emit = defineEmits<{ show: [operation: Schemas['EditCharacters']] }>();
const FIELDS = ['months', 'method', 'organ', 'effort', 'group'] as const;
type Field = (typeof FIELDS)[number];
const ticked = ref(new Set<Field>());
const draft = ref({ months: [] as number[], method: '', organ: '', effort: 1, group: '' });
const known = (of: (c: Character) => string) => [...new Set(props.characters.map(of).filter(Boolean))];
const choices = computed(() => ({ method: METHODS, organ: known((c) => c.organ), group: known((c) => c.group) }));

/** Whoever writes something means it. */
function tick(field: Field, on = true) {
  const next = new Set(ticked.value);
  if (on) next.add(field);
  else next.delete(field);
  ticked.value = next;
}

function show() {
  const told = Object.fromEntries(FIELDS.filter((f) => ticked.value.has(f)).map((f) => [f, draft.value[f] ?? '']));
  emit('show', { operation: 'EditCharacters', characters: props.chosen, ...told });
  open.value = false;
}
</script>

<template>
  <AskDialog
    v-model="open"
    width="40rem"
    :title="$t('several.title', { n: chosen.length })"
    :text="$t('several.lead')"
    :yes="$t('several.show')"
    :disabled="!ticked.size"
    @give="show"
  >
    <div class="fields">
      <template v-for="field in FIELDS" :key="field">
        <v-checkbox
          :model-value="ticked.has(field)"
          :aria-label="$t('several.change', { field: $t(`character.${field}`) })"
          density="compact"
          hide-details
          @update:model-value="tick(field, Boolean($event))"
        />
        <MonthBand
          v-if="field === 'months'"
          v-model="draft.months"
          :label="$t('character.months')"
          @update:model-value="tick('months')"
        />
        <v-text-field
          v-else-if="field === 'effort'"
          v-model.number="draft.effort"
          type="number"
          min="0"
          step="any"
          density="compact"
          :label="$t('character.effort')"
          hide-details
          @update:model-value="tick('effort')"
        />
        <v-combobox
          v-else
          v-model="draft[field]"
          :items="choices[field]"
          :label="$t(`character.${field}`)"
          hide-details
          @update:model-value="tick(field)"
        />
      </template>
    </div>
  </AskDialog>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0.7rem 0.4rem;
  align-items: center;
}
</style>

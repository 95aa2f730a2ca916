<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';
import { useCompact } from '@/shared/ui/useCompact';
import { useClause } from '../composables/useClause';
import { hasStates, slotOf, withPhrase, type Character } from '../logic/characters';

/** The clause of a character in leads and the words of its states there, with what leads would say. */
const character = defineModel<Character>({ required: true });
const props = defineProps<{ readonly: boolean }>();
const model = useStudy();
const { preview, fault } = useClause(model.slug, () => character.value);
const field = useCompact(() => props.readonly);
const states = computed(() => (hasStates(character.value.type) ? character.value.states : []));

function write(words: 'technical' | 'plain', text: string | null) {
  const lead = { ...character.value.lead, [words]: text || undefined };
  character.value = { ...character.value, lead: lead.technical || lead.plain ? lead : undefined };
}

function say(state: string, words: keyof Schemas['Phrase'], text: string | null) {
  character.value = withPhrase(character.value, state, words, text ?? '');
}
</script>

<template>
  <div class="fields">
    <v-text-field
      v-bind="field"
      :model-value="character.lead?.technical ?? ''"
      :label="$t('lead.technical')"
      :placeholder="preview?.technical"
      :error="!!fault"
      persistent-placeholder
      class="wide"
      @update:model-value="write('technical', $event)"
    />
    <v-text-field
      v-bind="field"
      :model-value="character.lead?.plain ?? ''"
      :label="$t('lead.plain')"
      :placeholder="preview?.plain"
      persistent-placeholder
      class="wide"
      @update:model-value="write('plain', $event)"
    />
    <p class="wide quiet">{{ $t('lead.hint', { slot: slotOf(character.type) }) }}</p>
    <p v-if="fault" class="wide fault" role="alert">{{ fault }}</p>
    <template v-for="state in states" :key="state.id">
      <template v-if="state.id">
        <v-text-field
          v-bind="field"
          :model-value="state.phrase?.technical ?? ''"
          :label="$t('lead.phrase', { name: state.label })"
          :placeholder="state.label"
          @update:model-value="say(state.id, 'technical', $event)"
        />
        <v-text-field
          v-bind="field"
          :model-value="state.phrase?.plain ?? ''"
          :label="$t('lead.plainPhrase', { name: state.label })"
          :placeholder="state.plain || state.label"
          @update:model-value="say(state.id, 'plain', $event)"
        />
        <v-text-field
          v-if="states.length > 2"
          v-bind="field"
          :model-value="state.phrase?.negative ?? ''"
          :label="$t('lead.negative', { name: state.label })"
          class="wide"
          @update:model-value="say(state.id, 'negative', $event)"
        />
      </template>
    </template>
    <div v-if="preview" class="wide" aria-live="polite">
      <h4>{{ $t('lead.examples') }}</h4>
      <ul>
        <li v-for="(example, i) in preview.examples" :key="i">
          {{ example.technical }}
          <span v-if="example.plain !== example.technical" class="quiet">{{ example.plain }}</span>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem;
  container-type: inline-size;
}

.wide {
  grid-column: 1 / -1;
  margin: 0;
}

@container (max-width: 22rem) {
  .fields > * {
    grid-column: 1 / -1;
  }
}

.fault {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

ul {
  list-style: none;
  padding: 0;
  font-family: var(--serif);
}

li span {
  display: block;
}
</style>

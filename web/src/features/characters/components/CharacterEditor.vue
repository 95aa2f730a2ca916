<script setup lang="ts">
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import MonthBand from '@/shared/calendar/MonthBand.vue';
import { hasStates, isNumeric, METHODS, TYPES, unitsOf, withType, type Character } from '../logic/characters';
import ConditionList from './ConditionList.vue';
import LeadFields from './LeadFields.vue';
import StateList from './StateList.vue';
import TrustFields from './TrustFields.vue';
import UseFields from './UseFields.vue';
import WhereFields from './WhereFields.vue';

/** All that is said of a character. */
const character = defineModel<Character>({ required: true });
const props = defineProps<{
  characters: Character[];
  taxa: { value: string; title: string }[];
  readonly: boolean;
  scored: boolean;
}>();
const emit = defineEmits<{ merge: [from: string, into: string]; split: [state: string]; retype: []; next: [] }>();
const { t } = useI18n();
/** Of a new one, Enter in its name saves it and begins the next. */
function next(event: KeyboardEvent) {
  if (character.value.id || event.isComposing) return;
  event.preventDefault();
  emit('next');
}

/** Its preview is only asked for while somebody looks at it. */
const wording = ref(false);
const types = TYPES.map((value) => ({ value, title: t(`type.${value}`) }));
const units = computed(() => unitsOf(character.value.type));
const organs = computed(() => [...new Set(props.characters.map((c) => c.organ).filter(Boolean))]);
const groups = computed(() => [...new Set(props.characters.map((c) => c.group).filter(Boolean))]);
</script>

<template>
  <div class="fields">
    <v-text-field
      v-model="character.label"
      class="wide"
      :label="$t('character.label')"
      :readonly="readonly"
      :autofocus="!character.id"
      hide-details
      @keydown.enter="next"
    />
    <v-text-field
      v-model="character.question"
      class="wide"
      :label="$t('character.question')"
      :readonly="readonly"
      hide-details
    />
    <v-text-field
      v-model="character.plainQuestion"
      class="wide"
      :label="$t('character.plainQuestion')"
      :readonly="readonly"
      hide-details
    />
    <v-select
      :model-value="character.type"
      :items="types"
      :label="$t('character.type')"
      :readonly="readonly || scored"
      hide-details
      @update:model-value="character = withType(character, $event)"
    />
    <v-select
      v-if="units.length"
      v-model="character.unit"
      :items="units"
      :label="$t('character.unit')"
      :readonly="readonly"
      hide-details
    />
    <v-btn v-if="scored && !readonly" class="wide retype" size="small" @click="emit('retype')">{{
      $t('character.retype')
    }}</v-btn>
    <StateList
      v-if="hasStates(character.type)"
      v-model="character.states"
      class="wide"
      :readonly="readonly"
      @merge="(from, into) => emit('merge', from, into)"
      @split="emit('split', $event)"
    />
    <v-combobox
      v-model="character.organ"
      :items="organs"
      :label="$t('character.organ')"
      :readonly="readonly"
      density="compact"
      variant="outlined"
      hide-details
    />
    <v-combobox
      v-model="character.method"
      :items="METHODS"
      :label="$t('character.method')"
      :readonly="readonly"
      density="compact"
      variant="outlined"
      hide-details
    />
    <v-textarea
      v-model="character.note"
      class="wide"
      :label="$t('character.note')"
      :readonly="readonly"
      rows="2"
      auto-grow
      hide-details
    />
    <WhereFields v-model="character" class="wide" :characters="characters" :readonly="readonly" />
    <details class="wide" @toggle="wording = ($event.target as HTMLDetailsElement).open">
      <summary>{{ $t('lead.title') }}</summary>
      <LeadFields v-if="wording" v-model="character" :readonly="readonly" />
    </details>
    <ConditionList
      v-model="character.appliesWhen"
      class="wide"
      :characters="characters"
      :self="character.id"
      :readonly="readonly"
    />
    <MonthBand v-model="character.months" class="wide" :label="$t('character.months')" :readonly="readonly" />
    <v-text-field
      v-model.number="character.effort"
      type="number"
      min="0"
      step="any"
      density="compact"
      :label="$t('character.effort')"
      :readonly="readonly"
      hide-details
    />
    <v-text-field
      v-if="isNumeric(character.type)"
      v-model.number="character.uncertainty"
      type="number"
      min="0"
      step="any"
      density="compact"
      :label="$t('character.uncertainty', { unit: unitsOf(character.type).includes('mm') ? 'mm' : character.unit })"
      :readonly="readonly"
      hide-details
    />
    <v-combobox
      v-model="character.group"
      :items="groups"
      :label="$t('character.group')"
      :readonly="readonly"
      density="compact"
      variant="outlined"
      hide-details
    />
    <UseFields v-model="character" :readonly="readonly" />
    <TrustFields v-model="character" class="wide" :taxa="taxa" :readonly="readonly" />
    <div class="wide">
      <v-checkbox
        v-model="character.harms"
        :label="$t('character.harms')"
        :readonly="readonly"
        density="compact"
        hide-details
      />
      <v-checkbox
        v-model="character.hazardousToObserve"
        :label="$t('character.hazardous')"
        :readonly="readonly"
        density="compact"
        hide-details
      />
      <v-checkbox
        v-model="character.tentative"
        :label="$t('character.tentative')"
        :readonly="readonly"
        density="compact"
        hide-details
      />
    </div>
  </div>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-weight: 600;
  margin-bottom: 0.7rem;
}

.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.9rem;
}

.wide {
  grid-column: 1 / 3;
}

.retype {
  justify-self: start;
}
</style>

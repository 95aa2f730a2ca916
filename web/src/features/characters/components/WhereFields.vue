<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useCompact } from '@/shared/ui/useCompact';
import { hasStates, type Character } from '../logic/characters';

/** Where exactly a character is seen or measured, and what to know before looking. */
const character = defineModel<Character>({ required: true });
const props = defineProps<{ characters: Character[]; readonly: boolean }>();
const { t } = useI18n();
const subjects = (['ORGANISM', 'STAND', 'BEHAVIOUR', 'INDIVIDUAL'] as const).map((value) => ({
  value,
  title: t(`subject.${value}`),
}));
/** After these a specimen is not evidence for it. */
const treatments = (['CUT', 'DISSECTED', 'MOUNTED', 'FLUID', 'DRIED'] as const).map((value) => ({
  value,
  title: t(`gather.treated.${value}`),
}));
const measured = computed(() =>
  props.characters
    .filter((c) => (c.type === 'LENGTH' || c.type === 'COUNT') && c.id !== character.value.id)
    .map((c) => ({ value: c.id, title: c.label })),
);
const FIELDS = ['position', 'side', 'view', 'magnification', 'material'] as const;
const MEASURES = ['dimension', 'from', 'to'] as const;

function part(index: number, id: string | null) {
  const parts = [...character.value.ratioOf];
  parts[index] = id ?? '';
  character.value.ratioOf = parts.some(Boolean) ? [parts[0] ?? '', parts[1] ?? ''] : [];
}
const field = useCompact(() => props.readonly);
</script>

<template>
  <details>
    <summary>{{ $t('character.exactly') }}</summary>
    <div class="fields">
      <v-text-field
        v-for="name in FIELDS"
        v-bind="field"
        :key="name"
        v-model="character.where[name]"
        :label="$t(`where.${name}`)"
      />
      <template v-if="!hasStates(character.type)">
        <v-text-field
          v-for="name in MEASURES"
          v-bind="field"
          :key="name"
          v-model="character.where[name]"
          :label="$t(`where.${name}`)"
        />
      </template>
      <template v-if="character.type === 'RATIO'">
        <v-select
          v-for="(label, i) in ['ratioAbove', 'ratioBelow']"
          v-bind="field"
          :key="label"
          :model-value="character.ratioOf[i] || null"
          :items="measured"
          :label="$t(`character.${label}`)"
          clearable
          @update:model-value="part(i, $event)"
        />
      </template>
      <v-text-field v-bind="field" v-model="character.comparator" class="wide" :label="$t('character.comparator')" />
      <v-textarea
        v-bind="field"
        v-model="character.looking.pitfalls"
        rows="1"
        auto-grow
        class="wide"
        :label="$t('character.pitfalls')"
      />
      <v-text-field
        v-bind="field"
        v-model="character.looking.preservation"
        class="wide"
        :label="$t('character.preservation')"
      />
      <v-select
        v-bind="field"
        v-model="character.looking.alteredBy"
        class="wide"
        :items="treatments"
        :label="$t('character.alteredBy')"
        multiple
        chips
        clearable
      />
      <v-text-field
        v-bind="field"
        v-model.number="character.looking.delayMinutes"
        type="number"
        min="0"
        :label="$t('character.delay')"
      />
      <v-select v-bind="field" v-model="character.looking.subject" :items="subjects" :label="$t('character.subject')" />
    </div>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-weight: 600;
}

.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.7rem;
  margin-top: 0.7rem;
}

.wide {
  grid-column: 1 / 3;
}
</style>

<script setup lang="ts">
import { useI18n } from 'vue-i18n';
import RepeatedFields from '@/shared/ui/RepeatedFields.vue';
import { blank, type Character } from '../logic/characters';
import PercentField from './PercentField.vue';

/** How often readers misread a character: by how trained they are, and in groups where it cannot be trusted as elsewhere. */
const character = defineModel<Character>({ required: true });
const props = defineProps<{ taxa: { value: string; title: string }[]; readonly: boolean }>();
const { t } = useI18n();
const origins = (['DEFAULT', 'EXPERT', 'MEASURED'] as const).map((value) => ({
  value,
  title: t(`trust.origins.${value}`),
}));
const nameOf = (row: string) => props.taxa.find((taxon) => taxon.value === row)?.title ?? row;
</script>

<template>
  <div class="trust">
    <fieldset>
      <legend>{{ $t('trust.title') }}</legend>
      <PercentField
        :model-value="character.misreading"
        :label="$t('trust.trained')"
        :readonly="readonly"
        @update:model-value="character.misreading = $event ?? blank('').misreading"
      />
      <PercentField v-model="character.trust.novice" :label="$t('trust.novice')" :readonly="readonly" optional />
      <v-select
        v-model="character.trust.origin"
        :items="origins"
        :label="$t('trust.origin')"
        :readonly="readonly"
        hide-details
      />
    </fieldset>
    <RepeatedFields
      v-model="character.trust.groups"
      :title="$t('trust.groups')"
      :add="$t('trust.add')"
      :remove="(entry) => $t('trust.remove', { name: nameOf(entry.row) })"
      :blank="{ row: '', trained: character.misreading, why: '' }"
      :readonly="readonly"
    >
      <template #default="{ entry, field }">
        <v-autocomplete v-bind="field" v-model="entry.row" :items="taxa" :label="$t('trust.group')" />
        <v-text-field v-bind="field" v-model="entry.why" :label="$t('trust.why')" />
        <PercentField
          :model-value="entry.trained"
          :label="$t('trust.trained')"
          :readonly="readonly"
          @update:model-value="entry.trained = $event ?? character.misreading"
        />
        <PercentField v-model="entry.novice" :label="$t('trust.novice')" :readonly="readonly" optional />
      </template>
    </RepeatedFields>
  </div>
</template>

<style scoped>
.trust {
  display: grid;
  gap: 0.8rem;
}

fieldset {
  border: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 0.45rem;
}

legend {
  font-weight: 600;
  margin-bottom: 0.4rem;
}
</style>

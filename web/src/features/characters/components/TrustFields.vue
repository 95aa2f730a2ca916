<script setup lang="ts">
import { mdiClose, mdiPlus } from '@mdi/js';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Character } from '../logic/characters';
import PercentField from './PercentField.vue';

/** How often readers misread a character: by how trained they are, and in groups where it cannot be trusted as elsewhere. */
const character = defineModel<Character>({ required: true });
const props = defineProps<{ taxa: { value: string; title: string }[]; readonly: boolean }>();
const { t } = useI18n();
const origins = (['DEFAULT', 'EXPERT', 'MEASURED'] as const).map((value) => ({
  value,
  title: t(`trust.origins.${value}`),
}));
const trained = computed({
  get: () => character.value.misreading,
  set: (rate: number | undefined) => (character.value.misreading = rate ?? 0.05),
});
/** What is taken for novices where nothing is said. */
const usual = (rate: number) => `${Math.round(Math.max(0.12, rate) * 1000) / 10}`;
const free = computed(() => {
  const taken = character.value.trust.groups.map((g) => g.row);
  return (own: string) => props.taxa.filter((taxon) => taxon.value === own || !taken.includes(taxon.value));
});

function add() {
  character.value.trust.groups.push({ row: '', trained: 0.3, why: '' });
}
</script>

<template>
  <fieldset>
    <legend>{{ $t('trust.title') }}</legend>
    <div class="rates">
      <PercentField v-model="trained" :label="$t('trust.trained')" :readonly="readonly" />
      <PercentField
        v-model="character.trust.novice"
        :label="$t('trust.novice')"
        :readonly="readonly"
        :usual="usual(character.misreading)"
      />
      <v-select
        v-model="character.trust.origin"
        :items="origins"
        :label="$t('trust.origin')"
        :readonly="readonly"
        hide-details
      />
    </div>
    <div v-for="(group, i) in character.trust.groups" :key="i" class="group">
      <v-autocomplete
        v-model="group.row"
        :items="free(group.row)"
        :label="$t('trust.group')"
        :readonly="readonly"
        hide-details
      />
      <PercentField
        :model-value="group.trained"
        :label="$t('trust.trained')"
        :readonly="readonly"
        @update:model-value="group.trained = $event ?? 0"
      />
      <PercentField
        v-model="group.novice"
        :label="$t('trust.novice')"
        :readonly="readonly"
        :usual="usual(group.trained)"
      />
      <v-btn
        v-if="!readonly"
        :icon="mdiClose"
        size="small"
        variant="text"
        :aria-label="$t('trust.remove')"
        @click="character.trust.groups.splice(i, 1)"
      />
      <v-text-field
        v-model="group.why"
        class="why"
        density="compact"
        :label="$t('trust.why')"
        :readonly="readonly"
        hide-details
      />
    </div>
    <v-btn v-if="!readonly" size="small" :prepend-icon="mdiPlus" @click="add">{{ $t('trust.add') }}</v-btn>
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

.rates,
.group {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 0.45rem;
  margin-bottom: 0.6rem;
}

.group {
  grid-template-columns: 1.6fr 1fr 1fr auto;
  border-left: 1px solid var(--rule);
  padding-left: 0.6rem;
}

.why {
  grid-column: 1 / -1;
}
</style>

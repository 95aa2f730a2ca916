<script setup lang="ts">
import { useI18n } from 'vue-i18n';
import type { Character } from '../logic/characters';
import PercentField from './PercentField.vue';

/** What part a character may play, and how often it is there to see. */
const character = defineModel<Character>({ required: true });
defineProps<{ readonly: boolean }>();
const { t } = useI18n();
const roles = (['DECIDES', 'CONFIRMS', 'NEVER_FIRST', 'NECESSARY'] as const).map((value) => ({
  value,
  title: t(`use.role.${value}`),
}));
</script>

<template>
  <v-select v-model="character.use.role" :items="roles" :label="$t('use.title')" :readonly="readonly" hide-details />
  <PercentField
    :model-value="character.use.seenOn ?? 1"
    :label="$t('use.seenOn')"
    :readonly="readonly"
    :most="100"
    @update:model-value="character.use.seenOn = $event"
  />
  <p class="wide quiet">{{ $t(`use.why.${character.use.role}`) }}</p>
</template>

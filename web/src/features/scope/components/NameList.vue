<script setup lang="ts">
import { mdiClose, mdiPlus } from '@mdi/js';
import type { Schemas } from '@/api/client';
import { useCompact } from '@/shared/useCompact';

/** Authorship and other names of a taxon: synonyms, misapplied names, vernacular names in any language. */
const names = defineModel<Schemas['Names']>({ required: true });
const props = defineProps<{ readonly: boolean }>();
const LANGUAGES = ['en', 'cy', 'ga', 'gd', 'fr', 'de', 'es', 'nl'];

function addSynonym() {
  names.value.synonyms.push({ name: '', authorship: '', misapplied: false, source: '' });
}

function addVernacular() {
  names.value.vernacular.push({ name: '', language: 'en' });
}
const field = useCompact(() => props.readonly);
</script>

<template>
  <fieldset>
    <legend>{{ $t('names.title') }}</legend>
    <v-text-field v-bind="field" v-model="names.authorship" :label="$t('names.authorship')" />
    <div v-for="(synonym, i) in names.synonyms" :key="`s${i}`" class="one">
      <v-text-field v-bind="field" v-model="synonym.name" :label="$t('names.synonym')" />
      <v-text-field v-bind="field" v-model="synonym.authorship" :label="$t('names.authorship')" />
      <v-text-field v-bind="field" v-model="synonym.source" :label="$t('names.source')" />
      <v-checkbox v-bind="field" v-model="synonym.misapplied" :label="$t('names.misapplied')" />
      <v-btn
        v-if="!readonly"
        :icon="mdiClose"
        size="x-small"
        variant="text"
        :aria-label="$t('names.remove', { name: synonym.name })"
        @click="names.synonyms.splice(i, 1)"
      />
    </div>
    <div v-for="(name, i) in names.vernacular" :key="`v${i}`" class="one">
      <v-text-field v-bind="field" v-model="name.name" :label="$t('names.vernacular')" />
      <v-combobox v-bind="field" v-model="name.language" :items="LANGUAGES" :label="$t('names.language')" />
      <v-btn
        v-if="!readonly"
        :icon="mdiClose"
        size="x-small"
        variant="text"
        :aria-label="$t('names.remove', { name: name.name })"
        @click="names.vernacular.splice(i, 1)"
      />
    </div>
    <div v-if="!readonly" class="add">
      <v-btn size="small" :prepend-icon="mdiPlus" @click="addSynonym">{{ $t('names.addSynonym') }}</v-btn>
      <v-btn size="small" :prepend-icon="mdiPlus" @click="addVernacular">{{ $t('names.addVernacular') }}</v-btn>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  gap: 0.6rem;
}

legend {
  font-weight: 600;
  margin-bottom: 0.4rem;
}

.one {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: center;
  gap: 0.4rem;
  padding-left: 0.8rem;
  border-left: 3px solid var(--rule);
}

.add {
  display: flex;
  gap: 0.6rem;
}
</style>

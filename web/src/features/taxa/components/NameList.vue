<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useCompact } from '@/shared/ui/useCompact';
import RepeatedFields from '@/shared/ui/RepeatedFields.vue';

/** Authorship and other names of a taxon: synonyms, misapplied names, vernacular names in any language. */
const names = defineModel<Schemas['Names']>({ required: true });
const props = defineProps<{ readonly: boolean }>();
const LANGUAGES = ['en', 'cy', 'ga', 'gd', 'fr', 'de', 'es', 'nl'];
const own = useCompact(() => props.readonly);
</script>

<template>
  <div class="names">
    <v-text-field v-bind="own" v-model="names.authorship" :label="$t('names.authorship')" />
    <RepeatedFields
      v-model="names.synonyms"
      :title="$t('names.synonyms')"
      :add="$t('names.addSynonym')"
      :remove="(one) => $t('names.remove', { name: one.name })"
      :blank="{ name: '', authorship: '', misapplied: false, source: '' }"
      :readonly="readonly"
    >
      <template #default="{ entry, field }">
        <v-text-field v-bind="field" v-model="entry.name" :label="$t('names.synonym')" />
        <v-text-field v-bind="field" v-model="entry.authorship" :label="$t('names.authorship')" />
        <v-text-field v-bind="field" v-model="entry.source" :label="$t('names.source')" />
        <v-checkbox v-bind="field" v-model="entry.misapplied" :label="$t('names.misapplied')" />
      </template>
    </RepeatedFields>
    <RepeatedFields
      v-model="names.vernacular"
      :title="$t('names.vernaculars')"
      :add="$t('names.addVernacular')"
      :remove="(one) => $t('names.remove', { name: one.name })"
      :blank="{ name: '', language: 'en' }"
      :readonly="readonly"
    >
      <template #default="{ entry, field }">
        <v-text-field v-bind="field" v-model="entry.name" :label="$t('names.vernacular')" />
        <v-combobox v-bind="field" v-model="entry.language" :items="LANGUAGES" :label="$t('names.language')" />
      </template>
    </RepeatedFields>
  </div>
</template>

<style scoped>
.names {
  display: grid;
  gap: 0.9rem;
}
</style>

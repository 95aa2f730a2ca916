<script setup lang="ts">
import { mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { EntryList, useStudy } from '@/study-kernel';
import { PictureChooser, PictureUpload } from '@/features/pictures';
import { rowChoices } from '@/shared/taxon/rowNames';
import StatePicture from '@/shared/picture/StatePicture.vue';
import { SnapshotList } from '@/features/history';

const model = useStudy();
const { t } = useI18n();
const editable = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const kinds = (['ONLY', 'ALWAYS', 'NEVER'] as const).map((value) => ({ value, title: t(`claims.kind.${value}`) }));
const rows = computed(() => rowChoices(model.study.value?.rows));
const characters = computed(() => (model.study.value?.characters ?? []).filter((c) => c.states.length));
const statesOf = (id: string) =>
  (characters.value.find((c) => c.id === id)?.states ?? []).map((s) => ({ value: s.id, title: s.label }));
const term = (): Schemas['GlossaryTerm'] => ({
  id: '',
  term: '',
  definition: '',
  plain: '',
  synonyms: [],
  misspellings: [],
  picture: '',
});
const reference = (): Schemas['Reference'] => ({ id: '', citation: '', doi: '' });
const claim = (): Schemas['Claim'] => ({ id: '', row: '', kind: 'ONLY', character: '', states: [], text: '' });

const adding = ref(false);
const credit = (picture: Schemas['Picture']) => [picture.credit, picture.licence].filter(Boolean).join(' · ');

/** A claim in words: "Mild only: margin entire". */
function said(entry: Schemas['Claim']): string {
  const row = rows.value.find((r) => r.value === entry.row)?.title ?? entry.row;
  const character = characters.value.find((c) => c.id === entry.character)?.label ?? entry.character;
  const states = statesOf(entry.character).filter((s) => entry.states.includes(s.value));
  return t('claims.line', {
    row,
    kind: t(`claims.kind.${entry.kind}`),
    character,
    states: states.map((s) => s.title).join(', '),
  });
}
</script>

<template>
  <div class="page">
    <h1>{{ $t('referencesPage.title') }}</h1>
    <EntryList
      :title="$t('glossary.title')"
      :lead="$t('glossary.lead')"
      :add="$t('glossary.add')"
      :entries="model.study.value?.glossary ?? []"
      kind="term"
      :blank="term"
      :editable="editable"
    >
      <template #line="{ entry }">
        <StatePicture :id="entry.picture" decorative /> <strong>{{ entry.term }}</strong> {{ entry.definition }}
        <span class="quiet">{{ entry.plain }}</span>
      </template>
      <template #form="{ draft }">
        <v-text-field v-model="draft.term" :label="$t('glossary.term')" autofocus hide-details />
        <v-textarea v-model="draft.definition" :label="$t('glossary.definition')" rows="2" auto-grow hide-details />
        <v-textarea v-model="draft.plain" :label="$t('glossary.plain')" rows="1" auto-grow hide-details />
        <v-combobox
          v-model="draft.synonyms"
          :label="$t('glossary.synonyms')"
          multiple
          chips
          density="compact"
          variant="outlined"
          hide-details
        />
        <v-combobox
          v-model="draft.misspellings"
          :label="$t('glossary.misspellings')"
          multiple
          chips
          density="compact"
          variant="outlined"
          hide-details
        />
        <PictureChooser v-model="draft.picture" :name="draft.term || $t('glossary.term')" />
      </template>
    </EntryList>
    <EntryList
      :title="$t('references.title')"
      :lead="$t('references.lead')"
      :add="$t('references.add')"
      :entries="model.study.value?.references ?? []"
      kind="reference"
      :blank="reference"
      :editable="editable"
    >
      <template #line="{ entry }">
        {{ entry.citation }}
        <span v-if="entry.doi" class="quiet">{{ $t('references.doiOf', { doi: entry.doi }) }}</span>
      </template>
      <template #form="{ draft }">
        <v-textarea
          v-model="draft.citation"
          :label="$t('references.citation')"
          rows="2"
          auto-grow
          autofocus
          hide-details
        />
        <v-text-field v-model="draft.doi" :label="$t('references.doi')" hide-details />
      </template>
    </EntryList>
    <EntryList
      :title="$t('claims.title')"
      :lead="$t('claims.lead')"
      :add="$t('claims.add')"
      :entries="model.study.value?.claims ?? []"
      kind="claim"
      :blank="claim"
      :editable="editable"
    >
      <template #line="{ entry }">
        {{ said(entry) }} <span class="quiet">{{ entry.text }}</span>
      </template>
      <template #form="{ draft }">
        <v-select v-model="draft.row" :items="rows" :label="$t('claims.row')" hide-details />
        <v-select v-model="draft.kind" :items="kinds" :label="$t('claims.what')" hide-details />
        <v-select
          v-model="draft.character"
          :items="characters.map((c) => ({ value: c.id, title: c.label }))"
          :label="$t('claims.character')"
          hide-details
          @update:model-value="draft.states = []"
        />
        <v-select
          v-model="draft.states"
          :items="statesOf(draft.character)"
          :label="$t('claims.states')"
          multiple
          hide-details
        />
        <v-text-field v-model="draft.text" :label="$t('claims.text')" hide-details />
      </template>
    </EntryList>
    <EntryList
      :title="$t('picture.title')"
      :lead="$t('picture.lead')"
      add=""
      :entries="model.study.value?.pictures ?? []"
      kind="picture"
      :editable="editable"
    >
      <template #add>
        <v-btn v-if="editable" size="small" :prepend-icon="mdiPlus" @click="adding = !adding">{{
          $t('picture.new')
        }}</v-btn>
      </template>
      <template #line="{ entry }">
        <span class="picture">
          <StatePicture :id="entry.id" decorative />
          <span>
            {{ entry.shows }}<br />
            <span class="quiet">{{ credit(entry) }}</span>
          </span>
        </span>
      </template>
      <template #form="{ draft }">
        <v-text-field v-model="draft.shows" :label="$t('picture.shows')" autofocus hide-details />
        <v-text-field v-model="draft.credit" :label="$t('picture.credit')" hide-details />
        <v-text-field v-model="draft.licence" :label="$t('picture.licence')" hide-details />
        <v-select
          v-model="draft.row"
          :items="[{ value: '', title: $t('picture.noTaxon') }, ...rows]"
          :label="$t('picture.taxon')"
          hide-details
        />
        <p v-if="draft.place" class="quiet">
          {{ $t('picture.place', { place: draft.place }) }}
          <v-btn size="small" variant="text" @click="draft.place = ''">{{ $t('picture.forget') }}</v-btn>
        </p>
      </template>
    </EntryList>
    <PictureUpload v-if="adding" class="adding" @added="adding = false" />
    <SnapshotList :editable="editable" />
  </div>
</template>

<style scoped>
.picture {
  display: flex;
  gap: 0.8rem;
  align-items: center;
}

.adding {
  max-width: 30rem;
  margin: -1.5rem 0 2.5rem;
}
</style>

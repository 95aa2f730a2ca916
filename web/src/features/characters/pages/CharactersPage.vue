<script setup lang="ts">
import {
  mdiArrowDown,
  mdiArrowUp,
  mdiBookshelf,
  mdiCheckboxMultipleMarkedOutline,
  mdiClose,
  mdiDeleteOutline,
  mdiPlus,
} from '@mdi/js';
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import type { Schemas } from '@/api/client';
import { LoseDialog, OperationDialog, SplitDialog, useEditing, useStudy } from '@/study-kernel';
import ConfirmDialog from '@/shared/ui/ConfirmDialog.vue';
import { rowChoices, rowName } from '@/shared/taxon/rowNames';
import { useWindowed } from '@/shared/ui/useWindowed';
import WriteProblem from '@/shared/ui/WriteProblem.vue';
import { toggled } from '@/shared/ui/toggled';
import { usePreferences } from '@/stores/preferences';
import AddCharactersDialog from '../components/AddCharactersDialog.vue';
import CharacterCard from '../components/CharacterCard.vue';
import DependencyGraph from '../components/DependencyGraph.vue';
import CharacterEditor from '../components/CharacterEditor.vue';
import LibraryDialog from '../components/LibraryDialog.vue';
import PlanPanel from '../components/PlanPanel.vue';
import RetypeDialog from '../components/RetypeDialog.vue';
import SeveralDialog from '../components/SeveralDialog.vue';
import { blank, stepped, type Character } from '../logic/characters';

const model = useStudy();
const preferences = usePreferences();
const wanted = ref('');
const organ = ref('');
const library = ref(false);
const addingMany = ref(false);
const characters = computed(() => model.study.value?.characters ?? []);
const taxa = computed(() => rowChoices(model.study.value?.rows));
const editable = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const editing = useEditing(model, { path: 'characters', object: 'character' }, characters);
const draft = editing.draft;
const removing = ref(false);

/** Characters under the headings of their organs. */
const entries = computed(() => {
  const byOrgan = new Map<string, Character[]>();
  const words = wanted.value.toLowerCase();
  for (const character of characters.value) {
    if (organ.value && character.organ !== organ.value) continue;
    if (!`${character.label} ${character.organ} ${character.question}`.toLowerCase().includes(words)) continue;
    const members = byOrgan.get(character.organ);
    if (members) members.push(character);
    else byOrgan.set(character.organ, [character]);
  }
  return [...byOrgan].flatMap(([name, members]) => [
    { key: `/${name}`, name, character: null },
    ...members.map((character) => ({ key: character.id, name, character })),
  ]);
});
const list = useTemplateRef('list');
const { shown, padding, reveal, measure } = useWindowed(list, entries, (entry) => entry.key, 150);

/** What states are called; those that are gone by their ids. */
function statesOf(id: string, states: string[]): string[] {
  const of = model.study.value?.characters.find((c) => c.id === id)?.states ?? [];
  return states.map((s) => of.find((one) => one.id === s)?.label ?? s);
}

function labelOf(id: string): string {
  return characters.value.find((c) => c.id === id)?.label ?? id;
}

function add() {
  editing.begin(blank(organ.value || (editing.current.value?.organ ?? '')));
}

async function saveAndAdd() {
  if (await editing.save()) add();
}

function place(by: -1 | 1) {
  return draft.value
    ? stepped(
        characters.value.map((c) => c.id),
        draft.value.id,
        by,
      )
    : undefined;
}

function move(by: -1 | 1) {
  const to = place(by);
  if (draft.value && to) void editing.move(draft.value.id, to);
}

const scores = computed(() => {
  const at = characters.value.findIndex((c) => c.id === draft.value?.id);
  return model.study.value?.counts.characters[at] ?? 0;
});
const retyping = ref(false);
/** Those that are to be told the same; null while nobody chooses. */
const chosen = ref<Set<string> | null>(null);
const tellingSeveral = ref(false);
const choose = (id: string) => (chosen.value = toggled(chosen.value ?? new Set(), id));
/** Those that are shown: found by words or by their part. */
const chooseShown = () => (chosen.value = new Set(entries.value.flatMap((e) => (e.character ? [e.character.id] : []))));
const operation = ref<Schemas['OperationRequest']['operation'] | null>(null);
const splitting = ref('');

function merge(from: string, into: string) {
  const merging: Schemas['MergeStates'] = { operation: 'MergeStates', character: draft.value?.id, from, into };
  operation.value = merging;
}

const splits = computed({ get: () => splitting.value !== '', set: (open) => open || (splitting.value = '') });
const splitState = computed(() => editing.current.value?.states.find((s) => s.id === splitting.value)?.label ?? '');
/** The rows whose own score shows the state that is to be split. */
const splitRows = computed(() =>
  (model.study.value?.rows ?? []).flatMap((row, i) => {
    const cell = model.columns.cell(i, draft.value?.id ?? '');
    const shows = cell && !cell.from && cell.parts.some((p) => p.label === splitState.value);
    return shows ? [{ id: row.id, label: rowName(row) }] : [];
  }),
);

function beginSplit(state: string) {
  splitting.value = state;
  if (draft.value) void model.columns.want([draft.value.id]);
}

function split(into: string[], assigned: Record<string, string[]>) {
  const wish: Schemas['SplitState'] = {
    operation: 'SplitState',
    character: draft.value?.id,
    state: splitting.value,
    into,
    assigned,
  };
  splitting.value = '';
  operation.value = wish;
}

function done() {
  operation.value = null;
  chosen.value = null;
  editing.discard();
}

// A link may choose a character far down.
onMounted(async () => {
  await nextTick();
  await reveal(entries.value.findIndex((entry) => entry.key === editing.selected.value));
});
</script>

<template>
  <div class="page" :class="{ editing: draft }">
    <section aria-labelledby="characters">
      <header>
        <h2 id="characters">{{ $t('characters.title') }}</h2>
        <v-btn v-if="editable" size="small" :prepend-icon="mdiPlus" @click="add">{{ $t('character.add') }}</v-btn>
        <v-btn v-if="editable" size="small" :prepend-icon="mdiPlus" @click="addingMany = true">{{
          $t('addTaxa.open')
        }}</v-btn>
        <v-btn
          v-if="editable && characters.length > 1"
          size="small"
          :prepend-icon="mdiCheckboxMultipleMarkedOutline"
          :aria-pressed="chosen !== null"
          @click="chosen = chosen ? null : new Set()"
          >{{ $t('several.open') }}</v-btn
        >
        <v-btn v-if="editable" size="small" :prepend-icon="mdiBookshelf" @click="library = true">{{
          $t('library.open')
        }}</v-btn>
        <v-text-field v-model="wanted" :label="$t('characters.find')" density="compact" hide-details clearable />
        <v-switch v-model="preferences.plain" :label="$t('plain')" density="compact" hide-details color="primary" />
      </header>
      <div v-if="chosen" class="several" role="toolbar" :aria-label="$t('several.open')">
        <span class="figures">{{ $t('several.chosen', { n: chosen.size }) }}</span>
        <v-btn size="small" variant="text" @click="chooseShown">{{ $t('several.all') }}</v-btn>
        <v-btn size="small" color="primary" variant="flat" :disabled="!chosen.size" @click="tellingSeveral = true">{{
          $t('several.tell')
        }}</v-btn>
        <v-btn size="small" variant="text" @click="chosen = null">{{ $t('leave') }}</v-btn>
      </div>
      <details class="plan" :open="organ !== ''">
        <summary>{{ organ ? $t('plan.showing', { organ }) : $t('plan.open') }}</summary>
        <PlanPanel v-model="organ" :editable="editable" />
      </details>
      <DependencyGraph
        :characters="model.study.value?.characters ?? []"
        :selected="editing.selected.value"
        @select="editing.select($event)"
      />
      <div ref="list" :style="padding">
        <template v-for="{ item: { key, name, character }, index } in shown" :key="key">
          <CharacterCard
            v-if="character"
            :ref="measure"
            :data-index="index"
            :character="character"
            :plain="preferences.plain"
            :selected="character.id === editing.selected.value"
            :editable="editable"
            :chosen="chosen?.has(character.id)"
            :label-of="labelOf"
            :states-of="statesOf"
            :name-of="(row) => taxa.find((r) => r.value === row)?.title ?? row"
            @select="editing.select(character.id)"
            @choose="choose(character.id)"
          />
          <h3 v-else :ref="measure" :data-index="index" class="organ">{{ name || $t('characters.noOrgan') }}</h3>
        </template>
      </div>
      <p v-if="!characters.length" class="quiet">{{ $t(editable ? 'characters.begin' : 'empty.readOnly') }}</p>
      <p v-else-if="!entries.length" class="quiet">{{ $t('characters.none') }}</p>
    </section>
    <section v-if="draft" class="shelf" aria-labelledby="character">
      <header>
        <h2 id="character">{{ editing.fresh.value ? $t('character.new') : draft.label }}</h2>
        <template v-if="editable && !editing.fresh.value">
          <v-btn
            :icon="mdiArrowUp"
            size="small"
            variant="text"
            :disabled="!place(-1)"
            :aria-label="$t('character.up', { name: draft.label })"
            @click="move(-1)"
          />
          <v-btn
            :icon="mdiArrowDown"
            size="small"
            variant="text"
            :disabled="!place(1)"
            :aria-label="$t('character.down', { name: draft.label })"
            @click="move(1)"
          />
        </template>
        <v-btn
          :icon="mdiClose"
          size="small"
          variant="text"
          :aria-label="$t('close')"
          @click="editing.fresh.value ? editing.discard() : editing.select('')"
        />
      </header>
      <form @submit.prevent="editing.save()">
        <CharacterEditor
          :key="draft.id"
          v-model="draft"
          :characters="characters"
          :taxa="taxa"
          :readonly="!editable"
          :scored="scores > 0 && !editing.fresh.value"
          @merge="merge"
          @split="beginSplit"
          @retype="retyping = true"
          @next="saveAndAdd"
        />
        <div v-if="editable" class="shelf-buttons">
          <WriteProblem :problem="editing.problem.value" @theirs="editing.theirs" @mine="editing.save" />
          <v-btn type="submit" color="primary" variant="flat" :loading="editing.busy.value">{{ $t('save') }}</v-btn>
          <v-btn variant="text" :disabled="!editing.dirty.value" @click="editing.discard">{{ $t('discard') }}</v-btn>
          <span v-if="editing.saved.value && !editing.dirty.value" role="status">{{ $t('saved') }}</span>
          <v-spacer />
          <v-btn v-if="!editing.fresh.value" color="error" :prepend-icon="mdiDeleteOutline" @click="removing = true">{{
            $t('remove')
          }}</v-btn>
        </div>
      </form>
      <ConfirmDialog
        v-model="removing"
        :title="$t('character.removeTitle')"
        :text="$t('character.removal', { name: draft.label, n: scores }, scores)"
        :yes="$t('remove')"
        @confirm="editing.remove(draft.id)"
      />
      <SplitDialog
        v-model="splits"
        :title="$t('character.splitTitle')"
        :into="$t('character.splitInto')"
        :hint="$t('character.splitRows')"
        :first="splitState"
        :items="splitRows"
        @show="split"
      />
      <RetypeDialog v-model="retyping" :character="draft" @show="operation = $event" />
    </section>
    <SeveralDialog
      v-if="chosen"
      v-model="tellingSeveral"
      :chosen="[...chosen]"
      :characters="characters"
      @show="operation = $event"
    />
    <OperationDialog
      :title="$t('character.operation')"
      :yes="$t('character.change')"
      :operation="operation"
      @done="done"
      @closed="operation = null"
    />
    <LibraryDialog v-model="library" />
    <AddCharactersDialog v-model="addingMany" />
    <LoseDialog :editing="editing" />
  </div>
</template>

<style scoped>
.page.editing {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(20rem, 1fr);
  gap: 2.5rem;
  max-width: none;
}

header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
}

header h2 {
  flex: 1;
}

header .v-text-field {
  max-width: 16rem;
}

.several {
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  padding: 0.5rem 0;
  background: rgb(var(--v-theme-background));
}

.plan {
  margin: 0.6rem 0;
}

.organ {
  margin-top: 1.4rem;
  padding-bottom: 0.25rem;
  border-bottom: 2px solid rgb(var(--v-theme-primary));
}

.organ::first-letter {
  text-transform: uppercase;
}

form {
  display: grid;
  gap: 0.9rem;
  margin-top: 0.75rem;
}

@media (max-width: 900px) {
  .page.editing {
    grid-template-columns: 1fr;
  }
}
</style>

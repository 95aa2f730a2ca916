<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { Problem, type Schemas } from '@/api/client';
import { OperationDialog, useStudy, type Cell } from '@/study-kernel';
import { AddCharactersDialog } from '@/features/characters';
import { AddTaxaDialog } from '@/features/taxa';
import { rowName } from '@/shared/taxon/rowNames';
import CellShelf from '../components/CellShelf.vue';
import ConflictDialog, { type Conflict } from '../components/ConflictDialog.vue';
import OverEdgeDialog from '../components/OverEdgeDialog.vue';
import EmptySheet from '../components/EmptySheet.vue';
import FindReplaceDialog from '../components/FindReplaceDialog.vue';
import type { GridCommand } from '../components/GridMenu.vue';
import PastePreview, { type Rejection } from '../components/PastePreview.vue';
import PrintedSheet from '../components/PrintedSheet.vue';
import RefusedTexts from '../components/RefusedTexts.vue';
import ManyOrigins from '../components/ManyOrigins.vue';
import ScoreGrid from '../components/ScoreGrid.vue';
import ScoreTools from '../components/ScoreTools.vue';
import ScoringQueue, { type QueueItem } from '../components/ScoringQueue.vue';
import { useOverEdge } from '../composables/useOverEdge';
import { useSheet } from '../composables/useSheet';
import { COUNTED } from '../logic/counted';
import { SIZE } from '../logic/geometry';
import { toggled } from '@/shared/ui/toggled';
import { cellsOf, corners, sizeOf, type Place, type Selection } from '../logic/grid';

const model = useStudy();
const { t } = useI18n();
const route = useRoute();
const router = useRouter();
const sheet = useSheet(model);
const { rows, characters, filter, grouped, hidden, frozen } = sheet;
const grid = useTemplateRef<InstanceType<typeof ScoreGrid>>('grid');
const problem = ref('');
const conflicts = ref<Conflict[]>([]);
const pasted = ref<{ edits: Schemas['CellEdit'][]; rejections: Rejection[] }>({ edits: [], rejections: [] });
const finding = ref(false);
const operation = ref<Schemas['ReplaceScores'] | null>(null);
const selection = ref<Selection>({ at: { row: 0, column: 0 }, anchor: { row: 0, column: 0 } });
const editable = computed(() => model.study.value?.role !== 'VIEWER');
const references = computed(() => model.study.value?.references ?? []);
const mode = computed<string>({
  get: () => (route.query.mode === 'character' || route.query.mode === 'row' ? route.query.mode : 'sheet'),
  set: (value) => void router.replace({ query: { ...route.query, mode: value === 'sheet' ? undefined : value } }),
});

const row = computed(() => rows.value[selection.value.at.row]?.row);
const character = computed(() => characters.value[selection.value.at.column]);
const cell = computed(() => sheet.cellAt(selection.value.at.row, selection.value.at.column));
const selectedRows = computed(() => {
  const box = corners(selection.value);
  return rows.value.slice(box.top, box.bottom + 1).map((r) => r.row.id);
});

/** What is scored one after the other: the rows of a character, or the characters of a row. */
const queue = computed<QueueItem[]>(() => {
  const item = (r: Schemas['StudyRow'], c: Schemas['StudyCharacter'], named: boolean): QueueItem => ({
    id: `${r.id}-${c.id}`,
    row: r,
    character: c,
    named,
    title: named ? '' : c.label,
    cell: sheet.cellOf(r.id, c.id),
    draft: sheet.drafts.of(r.id, c.id),
  });
  const at = { row: row.value, character: character.value };
  if (mode.value === 'row' && at.row) return characters.value.map((c) => item(at.row as Schemas['StudyRow'], c, false));
  return rows.value.flatMap(({ row: r }) => (at.character ? [item(r, at.character, true)] : []));
});
const heading = computed(() =>
  mode.value === 'row' ? (row.value ? rowName(row.value) : '') : (character.value?.label ?? ''),
);
const active = computed({
  get: () => (mode.value === 'row' ? selection.value.at.column : selection.value.at.row),
  set: (n) => {
    const at = mode.value === 'row' ? { ...selection.value.at, column: n } : { ...selection.value.at, row: n };
    selected({ at, anchor: at });
  },
});

/** The cell that the address names, as soon as there is something to choose from. */
const restored = watch(
  [rows, characters],
  () => {
    if (!rows.value.length || !characters.value.length) return;
    const found = (n: number) => Math.max(0, n);
    const at = {
      row: found(rows.value.findIndex((t) => t.row.id === route.query.row)),
      column: found(characters.value.findIndex((c) => c.id === route.query.character)),
    };
    selection.value = { at, anchor: at };
    void nextTick(() => restored());
  },
  { immediate: true },
);

onMounted(() => grid.value?.focus());

/** Whoever lists what was missing goes on in the sheet, as soon as it is there. */
const begun = ref(false);
watch(grid, (now) => {
  if (now && begun.value) now.focus();
});

function selected(next: Selection) {
  selection.value = next;
  problem.value = '';
  void router.replace({
    query: {
      ...route.query,
      row: rows.value[next.at.row]?.row.id,
      character: characters.value[next.at.column]?.id,
    },
  });
}

function editOf(place: Place & { text: string }): Schemas['CellEdit'] {
  return {
    row: rows.value[place.row]?.row.id ?? '',
    character: characters.value[place.column]?.id ?? '',
    text: place.text,
    baseRevision: sheet.cellAt(place.row, place.column)?.revision ?? 0,
  };
}

const structural = computed(() => ['EDITOR', 'OWNER'].includes(model.study.value?.role ?? ''));
const over = useOverEdge(model, {
  editsOf: (cells) => cells.filter((c) => c.text !== ownText(c)).map(editOf),
  characters: () => characters.value.map((c) => c.id),
  revisionOf: (row, character) => sheet.cellOf(row, character)?.revision ?? 0,
  send,
});

async function edit(cells: (Place & { text: string })[]) {
  problem.value = '';
  const changed = cells.filter((c) => sheet.draftOf(c.row, c.column) || c.text !== ownText(c));
  if (changed.length === 1 && changed[0]) type(changed[0]);
  if (changed.length < 2) return;
  // What was typed into one of them before goes first, and is then what this one saw.
  if (changed.some((c) => sheet.draftOf(c.row, c.column))) await sheet.drafts.settled();
  await send(changed.map(editOf));
}

/** A single cell is written on its own, while the writer goes on. What stands there already is not written again. */
function type(place: Place & { text: string }) {
  const of = { row: rows.value[place.row]?.row.id ?? '', character: characters.value[place.column]?.id ?? '' };
  if (place.text === ownText(place) && sheet.draftOf(place.row, place.column)?.reason)
    sheet.drafts.discard(of.row, of.character);
  else void sheet.drafts.type(of.row, of.character, place.text);
}

function ownText(place: Place): string {
  const shown = sheet.cellAt(place.row, place.column);
  return shown && !shown.from ? shown.text : '';
}

/** Scores an item of the queue; the same text again changes nothing. */
function score(item: QueueItem, text: string) {
  problem.value = '';
  const now = item.cell && !item.cell.from ? item.cell.text : '';
  if (text !== now || item.draft) void sheet.drafts.type(item.row.id, item.character.id, text);
}

/** What was typed into the cell goes first: where it comes from is said of that. */
async function setOrigin(origin: Schemas['Origin'], at?: QueueItem) {
  const place = { row: at?.row.id ?? row.value?.id ?? '', character: at?.character.id ?? character.value?.id ?? '' };
  await sheet.drafts.settled();
  const of = sheet.cellOf(place.row, place.character);
  if (of) await send([{ ...place, text: of.text, baseRevision: of.revision, origin }]);
}

const addingTaxa = ref(false);
const addingCharacters = ref(false);

/** Scores of the selection that are the rows' own. */
const selectedScores = computed(() => {
  const box = corners(selection.value);
  return (sizeOf(box) > COUNTED ? [] : cellsOf(box)).flatMap((place) => {
    const of = sheet.cellAt(place.row, place.column);
    const [row, character] = [rows.value[place.row]?.row.id, characters.value[place.column]?.id];
    return of?.basis && !of.from && row && character ? [{ row, character, cell: of }] : [];
  });
});

/** Says the same of the origin of many scores; what else is said of each stays. */
async function setOrigins(same: Partial<Schemas['Origin']>) {
  if (!selectedScores.value.length) return;
  await sheet.drafts.settled();
  await send(
    selectedScores.value.map(({ row, character, cell: of }) => ({
      row,
      character,
      text: of.text,
      baseRevision: of.revision,
      origin: { ...originOf(of), ...same },
    })),
  );
  grid.value?.focus();
}

function originOf({ basis, source, doubtful, note, months, concept, sample }: Cell): Schemas['Origin'] {
  return { basis: basis as Schemas['Origin']['basis'], source, doubtful, note, months, concept, sample };
}

/** What is selected has not come yet. */
function wait(from: number, to: number) {
  problem.value = t('score.stillLoading');
  void model.columns.want(characters.value.slice(from, to + 1).map((c) => c.id)).then(() => (problem.value = ''));
}

/** Commands of the sheet that are about more than the texts in it. */
function run(command: GridCommand) {
  const of = character.value;
  if (command === 'addTaxa') addingTaxa.value = true;
  else if (command === 'addCharacters') addingCharacters.value = true;
  else if (command === 'doubt' || command === 'certain') void setOrigins({ doubtful: command === 'doubt' });
  else if (of) arrange(command, of.id);
}

function arrange(command: GridCommand, id: string) {
  if (command === 'sortUp' || command === 'sortDown')
    sheet.sorting.value = { character: id, down: command === 'sortDown' };
  else if (command === 'like') sheet.like.value = { character: id, text: cell.value?.text ?? '' };
  else if (command === 'freeze') frozen.value = toggled(frozen.value, id);
  else if (command === 'hide') hidden.value = toggled(hidden.value, id);
  else if (command === 'widen') widen(selection.value.at.column, 2 * SIZE.column);
}

function widen(column: number, width: number) {
  const of = characters.value[column];
  if (of) sheet.widths.value = { ...sheet.widths.value, [of.id]: width };
}

async function doubt(item: QueueItem) {
  await sheet.drafts.settled();
  const now = sheet.cellOf(item.row.id, item.character.id);
  if (!now) return;
  await setOrigin({ ...originOf(now), doubtful: !now.doubtful }, item);
}

async function send(edits: Schemas['CellEdit'][]) {
  try {
    await model.edit(edits);
    pasted.value = { edits: [], rejections: [] };
    edits.forEach((e) => sheet.drafts.discard(e.row, e.character));
  } catch (failure) {
    await explain(failure as Problem, edits);
  }
}

async function explain(failure: Problem, edits: Schemas['CellEdit'][]) {
  if (failure.code === 'cell-changed') {
    conflicts.value = failure.details.conflicts as Conflict[];
    return;
  }
  const rejections = (failure.details.rejections as Rejection[] | undefined) ?? [];
  if (rejections.length) pasted.value = { edits, rejections };
  else problem.value = failure.message;
}

/** The draft of the cell that is selected, and what of it is wrong. */
const draft = computed(() => sheet.draftOf(selection.value.at.row, selection.value.at.column));
const reason = computed(() => problem.value || (draft.value?.reason ?? ''));
/** Goes to a cell whose text was refused, wherever it is, and opens it. */
async function correct(of: { row: string; character: string; conflict: Conflict | null }) {
  if (of.conflict) {
    select(of);
    conflicts.value = [of.conflict];
    return;
  }
  const there = () =>
    rows.value.some((r) => r.row.id === of.row) && characters.value.some((c) => c.id === of.character);
  if (!there()) {
    filter.value = 'all';
    hidden.value = new Set();
  }
  mode.value = 'sheet';
  await nextTick();
  select(of);
  await nextTick();
  await grid.value?.begin(sheet.drafts.of(of.row, of.character)?.text ?? '');
}

function select(to: { row: string; character: string }) {
  const at = {
    row: rows.value.findIndex((t) => t.row.id === to.row),
    column: characters.value.findIndex((c) => c.id === to.character),
  };
  selection.value = { at, anchor: at };
}

async function settle(which: 'yours' | 'theirs') {
  const settled = conflicts.value;
  conflicts.value = [];
  settled.forEach((c) => sheet.drafts.discard(c.row, c.character));
  if (which === 'yours')
    await send(settled.map((c) => ({ row: c.row, character: c.character, text: c.yours, baseRevision: c.revision })));
  else await model.catchUp();
}

async function pick(state: string) {
  await edit([{ ...selection.value.at, text: state }]);
  grid.value?.focus();
}

function found(wish: Schemas['ReplaceScores']) {
  finding.value = false;
  operation.value = wish;
}
</script>

<template>
  <PrintedSheet v-if="model.study.value" :grid="sheet.grid.value" :title="model.study.value.title" />
  <div class="score no-print" :class="mode">
    <h1 class="sr-only">{{ $t('stage.score') }}</h1>
    <div class="main">
      <ScoreTools
        v-model:mode="mode"
        v-model:filter="filter"
        v-model:grouped="grouped"
        v-model:hidden="hidden"
        v-model:frozen="frozen"
        v-model:sorting="sheet.sorting.value"
        v-model:like="sheet.like.value"
        :characters="sheet.all.value"
        :editable="editable"
        @find="finding = true"
      />
      <EmptySheet
        v-if="model.study.value && (!model.study.value.rows.length || !sheet.all.value.length)"
        :slug="model.study.value.slug"
        :taxa="model.study.value.rows.length"
        :characters="sheet.all.value.length"
        :editable="structural"
        @added="begun = true"
      />
      <p v-else-if="!rows.length || !characters.length" class="page">{{ $t('score.noneLikeThis') }}</p>
      <ScoreGrid
        v-else-if="mode === 'sheet'"
        ref="grid"
        :selection="selection"
        :grid="sheet.grid.value"
        :editable="editable"
        :structural="structural"
        :problem="reason"
        @update:selection="selected"
        @find="finding = true"
        @run="run"
        @width="widen"
        @edit="edit"
        @over="over.reach"
        @look="sheet.look"
        @wait="wait"
        @dismiss="problem = ''"
      />
      <ScoringQueue
        v-else
        v-model:active="active"
        :items="queue"
        :heading="heading"
        :by-row="mode === 'row'"
        :editable="editable"
        :problem="reason"
        @score="score"
        @doubt="doubt"
        @dismiss="problem = ''"
      />
      <RefusedTexts
        :texts="sheet.drafts.refused.value"
        :rows="model.study.value?.rows ?? []"
        :characters="sheet.all.value"
        @correct="correct"
        @again="sheet.drafts.type($event.row, $event.character, $event.text)"
        @discard="sheet.drafts.discard($event.row, $event.character)"
      />
    </div>
    <ManyOrigins
      v-if="mode === 'sheet' && editable && selectedScores.length > 1"
      :scores="selectedScores.length"
      :references="references"
      @save="setOrigins"
    />
    <CellShelf
      v-else-if="row && character"
      :slug="model.slug"
      :row="row"
      :character="character"
      :cell="cell"
      :from="model.study.value?.rows.find((r) => r.id === cell?.from)"
      :references="references"
      :specimens="model.study.value?.specimens ?? []"
      :findings="sheet.flagsOf(row.id, character.id)"
      :comments="sheet.comments"
      :editable="editable"
      :brief="mode !== 'sheet'"
      @pick="pick"
      @origin="setOrigin($event)"
    />
    <ConflictDialog
      :conflicts="conflicts"
      :rows="model.study.value?.rows ?? []"
      :characters="characters"
      @keep="settle"
      @closed="grid?.focus()"
    />
    <OverEdgeDialog
      :block="over.adding.value ? null : over.block.value"
      :can-add="structural"
      @write="over.writeFitting"
      @add="over.adding.value = true"
      @closed="over.block.value = null"
    />
    <AddTaxaDialog v-model="addingTaxa" />
    <AddCharactersDialog v-model="addingCharacters" />
    <AddTaxaDialog v-model="over.adding.value" :wanted="over.block.value?.below.length" @added="over.writeWith" />
    <PastePreview
      :edits="pasted.edits"
      :rejections="pasted.rejections"
      :rows="model.study.value?.rows ?? []"
      :characters="characters"
      @write="send"
      @closed="pasted = { edits: [], rejections: [] }"
    />
    <FindReplaceDialog
      v-model="finding"
      :characters="sheet.all.value"
      :references="references"
      :character="character?.id ?? ''"
      :rows="selectedRows"
      @show="found"
    />
    <OperationDialog
      :title="$t('score.find.title')"
      :yes="$t('score.find.replace')"
      :operation="operation"
      @done="operation = null"
      @closed="operation = null"
    />
  </div>
</template>

<style scoped>
.score {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 19rem;
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}

.main {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  grid-auto-rows: auto;
  min-width: 0;
  min-height: 0;
  height: 100%;
}

@media (max-width: 800px) {
  .score {
    grid-template-columns: 1fr;
    grid-template-rows: 66vh auto;
  }
}

@media (max-width: 800px) and (max-height: 560px) {
  .score {
    grid-template-rows: calc(100vh - 5rem) auto;
  }
}
</style>

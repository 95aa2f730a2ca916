<script setup lang="ts">
import { computed, nextTick, onBeforeMount, onMounted, ref, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { Problem, type Schemas } from '@/api/client';
import { taxonTree } from '@/features/scope';
import { useStudy } from '@/features/study';
import CellShelf from '../components/CellShelf.vue';
import ConflictDialog, { type Conflict } from '../components/ConflictDialog.vue';
import ScoreGrid from '../components/ScoreGrid.vue';
import { bands, byOrgan, scaleOf, type Place, type Selection } from '../logic/grid';
import type { GridModel } from '../logic/paint';

const model = useStudy();
const route = useRoute();
const router = useRouter();
const grid = useTemplateRef<InstanceType<typeof ScoreGrid>>('grid');
const problem = ref('');
const conflicts = ref<Conflict[]>([]);
const selection = ref<Selection>({ at: { row: 0, column: 0 }, anchor: { row: 0, column: 0 } });
const tree = computed(() => taxonTree(model.study.value?.rows ?? []));
const characters = computed(() => byOrgan(model.study.value?.characters ?? []));
const editable = computed(() => model.study.value?.role !== 'VIEWER');

const cellAt = (row: number, column: number): Schemas['CellView'] | undefined =>
  model.cells.value.get(`${tree.value[row]?.row.id} ${characters.value[column]?.id}`);

const gridModel = computed<GridModel>(() => ({
  rows: tree.value.map(({ row, depth }) => ({ label: row.label, stage: row.stage, depth, hazard: row.hazard })),
  columns: characters.value.map((character, column) => ({
    label: character.label,
    unit: character.unit,
    scale: scaleOf(tree.value.flatMap((_, row) => cellAt(row, column)?.range ?? [])),
  })),
  bands: bands(characters.value),
  cell: cellAt,
}));

const row = computed(() => tree.value[selection.value.at.row]?.row);
const character = computed(() => characters.value[selection.value.at.column]);
const cell = computed(() => cellAt(selection.value.at.row, selection.value.at.column));

onBeforeMount(() => {
  const at = {
    row: Math.max(
      0,
      tree.value.findIndex((t) => t.row.id === route.query.row),
    ),
    column: Math.max(
      0,
      characters.value.findIndex((c) => c.id === route.query.character),
    ),
  };
  selection.value = { at, anchor: at };
});

onMounted(() => grid.value?.focus());

function selected(next: Selection) {
  selection.value = next;
  problem.value = '';
  void router.replace({
    query: { row: tree.value[next.at.row]?.row.id, character: characters.value[next.at.column]?.id },
  });
}

function editOf(place: Place & { text: string }): Schemas['CellEdit'] {
  return {
    row: tree.value[place.row]?.row.id ?? '',
    character: characters.value[place.column]?.id ?? '',
    text: place.text,
    seen: cellAt(place.row, place.column)?.revision ?? 0,
  };
}

async function edit(cells: (Place & { text: string })[]) {
  problem.value = '';
  const changed = cells.filter((c) => c.text !== ownText(c));
  if (changed.length) await send(changed.map(editOf));
}

function ownText(place: Place): string {
  const shown = cellAt(place.row, place.column);
  return shown && !shown.from ? shown.text : '';
}

async function send(edits: Schemas['CellEdit'][]) {
  try {
    await model.edit(edits);
  } catch (failure) {
    await explain(failure as Problem);
  }
}

async function explain(failure: Problem) {
  if (failure.code === 'cell-changed') {
    conflicts.value = failure.details.conflicts as Conflict[];
    if (conflicts.value[0]) select(conflicts.value[0]);
    return;
  }
  const rejected = (failure.details.rejections as { row: string; character: string; text: string }[] | undefined)?.[0];
  if (!rejected) {
    problem.value = failure.message;
    return;
  }
  // The text is kept for correction in the cell it belongs to.
  select(rejected);
  await nextTick();
  // Most reasons quote the text themselves.
  problem.value = failure.message.includes(rejected.text) ? failure.message : `“${rejected.text}”: ${failure.message}`;
  kept.value = rejected.text;
}

const kept = ref('');

function select(cell: { row: string; character: string }) {
  const at = {
    row: tree.value.findIndex((t) => t.row.id === cell.row),
    column: characters.value.findIndex((c) => c.id === cell.character),
  };
  selection.value = { at, anchor: at };
}

async function settle(which: 'yours' | 'theirs') {
  const settled = conflicts.value;
  conflicts.value = [];
  if (which === 'yours')
    await send(settled.map((c) => ({ row: c.row, character: c.character, text: c.yours, seen: c.revision })));
  else await model.reload();
}

async function pick(state: string) {
  await edit([{ ...selection.value.at, text: state }]);
  grid.value?.focus();
}
</script>

<template>
  <div class="score">
    <h1 class="sr-only">{{ $t('stage.score') }}</h1>
    <div class="main">
      <ScoreGrid
        v-if="characters.length && tree.length"
        ref="grid"
        :selection="selection"
        :grid="gridModel"
        :editable="editable"
        :problem="problem"
        @update:selection="selected"
        @edit="edit"
        @dismiss="problem = ''"
      />
      <p v-else class="page">{{ $t('score.nothing') }}</p>
      <div v-if="problem" class="mend">
        <v-btn size="small" color="primary" @click="grid?.begin(kept)">{{ $t('score.mend') }}</v-btn>
        <span>{{ problem }}</span>
      </div>
    </div>
    <CellShelf
      v-if="row && character"
      :slug="model.slug"
      :row="row"
      :character="character"
      :cell="cell"
      :from="model.study.value?.rows.find((r) => r.id === cell?.from)"
      :editable="editable"
      @pick="pick"
    />
    <ConflictDialog
      :conflicts="conflicts"
      :rows="model.study.value?.rows ?? []"
      :characters="characters"
      @keep="settle"
      @closed="grid?.focus()"
    />
  </div>
</template>

<style scoped>
.score {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 19rem;
  height: 100%;
}

.main {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-width: 0;
  height: 100%;
}

.mend {
  display: flex;
  gap: 1rem;
  align-items: center;
  padding: 0.5rem 1rem;
  border-top: 2px solid rgb(var(--v-theme-error));
}

@media (max-width: 800px) {
  .score {
    grid-template-columns: 1fr;
    grid-template-rows: 60vh auto;
  }
}
</style>

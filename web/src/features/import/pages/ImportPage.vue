<script setup lang="ts">
import { mdiFileTableOutline } from '@mdi/js';
import { useQueryClient } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { ChangeList } from '@/study-kernel';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import ColumnMapping from '../components/ColumnMapping.vue';
import CoveringsAsked, { type Covering } from '../components/CoveringsAsked.vue';
import PreviewTable, { type Choice } from '../components/PreviewTable.vue';

const route = useRoute();
const router = useRouter();
/** The study that the file is to join; empty: it becomes a new one. */
const into = computed(() => (typeof route.query.into === 'string' ? route.query.into : ''));
const types = ref<Record<string, Choice>>({});
const sheet = ref<Schemas['SheetView'] | null>(null);
const mapping = ref<Schemas['SheetMapping'] | null>(null);
const coverings = ref<Covering[]>([]);
const changes = ref<Schemas['ChangePreview'] | null>(null);
const queries = useQueryClient();
const pasted = ref('');
const file = ref<File | null>(null);
const title = ref('');
/** Sheet of a workbook; empty: the first that holds something. */
const page = ref('');
const preview = ref<Schemas['Preview'] | null>(null);
const { busy, problem, run } = useAction();
const dragging = ref(false);
const isTable = computed(() => !/\.(json|nex|nexus|nxs)$/i.test(file.value?.name ?? ''));
const blocking = computed(() => preview.value?.problems.filter((p) => p.blocking) ?? []);
const notices = computed(() => preview.value?.problems.filter((p) => !p.blocking) ?? []);

function form(): FormData {
  const data = new FormData();
  const source = file.value ?? new File([pasted.value], pasted.value.includes('\t') ? 'pasted.tsv' : 'pasted.csv');
  data.append('file', source, source.name);
  if (title.value.trim()) data.append('title', title.value.trim());
  if (Object.keys(types.value).length) data.append('types', JSON.stringify(types.value));
  if (page.value) data.append('sheet', page.value);
  if (mapping.value) data.append('mapping', JSON.stringify(mapping.value));
  if (coverings.value.length) data.append('coverings', JSON.stringify(coverings.value));
  return data;
}

function read() {
  return run(async () => {
    if (into.value) {
      const read = await api.post('/api/v1/studies/{slug}/import/preview', { slug: into.value }, form());
      preview.value = read.file;
      changes.value = read.changes ?? null;
      return;
    }
    preview.value = await api.post('/api/v1/imports/preview', {}, form());
    if (!title.value) title.value = preview.value.title;
  });
}

/** Tables that were not prepared are shown as they stand; others can be looked at so too. */
function map() {
  return run(async () => {
    const look = await api.post('/api/v1/imports/sheet', {}, form());
    // A table of one row, or one that cannot be opened, has nothing to choose; its problems say why.
    if (look.rows.length < 2) return;
    sheet.value = look;
    mapping.value = look.mapping;
  });
}

async function remap(now: Schemas['SheetMapping']) {
  mapping.value = now;
  await read();
}

function start() {
  types.value = {};
  coverings.value = [];
  sheet.value = null;
  mapping.value = null;
}

/** A table in which neither taxa nor specimens were found was made for people: it is shown as it stands. */
const unprepared = computed(
  () => isTable.value && preview.value?.usable === false && !preview.value.rows && !preview.value.specimens,
);

async function readNew() {
  start();
  await read();
  if (unprepared.value && (await map()) && mapping.value) await read();
}

async function choose(files: FileList | null | undefined) {
  const chosen = files?.[0];
  if (!chosen) return;
  file.value = chosen;
  title.value = '';
  page.value = '';
  await readNew();
}

async function turnTo(name: string | null) {
  page.value = name ?? '';
  await readNew();
}

async function readPasted() {
  file.value = null;
  page.value = '';
  await readNew();
}

async function retype(label: string, choice: Choice) {
  types.value = { ...types.value, [label]: choice };
  await read();
}

async function cover(answers: Covering[]) {
  coverings.value = answers;
  await read();
}

function join() {
  return run(async () => {
    const at = { slug: into.value, baseRevision: changes.value?.revision ?? 0 };
    await api.post('/api/v1/studies/{slug}/import', at, form());
    await queries.invalidateQueries({ queryKey: ['study', into.value] });
    const onlySpecimens = preview.value?.specimens && !preview.value.scores;
    await router.push(`/studies/${into.value}/${onlySpecimens ? 'gather' : 'score'}`);
  });
}

function create() {
  return run(async () => {
    const made = await api.post('/api/v1/imports', {}, form());
    await queries.invalidateQueries({ queryKey: ['studies'] });
    await router.push(`/studies/${made.slug}/score`);
  });
}
</script>

<template>
  <v-main>
    <div class="page">
      <p class="no-print">
        <router-link to="/studies">{{ $t('studies.title') }}</router-link>
      </p>
      <h1>{{ into ? $t('import.intoTitle') : $t('import.title') }}</h1>
      <p class="lead">{{ into ? $t('import.intoLead') : $t('import.lead') }}</p>
      <div class="sources">
        <label
          class="drop"
          :class="{ dragging }"
          @dragover.prevent="dragging = true"
          @dragleave="dragging = false"
          @drop.prevent="((dragging = false), choose($event.dataTransfer?.files))"
        >
          <v-icon :icon="mdiFileTableOutline" size="2rem" aria-hidden="true" />
          <span>{{ $t('import.file') }}</span>
          <span class="quiet">{{ $t('import.kinds') }}</span>
          <input
            class="sr-only"
            type="file"
            accept=".csv,.tsv,.xlsx,.nex,.nexus,.nxs,.json,text/csv"
            @change="choose(($event.target as HTMLInputElement).files)"
          />
        </label>
        <div>
          <v-textarea v-model="pasted" :label="$t('import.paste')" rows="5" spellcheck="false" hide-details />
          <v-btn class="mt-2" :disabled="!pasted.trim()" :loading="busy" @click="readPasted">{{
            $t('import.read')
          }}</v-btn>
        </div>
      </div>
      <ProblemNote :problem="problem" />
      <v-progress-linear v-if="busy" indeterminate :aria-label="$t('loading')" />
      <v-select
        v-if="preview && preview.sheets.length > 1"
        class="page-of"
        :model-value="page || null"
        :items="preview.sheets"
        :label="$t('import.sheet')"
        :placeholder="$t('import.firstSheet')"
        persistent-placeholder
        density="compact"
        hide-details
        @update:model-value="turnTo"
      />
      <ColumnMapping
        v-if="sheet && mapping"
        :model-value="mapping"
        :rows="sheet.rows"
        :remembered="sheet.remembered"
        @update:model-value="remap"
      />
      <v-btn v-else-if="preview && isTable" size="small" variant="text" @click="map">{{ $t('mapping.open') }}</v-btn>
      <template v-if="preview">
        <section v-if="blocking.length" aria-labelledby="problems">
          <h2 id="problems">{{ $t('import.problems', { n: blocking.length }, blocking.length) }}</h2>
          <p>{{ $t('import.nothing') }}</p>
          <ol class="problems">
            <li v-for="(p, i) in blocking" :key="i">
              <span v-if="p.row" class="place figures">{{ $t('import.place', { row: p.row, column: p.column }) }}</span>
              <strong v-if="p.heading">{{ p.heading }}</strong> {{ p.text }}
            </li>
          </ol>
        </section>
        <section v-if="notices.length" aria-labelledby="notices">
          <h2 id="notices">{{ $t('import.notices') }}</h2>
          <ul>
            <li v-for="(p, i) in notices" :key="i">{{ p.text }}</li>
          </ul>
        </section>
        <CoveringsAsked
          v-if="preview.coverings.length"
          :asked="preview.coverings"
          :answers="coverings"
          @answer="cover"
        />
        <section aria-labelledby="understood">
          <h2 id="understood">{{ $t('import.understood') }}</h2>
          <p class="figures">
            {{ $t('import.counts', { rows: preview.rows, characters: preview.characters, scores: preview.scores })
            }}{{ preview.specimens ? $t('import.specimens', preview.specimens) : '' }}
          </p>
          <template v-if="into && changes">
            <ChangeList :changes="changes.changes" :total="changes.total" />
            <div class="make">
              <v-btn color="primary" variant="flat" :disabled="!changes.total" :loading="busy" @click="join">{{
                $t('import.join')
              }}</v-btn>
            </div>
          </template>
          <div v-else-if="preview.usable" class="make">
            <v-text-field v-model="title" :label="$t('import.name')" hide-details />
            <v-btn color="primary" variant="flat" :loading="busy" @click="create">{{ $t('import.create') }}</v-btn>
          </div>
          <PreviewTable v-if="preview.columns.length" :columns="preview.columns" @retype="retype" />
        </section>
      </template>
    </div>
  </v-main>
</template>

<style scoped>
.lead {
  max-width: 46rem;
}

.page-of {
  max-width: 24rem;
}

.sources {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 1.5rem;
  margin: 1.5rem 0;
}

.drop {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 0.4rem;
  padding: 0 1rem;
  text-align: center;
  border: 2px dashed var(--rule);
  min-height: 10rem;
  cursor: pointer;
}

.drop.dragging {
  border-color: rgb(var(--v-theme-primary));
}

.drop:focus-within {
  outline: 3px solid rgb(var(--v-theme-primary));
}

section {
  border-top: 1px solid var(--rule);
  margin-top: 1.5rem;
  padding-top: 1rem;
}

.problems li {
  margin: 0.35rem 0;
}

.place {
  display: inline-block;
  min-width: 10rem;
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

.make {
  display: flex;
  gap: 1rem;
  align-items: center;
  max-width: 40rem;
  margin: 1rem 0;
}

@media (max-width: 700px) {
  .sources {
    grid-template-columns: 1fr;
  }
}
</style>

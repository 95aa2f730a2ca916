import { useQueryClient } from '@tanstack/vue-query';
import { computed, ref, type Ref } from 'vue';
import { useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { useAction } from '@/shared/ui/useAction';
import type { Covering } from '../components/CoveringsAsked.vue';
import type { Choice } from '../components/PreviewTable.vue';

/** What a text means; without a row wherever it stands in the column, null for what is not known. */
export interface Correction {
  column: string;
  row: string;
  text: string;
  as: string | null;
}

/** What people decided of a table; it names columns and texts, so that it holds for a corrected file, too. */
interface Decisions {
  types: Record<string, Choice>;
  corrections: Correction[];
  coverings: Covering[];
  mapping: Schemas['SheetMapping'] | null;
}

const NOTHING: Decisions = { types: {}, corrections: [], coverings: [], mapping: null };

/** Reads an upload again and again as people decide what it means, and makes a study of it. */
export function useImport(into: Ref<string>) {
  const router = useRouter();
  const queries = useQueryClient();
  const { busy, problem, run } = useAction();
  const decided = ref<Decisions>(NOTHING);
  /** Whether the decisions were made for the file before. */
  const kept = ref(false);
  const sheet = ref<Schemas['SheetView'] | null>(null);
  const changes = ref<Schemas['ChangePreview'] | null>(null);
  const preview = ref<Schemas['Preview'] | null>(null);
  const file = ref<File | null>(null);
  const pasted = ref('');
  const title = ref('');
  /** Sheet of a workbook; empty: the first that holds something. */
  const page = ref('');
  const isTable = computed(() => !/\.(json|nex|nexus|nxs)$/i.test(file.value?.name ?? ''));

  function form(): FormData {
    const data = new FormData();
    const source = file.value ?? new File([pasted.value], pasted.value.includes('\t') ? 'pasted.tsv' : 'pasted.csv');
    data.append('file', source, source.name);
    if (title.value.trim()) data.append('title', title.value.trim());
    if (page.value) data.append('sheet', page.value);
    const { types, corrections, coverings, mapping } = decided.value;
    if (Object.keys(types).length) data.append('types', JSON.stringify(types));
    if (mapping) data.append('mapping', JSON.stringify(mapping));
    if (coverings.length) data.append('coverings', JSON.stringify(coverings));
    if (corrections.length) data.append('corrections', JSON.stringify(corrections));
    return data;
  }

  function read() {
    return run(async () => {
      if (into.value) {
        const answer = await api.post('/api/v1/studies/{slug}/import/preview', { slug: into.value }, form());
        preview.value = answer.file;
        changes.value = answer.changes ?? null;
        return;
      }
      preview.value = await api.post('/api/v1/imports/preview', {}, form());
      if (!title.value) title.value = preview.value.title;
    });
  }

  async function decide(part: Partial<Decisions>) {
    decided.value = { ...decided.value, ...part };
    await read();
  }

  /** Tables that were not prepared are shown as they stand; others can be looked at so too. */
  function map(transposed?: boolean) {
    return run(async () => {
      const at = transposed === undefined ? {} : { transposed };
      const look = await api.post('/api/v1/imports/sheet', at, form());
      // A table of one row, or one that cannot be opened, has nothing to choose; its problems say why.
      if (look.rows.length < 2) return;
      sheet.value = look;
      decided.value = { ...decided.value, mapping: look.mapping };
    });
  }

  /** A table in which neither taxa nor specimens were found was made for people: it is shown as it stands. */
  const unprepared = () =>
    isTable.value && preview.value?.usable === false && !preview.value.rows && !preview.value.specimens;

  /** Reads from the beginning; what was decided of a file with the same headings still holds. */
  async function readNew() {
    const before = { decided: decided.value, headings: headings() };
    decided.value = NOTHING;
    sheet.value = null;
    kept.value = false;
    await read();
    if (unprepared() && (await map()) && decided.value.mapping) await read();
    if (before.decided === NOTHING || !preview.value || headings() !== before.headings) return;
    kept.value = true;
    await decide({ ...before.decided, mapping: decided.value.mapping && before.decided.mapping });
  }

  const headings = () =>
    JSON.stringify(sheet.value?.mapping.columns.map((c) => c.label) ?? preview.value?.columns.map((c) => c.character));

  async function forget() {
    decided.value = NOTHING;
    await readNew();
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

  async function turn(transposed: boolean) {
    if (await map(transposed)) await read();
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

  return {
    busy,
    problem,
    decided,
    kept,
    sheet,
    changes,
    preview,
    pasted,
    title,
    page,
    isTable,
    decide,
    map,
    turn,
    forget,
    choose,
    turnTo,
    readPasted,
    join,
    create,
  };
}

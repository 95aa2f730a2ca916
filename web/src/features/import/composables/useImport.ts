import { useQueryClient } from '@tanstack/vue-query';
import { until } from '@vueuse/core';
import { computed, ref, shallowRef, type Ref } from 'vue';
import { useRouter } from 'vue-router';
import type { Schemas } from '@/api/client';
import { useAction } from '@/shared/ui/useAction';
import type { Covering } from '../components/CoveringsAsked.vue';
import type { Choice } from '../components/PreviewTable.vue';
import { Cancelled, useImportJob, type Step } from './useImportJob';

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
  /** Which characters of a file are read; empty: all. */
  characters: string;
}

const NOTHING: Decisions = { types: {}, corrections: [], coverings: [], mapping: null, characters: '' };

/** Reads an upload again and again as people decide what it means, and makes a study of it. */
export function useImport(into: Ref<string>) {
  const router = useRouter();
  const queries = useQueryClient();
  const { busy, problem, run } = useAction();
  const job = useImportJob(into);
  /** What was cancelled last. */
  const cancelled = ref<Step | null>(null);
  const decided = ref<Decisions>(NOTHING);
  /** Whether the decisions were made for the file before. */
  const kept = ref(false);
  const sheet = ref<Schemas['SheetView'] | null>(null);
  const changes = ref<Schemas['ChangePreview'] | null>(null);
  const preview = ref<Schemas['ImportPreview'] | null>(null);
  const file = ref<File | null>(null);
  /** What is read: the file, or what was pasted when it was read last. */
  const source = shallowRef<File | null>(null);
  const pasted = ref('');
  const title = ref('');
  /** Sheet of a workbook; empty: the first that holds something. */
  const page = ref('');
  const isTable = computed(() => !/\.(json|nex|nexus|nxs)$/i.test(file.value?.name ?? ''));

  /** The answer of a step; undefined if it was cancelled, which is no problem. */
  async function ask(step: Step, more: Partial<Schemas['ImportRequest']> = {}) {
    cancelled.value = null;
    if (!source.value) return undefined;
    try {
      const { mapping, corrections, ...rest } = decided.value;
      const request = {
        ...rest,
        mapping: mapping ?? undefined,
        corrections: corrections as Schemas['CellCorrection'][],
        sheet: page.value,
        title: title.value.trim(),
        ...more,
      };
      return await job.ask(source.value, step, request);
    } catch (failure) {
      if (!(failure instanceof Cancelled)) throw failure;
      cancelled.value = step;
      return undefined;
    }
  }

  /** Whether there is a preview of what was asked. */
  async function read(): Promise<boolean> {
    let previewed = false;
    await run(async () => {
      const answer = await ask('PREVIEW');
      if (!answer?.preview) return;
      previewed = true;
      preview.value = answer.preview;
      changes.value = answer.changes ?? null;
      if (!title.value) title.value = answer.preview.title;
    });
    return previewed;
  }

  async function decide(part: Partial<Decisions>) {
    const before = decided.value;
    decided.value = { ...before, ...part };
    // What nobody has seen the effect of is not decided.
    if (!(await read())) decided.value = before;
  }

  /** Whatever is under way with another file is over. */
  async function leaveOther() {
    if (busy.value) job.cancel();
    await until(busy).toBe(false);
  }

  /** Tables that were not prepared are shown as they stand; others can be looked at so too. */
  function map(transposed?: boolean) {
    return run(async () => {
      const look = (await ask('LOOK', { transposed }))?.sheet;
      // A table of one row, or one that cannot be opened, has nothing to choose; its problems say why.
      if (!look || look.rows.length < 2) return;
      sheet.value = look;
      decided.value = { ...decided.value, mapping: look.mapping };
    });
  }

  /** A table in which neither taxa nor specimens were found was made for people: it is shown as it stands. */
  const unprepared = () =>
    isTable.value && preview.value?.usable === false && !preview.value.rows && !preview.value.specimens;

  /** What was decided of the file that was read last. */
  let earlier = { decided: NOTHING, headings: '' };

  /** Reads from the beginning; what was decided of a file with the same headings still holds. */
  async function readNew() {
    // A reading that was cancelled, or failed, decided nothing.
    if (preview.value) earlier = { decided: decided.value, headings: headings() };
    decided.value = NOTHING;
    sheet.value = null;
    kept.value = false;
    preview.value = null;
    await read();
    if (unprepared() && (await map()) && decided.value.mapping) await read();
    if (earlier.decided === NOTHING || !preview.value || headings() !== earlier.headings) return;
    kept.value = true;
    await decide({ ...earlier.decided, mapping: decided.value.mapping && earlier.decided.mapping });
  }

  const headings = () =>
    JSON.stringify(
      sheet.value?.mapping.columns.map((c) => c.label) ?? preview.value?.columns.map((c) => c.character) ?? [],
    );

  async function forget() {
    decided.value = NOTHING;
    earlier = { decided: NOTHING, headings: '' };
    await readNew();
  }

  async function choose(files: FileList | null | undefined) {
    const chosen = files?.[0];
    if (!chosen) return;
    await leaveOther();
    file.value = chosen;
    source.value = chosen;
    title.value = '';
    page.value = '';
    await readNew();
  }

  async function turnTo(name: string | null) {
    page.value = name ?? '';
    await readNew();
  }

  async function readPasted() {
    await leaveOther();
    file.value = null;
    source.value = new File([pasted.value], pasted.value.includes('\t') ? 'pasted.tsv' : 'pasted.csv');
    page.value = '';
    await readNew();
  }

  async function turn(transposed: boolean) {
    if (await map(transposed)) await read();
  }

  function join() {
    return run(async () => {
      const done = await ask('IMPORT', { baseRevision: changes.value?.revision });
      if (!done?.written) return;
      await queries.invalidateQueries({ queryKey: ['study', into.value] });
      const onlySpecimens = preview.value?.specimens && !preview.value.scores;
      await router.push(`/studies/${into.value}/${onlySpecimens ? 'gather' : 'score'}`);
    });
  }

  function create() {
    return run(async () => {
      const made = await ask('IMPORT');
      if (!made?.slug) return;
      await queries.invalidateQueries({ queryKey: ['studies'] });
      await router.push(`/studies/${made.slug}/score`);
    });
  }

  return {
    busy,
    problem,
    stage: job.stage,
    progress: job.progress,
    cancelled,
    cancel: job.cancel,
    readAgain: readNew,
    decided,
    kept,
    sheet,
    changes,
    preview,
    file,
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

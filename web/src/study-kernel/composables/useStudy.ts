import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { useIntervalFn } from '@vueuse/core';
import { computed, inject, onScopeDispose, provide, ref, type InjectionKey, type Ref } from 'vue';
import { api, type Problem, type Schemas } from '@/api/client';
import { createColumns, type Columns } from './useColumns';

/** Its rows have the hazards that stand for them, which may be worse than what is recorded of them and edited. */
export type StudyView = Schemas['StudyView'] & { recorded: Schemas['StudyRow'][] };

function shown(view: Schemas['StudyView']): StudyView {
  const standing = new Map(view.standing.map((r) => [r.id, r]));
  return { ...view, rows: view.rows.map((r) => standing.get(r.id) ?? r), recorded: view.rows };
}

/** A study on the screen: its newest state, and the writes to it. */
export interface StudyModel {
  slug: string;
  study: Ref<StudyView | undefined>;
  error: Ref<Error | null>;
  columns: Columns;
  nextStep: Ref<Schemas['NextStep'] | undefined>;
  message: Ref<string>;
  /** What the latest undo or redo did, and what it left as it is. */
  reversed: Ref<(Schemas['Reversed'] & { what: 'undo' | 'redo' }) | null>;
  reload: () => Promise<void>;
  /** Revision of the content of an object that this screen has seen. */
  baseRevision: (object: string) => number;
  /** Writes cells, and shows what became of them. */
  edit: (edits: Schemas['CellEdit'][]) => Promise<void>;
  /** Only writes them, and tells the revision that they have. */
  write: (edits: Schemas['CellEdit'][]) => Promise<number>;
  /** Brings the screen up to date with what was written since. */
  catchUp: () => Promise<void>;
  /** Undo and redo wait for what is still on its way: it is the latest change of whoever presses them. */
  writesBeforeUndo: (settled: () => Promise<unknown>) => void;
  undo: () => Promise<void>;
  redo: () => Promise<void>;
}

const KEY: InjectionKey<StudyModel> = Symbol('study');
const LOOK_AGAIN_MS = 5000;

function createStudy(slug: string): StudyModel {
  const queries = useQueryClient();
  const read = async () => shown(await api.get('/api/v1/studies/{slug}', { slug }));
  const query = useQuery({ queryKey: ['study', slug], queryFn: read, retry: false });
  const message = ref('');
  const reversed = ref<(Schemas['Reversed'] & { what: 'undo' | 'redo' }) | null>(null);
  const columns = createColumns(slug, () => (query.data.value?.rows ?? []).map((r) => r.id));
  const revision = computed(() => query.data.value?.revision);
  const nextStep = useQuery({
    queryKey: ['next-step', slug, revision],
    queryFn: () => api.get('/api/v1/studies/{slug}/next-step', { slug }),
    // Its reasons tell what others scored.
    enabled: computed(() => query.data.value?.blind === false),
    placeholderData: (old) => old,
    retry: false,
  });

  /** Rows and columns change together, so that no column is read by the rows of another revision. */
  async function reload() {
    message.value = '';
    reversed.value = null;
    const [study, views] = await Promise.all([read(), columns.fetched(columns.loaded())]);
    queries.setQueryData(['study', slug], study);
    columns.put(views);
    await queries.invalidateQueries({ queryKey: ['gate', slug] });
  }

  let last: Promise<void> = Promise.resolve();
  /** Begins when the one that is under way is over. */
  let waiting: Promise<void> | undefined;

  /**
   * One after the other, so that an older answer never comes over a newer one. One under way may have asked too early for what
   * was just written; one after it is enough for all who ask meanwhile.
   */
  function catchUp(): Promise<void> {
    waiting ??= last = last
      .catch(() => undefined)
      .then(() => {
        waiting = undefined;
        return lookAgain();
      });
    return waiting;
  }

  async function lookAgain() {
    const since = revision.value;
    if (since === undefined) return;
    const changes = await api.get('/api/v1/studies/{slug}/changes', { slug, since });
    if (changes.revision === since) return;
    if (changes.structure) {
      await reload();
      return;
    }
    const views = await columns.fetched(changes.characters.filter((c) => columns.has(c)));
    queries.setQueryData<StudyView>(['study', slug], (old) =>
      old ? { ...old, revision: changes.revision, progress: changes.progress, counts: changes.counts } : old,
    );
    columns.put(views);
    await queries.invalidateQueries({ queryKey: ['gate', slug] });
  }

  async function write(edits: Schemas['CellEdit'][]) {
    const written = await api.post('/api/v1/studies/{slug}/scores', { slug }, { edits });
    message.value = '';
    reversed.value = null;
    return written.revision;
  }

  async function edit(edits: Schemas['CellEdit'][]) {
    await write(edits);
    await catchUp();
  }

  const underWay = new Set<() => Promise<unknown>>();
  function writesBeforeUndo(settled: () => Promise<unknown>) {
    underWay.add(settled);
    onScopeDispose(() => underWay.delete(settled));
  }

  async function reverse(what: 'undo' | 'redo') {
    try {
      await Promise.allSettled([...underWay].map((settled) => settled()));
      const done = await api.post(`/api/v1/studies/{slug}/${what}`, { slug });
      message.value = '';
      // What was done is told even where the screen cannot catch up: it looks again by itself.
      await catchUp().catch(() => undefined);
      reversed.value = { ...done, what };
    } catch (failure) {
      reversed.value = null;
      message.value = (failure as Problem).message;
    }
  }

  // Others edit too: look every few seconds whether the study has moved on.
  useIntervalFn(() => {
    if (!document.hidden) catchUp().catch(() => undefined);
  }, LOOK_AGAIN_MS);

  return {
    slug,
    study: query.data,
    error: query.error,
    columns: columns.face,
    nextStep: nextStep.data,
    message,
    reversed,
    reload,
    baseRevision: (object) => query.data.value?.revisions[object] ?? 0,
    edit,
    write,
    catchUp,
    writesBeforeUndo,
    undo: () => reverse('undo'),
    redo: () => reverse('redo'),
  };
}

export function provideStudy(slug: string): StudyModel {
  const study = createStudy(slug);
  provide(KEY, study);
  return study;
}

export function useStudy(): StudyModel {
  const study = inject(KEY);
  if (!study) throw new Error('useStudy needs a StudyFrame around it');
  return study;
}

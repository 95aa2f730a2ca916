import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed, inject, onScopeDispose, provide, ref, type ComputedRef, type InjectionKey, type Ref } from 'vue';
import { api, type Problem, type Schemas } from '@/api/client';

export type StudyView = Schemas['StudyView'];
export type Cell = Schemas['CellView'];

/** A study on the screen: its newest state, and the writes to it. */
export interface StudyModel {
  slug: string;
  study: Ref<StudyView | undefined>;
  error: Ref<Error | null>;
  cells: ComputedRef<Map<string, Cell>>;
  message: Ref<string>;
  reload: () => Promise<void>;
  /** Revision of the content of an object that this screen has seen. */
  seen: (object: string) => number;
  /** Sends a change to the server; the study is not read again by it. */
  send: <T>(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown) => Promise<T>;
  edit: (edits: Schemas['CellEdit'][]) => Promise<void>;
  undo: () => Promise<void>;
  redo: () => Promise<void>;
}

const KEY: InjectionKey<StudyModel> = Symbol('study');
const LOOK_AGAIN_MS = 5000;

export function cellKey(row: string, character: string): string {
  return `${row} ${character}`;
}

function createStudy(slug: string): StudyModel {
  const queries = useQueryClient();
  const path = `/api/studies/${encodeURIComponent(slug)}`;
  const query = useQuery({ queryKey: ['study', slug], queryFn: () => api.get<StudyView>(path), retry: false });
  const message = ref('');
  const cells = computed(
    () => new Map((query.data.value?.cells ?? []).map((cell) => [cellKey(cell.row, cell.character), cell])),
  );

  async function reload() {
    message.value = '';
    await queries.invalidateQueries({ queryKey: ['study', slug] });
    await queries.invalidateQueries({ queryKey: ['gate', slug] });
  }

  async function edit(edits: Schemas['CellEdit'][]) {
    await api.post(`${path}/scores`, { edits });
    await reload();
  }

  async function reverse(what: 'undo' | 'redo') {
    try {
      await api.post(`${path}/${what}`);
      message.value = '';
      await reload();
    } catch (failure) {
      message.value = (failure as Problem).message;
    }
  }

  // Others edit too: look every few seconds whether the study has moved on.
  const timer = setInterval(() => {
    const revision = query.data.value?.revision;
    if (revision === undefined || document.hidden) return;
    api
      .get<Schemas['Changes']>(`${path}/changes?since=${revision}`)
      .then((changes) => (changes.revision === revision ? undefined : reload()))
      .catch(() => undefined);
  }, LOOK_AGAIN_MS);
  onScopeDispose(() => clearInterval(timer));

  return {
    slug,
    study: query.data,
    error: query.error,
    cells,
    message,
    reload,
    seen: (object) => query.data.value?.revisions[object] ?? 0,
    send: (method, sent, body) =>
      method === 'DELETE' ? api.delete(sent) : method === 'PUT' ? api.put(sent, body) : api.post(sent, body),
    edit,
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

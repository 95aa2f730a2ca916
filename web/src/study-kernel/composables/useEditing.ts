import { computed, ref, watch, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import { isLeaving, useTyped } from '@/shared/ui/leaving';
import { useAction } from '@/shared/ui/useAction';
import type { StudyModel } from './useStudy';

interface Editable {
  id: string;
}

/**
 * Editing one of several things of a study, chosen by the address. What is typed stays until it is saved or given up:
 * choosing another thing meanwhile asks first, and what others change does not overwrite it.
 *
 * @param kind name of the thing in addresses of the server; `object` in revisions, requests and the page's query, too
 */
export function useEditing<T extends Editable>(
  model: StudyModel,
  kind: { path: 'rows' | 'characters'; object: 'row' | 'character' },
  all: Ref<T[]>,
) {
  const slug = model.slug;
  const route = useRoute();
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const draft = ref<T | null>(null) as Ref<T | null>;
  /** A thing that is not on the server yet. */
  const fresh = ref(false);
  const saved = ref(false);
  /** What to do once the editor agrees to lose what was typed. */
  const leaving = ref<(() => void) | null>(null);
  let original = '';
  /** What the form began with: of a new thing that nobody typed in nothing is lost. */
  let begun = '';
  let baseRevision = 0;

  const selected = computed(() => {
    const id = route.query[kind.object];
    return typeof id === 'string' ? id : '';
  });
  const current = computed(() => all.value.find((one) => one.id === selected.value));
  const dirty = computed(() => draft.value !== null && JSON.stringify(draft.value) !== original);
  let saving: Promise<unknown> | undefined;
  useTyped(
    () => draft.value !== null && JSON.stringify(draft.value) !== begun,
    () => saving,
  );

  function take(thing: T | undefined) {
    draft.value = thing ? structuredClone(JSON.parse(JSON.stringify(thing)) as T) : null;
    original = JSON.stringify(draft.value);
    begun = original;
    baseRevision = thing ? model.baseRevision(`${kind.object}/${thing.id}`) : 0;
    fresh.value = false;
    problem.value = null;
  }

  watch(
    current,
    (thing, before) => {
      if (fresh.value) return;
      if (thing?.id !== before?.id || !dirty.value) take(thing);
    },
    { immediate: true },
  );

  function safely(action: () => void) {
    if (dirty.value || fresh.value) leaving.value = action;
    else action();
  }

  function go(id: string) {
    fresh.value = false;
    saved.value = false;
    draft.value = null;
    original = 'null';
    void router.replace({ query: { ...route.query, [kind.object]: id || undefined } });
    if (id === selected.value) take(current.value);
  }

  /** Selects a thing, or nothing. */
  function select(id: string) {
    if (id !== selected.value || fresh.value) safely(() => go(id));
  }

  /** Begins a new thing. */
  function begin(thing: T) {
    safely(() => {
      take(thing);
      original = '';
      fresh.value = true;
      saved.value = false;
    });
  }

  /** Gives up what was typed. */
  function discard() {
    take(current.value);
  }

  function write(request: () => Promise<{ id: string }>, select?: boolean) {
    const done = run(async () => {
      const written = await request();
      draft.value = null;
      original = 'null';
      fresh.value = false;
      await model.reload();
      if (select && written.id !== selected.value && !isLeaving()) {
        await router.replace({ query: { ...route.query, [kind.object]: written.id } });
      }
      take(current.value);
      saved.value = true;
    });
    saving = done;
    return done;
  }

  /** @param over revision of the content that the editor decided to write over */
  function save(over?: number) {
    const thing = draft.value;
    if (!thing) return Promise.resolve(false);
    // Which of the two it is, and that its request names it so, the type checker cannot follow.
    const body = { [kind.object]: thing, baseRevision: over ?? baseRevision } as unknown as Schemas['RowRequest'] &
      Schemas['CharacterRequest'];
    return fresh.value
      ? write(() => api.post(`/api/v1/studies/{slug}/${kind.path}`, { slug }, body), true)
      : write(() => api.put(`/api/v1/studies/{slug}/${kind.path}/{id}`, { slug, id: thing.id }, body), true);
  }

  function move(id: string, to: { parent?: string; before?: string }) {
    const body = { ...to, baseRevision: model.baseRevision(`${kind.object}/${id}`) };
    return write(() => api.post(`/api/v1/studies/{slug}/${kind.path}/{id}/move`, { slug, id }, body));
  }

  function remove(id: string) {
    const at = { slug, id, baseRevision: model.baseRevision(`${kind.object}/${id}`) };
    return write(() => api.delete(`/api/v1/studies/{slug}/${kind.path}/{id}`, at));
  }

  /** Takes the version of whoever was faster. */
  async function theirs() {
    await model.reload();
    take(current.value);
  }

  return {
    draft,
    fresh,
    dirty,
    saved,
    busy,
    problem,
    selected,
    current,
    leaving,
    select,
    begin,
    discard,
    write,
    save,
    move,
    remove,
    theirs,
  };
}

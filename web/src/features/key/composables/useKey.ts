import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { api, type Schemas } from '@/api/client';

export type Wish = Schemas['KeyRequest'];

/**
 * The key of a wish, made by the server while its progress is told. The key before stays until the next one is there;
 * a wish that is given up before its key was made is stopped on the server too.
 */
export function useKey(slug: string, wish: Ref<Wish>, revision: Ref<number | undefined>) {
  const view = shallowRef<Schemas['KeyView']>();
  /** What the keys of all objectives are like. */
  const compared = shallowRef<Schemas['ComparedView'][]>([]);
  /** Id of the key that is shown, for its files. */
  const shown = ref('');
  const working = ref(false);
  const progress = ref(0);
  const stopped = ref(false);
  const problem = ref<Error | null>(null);
  let turn = 0;
  let running = '';

  async function make() {
    const mine = ++turn;
    abandon();
    working.value = true;
    stopped.value = false;
    problem.value = null;
    progress.value = 0;
    try {
      let job = await api.post('/api/v1/studies/{slug}/keys', { slug }, wish.value);
      while (mine === turn && (job.status === 'QUEUED' || job.status === 'RUNNING')) {
        running = job.id;
        progress.value = job.progress;
        job = await api.get('/api/v1/studies/{slug}/keys/{id}', { slug, id: job.id });
      }
      if (mine !== turn) return;
      stopped.value = job.status === 'CANCELLED';
      if (job.key) {
        view.value = job.key;
        compared.value = job.compared;
        shown.value = job.id;
      }
    } catch (failure) {
      if (mine === turn) problem.value = failure as Error;
    } finally {
      if (mine === turn) {
        working.value = false;
        running = '';
      }
    }
  }

  function abandon() {
    if (running) api.delete('/api/v1/studies/{slug}/keys/{id}', { slug, id: running }).catch(() => undefined);
    running = '';
  }

  /** Asks the server to stop; the page says so when it has. */
  function stop() {
    abandon();
  }

  watch([wish, revision], () => void (revision.value !== undefined && make()), { immediate: true });
  onScopeDispose(() => {
    turn++;
    abandon();
  });

  return { view, compared, shown, working, progress, stopped, problem, stop, make };
}

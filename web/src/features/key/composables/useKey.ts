import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { api, type Schemas } from '@/api/client';
import type { Wish } from '../logic/wish';

/**
 * The key of a wish, made by the server while its progress is told. The key before stays until the next one is there, or the
 * best so far of it; a wish that is given up before its key was made is stopped on the server too. Nothing is made while there
 * is no wish.
 */
export function useKey(slug: string, wish: Ref<Wish | undefined>, revision: Ref<number | undefined>) {
  const view = shallowRef<Schemas['KeyView']>();
  /** What the keys of all objectives are like. */
  const compared = shallowRef<Schemas['ComparedView'][]>([]);
  /** Id of the key that is shown, for its files. */
  const shown = ref('');
  const working = ref(false);
  const progress = ref(0);
  const stopped = ref(false);
  /** Whether what is shown is only the best so far. */
  const unfinished = ref(false);
  /** Whether what is shown is of the present wish. */
  const fits = ref(false);
  const problem = ref<Error | null>(null);
  let turn = 0;
  let running = '';

  function show(job: Schemas['Progressing']) {
    if (!job.key) return;
    view.value = job.key;
    compared.value = job.compared;
    shown.value = job.id;
    fits.value = true;
    unfinished.value = job.status !== 'DONE';
  }

  async function make() {
    const mine = ++turn;
    stop();
    working.value = false;
    fits.value = false;
    unfinished.value = false;
    if (!wish.value) return;
    working.value = true;
    stopped.value = false;
    problem.value = null;
    progress.value = 0;
    try {
      let job = await api.post('/api/v1/studies/{slug}/keys', { slug }, wish.value);
      while (mine === turn && (job.status === 'QUEUED' || job.status === 'RUNNING')) {
        running = job.id;
        progress.value = job.progress;
        show(job);
        job = await api.get('/api/v1/studies/{slug}/keys/{id}', { slug, id: job.id });
      }
      if (mine !== turn) return;
      stopped.value = job.status === 'CANCELLED';
      show(job);
    } catch (failure) {
      if (mine === turn) problem.value = failure as Error;
    } finally {
      if (mine === turn) {
        working.value = false;
        running = '';
      }
    }
  }

  /** Asks the server to stop; the page says so when it has, and shows the best so far. */
  function stop() {
    if (running) api.delete('/api/v1/studies/{slug}/keys/{id}', { slug, id: running }).catch(() => undefined);
    running = '';
  }

  watch([wish, revision], () => void (revision.value !== undefined && make()), { immediate: true });
  onScopeDispose(() => {
    turn++;
    stop();
  });

  return { view, compared, shown, working, progress, stopped, unfinished, fits, problem, stop, make };
}

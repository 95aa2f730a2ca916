import { onScopeDispose, ref, type Ref } from 'vue';
import { api, Problem, type Schemas } from '@/api/client';

type Request = Omit<Schemas['ImportRequest'], 'upload' | 'step'>;
export type Step = Schemas['ImportRequest']['step'];
type Stage = 'SENDING' | Step;

const TRY_AGAIN_MS = 1000;
const MOST_TRIES = 60;

/** Cancelled by the person who waits; nothing is wrong. */
export class Cancelled extends Error {}

/**
 * Asks the server about a file and waits for the answer, telling how far it is. The file is sent once, and again only where the
 * server does not keep it any more.
 */
export function useImportJob(into: Ref<string>) {
  /** What is under way. */
  const stage = ref<Stage | null>(null);
  /** Part that is done; 0 where nobody knows. */
  const progress = ref(0);
  let sent: { source: File; id: string } | undefined;
  let stopping = new AbortController();
  let running = '';

  const begin = (body: Schemas['ImportRequest']) =>
    into.value
      ? api.post('/api/v1/studies/{slug}/imports', { slug: into.value }, body)
      : api.post('/api/v1/imports', {}, body);
  const look = (id: string) =>
    into.value
      ? api.get('/api/v1/studies/{slug}/imports/{id}', { slug: into.value, id })
      : api.get('/api/v1/imports/{id}', { id });
  const stop = (id: string) =>
    into.value
      ? api.delete('/api/v1/studies/{slug}/imports/{id}', { slug: into.value, id })
      : api.delete('/api/v1/imports/{id}', { id });

  /** The server goes on with a job while the line is down: whoever waits for it looks again. */
  async function lookPatiently(id: string, signal: AbortSignal) {
    for (let tries = 1; ; tries++) {
      try {
        return await look(id);
      } catch (failure) {
        const offline = failure instanceof Problem && failure.status === 0;
        if (!offline || tries === MOST_TRIES || signal.aborted) throw failure;
        await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS));
      }
    }
  }

  function enter(next: Stage) {
    stage.value = next;
    progress.value = 0;
  }

  async function uploaded(source: File, signal: AbortSignal): Promise<string> {
    if (sent?.source === source) return sent.id;
    enter('SENDING');
    const form = new FormData();
    form.append('file', source, source.name);
    const { id } = await api.send('/api/v1/uploads', form, (share) => (progress.value = share), signal);
    sent = { source, id };
    return id;
  }

  async function answered(source: File, step: Step, request: Request, signal: AbortSignal) {
    const upload = await uploaded(source, signal);
    enter(step);
    let job = await begin({ ...request, step, upload });
    while (job.status === 'QUEUED' || job.status === 'RUNNING') {
      running = job.id;
      if (signal.aborted) await stop(job.id);
      progress.value = job.progress;
      job = await lookPatiently(job.id, signal);
    }
    // One that was done before it heard of the cancelling is done.
    if (!job.answer) throw new Cancelled();
    return job.answer;
  }

  async function ask(source: File, step: Step, request: Request): Promise<Schemas['ImportAnswer']> {
    stopping = new AbortController();
    const { signal } = stopping;
    try {
      return await answered(source, step, request, signal);
    } catch (failure) {
      if (signal.aborted && !running) throw new Cancelled();
      if (!(failure instanceof Problem) || failure.code !== 'upload-gone') throw failure;
      sent = undefined;
      return await answered(source, step, request, signal);
    } finally {
      stage.value = null;
      running = '';
    }
  }

  function cancel() {
    stopping.abort();
    if (running) stop(running).catch(() => undefined);
  }

  onScopeDispose(cancel);
  return { stage, progress, ask, cancel };
}

import { useSession } from '@/stores/session';

const kept = new Map<string, unknown>();

/** Something of an account and a study that stays while other pages are looked at. */
export function useKept<T>(what: string, study: string, begin: () => T): T {
  const key = JSON.stringify([useSession().account?.name, study, what]);
  if (!kept.has(key)) kept.set(key, begin());
  return kept.get(key) as T;
}

/** Jobs one after the other, however long each takes. A job answers for its own failures. */
export function queue() {
  let last: Promise<unknown> = Promise.resolve();
  return {
    add: (job: () => Promise<unknown>) => (last = last.then(job)),
    settled: () => last,
  };
}

import { onScopeDispose, ref } from 'vue';
import type { Router } from 'vue-router';
import { useUnsaved } from './useUnsaved';

/** Forms on the screen, by whether something is typed in them that is not saved; each with what is being saved of it now. */
const forms = new Map<() => boolean, () => unknown>();
/** Set while somebody is asked; called with the answer. */
export const asked = ref<((discard: boolean) => void) | null>(null);

let waiting = 0;
/** Whether somebody is on the way to another page: a form that was saved meanwhile must not choose an address of its own. */
export const isLeaving = () => waiting > 0;

/** Whether what was typed may be lost; asks if there is any. What is being saved is waited for. */
export async function mayLose(): Promise<boolean> {
  waiting++;
  await Promise.allSettled([...forms.values()].map((saving) => saving()));
  waiting--;
  if (![...forms.keys()].some((typed) => typed())) return true;
  // Whoever goes elsewhere while being asked has answered the first question with no.
  asked.value?.(false);
  return new Promise((resolve) => {
    asked.value = (discard) => {
      asked.value = null;
      resolve(discard);
    };
  });
}

/**
 * Keeps a form until it is saved or given up: leaving the page, and closing the window, ask first.
 *
 * @param saving what is being saved of it
 */
export function useTyped(typed: () => boolean, saving: () => unknown = () => undefined) {
  forms.set(typed, saving);
  onScopeDispose(() => forms.delete(typed));
  useUnsaved(typed);
}

/** Other things of the same page have their own forms, which ask for themselves. */
export function guardLeaving(router: Router) {
  router.beforeEach((to, from) => (to.path === from.path ? true : mayLose()));
}

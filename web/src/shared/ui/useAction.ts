import { ref } from 'vue';

/** Something that a press of a button begins: busy while it runs, and the problem it met. */
export function useAction() {
  const busy = ref(false);
  const problem = ref<Error | null>(null);

  /** Runs the action, unless one runs already; true when it went through. */
  async function run(action: () => Promise<void>): Promise<boolean> {
    if (busy.value) return false;
    busy.value = true;
    problem.value = null;
    try {
      await action();
      return true;
    } catch (failure) {
      problem.value = failure as Error;
      return false;
    } finally {
      busy.value = false;
    }
  }

  return { busy, problem, run };
}

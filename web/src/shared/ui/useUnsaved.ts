import { watch } from 'vue';

/** Asks before the window is closed over what was typed and is not kept. */
export function useUnsaved(unsaved: () => boolean) {
  const ask = (event: BeforeUnloadEvent) => event.preventDefault();
  watch(
    unsaved,
    (any, _, cleanUp) => {
      if (!any) return;
      window.addEventListener('beforeunload', ask);
      cleanUp(() => window.removeEventListener('beforeunload', ask));
    },
    { immediate: true },
  );
}

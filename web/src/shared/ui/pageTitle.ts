import { onUnmounted, ref, watch, type WatchSource } from 'vue';

/** What the page is about: the study, the edition. Empty where it is about nothing in particular. */
export const subject = ref('');

/** Says what the page is about as long as it is there, so that tabs and bookmarks can be told apart. */
export function useSubject(of: WatchSource<string | undefined>) {
  watch(of, (now) => (subject.value = now ?? ''), { immediate: true });
  onUnmounted(() => (subject.value = ''));
}

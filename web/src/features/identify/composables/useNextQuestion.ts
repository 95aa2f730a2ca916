import { nextTick, watch, type Ref } from 'vue';

/** An answered question gives way to the next; whoever answered by keyboard goes on there, and not at the head of the page. */
export function useNextQuestion(question: () => string | null | undefined, heading: Readonly<Ref<HTMLElement | null>>) {
  watch(question, async (_, before) => {
    await nextTick();
    // The first question of a page is nobody's answer.
    if (before && document.activeElement === document.body) heading.value?.focus({ preventScroll: true });
  });
}

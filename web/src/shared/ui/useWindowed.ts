import { useVirtualizer } from '@tanstack/vue-virtual';
import { useEventListener } from '@vueuse/core';
import { computed, nextTick, onMounted, ref, watchPostEffect, type ComponentPublicInstance, type Ref } from 'vue';

/** Shorter lists stand there whole: the browser finds words in them, and nothing jumps. */
const WHOLE = 150;

function scrollerOf(element: HTMLElement | null): HTMLElement | null {
  for (let at = element?.parentElement; at; at = at.parentElement)
    if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return null;
}

/**
 * What of a long list has to stand in the page: the items in the window of whatever scrolls it, and some around. The list
 * keeps its length by `padding`; each item is measured when it stands there, by `measure` and its `data-index`.
 */
export function useWindowed<T>(
  list: Readonly<Ref<HTMLElement | null | undefined>>,
  items: Readonly<Ref<T[]>>,
  key: (item: T) => string,
  height: number,
) {
  const scroller = ref<HTMLElement | null>(null);
  const margin = ref(0);
  const long = computed(() => items.value.length > WHOLE && scroller.value !== null);

  function place() {
    if (!long.value || !list.value || !scroller.value) return;
    const above = list.value.getBoundingClientRect().top - scroller.value.getBoundingClientRect().top;
    margin.value = Math.round(above + scroller.value.scrollTop);
  }

  onMounted(() => {
    scroller.value = scrollerOf(list.value ?? null);
    place();
  });
  watchPostEffect(() => {
    if (items.value.length) place();
  });
  // What stands above the list can be folded.
  useEventListener(scroller, 'scroll', place, { passive: true });

  const windowed = useVirtualizer(
    computed(() => ({
      count: long.value ? items.value.length : 0,
      getScrollElement: () => scroller.value,
      estimateSize: () => height,
      getItemKey: (i: number) => key(items.value[i] as T),
      overscan: 10,
      scrollMargin: margin.value,
    })),
  );

  const shown = computed(() =>
    long.value
      ? windowed.value.getVirtualItems().flatMap(({ index }) => {
          const item = items.value[index];
          return item === undefined ? [] : [{ item, index }];
        })
      : items.value.map((item, index) => ({ item, index })),
  );
  const padding = computed(() => {
    const there = windowed.value.getVirtualItems();
    const [first, last] = [there[0], there.at(-1)];
    if (!long.value || !first || !last) return {};
    return {
      paddingTop: `${first.start - margin.value}px`,
      paddingBottom: `${windowed.value.getTotalSize() - (last.end - margin.value)}px`,
    };
  });

  /** Brings an item into the window, and answers with its element. */
  async function reveal(index: number): Promise<HTMLElement | null> {
    if (index < 0) return null;
    if (long.value) {
      place();
      await nextTick();
      windowed.value.scrollToIndex(index, { align: 'auto' });
      // It stands there after the next frame.
      await new Promise(requestAnimationFrame);
    }
    await nextTick();
    const element = list.value?.querySelector<HTMLElement>(`[data-index="${index}"]`) ?? null;
    element?.scrollIntoView({ block: 'nearest' });
    return element;
  }

  function measure(element: Element | ComponentPublicInstance | null) {
    const root = element && '$el' in element ? (element.$el as Element) : element;
    if (long.value && root instanceof HTMLElement) windowed.value.measureElement(root);
  }

  return { shown, padding, reveal, measure };
}

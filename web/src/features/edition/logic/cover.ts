import { useEventListener } from '@vueuse/core';
import { watchPostEffect, type Ref } from 'vue';
import { useRouter } from 'vue-router';

/** Views that belong to a part that the cover names. */
const PART_OF: Record<string, string> = { taxon: 'taxa', check: 'taxa', handful: 'any-order' };

/** Which edition came with the page, if one did. */
export function editionInPage(): { number: number; format: number } | undefined {
  const told = document.getElementById('edition')?.dataset;
  return told ? { number: Number(told.number), format: Number(told.format) } : undefined;
}

/**
 * The cover that came with the page: the application takes it over as it stands, shows it or one of the parts below its
 * heading, and follows its links without loading the page again.
 */
export function useCover(place: Readonly<Ref<HTMLElement | null>>, view: Readonly<Ref<string>>) {
  const router = useRouter();
  watchPostEffect(() => {
    const cover = document.getElementById('cover');
    // It is taken over first: an address may name a part that stands below its heading.
    if (cover && place.value && !place.value.contains(cover)) place.value.append(cover);
    const part = PART_OF[view.value] ?? view.value;
    place.value?.querySelector('.cover')?.toggleAttribute('hidden', part !== 'cover');
    for (const link of place.value?.querySelectorAll('nav a') ?? []) {
      const here = link.getAttribute('href') === (part === 'cover' ? '?' : `?view=${part}`);
      if (here) link.setAttribute('aria-current', 'page');
      else link.removeAttribute('aria-current');
    }
  });
  useEventListener(place, 'click', (event: MouseEvent) => {
    const link = event.target instanceof Element ? event.target.closest('a') : null;
    const query = link?.getAttribute('href') ?? '';
    if (!query.startsWith('?') || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    void router.push({ query: Object.fromEntries(new URLSearchParams(query)) });
  });
}

import { ref, watch } from 'vue';
import type { ShelfKey } from '../logic/shelf';

const KEPT = 'polyclave.shelf';

function kept(): ShelfKey[] {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '');
    return Array.isArray(read) ? (read as ShelfKey[]) : ['study'];
  } catch {
    return ['study'];
  }
}

/** How this person's shelves are ordered: the same in every study. */
const scheme = ref(kept());
watch(scheme, (keys) => localStorage.setItem(KEPT, JSON.stringify(keys)), { deep: true });

export const useShelf = () => scheme;

import { useLocalStorage } from '@vueuse/core';
import type { ShelfKey } from '../logic/shelf';

/** What was kept may be older than this page, or not of it. */
function read(kept: string): ShelfKey[] {
  try {
    const keys: unknown = JSON.parse(kept);
    return Array.isArray(keys) ? (keys as ShelfKey[]) : ['study'];
  } catch {
    return ['study'];
  }
}

/** How this person's shelves are ordered: the same in every study. */
const scheme = useLocalStorage<ShelfKey[]>('polyclave.shelf', ['study'], {
  serializer: { read, write: JSON.stringify },
});

export const useShelf = () => scheme;

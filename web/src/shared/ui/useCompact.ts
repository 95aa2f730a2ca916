import { computed } from 'vue';

/** What fields that stand close have in common, for `v-bind`. */
export function useCompact(readonly: () => boolean) {
  return computed(() => ({ density: 'compact' as const, hideDetails: true, readonly: readonly() }));
}

import { useQuery } from '@tanstack/vue-query';
import { computed, type Ref } from 'vue';
import { api, type Schemas } from '@/api/client';

export type Finding = Schemas['FindingView'];

/** The findings of a study at its newest revision. */
export function useFindings(slug: string, revision: Ref<number | undefined>) {
  return useQuery({
    queryKey: computed(() => ['findings', slug, revision.value]),
    queryFn: () => api.get('/api/v1/studies/{slug}/findings', { slug }),
    enabled: computed(() => revision.value !== undefined),
    placeholderData: (before: Finding[] | undefined) => before,
  });
}

export const isOpen = (finding: Finding) => !finding.acceptance;

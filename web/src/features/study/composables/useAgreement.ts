import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { api, type Schemas } from '@/api/client';
import type { StudyModel } from './useStudy';

/** How well the scorers of a study agree; not asked while one scores blind. */
export function useAgreement(model: StudyModel) {
  return useQuery({
    queryKey: ['agreement', model.slug, computed(() => model.study.value?.revision)],
    queryFn: () => api.get<Schemas['OfCharacter'][]>(`/api/studies/${encodeURIComponent(model.slug)}/agreement`),
    enabled: computed(() => model.study.value?.blind === false && model.study.value.role !== 'VIEWER'),
    placeholderData: (old) => old,
    retry: false,
  });
}

import { useQuery } from '@tanstack/vue-query';
import { computed, toValue, type MaybeRefOrGetter } from 'vue';
import { api } from '@/api/client';
import type { StudyModel } from './useStudy';

/** How well the scorers of a study agree, once it is wanted; not asked while one scores blind. */
export function useAgreement(model: StudyModel, wanted: MaybeRefOrGetter<boolean> = true) {
  return useQuery({
    queryKey: ['agreement', model.slug, computed(() => model.study.value?.revision)],
    queryFn: () => api.get('/api/v1/studies/{slug}/agreement', { slug: model.slug }),
    enabled: computed(
      () => toValue(wanted) && model.study.value?.blind === false && model.study.value.role !== 'VIEWER',
    ),
    placeholderData: (old) => old,
    retry: false,
  });
}

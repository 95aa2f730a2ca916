import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed } from 'vue';
import { api, type Schemas } from '@/api/client';
import type { StudyModel } from '@/study-kernel';

export type Comment = Schemas['CommentLine'];

/** What members say about cells. One list for a study: there are few, and the sheet marks them all. */
export function useComments(model: StudyModel) {
  const slug = model.slug;
  const queryKey = ['comments', model.slug];
  const client = useQueryClient();
  const list = useQuery({
    queryKey,
    queryFn: () => api.get('/api/v1/studies/{slug}/comments', { slug }),
    enabled: computed(() => model.study.value?.blind === false),
    refetchInterval: 30_000,
  });
  const keep = { onSuccess: (now: Comment[]) => client.setQueryData(queryKey, now) };
  const write = useMutation({
    mutationFn: (said: Schemas['CommentRequest']) => api.post('/api/v1/studies/{slug}/comments', { slug }, said),
    ...keep,
  });
  const settle = useMutation({
    mutationFn: ({ id, settled }: { id: number; settled: boolean }) =>
      api.put('/api/v1/studies/{slug}/comments/{id}/settled', { slug, id }, { settled }),
    ...keep,
  });
  const byCell = computed(() => {
    const found = new Map<string, Comment[]>();
    for (const comment of list.data.value ?? []) {
      const key = `${comment.row} ${comment.character}`;
      found.set(key, [...(found.get(key) ?? []), comment]);
    }
    return found;
  });
  const of = (row: string, character: string): Comment[] => byCell.value.get(`${row} ${character}`) ?? [];
  const isOpen = (row: string, character: string) => of(row, character).some((c) => !c.settledBy);
  return { of, isOpen, write, settle };
}

export type Comments = ReturnType<typeof useComments>;

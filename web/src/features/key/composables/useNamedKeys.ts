import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed, type Ref } from 'vue';
import { api } from '@/api/client';
import { useStudy } from '@/study-kernel';

/** Keys that a study keeps under a name: all of them, and some of them whole. */
export function useNamedKeys() {
  const { slug, study } = useStudy();
  const queries = useQueryClient();
  const revision = computed(() => study.value?.revision);
  const all = useQuery({
    queryKey: computed(() => ['named-keys', slug, revision.value]),
    queryFn: () => api.get('/api/v1/studies/{slug}/named-keys', { slug }),
    enabled: computed(() => revision.value !== undefined),
    placeholderData: (before) => before,
  });

  /** The key that is asked for; none while there is no id. */
  const whole = (id: Ref<number | undefined>) =>
    useQuery({
      queryKey: computed(() => ['named-key', slug, id.value, revision.value]),
      queryFn: () => api.get('/api/v1/studies/{slug}/named-keys/{id}', { slug, id: id.value ?? 0 }),
      enabled: computed(() => id.value !== undefined && revision.value !== undefined),
      retry: false,
    });

  async function reload() {
    await Promise.all(['named-keys', 'named-key'].map((kind) => queries.invalidateQueries({ queryKey: [kind, slug] })));
  }

  async function keep(name: string, job: string) {
    const kept = await api.post('/api/v1/studies/{slug}/named-keys', { slug }, { name, job });
    await reload();
    return kept;
  }

  async function replace(id: number, job: string) {
    await api.put('/api/v1/studies/{slug}/named-keys/{id}/key', { slug, id }, { job });
    await reload();
  }

  async function update(id: number, name: string, published: boolean) {
    await api.put('/api/v1/studies/{slug}/named-keys/{id}', { slug, id }, { name, published });
    await reload();
  }

  async function remove(id: number) {
    await api.delete('/api/v1/studies/{slug}/named-keys/{id}', { slug, id });
    await reload();
  }

  return { all, whole, keep, replace, update, remove };
}

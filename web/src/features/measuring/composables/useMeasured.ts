import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useStudy } from '@/study-kernel';

export type Draft = Schemas['DraftRequest'];

/** What was read of a character, and of a specimen; and the ways to read more. */
export function useMeasured(character: () => string, specimen: () => string) {
  const model = useStudy();
  const slug = model.slug;
  const revision = computed(() => model.study.value?.revision);

  const measured = useQuery({
    queryKey: computed(() => ['measured', model.slug, character(), revision.value]),
    queryFn: () => api.get('/api/v1/studies/{slug}/readings/of-character/{id}', { slug, id: character() }),
    enabled: computed(() => character() !== '' && revision.value !== undefined),
    placeholderData: (old) => (old?.character === character() ? old : undefined),
    retry: false,
  });
  const ofSpecimen = useQuery({
    queryKey: computed(() => ['readings', model.slug, specimen(), revision.value]),
    queryFn: () => api.get('/api/v1/studies/{slug}/readings/of-specimen/{id}', { slug, id: specimen() }),
    enabled: computed(() => specimen() !== '' && revision.value !== undefined),
    placeholderData: (old) => (old?.specimen === specimen() ? old : undefined),
    retry: false,
  });

  async function add(readings: Draft[]): Promise<string> {
    const written = await api.post('/api/v1/studies/{slug}/readings', { slug }, { readings });
    await model.catchUp();
    return written.id;
  }

  async function correct(id: string, reading: Draft, baseRevision: number) {
    await api.put('/api/v1/studies/{slug}/readings/{id}', { slug, id }, { reading, baseRevision });
    await model.catchUp();
  }

  async function remove(id: string, baseRevision: number) {
    await api.delete('/api/v1/studies/{slug}/readings/{id}', { slug, id, baseRevision });
    await model.catchUp();
  }

  return { measured: measured.data, ofSpecimen: ofSpecimen.data, problem: measured.error, add, correct, remove };
}

/** A reading as it would be sent again. */
export const draftOf = (reading: Schemas['Reading'], change: Partial<Draft> = {}): Draft => ({
  specimen: reading.specimen,
  character: reading.character,
  item: reading.item ?? '',
  typed: reading.typed,
  ...(reading.mark ? { mark: reading.mark } : {}),
  instrument: reading.instrument ?? '',
  standing: reading.standing,
  note: reading.note ?? '',
  ...change,
});

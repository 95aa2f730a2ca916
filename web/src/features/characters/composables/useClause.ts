import { onScopeDispose, ref, shallowRef, watch } from 'vue';
import { api, Problem, type Schemas } from '@/api/client';
import type { Character } from '../logic/characters';

const PAUSE = 250;

/** How a character would read in leads, while its clause is typed; the last answer stays until the next is there. */
export function useClause(slug: string, character: () => Character) {
  const preview = shallowRef<Schemas['ClausePreview']>();
  /** Why it cannot be read. */
  const fault = ref('');
  let turn = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;

  async function ask() {
    const mine = ++turn;
    try {
      const answer = await api.post('/api/v1/studies/{slug}/characters/clause', { slug }, character());
      if (mine !== turn) return;
      preview.value = answer;
      fault.value = '';
    } catch (failure) {
      if (mine === turn) fault.value = failure instanceof Problem ? failure.message : '';
    }
  }

  watch(
    () => JSON.stringify(character()),
    (_, before) => {
      clearTimeout(timer);
      if (before === undefined) void ask();
      else timer = setTimeout(() => void ask(), PAUSE);
    },
    { immediate: true },
  );
  onScopeDispose(() => {
    turn++;
    clearTimeout(timer);
  });

  return { preview, fault };
}

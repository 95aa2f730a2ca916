import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useSession } from '@/stores/session';

export type Rule = Schemas['OwnRule']['rule'];

export const RULES: Rule[] = ['FINGERNAIL', 'FINGER_WIDTH', 'PENCIL', 'HAND_SPAN'];
const KEPT = 'polyclave.rulesOfThumb';

type Own = Partial<Record<Rule, Schemas['OwnRule']>>;

function read(kept: string): Own {
  try {
    return JSON.parse(kept) as Own;
  } catch {
    return {};
  }
}

/** What readers without an account measured of their own: this browser remembers it. */
const ofBrowser = useLocalStorage<Own>(KEPT, {}, { serializer: { read, write: JSON.stringify } });

/** Sizes that this person has at hand: of their account, else of their browser, else of people in general. */
export function useRules() {
  const session = useSession();
  const client = useQueryClient();
  const queryKey = computed(() => ['rules-of-thumb', session.account?.name ?? '']);
  const query = useQuery({
    queryKey,
    queryFn: () => api.get('/api/v1/rules-of-thumb'),
    staleTime: Infinity,
  });
  const rules = computed(() =>
    (query.data.value ?? []).map((rule) => (session.account ? rule : (ofBrowser.value[rule.rule] ?? rule))),
  );
  const measuredOf = (rule: Rule) => rules.value.find((r) => r.rule === rule)?.measured ?? [];

  async function measure(rule: Rule, measured: string[]) {
    const own = await api.put('/api/v1/rules-of-thumb/{rule}', { rule }, { measured });
    if (session.account) {
      await client.invalidateQueries({ queryKey: queryKey.value });
    } else {
      ofBrowser.value = { ...ofBrowser.value, [rule]: own };
    }
  }

  return { rules, measuredOf, measure };
}

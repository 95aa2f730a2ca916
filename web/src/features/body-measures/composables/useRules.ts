import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { api, type Schemas } from '@/api/client';
import { useSession } from '@/stores/session';

export type Rule = Schemas['OwnRule']['rule'];

export const RULES: Rule[] = ['FINGERNAIL', 'FINGER_WIDTH', 'PENCIL', 'HAND_SPAN'];
const KEPT = 'polyclave.rulesOfThumb';

function kept(): Partial<Record<Rule, Schemas['OwnRule']>> {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Record<Rule, Schemas['OwnRule']>>;
  } catch {
    return {};
  }
}

/** What readers without an account measured of their own: this browser remembers it. */
const ofBrowser = ref(kept());

/** Sizes that this person has at hand: of their account, else of their browser, else of people in general. */
export function useRules() {
  const session = useSession();
  const client = useQueryClient();
  const queryKey = computed(() => ['rules-of-thumb', session.account?.name ?? '']);
  const query = useQuery({
    queryKey,
    queryFn: () => api.get<Schemas['OwnRule'][]>('/api/v1/rules-of-thumb'),
    staleTime: Infinity,
  });
  const rules = computed(() =>
    (query.data.value ?? []).map((rule) => (session.account ? rule : (ofBrowser.value[rule.rule] ?? rule))),
  );
  const measuredOf = (rule: Rule) => rules.value.find((r) => r.rule === rule)?.measured ?? [];

  async function measure(rule: Rule, measured: string[]) {
    const own = await api.put<Schemas['OwnRule']>(`/api/v1/rules-of-thumb/${rule}`, { measured });
    if (session.account) {
      await client.invalidateQueries({ queryKey: queryKey.value });
    } else {
      ofBrowser.value = { ...ofBrowser.value, [rule]: own };
      localStorage.setItem(KEPT, JSON.stringify(ofBrowser.value));
    }
  }

  return { rules, measuredOf, measure };
}

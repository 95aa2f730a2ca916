import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Schemas } from '@/api/client';
import { useRules, type Rule } from '@/features/body-measures';
import { asText } from '@/shared/ui/asText';
import { fromQuery } from '@/shared/viewing/conditions';
import { decode, encode, lookedAgain, requestOf, toggled, type Certainty, type Given } from '../logic/answers';

/** What a reader answers, and under which conditions: all of it in the address, so that it can be gone back on and shared. */
export function useAnswers(characters: () => Schemas['StudyCharacter'][]) {
  const route = useRoute();
  const router = useRouter();
  const { rules, measuredOf } = useRules();

  const answers = computed(() => decode(asText(route.query.seen), characters()));
  const strikeOut = computed(() => route.query.school === 'strike-out');
  const tolerance = computed(() => Math.min(3, Math.max(0, Math.trunc(Number(asText(route.query.k))) || 0)));
  const month = computed(() => {
    const asked = Number(asText(route.query.month));
    return Number.isInteger(asked) && asked >= 1 && asked <= 12 ? asked : 0;
  });
  const presence = computed(() => route.query.presence !== 'off');
  const novice = computed(() => route.query.reader === 'new');
  const atHand = computed(() => fromQuery(route.query));

  /** Conditions are no steps: Back goes to the answer before, not to the setting before. */
  function ask(changes: Record<string, string | undefined>) {
    return router.replace({ query: { ...route.query, ...changes }, hash: route.hash });
  }

  function give(next: Given[]) {
    return router.push({ query: { ...route.query, seen: encode(next) || undefined }, hash: route.hash });
  }

  const given = (character: string) => answers.value.find((a) => a.character === character);
  const without = (character: string) => answers.value.filter((a) => a.character !== character);
  const put = (answer: Omit<Given, 'certainty'>) =>
    give([...without(answer.character), { certainty: given(answer.character)?.certainty ?? 'SURE', ...answer }]);

  return {
    answers,
    strikeOut,
    tolerance,
    month,
    presence,
    novice,
    atHand,
    ask,
    give,
    given,
    toggle: (character: string, state: string) => give(toggled(answers.value, character, state)),
    show: (character: string, states: string[]) => put({ character, states, value: null, passed: null }),
    measure: (character: string, value: number, more: { spread?: number; rule?: Rule } = {}) =>
      put({ character, states: [], value, passed: null, ...more }),
    pass: (character: string, passed: 'not-sure' | 'cannot-see') => put({ character, states: [], value: null, passed }),
    sure: (character: string, certainty: Certainty) =>
      give(answers.value.map((a) => (a.character === character ? { ...a, certainty } : a))),
    withdraw: (character: string) => give(without(character)),
    again: (character: string, state: string) => give(lookedAgain(answers.value, character, state)),
    /** What the server is asked. */
    request: computed<Schemas['IdentifyRequest']>(() => {
      // A reader's own sizes change what a rough size comes to.
      void rules.value;
      return requestOf(answers.value, {
        strikeOut: strikeOut.value,
        tolerance: strikeOut.value ? tolerance.value : 0,
        month: month.value,
        novice: novice.value,
        measuredOf,
        presence: presence.value,
        atHand: atHand.value,
      });
    }),
  };
}

export type Answers = ReturnType<typeof useAnswers>;

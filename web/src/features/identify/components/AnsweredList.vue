<script setup lang="ts">
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import { numberOf, type Given } from '../logic/answers';
import type { Answers } from '../composables/useAnswers';
import AnswerCard from './AnswerCard.vue';

/** What was answered, the last first; each can be looked at again. */
const props = defineProps<{
  characters: Map<string, Schemas['StudyCharacter']>;
  answers: Answers;
  /** What was seen, as a clause, by character. */
  clauses: Map<string, string>;
  rough: Schemas['RoughView'][];
  plain: boolean;
}>();
const { t, n } = useI18n();

const shown = computed(() =>
  [...props.answers.answers.value].reverse().flatMap((answer) => {
    const character = props.characters.get(answer.character);
    return character ? [{ answer, character, text: textOf(answer, character) }] : [];
  }),
);

function textOf(answer: Given, character: Schemas['StudyCharacter']): string {
  const clause = answer.passed || answer.rule ? '' : props.clauses.get(character.id);
  const said = clause ?? '';
  const text = said || `${character.label}: ${inShort(answer, character)}`;
  return answer.certainty === 'SURE' || answer.passed ? text : `${text} (${t(`certainty.${answer.certainty}`)})`;
}

function inShort(answer: Given, character: Schemas['StudyCharacter']): string {
  if (answer.passed) return t(`ask.short.${answer.passed}`);
  if (answer.rule) return roughly(answer, character);
  if (answer.value !== null) return `${numberOf(answer)} ${character.unit}`;
  const months = character.type === 'MONTHS' ? answer.states.map((m) => t(`month.${m}`)) : [];
  const states = character.states.filter((s) => answer.states.includes(s.id)).map((s) => s.label);
  return [...states, ...months].join(t('ask.or'));
}

function roughly(answer: Given, character: Schemas['StudyCharacter']): string {
  const told = props.rough.find((r) => r.character === character.id);
  const times = n(answer.value ?? 0);
  const rule = t(`rough.of.${answer.rule}`);
  return told
    ? t('rough.said', {
        times,
        rule,
        value: n(told.value, { maximumSignificantDigits: 2 }),
        spread: n(told.uncertainty, { maximumSignificantDigits: 2 }),
        unit: character.unit,
      })
    : t('rough.short', { times, rule });
}
</script>

<template>
  <details v-if="shown.length" class="said" open>
    <summary>
      <h3>{{ $t('ask.answeredN', { n: shown.length }, shown.length) }}</h3>
    </summary>
    <details v-for="{ character, text } in shown" :key="character.id" class="answer">
      <summary>{{ text }}</summary>
      <AnswerCard :character="character" :answers="answers" :plain="plain" />
    </details>
    <button type="button" class="link no-print" @click="answers.give([])">{{ $t('ask.startOver') }}</button>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 2.75rem;
  padding: 0.5rem 0;
}

.said > summary h3 {
  display: inline;
}

.answer {
  border-bottom: 1px solid var(--rule);
}

.link {
  text-decoration: underline;
  min-height: 2.75rem;
}
</style>

<script setup lang="ts">
import type { Schemas } from '@/api/client';
import type { Answers } from '../composables/useAnswers';
import QuestionCard from './QuestionCard.vue';

/** A question whose answer goes with the others. */
defineProps<{
  character: Schemas['StudyCharacter'];
  answers: Answers;
  plain: boolean;
  reason?: string;
}>();
const emit = defineEmits<{ answered: [] }>();
</script>

<template>
  <QuestionCard
    :character="character"
    :given="answers.given(character.id)"
    :plain="plain"
    :reason="reason"
    @toggle="(answers.toggle(character.id, $event), emit('answered'))"
    @measure="(value, spread) => (answers.measure(character.id, value, { spread }), emit('answered'))"
    @rough="(times, rule) => (answers.measure(character.id, times, { rule }), emit('answered'))"
    @certainty="answers.sure(character.id, $event)"
    @pass="(answers.pass(character.id, $event), emit('answered'))"
    @withdraw="answers.withdraw(character.id)"
    @again="answers.again(character.id, $event)"
  />
</template>

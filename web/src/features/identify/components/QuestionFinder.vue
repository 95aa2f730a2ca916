<script setup lang="ts">
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import BodyPlan from '@/shared/picture/BodyPlan.vue';
import { organOf } from '@/shared/picture/organs';
import type { Answers } from '../composables/useAnswers';
import AnswerCard from './AnswerCard.vue';

/** Every question: by the part that it is about, on an outline or in the list, or by words. */
const props = defineProps<{
  characters: Schemas['StudyCharacter'][];
  plan: Schemas['BodyPlan'];
  answers: Answers;
  plain: boolean;
}>();
const wanted = defineModel<string>('wanted', { required: true });
const { t } = useI18n();
const part = ref('');

const open = computed(() => props.characters.filter((c) => !props.answers.given(c.id)));
const parts = computed(() => [...new Set(open.value.map((c) => c.organ))]);
const found = computed(() => {
  const words = wanted.value.trim().toLowerCase();
  // Another look at what was answered already is found by its words, too.
  if (words) {
    return props.characters.filter((c) =>
      [c.label, c.organ, c.question, c.plainQuestion].join(' ').toLowerCase().includes(words),
    );
  }
  return part.value ? open.value.filter((c) => c.organ === part.value) : [];
});
const onPlan = (of: string) => {
  const organ = organOf(of, props.plan.parts, parts.value);
  return { organ, count: open.value.filter((c) => c.organ === organ).length };
};

function choose(organ: string) {
  wanted.value = '';
  part.value = part.value === organ ? '' : organ;
}
</script>

<template>
  <section :aria-label="$t('ask.every')">
    <v-text-field
      v-model="wanted"
      :label="$t('ask.find')"
      density="compact"
      hide-details
      clearable
      class="mb-2"
      @click:clear="wanted = ''"
    />
    <BodyPlan v-if="plan.plan" :plan="plan.plan" :named="onPlan" :selected="part" @select="choose" />
    <div class="parts">
      <button v-for="p in parts" :key="p" type="button" :aria-pressed="part === p && !wanted" @click="choose(p)">
        {{ p || t('edition.general') }} <span class="quiet">{{ open.filter((c) => c.organ === p).length }}</span>
      </button>
    </div>
    <p v-if="wanted && !found.length" class="quiet">{{ $t('ask.noneFound', { words: wanted }) }}</p>
    <AnswerCard
      v-for="c in found"
      :key="c.id"
      :character="c"
      :answers="answers"
      :plain="plain"
      @answered="wanted = ''"
    />
  </section>
</template>

<style scoped>
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0.6rem 0;
}

.parts button {
  min-height: 2.75rem;
  padding: 0 0.75rem;
  border: 1px solid var(--rule);
  border-radius: 3px;
}

.parts button[aria-pressed='true'] {
  border-color: rgb(var(--v-theme-primary));
  box-shadow: inset 0 -3px rgb(var(--v-theme-primary));
}
</style>

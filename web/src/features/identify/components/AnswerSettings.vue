<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';
import type { Answers } from '../composables/useAnswers';
import { limitsOf } from '../logic/limits';

/** Folded until somebody wants them, and said in one line while they are. */
const props = defineProps<{ answers: Answers; characters: Schemas['StudyCharacter'][] }>();
const AnswerSettingFields = defineAsyncComponent(() => import('./AnswerSettingFields.vue'));
const { t } = useI18n();
const opened = ref(false);

const a = props.answers;
const limits = computed(() => limitsOf(props.characters, (treatment) => t(`apart.treated.${treatment}`)));
const summary = computed(() =>
  [
    a.month.value ? t(`month.${a.month.value}`) : t('key.anyMonth'),
    t(`observer.${a.novice.value ? 'NOVICE' : 'TRAINED'}`),
    t(a.strikeOut.value ? 'school.strikeOut' : 'school.weigh'),
    ...limits.value.flatMap(({ of, items }) => {
      const chosen = items.filter((item) => a.atHand.value[of].includes(item.value));
      return chosen.length ? [chosen.map((item) => item.title).join(', ')] : [];
    }),
  ].join(' · '),
);
</script>

<template>
  <details class="settings no-print" @toggle="opened = ($event.target as HTMLDetailsElement).open">
    <summary>
      <strong>{{ $t('ask.settings') }}</strong> <span class="quiet">{{ summary }}</span>
    </summary>
    <AnswerSettingFields v-if="opened" :answers="answers" :limits="limits" />
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 2.75rem;
  padding: 0.6rem 0;
}
</style>

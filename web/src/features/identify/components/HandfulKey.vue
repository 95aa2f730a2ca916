<script setup lang="ts">
import { mdiMinus, mdiPlus } from '@mdi/js';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import type { Schemas } from '@/api/client';
import { useRules } from '@/features/body-measures';
import { asText } from '@/shared/ui/asText';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { usePreferences } from '@/stores/preferences';
import { useAnswers } from '../composables/useAnswers';
import { useNextQuestion } from '../composables/useNextQuestion';
import { answersOf, type Certainty, type Given } from '../logic/answers';
import {
  answered,
  decodeEach,
  encodeEach,
  MOST_INDIVIDUALS,
  nextQuestion,
  unanswered,
  type Each,
} from '../logic/handful';
import HandfulGroup from './HandfulGroup.vue';
import QuestionCard from './QuestionCard.vue';

/** Several individuals that were picked together, each judged by what was seen of it alone. */
const props = defineProps<{
  characters: Schemas['StudyCharacter'][];
  outside: Schemas['OutsideTaxon'][];
  of: string;
  handful: (request: Schemas['HandfulRequest']) => Promise<Schemas['HandfulResponse']>;
}>();
const FEW = 3;
const route = useRoute();
const router = useRouter();
const { t } = useI18n();
const preferences = usePreferences();
const { measuredOf } = useRules();

const count = computed(() => {
  const asked = Math.trunc(Number(asText(route.query.n)));
  return asked >= 1 ? Math.min(asked, MOST_INDIVIDUALS) : FEW;
});
const each = computed<Each>(() => decodeEach(asText(route.query.each), count.value, props.characters));
const { month, novice } = useAnswers(() => props.characters);

const request = computed<Schemas['HandfulRequest']>(() => ({
  individuals: each.value.map((answers) => answersOf(answers, measuredOf)),
  month: month.value,
  observer: novice.value ? 'NOVICE' : undefined,
}));
const result = useQuery({
  queryKey: computed(() => ['handful', props.of, request.value]),
  queryFn: () => props.handful(request.value),
  placeholderData: keepPreviousData,
  retry: false,
});
const begun = computed(() => each.value.some((answers) => answers.length > 0));
/** What differs from the others comes first, then what was looked at least. */
const groups = computed(() =>
  [...(result.data.value?.groups ?? [])].sort(
    (a, b) => b.differing.length - a.differing.length || b.missing.length - a.missing.length,
  ),
);
const byId = computed(() => new Map(props.characters.map((c) => [c.id, c])));

/** The question that was chosen, or the one that those ask for who were looked at least. */
const chosen = ref<string | null>(null);
const suggested = computed(() =>
  nextQuestion(
    result.data.value?.groups ?? [],
    each.value,
    // What is seen at a glance first: nobody likes to measure a dozen.
    (character) => (byId.value.get(character)?.states.length ?? 0) > 0,
  ),
);
const current = computed(() => byId.value.get(chosen.value ?? suggested.value ?? ''));
const marked = ref<number[]>([]);
watch(
  [() => current.value?.id, count],
  () => {
    const id = current.value?.id;
    marked.value = id ? unanswered(each.value, id) : [];
  },
  { immediate: true },
);
const look = useTemplateRef<HTMLElement>('look');
useNextQuestion(() => current.value?.id, look);
const places = computed(() => Array.from({ length: count.value }, (_, i) => i + 1));
/** What all that are marked show, where they show the same. */
const common = computed(() => {
  const id = current.value?.id;
  const told = marked.value.map((p) => each.value[p - 1]?.find((a) => a.character === id));
  return told.length && told.every((a) => JSON.stringify(a) === JSON.stringify(told[0])) ? told[0] : undefined;
});
const items = computed(() =>
  props.characters.map((c) => ({ value: c.id, title: c.organ ? `${c.organ}: ${c.label}` : c.label })),
);

function write(next: Each) {
  return router.push({ query: { ...route.query, n: String(count.value), each: encodeEach(next) || undefined } });
}

function resize(n: number) {
  const size = Math.min(MOST_INDIVIDUALS, Math.max(1, n));
  void router.replace({
    query: { ...route.query, n: String(size), each: encodeEach(each.value.slice(0, size)) || undefined },
  });
}

async function answer(given: Partial<Given> | null) {
  const character = current.value?.id;
  if (!character || !marked.value.length) return;
  const whole: Given | null = given && {
    character,
    states: [],
    value: null,
    certainty: 'SURE',
    passed: null,
    ...given,
  };
  const next = answered(each.value, marked.value, character, whole);
  const left = unanswered(next, character);
  // Whoever is left is asked for next; then the next question.
  if (left.length) {
    chosen.value = character;
    marked.value = left;
  } else {
    chosen.value = null;
  }
  await write(next);
}

function lookAgain(group: Schemas['HandfulGroup'], character: string) {
  chosen.value = character;
  // The watcher marks whoever was not answered; here those of the group are wanted.
  queueMicrotask(() => (marked.value = [...group.individuals]));
}

function toggle(place: number) {
  marked.value = marked.value.includes(place)
    ? marked.value.filter((p) => p !== place)
    : [...marked.value, place].sort((a, b) => a - b);
}

const sure = (certainty: Certainty) => common.value && answer({ ...common.value, certainty });
</script>

<template>
  <div class="handful">
    <h2>{{ $t('handful.title') }}</h2>
    <p class="quiet">{{ $t('handful.how') }}</p>
    <p class="count">
      <label for="count">{{ $t('handful.count') }}</label>
      <v-btn
        :icon="mdiMinus"
        size="small"
        variant="outlined"
        :aria-label="$t('handful.fewer')"
        @click="resize(count - 1)"
      />
      <input
        id="count"
        :value="count"
        type="number"
        min="1"
        :max="MOST_INDIVIDUALS"
        @change="resize(Number(($event.target as HTMLInputElement).value))"
      />
      <v-btn
        :icon="mdiPlus"
        size="small"
        variant="outlined"
        :aria-label="$t('handful.more')"
        @click="resize(count + 1)"
      />
    </p>
    <ProblemNote :problem="result.error.value" />
    <div v-if="begun" aria-live="polite">
      <HandfulGroup
        v-for="g in groups.filter((g) => g.differing.length)"
        :key="g.individuals.join()"
        :group="g"
        :outside="outside"
        :characters="byId"
        :plain="preferences.plain"
        @look="lookAgain(g, $event)"
      />
    </div>
    <section v-if="current" class="question">
      <h3 ref="look" tabindex="-1">{{ $t('ask.next') }}</h3>
      <v-autocomplete
        :model-value="current.id"
        :items="items"
        :label="$t('handful.question')"
        hide-details
        density="compact"
        @update:model-value="chosen = $event"
      />
      <div class="places" role="group" :aria-label="$t('handful.which')">
        <button
          v-for="p in places"
          :key="p"
          type="button"
          :aria-pressed="marked.includes(p)"
          :class="{ done: each[p - 1]?.some((a) => a.character === current?.id) }"
          @click="toggle(p)"
        >
          {{ p }}
        </button>
        <button type="button" class="link" @click="marked = marked.length === count ? [] : [...places]">
          {{ marked.length === count ? $t('handful.none') : $t('handful.all') }}
        </button>
      </div>
      <p class="quiet">
        {{ marked.length ? t('handful.marked', { n: marked.length }, marked.length) : t('handful.markSome') }}
      </p>
      <QuestionCard
        :key="current.id"
        :character="current"
        :given="common"
        :plain="preferences.plain"
        @toggle="answer(common?.states.includes($event) ? null : { states: [$event] })"
        @measure="(value, spread) => answer({ value, spread })"
        @rough="(times, rule) => answer({ value: times, rule })"
        @certainty="sure"
        @pass="answer({ passed: $event })"
        @withdraw="answer(null)"
        @again="common && answer({ ...common, again: [...(common.again ?? []), $event] })"
      />
    </section>
    <p v-else-if="result.data.value" class="quiet">{{ $t('ask.nothing') }}</p>
    <div v-if="begun" aria-live="polite">
      <HandfulGroup
        v-for="g in groups.filter((g) => !g.differing.length)"
        :key="g.individuals.join()"
        :group="g"
        :outside="outside"
        :characters="byId"
        :plain="preferences.plain"
        @look="lookAgain(g, $event)"
      />
    </div>
  </div>
</template>

<style scoped>
.count {
  display: flex;
  align-items: center;
  gap: 0.6rem;
}

.count input {
  width: 4rem;
  min-height: 2.5rem;
  padding: 0 0.5rem;
  border: 1px solid currentcolor;
  background: rgb(var(--v-theme-surface));
  color: inherit;
}

.places {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0.8rem 0 0.2rem;
}

.places button {
  min-width: 2.75rem;
  min-height: 2.75rem;
  border: 1px solid currentcolor;
  border-radius: 3px;
}

.places .done {
  border-style: dotted;
}

.places button[aria-pressed='true'] {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
}

.places .link {
  border: 0;
  text-decoration: underline;
}
</style>

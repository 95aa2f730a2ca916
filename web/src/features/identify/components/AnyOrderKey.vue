<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef } from 'vue';
import { useI18n } from 'vue-i18n';
import type { LocationQueryRaw } from 'vue-router';
import type { Schemas } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { usePreferences } from '@/stores/preferences';
import { useAnswers } from '../composables/useAnswers';
import { useNextQuestion } from '../composables/useNextQuestion';
import AnsweredList from './AnsweredList.vue';
import AnswerCard from './AnswerCard.vue';
import AnswerSettings from './AnswerSettings.vue';
import DangerNote from './DangerNote.vue';
import EvidenceLadder from './EvidenceLadder.vue';
import ShareAnswers from './ShareAnswers.vue';
import VerdictNote from './VerdictNote.vue';
import WhyPanel from './WhyPanel.vue';

/** Answers in any order, one ranked ladder, and what to look at next. */
const props = defineProps<{
  characters: Schemas['StudyCharacter'][];
  outside: Schemas['OutsideTaxon'][];
  plan: Schemas['BodyPlan'];
  /** What is asked, to keep answers apart. */
  of: string;
  /** Address that leads here for ever, without what is asked. */
  address: string;
  /** Where several individuals are read together, if anywhere. */
  handful?: LocationQueryRaw;
  identify: (request: Schemas['IdentifyRequest']) => Promise<Schemas['IdentifyResponse']>;
}>();
const QuestionFinder = defineAsyncComponent(() => import('./QuestionFinder.vue'));
const MOST_COMPARED = 2;
const { t } = useI18n();
const preferences = usePreferences();
const answers = useAnswers(() => props.characters);
const wanted = ref('');
const finding = ref(false);
const selected = ref<string[]>([]);
/** Of the cards, the one that is open: the first, unless somebody chose another. */
const opened = ref<string | null>(null);

const result = useQuery({
  queryKey: computed(() => ['identify', props.of, answers.request.value]),
  queryFn: () => props.identify(answers.request.value),
  placeholderData: keepPreviousData,
  retry: false,
});
const found = computed(() => result.data.value);

const byId = computed(() => new Map(props.characters.map((c) => [c.id, c])));
/** Where nothing is worth asking, nothing is: what is left would be idle. */
const idle = computed(() => found.value?.conclusion === 'REMAINING');
const suggestions = computed(() =>
  (idle.value ? [] : (found.value?.questions ?? [])).flatMap((q) => {
    const character = byId.value.get(q.character);
    const told = q.tells.length ? t('ask.tells', { names: q.tells.join('; ') }) : '';
    return character ? [{ character, reason: q.protection ? `${told} ${t('ask.protection')}` : told }] : [];
  }),
);
const shown = computed(() =>
  suggestions.value.some((s) => s.character.id === opened.value) ? opened.value : suggestions.value[0]?.character.id,
);
const look = useTemplateRef<HTMLElement>('look');
useNextQuestion(() => shown.value, look);
const questionOf = (c: Schemas['StudyCharacter']) => (preferences.plain && c.plainQuestion) || c.question || c.label;
/** By character. While another answer is awaited, what stands here is of the last one. */
const clauses = computed(
  () =>
    new Map(
      result.isPlaceholderData.value
        ? []
        : (found.value?.said ?? []).map((s) => [s.character, preferences.plain ? s.plain : s.text]),
    ),
);
const compared = computed(() =>
  selected.value.flatMap((row) => found.value?.standings.find((s) => s.name.row === row) ?? []),
);

function select(row: string) {
  selected.value = selected.value.includes(row)
    ? selected.value.filter((r) => r !== row)
    : [...selected.value, row].slice(-MOST_COMPARED);
}

const finder = useTemplateRef<HTMLElement>('finder');
async function find(label: string) {
  wanted.value = label;
  finding.value = true;
  await nextTick();
  finder.value?.scrollIntoView({ block: 'start' });
}
</script>

<template>
  <div class="any">
    <AnswerSettings :answers="answers" :characters="characters" class="settings-area" />
    <ProblemNote :problem="result.error.value" class="settings-area" />
    <div class="column">
      <VerdictNote
        v-if="found"
        class="verdict-area"
        :result="found"
        :answers="answers.answers.value.length"
        :outside="outside"
        :characters="byId"
      />
      <section class="questions" aria-labelledby="look">
        <h3 id="look" ref="look" tabindex="-1">{{ $t('ask.next') }}</h3>
        <template v-for="{ character, reason } in suggestions" :key="character.id">
          <AnswerCard
            v-if="character.id === shown"
            :character="character"
            :answers="answers"
            :plain="preferences.plain"
            :reason="reason"
            @answered="opened = null"
          />
          <button v-else type="button" class="other" @click="opened = character.id">
            <span class="organ">{{ character.organ }}</span>
            <span>{{ questionOf(character) }}</span>
            <span class="quiet">{{ reason }}</span>
          </button>
        </template>
        <p v-if="found && !result.isFetching.value && !suggestions.length" class="quiet">{{ $t('ask.nothing') }}</p>
        <details ref="finder" :open="finding" @toggle="finding = ($event.target as HTMLDetailsElement).open">
          <summary>{{ $t('ask.every') }}</summary>
          <QuestionFinder
            v-if="finding"
            v-model:wanted="wanted"
            :characters="characters"
            :plan="plan"
            :answers="answers"
            :plain="preferences.plain"
          />
        </details>
        <AnsweredList
          :characters="byId"
          :answers="answers"
          :clauses="clauses"
          :rough="found?.rough ?? []"
          :plain="preferences.plain"
        />
        <p v-if="handful" class="no-print">
          <router-link :to="{ query: handful }">{{ $t('handful.link') }}</router-link>
        </p>
        <ShareAnswers :of="of" :address="address" :begun="answers.answers.value.length > 0" />
      </section>
    </div>
    <div class="column">
      <DangerNote
        v-if="found"
        class="danger-area"
        :margins="found.margins"
        :outside="outside"
        :labels="byId"
        @ask="find"
      />
      <section class="ranks" aria-labelledby="ladder">
        <h3 id="ladder">{{ $t('ask.ladder') }}</h3>
        <EvidenceLadder
          v-if="found"
          :standings="found.standings"
          :selected="selected"
          :strike-out="answers.strikeOut.value"
          :month="answers.month.value"
          @select="select"
        />
      </section>
      <WhyPanel :names="compared" :clauses="clauses" class="why-area" @close="select" />
    </div>
  </div>
</template>

<style scoped>
.any {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  align-items: start;
  gap: 0 2rem;
  padding: 0.6rem 1rem 2rem;
}

.settings-area {
  grid-column: 1 / -1;
}

.column {
  display: flex;
  flex-direction: column;
  gap: 1rem;
}

.other {
  display: grid;
  width: 100%;
  min-height: 2.75rem;
  padding: 0.45rem 0;
  text-align: left;
  border-top: 1px solid var(--rule);
}

.other:hover {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 8%, transparent);
}

.organ {
  font-size: 0.82rem;
  color: rgb(var(--v-theme-primary));
}

summary {
  cursor: pointer;
  min-height: 2.75rem;
  padding: 0.6rem 0;
  border-top: 1px solid var(--rule);
}

/* On a phone what can be said and what to look at come first, then the dangers in full. */
@media (max-width: 900px) {
  .any {
    display: flex;
    flex-direction: column;
    align-items: stretch;
    gap: 0.6rem;
  }

  .column {
    display: contents;
  }

  .verdict-area {
    order: 1;
  }

  .questions {
    order: 2;
  }

  .danger-area {
    order: 3;
  }

  .ranks {
    order: 4;
  }

  .why-area {
    order: 5;
  }

  .settings-area {
    order: 6;
  }
}
</style>

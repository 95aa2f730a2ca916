<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import type { Schemas } from '@/api/client';
import { useRules, type Rule } from '@/features/body-measures';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import { usePreferences } from '@/stores/preferences';
import {
  numberOf,
  decode,
  encode,
  lookedAgain,
  requestOf,
  toggled,
  type Certainty,
  type Given,
} from '../logic/answers';
import DangerNote from './DangerNote.vue';
import EvidenceLadder from './EvidenceLadder.vue';
import QuestionCard from './QuestionCard.vue';
import VerdictNote from './VerdictNote.vue';

/** Answers in any order, one ranked ladder, and what to look at next. */
const props = defineProps<{
  characters: Schemas['StudyCharacter'][];
  outside: Schemas['OutsideTaxon'][];
  /** What is asked, to keep answers apart. */
  of: string;
  identify: (request: Schemas['IdentifyRequest']) => Promise<Schemas['IdentifyResponse']>;
}>();
const route = useRoute();
const router = useRouter();
const preferences = usePreferences();
const { t, n } = useI18n();
const { rules, measuredOf } = useRules();
const wanted = ref('');
const selected = ref<string | null>(null);
const asText = (value: unknown) => (typeof value === 'string' ? value : '');
const strikeOut = computed(() => route.query.school === 'strike-out');
const month = computed(() => Number(asText(route.query.month)) || 0);
const presence = computed(() => route.query.presence !== 'off');
const novice = computed(() => route.query.reader === 'new');
const answers = computed(() => decode(asText(route.query.seen), props.characters));

function ask(changes: Record<string, string | undefined>) {
  void router.replace({ query: { ...route.query, ...changes }, hash: route.hash });
}

function give(next: Given[]) {
  ask({ seen: encode(next) || undefined });
}

const result = useQuery({
  queryKey: computed(() => [
    'identify',
    props.of,
    encode(answers.value),
    strikeOut.value,
    month.value,
    novice.value,
    presence.value,
    rules.value,
  ]),
  queryFn: () =>
    props.identify(requestOf(answers.value, strikeOut.value, month.value, novice.value, measuredOf, presence.value)),
  placeholderData: keepPreviousData,
  retry: false,
});

const readers = (['TRAINED', 'NOVICE'] as const).map((value) => ({ value, title: t(`observer.${value}`) }));
const byId = computed(() => new Map(props.characters.map((c) => [c.id, c])));
const answeredCharacters = computed(() => answers.value.flatMap((a) => byId.value.get(a.character) ?? []).reverse());
/** Where nothing is worth asking, nothing is: what is left would be idle. */
const idle = computed(() => result.data.value?.conclusion === 'REMAINING');
const suggestions = computed(() =>
  (idle.value ? [] : (result.data.value?.questions ?? [])).flatMap((q) => {
    const character = byId.value.get(q.character);
    const told = t('ask.tells', { names: q.tells.join('; ') });
    const reason = q.protection ? `${told} ${t('ask.protection')}` : told;
    return character ? [{ character, reason }] : [];
  }),
);
const found = computed(() => {
  const words = wanted.value.trim().toLowerCase();
  if (!words) return [];
  return props.characters
    .filter((c) => !answers.value.some((a) => a.character === c.id))
    .filter((c) => `${c.label} ${c.organ} ${c.question}`.toLowerCase().includes(words))
    .slice(0, 8);
});
/** By character. While another answer is awaited, what stands here is of the last one. */
const clauses = computed(
  () =>
    new Map(
      result.isPlaceholderData.value
        ? []
        : (result.data.value?.said ?? []).map((s) => [s.character, preferences.plain ? s.plain : s.text]),
    ),
);
const why = computed(() => result.data.value?.standings.find((s) => s.name.row === selected.value));
const months = [
  { value: 0, title: t('key.anyMonth') },
  ...Array.from({ length: 12 }, (_, i) => ({ value: i + 1, title: t(`month.${i + 1}`) })),
];

function said(character: Schemas['StudyCharacter']): string {
  const answer = given(character.id);
  if (!answer || answer.passed) return t(`ask.short.${answer?.passed ?? 'not-sure'}`);
  const months = character.type === 'MONTHS' ? answer.states.map((m) => t(`month.${m}`)) : [];
  const states = character.states.filter((s) => answer.states.includes(s.id)).map((s) => s.label);
  if (answer.rule) return roughly(character, answer);
  const seen =
    answer.value !== null ? `${numberOf(answer)} ${character.unit}` : [...states, ...months].join(t('ask.or'));
  return answer.certainty === 'SURE' ? seen : `${seen} (${t(`certainty.${answer.certainty}`)})`;
}

/** What was seen as a clause, with how sure; empty for what was passed over, is rough, or is not answered yet. */
function clauseOf(character: Schemas['StudyCharacter']): string {
  const answer = given(character.id);
  const clause = clauses.value.get(character.id);
  if (!clause || !answer || answer.passed || answer.rule) return '';
  return answer.certainty === 'SURE' ? clause : `${clause} (${t(`certainty.${answer.certainty}`)})`;
}

function roughly(character: Schemas['StudyCharacter'], answer: Given): string {
  const told = result.data.value?.rough.find((r) => r.character === character.id);
  const rule = t(`rough.of.${answer.rule}`);
  const times = n(answer.value ?? 0);
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

const given = (id: string) => answers.value.find((a) => a.character === id);
const without = (id: string) => answers.value.filter((a) => a.character !== id);

function measure(character: string, value: number, more: { spread?: number; rule?: Rule }) {
  const certainty = given(character)?.certainty ?? 'SURE';
  give([...without(character), { character, states: [], value, certainty, passed: null, ...more }]);
}

function pass(character: string, passed: 'not-sure' | 'cannot-see') {
  give([...without(character), { character, states: [], value: null, certainty: 'SURE', passed }]);
}

function sure(character: string, certainty: Certainty) {
  give(answers.value.map((a) => (a.character === character ? { ...a, certainty } : a)));
}
</script>

<template>
  <div class="any">
    <div class="bar no-print">
      <v-btn-toggle
        :model-value="strikeOut ? 'strike-out' : 'weigh'"
        mandatory
        density="compact"
        variant="outlined"
        divided
        :aria-label="$t('school.label')"
        @update:model-value="ask({ school: $event === 'strike-out' ? 'strike-out' : undefined })"
      >
        <v-btn value="weigh" size="small">{{ $t('school.weigh') }}</v-btn>
        <v-btn value="strike-out" size="small">{{ $t('school.strikeOut') }}</v-btn>
      </v-btn-toggle>
      <v-select
        :model-value="month"
        :items="months"
        :label="$t('ask.month')"
        hide-details
        class="month"
        @update:model-value="ask({ month: $event ? String($event) : undefined })"
      />
      <v-switch
        v-if="month"
        :model-value="presence"
        :label="$t('ask.presence')"
        hide-details
        density="compact"
        color="primary"
        @update:model-value="ask({ presence: $event ? undefined : 'off' })"
      />
      <v-select
        :model-value="novice ? 'NOVICE' : 'TRAINED'"
        :items="readers"
        :label="$t('observer.label')"
        hide-details
        class="month"
        @update:model-value="ask({ reader: $event === 'NOVICE' ? 'new' : undefined })"
      />
      <v-switch v-model="preferences.plain" :label="$t('plain')" hide-details density="compact" color="primary" />
      <v-btn v-if="answers.length" size="small" variant="text" @click="give([])">{{ $t('ask.startOver') }}</v-btn>
    </div>
    <ProblemNote :problem="result.error.value" />
    <div class="column">
      <VerdictNote
        v-if="result.data.value"
        class="verdict-area"
        :result="result.data.value"
        :answers="answers.length"
        :outside="outside"
        :characters="byId"
      />
      <section class="questions" aria-labelledby="look">
        <div v-if="answeredCharacters.length" class="said">
          <h3>{{ $t('ask.answered') }}</h3>
          <details v-for="c in answeredCharacters" :key="c.id" class="answer">
            <summary>
              <template v-if="clauseOf(c)">{{ clauseOf(c) }}</template>
              <template v-else>
                <span>{{ c.label }}</span> <strong>{{ said(c) }}</strong>
              </template>
            </summary>
            <QuestionCard
              :character="c"
              :given="given(c.id)"
              :plain="preferences.plain"
              @toggle="give(toggled(answers, c.id, $event))"
              @measure="(value, spread) => measure(c.id, value, { spread })"
              @rough="(times, rule) => measure(c.id, times, { rule })"
              @certainty="sure(c.id, $event)"
              @pass="pass(c.id, $event)"
              @withdraw="give(without(c.id))"
              @again="give(lookedAgain(answers, c.id, $event))"
            />
          </details>
        </div>
        <h3 id="look">{{ $t('ask.next') }}</h3>
        <v-text-field v-model="wanted" :label="$t('ask.find')" density="compact" hide-details clearable class="mb-2" />
        <QuestionCard
          v-for="entry in wanted ? found.map((character) => ({ character, reason: '' })) : suggestions"
          :key="entry.character.id"
          :character="entry.character"
          :given="given(entry.character.id)"
          :plain="preferences.plain"
          :reason="entry.reason"
          @toggle="((wanted = ''), give(toggled(answers, entry.character.id, $event)))"
          @measure="(value, spread) => ((wanted = ''), measure(entry.character.id, value, { spread }))"
          @rough="(times, rule) => ((wanted = ''), measure(entry.character.id, times, { rule }))"
          @pass="pass(entry.character.id, $event)"
          @withdraw="give(without(entry.character.id))"
        />
        <p v-if="result.data.value && !result.isFetching.value && !suggestions.length && !wanted" class="quiet">
          {{ $t('ask.nothing') }}
        </p>
      </section>
    </div>
    <div class="column">
      <DangerNote
        v-if="result.data.value"
        class="danger-area"
        :margins="result.data.value.margins"
        :outside="outside"
        :labels="byId"
        @ask="wanted = $event"
      />
      <section class="ranks" aria-labelledby="ladder">
        <h3 id="ladder">{{ $t('ask.ladder') }}</h3>
        <EvidenceLadder
          v-if="result.data.value"
          :standings="result.data.value.standings"
          :selected="selected"
          :strike-out="strikeOut"
          :month="month"
          @select="selected = selected === $event ? null : $event"
        />
      </section>
    </div>
    <aside v-if="why" class="why" :aria-label="$t('ask.why')">
      <h3><TaxonName :label="why.name.label" :stage="why.name.stage" /></h3>
      <p>{{ why.name.hazardText }}</p>
      <h4>{{ $t('ask.why') }}</h4>
      <table class="figures">
        <tbody>
          <tr>
            <th scope="row">{{ $t('ask.before') }}</th>
            <td>{{ signed(why.prior) }}</td>
          </tr>
          <tr v-for="w in why.why" :key="w.character">
            <th scope="row">
              {{ w.implied ? w.label : (clauses.get(w.character) ?? w.label) }}
              <span v-if="w.implied" class="quiet">{{ $t('ask.implied') }}</span>
              <span v-if="w.contradicts" class="contra">{{ $t('ask.contradicts') }}</span>
              <span v-if="!w.known" class="quiet">{{ $t('ask.unknown') }}</span>
            </th>
            <td>{{ signed(w.bits) }}</td>
          </tr>
          <tr class="sum">
            <th scope="row">{{ $t('ask.sum') }}</th>
            <td>{{ signed(why.score) }}</td>
          </tr>
        </tbody>
      </table>
    </aside>
  </div>
</template>

<script lang="ts">
function signed(bits: number): string {
  return `${bits > 0 ? '+' : bits < 0 ? '−' : ''}${Math.abs(bits).toFixed(2)}`;
}
</script>

<style scoped>
.any {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr) auto;
  align-items: start;
  gap: 0.75rem 2rem;
  padding: 0.75rem 1rem 2rem;
}

.bar {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 1rem;
}

.column {
  display: flex;
  flex-direction: column;
  gap: 1rem;
}

.month {
  max-width: 11rem;
}

.said {
  margin-bottom: 1.25rem;
}

.answer {
  border-bottom: 1px solid var(--rule);
}

.answer summary {
  padding: 0.4rem 0;
  min-height: 2.2rem;
  cursor: pointer;
}

.why {
  width: 17rem;
  border-left: 1px solid var(--rule);
  padding-left: 1rem;
}

.why table {
  width: 100%;
}

.why th {
  text-align: left;
  font-weight: 400;
  padding-right: 0.5rem;
}

.why td {
  text-align: right;
  white-space: nowrap;
}

.sum th,
.sum td {
  border-top: 1px solid currentColor;
  font-weight: 700;
}

.contra {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

/* On a phone the verdict and the danger come first, then the questions. */
@media (max-width: 900px) {
  .any {
    display: flex;
    flex-direction: column;
    align-items: stretch;
  }

  .column {
    display: contents;
  }

  .verdict-area {
    order: 1;
  }

  .danger-area {
    order: 2;
  }

  .bar {
    order: 3;
  }

  .questions {
    order: 4;
  }

  .ranks {
    order: 5;
  }

  .why {
    order: 6;
    width: auto;
    border-left: 0;
    padding-left: 0;
  }
}
</style>

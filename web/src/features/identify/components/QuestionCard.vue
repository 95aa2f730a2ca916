<script setup lang="ts">
import { computed, ref } from 'vue';
import { api, type Schemas } from '@/api/client';
import GlossaryText from '@/shared/glossary/GlossaryText.vue';
import { RoughLength, type Rule } from '@/features/body-measures';
import StatePicture from '@/shared/picture/StatePicture.vue';
import { useAction } from '@/shared/ui/useAction';
import { MOST_LOOKS, numberOf, type Certainty, type Given } from '../logic/answers';

/** One question, with its answers as large targets. */
const props = defineProps<{
  character: Schemas['StudyCharacter'];
  given: Given | undefined;
  plain: boolean;
  reason?: string;
}>();
const emit = defineEmits<{
  toggle: [state: string];
  measure: [value: number, spread: number];
  rough: [times: number, rule: Rule];
  certainty: [certainty: Certainty];
  pass: [why: 'not-sure' | 'cannot-see'];
  withdraw: [];
  again: [state: string];
}>();
const typed = ref('');
const { problem, run } = useAction();
const months = Array.from({ length: 12 }, (_, i) => String(i + 1));
const options = computed(() =>
  props.character.states.map((s) => ({
    id: s.id,
    label: props.plain && s.plain ? s.plain : s.label,
    definition: s.definition,
    picture: s.picture,
    swatch: s.swatch,
  })),
);
const labelOf = (id: string) => options.value.find((o) => o.id === id)?.label ?? id;
const answered = computed(() => props.given !== undefined && props.given.passed === null);

const shown = computed(() => (props.given && !props.given.rule ? numberOf(props.given) : ''));

/** Why what was typed cannot be read. */
const refused = ref('');

/** Read in the notation of cells, "1 1/2 in" or "35–40", by who knows it. */
async function measure() {
  if (!typed.value.trim()) return;
  const { type, unit } = props.character;
  const ok = await run(async () => {
    const read = await api.get('/api/v1/typed-answers', { typed: typed.value, type, unit });
    refused.value = read.reason;
    if (read.value === undefined || read.value === null) return;
    typed.value = '';
    emit('measure', read.value, read.spread);
  });
  if (!ok) refused.value = problem.value?.message ?? '';
}
</script>

<template>
  <article class="card" :class="{ answered }" :aria-label="character.label">
    <h4>
      <span class="organ">{{ character.organ }}</span>
      <GlossaryText
        :text="plain && character.plainQuestion ? character.plainQuestion : character.question || character.label"
      />
    </h4>
    <p v-if="character.note && !answered" class="quiet note"><GlossaryText :text="character.note" /></p>
    <p v-if="reason && !answered" class="why">{{ reason }}</p>
    <div v-if="options.length || character.type === 'MONTHS'" class="states">
      <button
        v-for="option in options"
        :key="option.id"
        type="button"
        :aria-pressed="given?.states.includes(option.id) ?? false"
        :title="option.definition"
        @click="emit('toggle', option.id)"
      >
        <StatePicture :id="option.picture" decorative />
        <span v-if="option.swatch" class="swatch" :style="{ background: option.swatch }" aria-hidden="true" />
        {{ option.label }}
      </button>
      <template v-if="character.type === 'MONTHS'">
        <button
          v-for="m in months"
          :key="m"
          type="button"
          :aria-pressed="given?.states.includes(m) ?? false"
          @click="emit('toggle', m)"
        >
          {{ $t(`month.${m}`) }}
        </button>
      </template>
    </div>
    <form v-else class="measure" @submit.prevent="measure">
      <input
        v-model="typed"
        :aria-invalid="refused !== ''"
        :aria-describedby="`refused-${character.id}`"
        autocapitalize="none"
        spellcheck="false"
        :aria-label="$t('ask.value', { character: character.label, unit: character.unit })"
        :placeholder="shown"
      />
      <span>{{ character.unit }}</span>
      <button type="submit">{{ $t('ask.enter') }}</button>
    </form>
    <p v-if="refused" :id="`refused-${character.id}`" role="alert" class="refused">{{ refused }}</p>
    <div v-if="answered && options.length && !given?.rule" class="again">
      <p class="quiet">
        {{ $t('ask.again') }}
        <template v-if="given?.again?.length">{{
          $t('ask.looks', { n: given.again.length + 1, more: given.again.map(labelOf).join(', ') })
        }}</template>
      </p>
      <div v-if="(given?.again?.length ?? 0) < MOST_LOOKS - 1" class="foot">
        <button v-for="o in options" :key="o.id" type="button" class="link" @click="emit('again', o.id)">
          {{ o.label }}
        </button>
      </div>
    </div>
    <RoughLength v-if="character.type === 'LENGTH'" class="foot" @told="(times, rule) => emit('rough', times, rule)" />
    <div class="foot">
      <template v-if="answered">
        <label v-for="c in ['SURE', 'LIKELY', 'UNSURE'] as const" :key="c">
          <input
            type="radio"
            :name="`certainty-${character.id}`"
            :checked="given?.certainty === c"
            @change="emit('certainty', c)"
          />
          {{ $t(`certainty.${c}`) }}
        </label>
        <button type="button" class="link" @click="emit('withdraw')">{{ $t('ask.withdraw') }}</button>
      </template>
      <template v-else-if="given">
        <span class="quiet">{{ $t(`ask.passed.${given.passed}`) }}</span>
        <button type="button" class="link" @click="emit('withdraw')">{{ $t('ask.askAgain') }}</button>
      </template>
      <template v-else>
        <button type="button" class="link" @click="emit('pass', 'not-sure')">{{ $t('ask.notSure') }}</button>
        <button type="button" class="link" @click="emit('pass', 'cannot-see')">{{ $t('ask.cannotSee') }}</button>
      </template>
    </div>
  </article>
</template>

<style scoped>
.refused {
  margin: 0.3rem 0 0;
  color: rgb(var(--v-theme-error));
}

.card {
  border-top: 2px solid rgb(var(--v-theme-primary));
  padding: 0.6rem 0 0.8rem;
}

.card.answered {
  border-top: 1px solid var(--rule);
}

h4 {
  font-family: var(--serif);
  font-size: 1.05rem;
}

.organ {
  display: block;
  font-family: var(--sans);
  font-size: 0.82rem;
  color: rgb(var(--v-theme-primary));
}

.again p {
  margin: 0.5rem 0 0;
  font-size: 0.92rem;
}

.note,
.why {
  font-size: 0.92rem;
  margin: 0.15rem 0 0;
}

.why {
  font-style: italic;
}

.states,
.foot,
.measure {
  display: flex;
  flex-wrap: wrap;
  gap: 0.45rem;
  margin-top: 0.5rem;
  align-items: center;
}

/* A picture stands above its words. */
.states button:has(img) {
  display: grid;
  justify-items: center;
  gap: 0.25rem;
  padding: 0.3rem;
}

.swatch {
  display: inline-block;
  width: 1.1rem;
  height: 1.1rem;
  vertical-align: -0.2rem;
  border: 1px solid currentColor;
}

.states button,
.measure button {
  border: 1px solid currentColor;
  border-radius: 3px;
  padding: 0.4rem 0.75rem;
  min-height: 2.5rem;
  background: rgb(var(--v-theme-surface));
}

.states button[aria-pressed='true'] {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
  border-color: rgb(var(--v-theme-primary));
  font-weight: 600;
}

.states button[aria-pressed='true']::before {
  content: '✓ ';
}

.measure input {
  border: 1px solid currentColor;
  padding: 0.4rem;
  width: 6rem;
  min-height: 2.5rem;
  background: rgb(var(--v-theme-surface));
  color: inherit;
}

.foot {
  font-size: 0.92rem;
  gap: 0.9rem;
}

.link {
  text-decoration: underline;
  min-height: 1.75rem;
}

@media (max-width: 600px) {
  .states button {
    min-height: 3rem;
    flex: 1 1 40%;
  }

  .link {
    min-height: 2.75rem;
  }
}
</style>

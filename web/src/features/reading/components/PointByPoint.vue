<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Schemas } from '@/api/client';
import { letterOf } from '@/features/key';
import type { Point } from '../logic/path';
import { askedOf, outcomeOf, type Outcome } from '../logic/points';

/** The statements of a couplet answered one by one; what was not looked at stays open. */
const props = defineProps<{
  couplet: Schemas['CoupletView'];
  characters: Schemas['StudyCharacter'][];
  plain: boolean;
  /** The lead that is tried first where nothing speaks for any. */
  fallback: number;
}>();
const emit = defineEmits<{ go: [outcome: Outcome, points: Point[]] }>();

const asked = computed(() => askedOf(props.couplet));
const points = ref<Point[]>(asked.value.map(() => null));
const outcome = computed(() => outcomeOf(props.couplet, points.value, props.fallback));
const labelOf = (id: string) => props.characters.find((c) => c.id === id)?.label ?? '';
const textOf = (s: Schemas['StatementView'] | undefined) => (props.plain ? s?.plainText : s?.text) ?? '';
</script>

<template>
  <details class="points">
    <summary>{{ $t('points.title', { n: asked.length }) }}</summary>
    <p class="quiet">{{ $t('points.how') }}</p>
    <fieldset v-for="(one, i) in asked" :key="one.character">
      <legend>
        {{ labelOf(one.character) }}
        <span v-if="one.said[0]?.role === 'TENDENCY'" class="quiet">{{ $t('points.tendency') }}</span>
      </legend>
      <template v-for="(said, l) in one.said" :key="l">
        <label v-if="said"
          ><input v-model="points[i]" type="radio" :name="`point-${couplet.number}-${i}`" :value="l" />
          <span
            ><b>{{ letterOf(l) }}</b> {{ textOf(said) }}</span
          ></label
        >
      </template>
      <label
        ><input v-model="points[i]" type="radio" :name="`point-${couplet.number}-${i}`" value="none" />
        <span>{{ $t('points.neither') }}</span></label
      >
      <label
        ><input v-model="points[i]" type="radio" :name="`point-${couplet.number}-${i}`" :value="null" />
        <span>{{ $t('points.unseen') }}</span></label
      >
    </fieldset>
    <p aria-live="polite">{{ $t(`points.because.${outcome.because}`, { letter: letterOf(outcome.lead) }) }}</p>
    <v-btn variant="outlined" @click="emit('go', outcome, points)">{{
      outcome.doubtful
        ? $t('points.goDoubtful', { letter: letterOf(outcome.lead) })
        : $t('points.go', { letter: letterOf(outcome.lead) })
    }}</v-btn>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 2.75rem;
  padding-top: 0.6rem;
}

fieldset {
  border: 0;
  border-top: 1px solid var(--rule);
  padding: 0.4rem 0;
}

legend {
  font-weight: 600;
  padding: 0;
}

label {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 2.5rem;
  cursor: pointer;
  font-family: var(--serif);
}

input {
  width: 1.2rem;
  height: 1.2rem;
  flex: none;
  accent-color: rgb(var(--v-theme-primary));
}
</style>

<script lang="ts">
/** What somebody says of all taxa of a kind of which the rule says the same. */
export interface Covering {
  kind: Schemas['Asked']['kind'];
  covered: boolean;
  covers: 'ALL' | 'NOT_ALL';
}
</script>

<script setup lang="ts">
import { useI18n } from 'vue-i18n';
import type { Schemas } from '@/api/client';

/** Whether what stands below the taxa of an import is all there is of them: asked once a kind, with the answer of the rule. */
const props = defineProps<{ asked: Schemas['Asked'][]; answers: Covering[] }>();
const emit = defineEmits<{ answer: [answers: Covering[]] }>();
const MOST_NAMES = 8;
const { t } = useI18n();

const isOf = (one: Schemas['Asked'], a: Covering) => a.kind === one.kind && a.covered === one.covered;
const chosen = (one: Schemas['Asked']) =>
  props.answers.find((a) => isOf(one, a))?.covers ?? (one.covered ? 'ALL' : 'NOT_ALL');

function names(rows: string[]) {
  const shown = rows.slice(0, MOST_NAMES).join('; ');
  return rows.length > MOST_NAMES ? t('dangers.andMore', { names: shown, n: rows.length - MOST_NAMES }) : shown;
}

function choose(one: Schemas['Asked'], covers: unknown) {
  const others = props.answers.filter((a) => !isOf(one, a));
  emit('answer', [...others, { kind: one.kind, covered: one.covered, covers: covers === 'ALL' ? 'ALL' : 'NOT_ALL' }]);
}
</script>

<template>
  <section aria-labelledby="coverings">
    <h2 id="coverings">{{ $t('coverings.title') }}</h2>
    <fieldset v-for="one in asked" :key="`${one.kind}/${one.covered}`">
      <legend>{{ $t(`coverings.kind.${one.kind}`, { names: names(one.rows) }) }}</legend>
      <v-radio-group
        :model-value="chosen(one)"
        density="compact"
        hide-details
        @update:model-value="choose(one, $event)"
      >
        <v-radio value="ALL" :label="$t(`coverings.all.${one.kind}`)" />
        <v-radio value="NOT_ALL" :label="$t(`coverings.notAll.${one.kind}`)" />
      </v-radio-group>
    </fieldset>
  </section>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0 0 1rem;
  max-width: 46rem;
}
</style>

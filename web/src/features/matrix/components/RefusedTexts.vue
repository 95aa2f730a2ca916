<script setup lang="ts">
import type { Schemas } from '@/api/client';
import TaxonName from '@/shared/taxon/TaxonName.vue';
import type { Draft } from '../composables/useDrafts';

/** Texts that were not taken, wherever their cells are. */
const props = defineProps<{
  texts: Draft[];
  rows: Schemas['StudyRow'][];
  characters: Schemas['StudyCharacter'][];
}>();
const emit = defineEmits<{ correct: [of: Draft]; again: [of: Draft]; discard: [of: Draft] }>();
const rowOf = (id: string) => props.rows.find((r) => r.id === id);
const labelOf = (id: string) => props.characters.find((c) => c.id === id)?.label ?? id;
</script>

<template>
  <section v-if="texts.length" class="refused" :aria-label="$t('score.refused')">
    <p role="alert">{{ $t('score.refusedCount', texts.length) }}</p>
    <ul>
      <li v-for="one in texts" :key="`${one.row} ${one.character}`">
        <span
          ><strong>{{ one.text || $t('score.emptyCell') }}</strong
          >{{ ' ' }}<TaxonName :label="rowOf(one.row)?.label ?? one.row" :stage="rowOf(one.row)?.stage" /> ·
          {{ labelOf(one.character) }}: {{ one.reason }}</span
        >
        <v-btn size="small" color="primary" @click="emit('correct', one)">{{
          $t(one.conflict ? 'score.compare' : 'score.correct')
        }}</v-btn>
        <v-btn v-if="!one.conflict" size="small" @click="emit('again', one)">{{ $t('score.sendAgain') }}</v-btn>
        <v-btn size="small" variant="text" @click="emit('discard', one)">{{ $t('discard') }}</v-btn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.refused {
  max-height: 9rem;
  overflow: auto;
  padding: 0.4rem 1rem;
  border-top: 2px solid rgb(var(--v-theme-error));
}

p,
ul {
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  padding: 0.15rem 0;
  font-size: 0.92rem;
}

li > span {
  flex: 1;
}
</style>

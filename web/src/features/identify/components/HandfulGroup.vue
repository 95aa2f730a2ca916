<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { listed } from '../logic/handful';
import VerdictNote from './VerdictNote.vue';

/** Individuals of which the same was seen: what they may be, and in what they differ from the others. */
const props = defineProps<{
  group: Schemas['HandfulGroup'];
  outside: Schemas['OutsideTaxon'][];
  characters: Map<string, Schemas['StudyCharacter']>;
  plain: boolean;
}>();
const emit = defineEmits<{ look: [character: string] }>();

const who = computed(() => listed(props.group.individuals));
const many = computed(() => props.group.individuals.length);
</script>

<template>
  <article class="group" :class="{ odd: group.differing.length }">
    <h3>{{ $t('handful.individuals', { who, n: many }, many) }}</h3>
    <p v-if="group.differing.length" class="differs">
      {{ $t('handful.differs', many) }}
      <template v-for="d in group.differing" :key="d.character">
        <strong>{{ plain ? d.plain : d.text }}</strong>{{ '. ' }}
        <button type="button" @click="emit('look', d.character)">{{ $t('handful.lookAgain') }}</button>{{ ' ' }}
      </template>
    </p>
    <p v-if="group.missing.length">
      {{ $t('handful.missing', many) }}
      <template v-for="(c, i) in group.missing.slice(0, 4)" :key="c"
        ><template v-if="i">, </template
        ><button type="button" @click="emit('look', c)">{{ characters.get(c)?.label }}</button></template
      >
    </p>
    <VerdictNote :result="group.found" :answers="group.found.said.length" :outside="outside" :characters="characters" />
  </article>
</template>

<style scoped>
.group {
  margin: 0.8rem 0;
}

.group p {
  margin: 0.2rem 0;
}

.differs {
  border: 2px solid rgb(var(--v-theme-error));
  padding: 0.4rem 0.8rem;
}

button {
  min-height: 2rem;
  text-decoration: underline;
  font-weight: 600;
  color: rgb(var(--v-theme-primary));
}
</style>

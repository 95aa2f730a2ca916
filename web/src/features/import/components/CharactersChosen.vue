<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Schemas } from '@/api/client';

/** Which characters of a file are read, where it has more than can be read at once, or names sets of them. */
const props = defineProps<{ selection: Schemas['CharacterSelection']; chosen: string; busy: boolean }>();
const emit = defineEmits<{ choose: [characters: string] }>();

const typed = ref(props.chosen);
watch(
  () => props.chosen,
  (chosen) => (typed.value = chosen),
);
const changed = computed(() => typed.value.trim() !== props.chosen);

function add(set: string) {
  typed.value = typed.value.trim() ? `${typed.value.trim()}, ${set}` : set;
}
</script>

<template>
  <section aria-labelledby="chosen">
    <h2 id="chosen">{{ $t('import.which') }}</h2>
    <p>{{ $t('import.whichLead', { total: selection.total, read: selection.read }) }}</p>
    <p v-if="selection.sets.length" class="sets">
      <span>{{ $t('import.sets') }}</span>
      <v-btn v-for="set in selection.sets" :key="set.name" size="small" @click="add(set.name)">{{
        $t('import.set', { name: set.name, n: set.characters }, set.characters)
      }}</v-btn>
    </p>
    <form @submit.prevent="emit('choose', typed.trim())">
      <v-text-field
        v-model="typed"
        :label="$t('import.numbers')"
        :placeholder="$t('import.numbersExample')"
        persistent-placeholder
        spellcheck="false"
        hide-details
      />
      <v-btn type="submit" :disabled="!changed || busy">{{ $t('import.readThese') }}</v-btn>
    </form>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--rule);
  margin-top: 1.5rem;
  padding-top: 1rem;
}

.sets {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}

.sets .v-btn {
  text-transform: none;
}

form {
  display: flex;
  gap: 1rem;
  align-items: center;
  max-width: 40rem;
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import type { Comments } from '../composables/useComments';

/** What members say about a cell; open ones first, those that are settled folded away. */
const props = defineProps<{ comments: Comments; row: string; character: string; editable: boolean }>();
const text = ref('');
const all = computed(() => props.comments.of(props.row, props.character));
const open = computed(() => all.value.filter((c) => !c.settledBy));
const settled = computed(() => all.value.filter((c) => c.settledBy));
watch([() => props.row, () => props.character], () => (text.value = ''));

async function write() {
  if (!text.value.trim()) return;
  await props.comments.write.mutateAsync({ row: props.row, character: props.character, text: text.value });
  text.value = '';
}
</script>

<template>
  <section :aria-label="$t('comments.title')">
    <h4>{{ $t('comments.title') }}</h4>
    <ul>
      <li v-for="one in open" :key="one.id">
        <p>{{ one.text }}</p>
        <p class="quiet">
          {{ one.who }} · {{ one.at.slice(0, 10) }}
          <button v-if="editable" type="button" @click="comments.settle.mutate({ id: one.id, settled: true })">
            {{ $t('comments.settle') }}
          </button>
        </p>
      </li>
    </ul>
    <details v-if="settled.length">
      <summary>{{ $t('comments.settled', { n: settled.length }) }}</summary>
      <ul>
        <li v-for="one in settled" :key="one.id">
          <p>{{ one.text }}</p>
          <p class="quiet">
            {{ one.who }} · {{ one.at.slice(0, 10) }} · {{ $t('comments.settledBy', { who: one.settledBy }) }}
            <button v-if="editable" type="button" @click="comments.settle.mutate({ id: one.id, settled: false })">
              {{ $t('comments.reopen') }}
            </button>
          </p>
        </li>
      </ul>
    </details>
    <form v-if="editable" @submit.prevent="write">
      <v-textarea
        v-model="text"
        :label="$t('comments.write')"
        rows="1"
        auto-grow
        density="compact"
        hide-details
        @keydown.ctrl.enter.prevent="write"
        @keydown.meta.enter.prevent="write"
      />
      <v-btn type="submit" size="small" :disabled="!text.trim()" :loading="comments.write.isPending.value">{{
        $t('comments.add')
      }}</v-btn>
    </form>
    <ProblemNote :problem="comments.write.error.value ?? comments.settle.error.value" />
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
}

li {
  border-left: 3px solid var(--rule);
  padding-left: 0.7rem;
  margin: 0.5rem 0;
}

p {
  margin: 0;
  white-space: pre-line;
}

form {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
  margin-top: 0.5rem;
}

form > :first-child {
  width: 100%;
}

button {
  color: rgb(var(--v-theme-primary));
  font-weight: 600;
}

summary {
  cursor: pointer;
}
</style>

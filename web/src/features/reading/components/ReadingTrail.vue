<script setup lang="ts">
import { computed } from 'vue';
import type { Schemas } from '@/api/client';
import { letterOf } from '@/features/key';
import { decidingText, type Step } from '../logic/path';

/** The way so far; each step can be gone back to. */
const props = defineProps<{ view: Schemas['KeyView']; steps: Step[]; plain: boolean }>();
const emit = defineEmits<{ go: [steps: Step[]] }>();

const passed = computed(() =>
  props.steps.map((step, i) => ({
    step,
    before: props.steps.slice(0, i),
    text: decidingText(props.view, step, props.plain),
  })),
);
</script>

<template>
  <nav v-if="passed.length" class="trail" :aria-label="$t('reading.trail')">
    <ol>
      <li v-for="{ step, before, text } in passed" :key="step.couplet">
        <button type="button" @click="emit('go', before)">
          <span class="figures">{{ step.couplet }}{{ letterOf(step.lead) }}</span> {{ text }}
          <span v-if="step.doubtful" class="doubt">{{ $t('reading.doubtful') }}</span>
        </button>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 9.5rem;
  overflow-y: auto;
}

li + li {
  border-top: 1px dotted var(--rule);
}

button {
  width: 100%;
  min-height: 2.25rem;
  text-align: left;
  line-height: 1.25;
}

.figures {
  display: inline-block;
  min-width: 2rem;
  font-weight: 600;
  color: rgb(var(--v-theme-primary));
}

.doubt {
  font-style: italic;
  color: var(--faint);
}
</style>

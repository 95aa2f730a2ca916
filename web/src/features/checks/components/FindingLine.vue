<script setup lang="ts">
import { mdiArrowRight } from '@mdi/js';
import { ref } from 'vue';
import type { Finding } from '@/study-kernel';
import { placeOf } from '../logic/findings';

/** One finding: what, why, the way to where it is corrected, and the way to say that it is meant. */
defineProps<{ finding: Finding; slug: string; editable: boolean }>();
const emit = defineEmits<{ accept: [reason: string]; correct: []; reopen: [] }>();
const writing = ref(false);
const reason = ref('');

function accept() {
  if (!reason.value.trim()) return;
  emit('accept', reason.value.trim());
  writing.value = false;
}
</script>

<template>
  <li>
    <p>{{ finding.reason }}</p>
    <p v-if="finding.acceptance" class="quiet">
      {{ $t('checks.meant', { who: finding.acceptance.who, reason: finding.acceptance.reason }) }}
    </p>
    <form v-if="writing" @submit.prevent="accept">
      <v-text-field v-model="reason" :label="$t('checks.why')" density="compact" autofocus hide-details />
      <v-btn type="submit" size="small" color="primary" variant="flat" :disabled="!reason.trim()">{{
        $t('checks.accept')
      }}</v-btn>
      <v-btn size="small" variant="text" @click="writing = false">{{ $t('discard') }}</v-btn>
    </form>
    <div v-else class="ways">
      <v-btn
        v-if="editable && finding.correction && !finding.acceptance"
        size="small"
        color="primary"
        variant="flat"
        @click="emit('correct')"
        >{{ finding.correction }}</v-btn
      >
      <v-btn
        size="small"
        :to="{ path: `/studies/${slug}/${placeOf(finding).stage}`, query: placeOf(finding).query }"
        :append-icon="mdiArrowRight"
        >{{ $t('step.go', { stage: $t(`stage.${placeOf(finding).stage}`) }) }}</v-btn
      >
      <v-btn
        v-if="editable && finding.acceptable && !finding.acceptance"
        size="small"
        variant="text"
        @click="writing = true"
        >{{ $t('checks.accept') }}</v-btn
      >
      <v-btn v-if="editable && finding.acceptance" size="small" variant="text" @click="emit('reopen')">{{
        $t('checks.reopen')
      }}</v-btn>
    </div>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.3rem 1.5rem;
  align-items: start;
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--rule);
}

p {
  grid-column: 1;
  margin: 0;
  max-width: 46rem;
}

form {
  grid-column: 1 / 3;
  display: flex;
  gap: 0.6rem;
  align-items: center;
}

.ways {
  grid-column: 2;
  grid-row: 1;
  display: flex;
  gap: 0.4rem;
}

@media (max-width: 700px) {
  .ways {
    grid-column: 1;
    grid-row: auto;
  }
}
</style>

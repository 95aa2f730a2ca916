<script setup lang="ts">
import { computed } from 'vue';
import { Problem } from '@/api/client';
import ProblemNote from './ProblemNote.vue';

/** Why something was not saved; where somebody else was faster, the two ways out. */
const props = defineProps<{ problem: Error | null }>();
const emit = defineEmits<{ theirs: []; mine: [revision: number] }>();
const conflict = computed(() =>
  props.problem instanceof Problem && props.problem.code === 'changed-meanwhile' ? props.problem : null,
);
</script>

<template>
  <ProblemNote :problem="problem" />
  <div v-if="conflict" class="ways">
    <v-btn size="small" @click="emit('theirs')">{{ $t('conflict.keepTheirs') }}</v-btn>
    <v-btn size="small" @click="emit('mine', Number(conflict.details.revision))">{{ $t('conflict.keepYours') }}</v-btn>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
</style>

<script setup lang="ts">
import { useMutation, useQuery } from '@tanstack/vue-query';
import { api, type Problem } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';

/** Where one is signed in. */
const sessions = useQuery({ queryKey: ['sessions'], queryFn: () => api.get('/api/v1/account/sessions') });
const end = useMutation({
  mutationFn: () => api.delete('/api/v1/account/sessions'),
  onSettled: () => sessions.refetch(),
});
/** To the minute, in the time of the reader. */
const moment = (text: string) => new Date(text).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
</script>

<template>
  <section aria-labelledby="sessions">
    <h2 id="sessions">{{ $t('own.sessions') }}</h2>
    <ul class="figures">
      <li v-for="(one, i) in sessions.data.value" :key="i">
        {{ $t('own.session', { began: moment(one.began), used: moment(one.lastUsed) }) }}
        <strong v-if="one.here">{{ $t('own.here') }}</strong>
      </li>
    </ul>
    <ProblemNote :problem="sessions.error.value ?? (end.error.value as Problem | null)" />
    <v-btn :disabled="(sessions.data.value?.length ?? 0) < 2" :loading="end.isPending.value" @click="end.mutate()">{{
      $t('own.elsewhere')
    }}</v-btn>
  </section>
</template>

<style scoped>
section {
  margin-top: 2rem;
}

ul {
  margin: 0.5rem 0 0.75rem;
}
</style>

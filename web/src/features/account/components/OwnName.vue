<script setup lang="ts">
import { ref } from 'vue';
import { api } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useSession } from '@/stores/session';

/** The name that others see. */
const session = useSession();
const name = ref(session.account?.displayName ?? '');
const { busy, problem, run } = useAction();
const save = () =>
  run(async () => {
    session.account = await api.put('/api/v1/account/name', {}, { displayName: name.value.trim() });
  });
</script>

<template>
  <form class="one-line" @submit.prevent="save">
    <v-text-field v-model="name" :label="$t('own.name')" maxlength="80" autocomplete="name" hide-details />
    <v-btn type="submit" :disabled="!name.trim() || name.trim() === session.account?.displayName" :loading="busy">{{
      $t('save')
    }}</v-btn>
    <ProblemNote :problem="problem" />
  </form>
</template>

<style scoped>
.one-line {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.8rem;
  align-items: center;
  margin-top: 1.5rem;
}
</style>

<script setup lang="ts">
import { ref } from 'vue';
import { api } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { SHORTEST } from '../logic/passwords';
import NewPassword from './NewPassword.vue';

/** A new password; whoever knew the old one is signed out elsewhere. */
const emit = defineEmits<{ changed: [] }>();
const current = ref('');
const password = ref('');
const done = ref(false);
const { busy, problem, run } = useAction();

const change = () =>
  run(async () => {
    done.value = false;
    await api.put('/api/v1/account/password', {}, { current: current.value, password: password.value });
    current.value = password.value = '';
    done.value = true;
    emit('changed');
  });
</script>

<template>
  <section aria-labelledby="password">
    <h2 id="password">{{ $t('own.password') }}</h2>
    <form @submit.prevent="change">
      <v-text-field
        v-model="current"
        :label="$t('own.current')"
        type="password"
        autocomplete="current-password"
        hide-details
      />
      <NewPassword v-model="password" />
      <v-btn type="submit" :disabled="!current || password.length < SHORTEST" :loading="busy">{{
        $t('own.change')
      }}</v-btn>
    </form>
    <ProblemNote :problem="problem" />
    <p v-if="done" role="status">{{ $t('own.changed') }}</p>
  </section>
</template>

<style scoped>
section {
  margin-top: 2rem;
}

form {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 0.8rem;
  align-items: start;
  margin-top: 0.75rem;
}

.v-btn {
  margin-top: 0.35rem;
}

@media (max-width: 700px) {
  form {
    grid-template-columns: 1fr;
  }
}
</style>

<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, type Schemas } from '@/api/client';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useAction } from '@/shared/ui/useAction';
import { useSession } from '@/stores/session';
import NewPassword from '../components/NewPassword.vue';
import { SHORTEST } from '../logic/passwords';

/** Where a one-time link leads: whoever has it chooses the password of its account. The secret stands behind the #, so that it is sent to nobody on the way. */
const route = useRoute();
const router = useRouter();
const session = useSession();
const secret = route.hash.slice(1);
const whom = ref<Schemas['LinkResponse'] | null>(null);
const password = ref('');
const looked = ref(false);
const { busy, problem, run } = useAction();

onMounted(async () => {
  // Nobody has asked the server anything yet, and it takes nothing from pages that it did not give a token.
  await session.load().catch(() => undefined);
  await api
    .post('/api/v1/account-links/look', {}, { secret })
    .then((answer) => (whom.value = answer))
    .catch(() => undefined);
  looked.value = true;
});

const choose = () =>
  run(async () => {
    const { name } = await api.post('/api/v1/account-links/use', {}, { secret, password: password.value });
    await session.signIn(name, password.value);
    await router.replace('/studies');
  });
</script>

<template>
  <v-main>
    <div class="page narrow">
      <h1>{{ $t('welcome.title') }}</h1>
      <form v-if="whom" @submit.prevent="choose">
        <p>{{ $t('welcome.lead', whom) }}</p>
        <input class="sr-only" :value="whom.name" autocomplete="username" readonly tabindex="-1" aria-hidden="true" />
        <NewPassword v-model="password" autofocus />
        <ProblemNote :problem="problem" />
        <v-btn
          type="submit"
          color="primary"
          variant="flat"
          :disabled="password.length < SHORTEST"
          :loading="busy"
          class="mt-4"
          >{{ $t('welcome.go') }}</v-btn
        >
      </form>
      <p v-else-if="looked" role="alert">{{ $t('welcome.stale') }}</p>
    </div>
  </v-main>
</template>

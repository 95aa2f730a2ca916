<script setup lang="ts">
import { mdiPlus } from '@mdi/js';
import { useMutation, useQuery } from '@tanstack/vue-query';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, type Problem, type Schemas } from '@/api/client';
import ConfirmDialog from '@/shared/ui/ConfirmDialog.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import ShownOnce from './ShownOnce.vue';

type Token = Schemas['Token'];

const { t } = useI18n();
/** The day of a moment, as the server tells it. */
const day = (moment: string) => moment.slice(0, 10);
const tokens = useQuery({ queryKey: ['tokens'], queryFn: () => api.get('/api/v1/tokens') });
const name = ref('');
const scope = ref<Token['scope']>('READ');
/** The token that was just created; it cannot be shown again. */
const secret = ref('');
const leaving = ref<Token | null>(null);
const scopes = (['READ', 'WRITE'] as const).map((value) => ({ value, title: t(`tokens.scope.${value}`) }));

const create = useMutation({
  mutationFn: () => api.post('/api/v1/tokens', {}, { name: name.value.trim(), scope: scope.value }),
  onSuccess: async (made) => {
    secret.value = made.secret;
    name.value = '';
    await tokens.refetch();
  },
});
const revoke = useMutation({
  mutationFn: (token: Token) => api.delete('/api/v1/tokens/{id}', { id: token.id }),
  onSettled: () => tokens.refetch(),
});

function confirmed() {
  if (leaving.value) revoke.mutate(leaving.value);
  leaving.value = null;
}
</script>

<template>
  <section aria-labelledby="tokens">
    <h2 id="tokens">{{ $t('tokens.title') }}</h2>
    <p>{{ $t('tokens.lead') }}</p>
    <ProblemNote :problem="tokens.error.value ?? (create.error.value as Problem | null) ?? revoke.error.value" />
    <table v-if="tokens.data.value?.length" class="figures lines">
      <thead>
        <tr>
          <th scope="col">{{ $t('tokens.name') }}</th>
          <th scope="col">{{ $t('tokens.may') }}</th>
          <th scope="col">{{ $t('tokens.created') }}</th>
          <th scope="col">{{ $t('tokens.used') }}</th>
          <td></td>
        </tr>
      </thead>
      <tbody>
        <tr v-for="token in tokens.data.value" :key="token.id">
          <th scope="row">{{ token.name }}</th>
          <td>{{ $t(`tokens.scope.${token.scope}`) }}</td>
          <td class="day">{{ day(token.createdAt) }}</td>
          <td class="day">{{ token.lastUsedAt ? day(token.lastUsedAt) : $t('tokens.never') }}</td>
          <td>
            <v-btn
              size="small"
              variant="text"
              :aria-label="$t('tokens.revokeNamed', { name: token.name })"
              @click="leaving = token"
              >{{ $t('tokens.revoke') }}</v-btn
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="tokens.isSuccess.value" class="quiet">{{ $t('tokens.none') }}</p>
    <ShownOnce v-if="secret" :text="secret">{{ $t('tokens.once') }}</ShownOnce>
    <form @submit.prevent="create.mutate()">
      <v-text-field v-model="name" :label="$t('tokens.new')" maxlength="60" density="compact" hide-details />
      <v-select v-model="scope" :items="scopes" :label="$t('tokens.may')" density="compact" hide-details />
      <v-btn
        type="submit"
        color="primary"
        variant="flat"
        :prepend-icon="mdiPlus"
        :disabled="!name.trim()"
        :loading="create.isPending.value"
        >{{ $t('tokens.create') }}</v-btn
      >
    </form>
    <h3>{{ $t('tokens.how') }}</h3>
    <p>{{ $t('tokens.header') }}</p>
    <code>{{ $t('tokens.example') }}</code>
    <ConfirmDialog
      :model-value="leaving !== null"
      :title="$t('tokens.revokeTitle', { name: leaving?.name })"
      :text="$t('tokens.revokeText')"
      :yes="$t('tokens.revoke')"
      @update:model-value="leaving = null"
      @confirm="confirmed"
    />
  </section>
</template>

<style scoped>
h2 {
  margin-top: 2rem;
}

h3 {
  margin-top: 2rem;
}

form {
  display: grid;
  grid-template-columns: minmax(12rem, 1fr) 13rem auto;
  gap: 0.8rem;
  align-items: center;
  margin-top: 1rem;
}

.day {
  white-space: nowrap;
}

code {
  overflow-wrap: anywhere;
}

@media (max-width: 600px) {
  form {
    grid-template-columns: 1fr;
  }
}
</style>

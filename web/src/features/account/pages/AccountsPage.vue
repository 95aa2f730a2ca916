<script setup lang="ts">
import { useMutation, useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { api, type Problem, type Schemas } from '@/api/client';
import ConfirmDialog from '@/shared/ui/ConfirmDialog.vue';
import ProblemNote from '@/shared/ui/ProblemNote.vue';
import { useSession } from '@/stores/session';
import AccountMenu from '../components/AccountMenu.vue';
import ShownOnce from '../components/ShownOnce.vue';

type Administered = Schemas['Administered'];

/** Everybody who has an account, for administrators. */
const session = useSession();
const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api.get('/api/v1/accounts') });
const name = ref('');
const displayName = ref('');
const administrator = ref(false);
const link = ref<Schemas['Link'] | null>(null);
const leaving = ref<Administered | null>(null);
const address = computed(() => (link.value ? `${location.origin}/welcome#${link.value.secret}` : ''));

const settled = { onSettled: () => accounts.refetch() };
const invite = useMutation({
  mutationFn: () =>
    api.post(
      '/api/v1/accounts/invitations',
      {},
      { name: name.value.trim(), displayName: displayName.value.trim(), administrator: administrator.value },
    ),
  onSuccess: (made) => {
    link.value = made;
    name.value = displayName.value = '';
    administrator.value = false;
  },
  ...settled,
});
const reset = useMutation({
  mutationFn: (account: string) => api.post('/api/v1/accounts/{account}/reset', { account }),
  onSuccess: (made) => (link.value = made),
  ...settled,
});
const activate = useMutation({
  mutationFn: (one: Administered) =>
    api.put('/api/v1/accounts/{account}/active', { account: one.name }, { active: !one.active }),
  ...settled,
});
const problem = computed(
  () => (accounts.error.value ?? invite.error.value ?? reset.error.value ?? activate.error.value) as Problem | null,
);
const switchable = (one: Administered) => one.name !== session.account?.name;

function confirmed() {
  if (leaving.value) activate.mutate(leaving.value);
  leaving.value = null;
}
</script>

<template>
  <v-main>
    <div class="page narrow">
      <header>
        <h1>{{ $t('accounts.title') }}</h1>
        <AccountMenu />
      </header>
      <router-link to="/studies">{{ $t('tokens.studies') }}</router-link>
      <ProblemNote :problem="problem" />
      <ShownOnce v-if="link" :text="address">{{
        $t('accounts.link', { name: link.account, hours: link.hours })
      }}</ShownOnce>
      <table class="figures lines">
        <thead>
          <tr>
            <th scope="col">{{ $t('accounts.name') }}</th>
            <th scope="col">{{ $t('accounts.displayName') }}</th>
            <th scope="col">{{ $t('accounts.state') }}</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in accounts.data.value" :key="one.name">
            <th scope="row">{{ one.name }}</th>
            <td>{{ one.displayName }}</td>
            <td>
              {{ $t(one.active ? (one.invited ? 'accounts.invited' : 'accounts.active') : 'accounts.off')
              }}{{ one.administrator ? $t('accounts.administers') : '' }}
            </td>
            <td class="do">
              <v-btn size="small" variant="text" @click="reset.mutate(one.name)">{{
                $t(one.invited ? 'accounts.again' : 'accounts.reset')
              }}</v-btn>
              <v-btn
                v-if="switchable(one)"
                size="small"
                variant="text"
                :aria-label="$t(one.active ? 'accounts.offNamed' : 'accounts.onNamed', { name: one.displayName })"
                @click="one.active ? (leaving = one) : activate.mutate(one)"
                >{{ $t(one.active ? 'accounts.switchOff' : 'accounts.switchOn') }}</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
      <h2>{{ $t('accounts.invite') }}</h2>
      <p>{{ $t('accounts.lead') }}</p>
      <form @submit.prevent="invite.mutate()">
        <v-text-field
          v-model="name"
          :label="$t('accounts.newName')"
          :hint="$t('accounts.nameRule')"
          persistent-hint
          maxlength="40"
          autocapitalize="none"
          spellcheck="false"
        />
        <v-text-field v-model="displayName" :label="$t('accounts.newDisplayName')" maxlength="80" hide-details />
        <v-checkbox v-model="administrator" :label="$t('accounts.asAdministrator')" hide-details />
        <v-btn
          type="submit"
          color="primary"
          variant="flat"
          :disabled="!name.trim()"
          :loading="invite.isPending.value"
          >{{ $t('accounts.make') }}</v-btn
        >
      </form>
    </div>
    <ConfirmDialog
      :model-value="leaving !== null"
      :title="$t('accounts.offTitle', { name: leaving?.displayName })"
      :text="$t('accounts.offText')"
      :yes="$t('accounts.switchOff')"
      @update:model-value="leaving = null"
      @confirm="confirmed"
    />
  </v-main>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

h2 {
  margin-top: 2rem;
}

.do {
  text-align: right;
}

form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.8rem;
  align-items: start;
  margin-top: 0.75rem;
}

form .v-btn {
  justify-self: start;
}

@media (max-width: 600px) {
  form {
    grid-template-columns: 1fr;
  }
}
</style>

import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, type Schemas } from '@/api/client';

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const account = ref<Schemas['Account'] | null>(null);
  const demoAccounts = ref<Schemas['DemoAccount'][]>([]);
  const loaded = ref(false);

  function take(response: Schemas['SessionResponse']) {
    account.value = response.account ?? null;
    demoAccounts.value = response.demoAccounts;
    loaded.value = true;
  }

  async function load() {
    if (!loaded.value) take(await api.get<Schemas['SessionResponse']>('/api/session'));
  }

  async function signIn(name: string, password: string) {
    take(await api.post<Schemas['SessionResponse']>('/api/session', { name, password }));
  }

  async function signOut() {
    await api.delete('/api/session');
    account.value = null;
    loaded.value = false;
    await load();
  }

  return { account, demoAccounts, load, signIn, signOut };
});

import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, type Schemas } from '@/api/client';

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const account = ref<Schemas['Account'] | null>(null);
  const demoAccounts = ref<Schemas['DemoAccount'][]>([]);
  /** Whether the installation is still being filled, so that its accounts may not be there yet. */
  const starting = ref(false);
  const loaded = ref(false);

  function take(response: Schemas['SessionResponse']) {
    account.value = response.account ?? null;
    demoAccounts.value = response.demoAccounts;
    starting.value = response.starting;
    loaded.value = true;
  }

  async function load() {
    if (!loaded.value) take(await api.get('/api/v1/session'));
  }

  /** Asks again, as long as it is still starting. */
  async function reload() {
    loaded.value = false;
    await load();
  }

  async function signIn(name: string, password: string) {
    take(await api.post('/api/v1/session', {}, { name, password }));
  }

  async function signOut() {
    await api.delete('/api/v1/session');
    account.value = null;
    await reload();
  }

  return { account, demoAccounts, starting, load, reload, signIn, signOut };
});

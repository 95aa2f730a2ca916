import { defineComponent, h, ref } from 'vue';
import { expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer } from '@/testing/server';
import { useSession } from '@/stores/session';
import SignInPage from './SignInPage.vue';

const server = fakeServer();
/** As the router does it: who is signed in is known before the page stands. */
const frame = defineComponent({
  setup() {
    const known = ref(false);
    void useSession()
      .load()
      .then(() => (known.value = true));
    return () => (known.value ? h(SignInPage) : null);
  },
});
const isolde = { name: 'isolde', displayName: 'Isolde Quillane', password: 'secret', role: 'author' };

test('while the accounts are not there yet it says so, asks again, and then lets people in', async () => {
  const answers = [
    { demoAccounts: [], starting: true },
    { demoAccounts: [isolde], starting: false },
  ];
  server.on('GET /api/v1/session', () => (answers.length > 1 ? answers.shift() : answers[0]));
  const page = await mount(frame, {});
  await vi.waitFor(() => expect(page.text()).toContain('still starting'));
  expect((page.all('button[type=submit]')[0] as HTMLButtonElement).disabled).toBe(true);
  await vi.waitFor(() => expect(page.text()).toContain('Isolde Quillane'), { timeout: 5000 });
  expect(page.text()).not.toContain('still starting');
  expect((page.all('button[type=submit]')[0] as HTMLButtonElement).disabled).toBe(false);
});

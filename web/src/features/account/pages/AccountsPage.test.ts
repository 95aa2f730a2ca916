import { VueQueryPlugin } from '@tanstack/vue-query';
import { expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer } from '@/testing/server';
import AccountsPage from './AccountsPage.vue';
import WelcomePage from './WelcomePage.vue';

const server = fakeServer();
const fern = { name: 'fern', displayName: 'Fern', administrator: false, active: true, invited: false };

function write(field: Element | undefined, text: string) {
  if (!(field instanceof HTMLInputElement)) throw new Error('no field');
  field.value = text;
  field.dispatchEvent(new Event('input'));
}

test('an invitation is a link that is shown once', async () => {
  server.on('GET /api/v1/accounts', [fern]);
  server.on('POST /api/v1/accounts/invitations', { account: 'reed', secret: 'abc', hours: 72 });
  const page = await mount(AccountsPage, {}, [], [VueQueryPlugin]);
  await vi.waitFor(() => expect(page.text()).toContain('Fern'));
  write(page.all('form input')[0], ' reed ');
  await vi.waitFor(() => expect((page.all('form button')[0] as HTMLButtonElement).disabled).toBe(false));
  page.all('form button')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('/welcome#abc'));
  expect(server.bodies('POST /api/v1/accounts/invitations')).toEqual([
    { name: 'reed', displayName: '', administrator: false },
  ]);
});

test('an account is switched off after a question', async () => {
  const accounts = [fern];
  server.on('GET /api/v1/accounts', () => [...accounts]);
  server.on('PUT /api/v1/accounts/fern/active', () => void (accounts[0] = { ...fern, active: false }));
  const page = await mount(AccountsPage, {}, [], [VueQueryPlugin]);
  await vi.waitFor(() => page.byText('td button', 'Switch off').click());
  await vi.waitFor(() => expect(document.body.textContent).toContain('Switch off Fern?'));
  const yes = [...document.querySelectorAll<HTMLElement>('.v-dialog button')].find(
    (b) => b.textContent?.trim() === 'Switch off',
  );
  yes?.click();
  await vi.waitFor(() => expect(page.text()).toContain('switched off'));
  expect(server.bodies('PUT /api/v1/accounts/fern/active')).toEqual([{ active: false }]);
});

test('a link that is no longer good says so', async () => {
  const page = await mount(WelcomePage, {}, [], [VueQueryPlugin], '/welcome#gone');
  await vi.waitFor(() => expect(page.text()).toContain('Ask your administrator for another.'));
});

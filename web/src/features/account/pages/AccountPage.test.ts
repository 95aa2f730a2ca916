import { VueQueryPlugin } from '@tanstack/vue-query';
import { expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer, Refusal } from '@/testing/server';
import AccountPage from './AccountPage.vue';

const server = fakeServer();
const robot = { id: 7, name: 'robot', scope: 'WRITE', createdAt: '2031-05-04T06:00:00Z' };

async function open(tokens: unknown[]) {
  server.on('GET /api/v1/account/sessions', [
    { began: '2031-05-04T06:00:00Z', lastUsed: '2031-05-04T07:00:00Z', here: true },
  ]);
  server.on('GET /api/v1/tokens', () => [...tokens]);
  const page = await mount(AccountPage, {}, [], [VueQueryPlugin]);
  await vi.waitFor(() => expect(page.text()).toContain('Create token'));
  return page;
}

function type(page: Awaited<ReturnType<typeof open>>, text: string) {
  const field = page.all('[aria-labelledby=tokens] form input')[0] as HTMLInputElement;
  field.value = text;
  field.dispatchEvent(new Event('input'));
}

test('a token is shown once, when it is created', async () => {
  const tokens: unknown[] = [];
  server.on('POST /api/v1/tokens', () => {
    tokens.push(robot);
    return { id: 7, secret: 'polyclave_abc' };
  });
  const page = await open(tokens);
  await vi.waitFor(() => expect(page.text()).toContain('You have no tokens'));
  type(page, ' robot ');
  await vi.waitFor(() =>
    expect((page.all('[aria-labelledby=tokens] form button')[0] as HTMLButtonElement).disabled).toBe(false),
  );
  page.all('[aria-labelledby=tokens] form button')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('polyclave_abc'));
  expect(server.bodies('POST /api/v1/tokens')).toEqual([{ name: 'robot', scope: 'READ' }]);
  await vi.waitFor(() => expect(page.text()).toContain('never'));
});

test('a refusal is said and keeps what was typed', async () => {
  server.on('POST /api/v1/tokens', new Refusal(400, { code: 'name', detail: 'You have a token of that name.' }));
  const page = await open([robot]);
  type(page, 'robot');
  await vi.waitFor(() =>
    expect((page.all('[aria-labelledby=tokens] form button')[0] as HTMLButtonElement).disabled).toBe(false),
  );
  page.all('[aria-labelledby=tokens] form button')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('You have a token of that name.'));
  expect((page.all('[aria-labelledby=tokens] form input')[0] as HTMLInputElement).value).toBe('robot');
});

test('a token is revoked after a question', async () => {
  const tokens = [robot];
  server.on('DELETE /api/v1/tokens/7', () => void tokens.pop());
  const page = await open(tokens);
  await vi.waitFor(() => page.byText('td button', 'Revoke').click());
  await vi.waitFor(() => expect(document.body.textContent).toContain('Revoke “robot”?'));
  const action = [...document.querySelectorAll<HTMLElement>('.v-dialog button')].find(
    (b) => b.textContent?.trim() === 'Revoke',
  );
  action?.click();
  await vi.waitFor(() => expect(page.text()).toContain('You have no tokens'));
});

test('a new password is chosen with the old one, and a refusal keeps what was typed', async () => {
  server.on('PUT /api/v1/account/password', new Refusal(400, { code: 'sign-in', detail: 'That is not it.' }));
  const page = await open([]);
  const fields = page.all('[aria-labelledby=password] input') as HTMLInputElement[];
  const button = () => page.all('[aria-labelledby=password] button')[0] as HTMLButtonElement;
  const write = (field: HTMLInputElement | undefined, text: string) => {
    if (!field) throw new Error('no field');
    field.value = text;
    field.dispatchEvent(new Event('input'));
  };
  write(fields[0], 'old');
  write(fields[1], 'too short');
  await vi.waitFor(() => expect(button().disabled).toBe(true));
  write(fields[1], 'long enough now');
  await vi.waitFor(() => expect(button().disabled).toBe(false));
  button().click();
  await vi.waitFor(() => expect(page.text()).toContain('That is not it.'));
  expect(fields[1]?.value).toBe('long enough now');
  server.on('PUT /api/v1/account/password', {});
  button().click();
  await vi.waitFor(() => expect(page.text()).toContain('signed out everywhere else'));
  expect(fields[1]?.value).toBe('');
});

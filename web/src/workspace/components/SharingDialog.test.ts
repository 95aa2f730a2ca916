import { defineComponent, h } from 'vue';
import { expect, test, vi } from 'vitest';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';
import SharingDialog from './SharingDialog.vue';

const PATH = '/api/v1/studies/meadow';
const server = fakeServer();

async function open(role: 'OWNER' | 'EDITOR') {
  server.on(`GET ${PATH}`, study({ role }));
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/columns?character=`, []);
  server.on(`GET ${PATH}/members`, [
    { name: 'isolde', displayName: 'Isolde', role: 'OWNER' },
    { name: 'petra', displayName: 'Petra', role: 'VIEWER' },
  ]);
  await mountInStudy(defineComponent({ render: () => h(SharingDialog, { modelValue: true }) }));
  await vi.waitFor(() => expect(said()).toContain('Petra'));
}

const said = () => document.body.querySelector('.v-dialog')?.textContent ?? '';
const all = (selector: string) => [...document.body.querySelectorAll<HTMLElement>(`.v-dialog ${selector}`)];

async function add(name: string) {
  const field = all('form input')[0] as HTMLInputElement;
  field.value = name;
  field.dispatchEvent(new Event('input'));
  await vi.waitFor(() => expect((all('form button[type=submit]')[0] as HTMLButtonElement).disabled).toBe(false));
  all('form')[0]?.dispatchEvent(new Event('submit'));
}

test('owners share with an account, first as a scorer', async () => {
  server.on(`PUT ${PATH}/members`, undefined);
  await open('OWNER');
  await add(' oswin ');
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/members`)).toEqual([{ account: 'oswin', role: 'SCORER' }]));
  await vi.waitFor(() => expect((all('form input')[0] as HTMLInputElement).value).toBe(''));
});

test('an account that does not exist is told, and what was typed stays', async () => {
  const detail = "The account 'osvin' does not exist.";
  server.on(`PUT ${PATH}/members`, new Refusal(400, { code: 'no-such-account', detail }));
  await open('OWNER');
  await add('osvin');
  await vi.waitFor(() => expect(said()).toContain(detail));
  expect((all('form input')[0] as HTMLInputElement).value).toBe('osvin');
});

test('others see who shares the study and change nothing', async () => {
  await open('EDITOR');
  expect(all('form')).toHaveLength(0);
  expect(said()).toContain('Only owners share a study.');
});

test('owners take the study from a member', async () => {
  server.on(`DELETE ${PATH}/members/petra`, undefined);
  await open('OWNER');
  document.querySelector<HTMLElement>('[aria-label="Remove Petra’s access"]')?.click();
  await vi.waitFor(() => expect(server.bodies(`DELETE ${PATH}/members/petra`)).toHaveLength(1));
});

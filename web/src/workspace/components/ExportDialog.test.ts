import { defineComponent, h } from 'vue';
import { expect, test, vi } from 'vitest';
import { fakeServer } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';
import ExportDialog from './ExportDialog.vue';

const PATH = '/api/v1/studies/meadow';
const server = fakeServer();
const said = () => document.body.querySelector('.v-dialog')?.textContent ?? '';

async function open(cells: number) {
  const view = study();
  server.on(`GET ${PATH}`, { ...view, progress: { ...view.progress, cells } });
  server.on(`GET ${PATH}/export/losses?format=csv`, ['glossary: 5 entries']);
  server.on(`GET ${PATH}/export/losses?format=csv&whole=true`, []);
  await mountInStudy(defineComponent({ render: () => h(ExportDialog, { modelValue: true }) }));
  await vi.waitFor(() => expect(said()).toContain('Table (CSV)'));
}

test('what a file leaves out is told before it is saved, and goes along on demand', async () => {
  await open(20);
  await vi.waitFor(() => expect(said()).toContain('glossary: 5 entries'));
  document.querySelector<HTMLElement>('.v-dialog input[type=checkbox]')?.click();
  await vi.waitFor(() => expect(said()).toContain('Nothing is left out.'));
});

test('of a large study it is not worked out unasked', async () => {
  await open(1_000_000);
  await vi.waitFor(() => expect(said()).toContain('too large to list it here'));
  expect(server.bodies(`GET ${PATH}/export/losses?format=csv`)).toHaveLength(0);
});

import { defineComponent, h } from 'vue';
import { expect, test, vi } from 'vitest';
import { fakeServer } from '@/testing/server';
import { character, mountInStudy, study } from '@/testing/study';
import PlanPanel from './PlanPanel.vue';

const PATH = '/api/v1/studies/meadow';
const server = fakeServer();

test('a part of the outline chooses its organ, and authors give parts their own names', async () => {
  const scope = { ...study().scope, bodyPlan: { plan: 'mushroom', parts: [{ part: 'cap', organ: 'pileus' }] } };
  const characters = [character('shape', { organ: 'pileus' }), character('smell', { organ: 'flesh smell' })];
  server.on(`GET ${PATH}`, study({ scope, characters, revisions: { scope: 3 } }));
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/columns?character=`, []);
  server.on(`PUT ${PATH}/scope`, { revision: 8 });
  const chosen = vi.fn();
  const page = await mountInStudy(
    defineComponent({
      render: () => h(PlanPanel, { modelValue: '', editable: true, 'onUpdate:modelValue': chosen }),
    }),
  );
  await vi.waitFor(() => expect(page.all('svg.plan g').length).toBeGreaterThan(5));
  const labels = page.all('svg.plan g').map((g) => g.getAttribute('aria-label'));
  expect(labels).toContain('pileus (1)');
  expect(labels).toContain('gills (0)');
  expect(page.text()).toContain('flesh smell (1)');
  const cap = page.all('svg.plan g').find((g) => g.getAttribute('aria-label') === 'pileus (1)');
  cap?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  expect(chosen).toHaveBeenCalledWith('pileus');

  page.byText('button', 'Adapt its parts').click();
  await vi.waitFor(() => expect(page.all('form input').length).toBeGreaterThan(5));
  const own = page.all('form input').at(-1) as HTMLInputElement;
  own.value = 'mycelium';
  own.dispatchEvent(new Event('input'));
  page.all('form')[0]?.dispatchEvent(new Event('submit'));
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/scope`)).toHaveLength(1));
  const body = server.bodies(`PUT ${PATH}/scope`)[0] as { scope: typeof scope; baseRevision: number };
  expect(body.baseRevision).toBe(3);
  expect(body.scope.bodyPlan.parts).toContainEqual({ part: '', organ: 'mycelium' });
});

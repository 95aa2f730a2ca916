import { VueQueryPlugin } from '@tanstack/vue-query';
import { expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer, Refusal } from '@/testing/server';
import { useRules } from '../composables/useRules';
import RulesDialog from './RulesDialog.vue';

const server = fakeServer();
const large = { rule: 'FINGER_WIDTH', mean: 17, spread: 2, measured: [] };
const seen: ReturnType<typeof useRules>[] = [];
const Asking = {
  components: { RulesDialog },
  setup() {
    seen.unshift(useRules());
    return {};
  },
  template: '<RulesDialog :model-value="true" />',
};

function type(text: string) {
  const input = document.querySelector<HTMLInputElement>('.rule input');
  if (!input) throw new Error('No field');
  input.value = text;
  input.dispatchEvent(new Event('input'));
  document.querySelector('.rule')?.dispatchEvent(new Event('submit', { cancelable: true }));
}

test('without an account, what was measured stays with the browser, and a refusal with the field', async () => {
  localStorage.clear();
  server.on('GET /api/v1/rules-of-thumb', [large]);
  server.on('PUT /api/v1/rules-of-thumb/FINGER_WIDTH', { ...large, mean: 15, measured: [15, 15.5, 14.5] });
  await mount(Asking, {}, [], [VueQueryPlugin]);
  await vi.waitFor(() => expect(document.body.textContent).toContain('People in general: 17.0 mm'));
  type('15; 1,55 cm, 14.5');
  await vi.waitFor(() => expect(document.body.textContent).toContain('Yours: 15.0 mm'));
  expect(server.bodies('PUT /api/v1/rules-of-thumb/FINGER_WIDTH')).toEqual([{ measured: ['15', '1,55 cm', '14.5'] }]);
  expect(seen[0]?.measuredOf('FINGER_WIDTH')).toEqual([15, 15.5, 14.5]);
  expect(localStorage.getItem('polyclave.rulesOfThumb')).toContain('15.5');

  server.on('PUT /api/v1/rules-of-thumb/FINGER_WIDTH', new Refusal(422, { detail: 'Measure it 3 to 50 times.' }));
  type('15');
  await vi.waitFor(() => expect(document.body.textContent).toContain('Measure it 3 to 50 times.'));
  expect(document.body.textContent).toContain('Yours: 15.0 mm');
});

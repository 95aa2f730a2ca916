import { defineComponent, h } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer } from '@/testing/server';
import { character, mountInStudy, row, study } from '@/testing/study';
import BesideSize from './BesideSize.vue';

const server = fakeServer();
const height = character('height', { label: 'claw height', type: 'LENGTH', unit: 'mm' });
const width = character('width', { label: 'carapace width', type: 'LENGTH', unit: 'mm' });
const individuals = [20, 30, 40, 50, 60, 70, 80, 90].map((x, i) => ({
  specimen: `c${i}`,
  x,
  y: i === 3 ? 48 : x / 2,
  unforeseen: i === 3,
}));
const beside: Schemas['BesideView'] = {
  x: 'width',
  y: 'height',
  rows: [
    {
      row: 'bane',
      individuals,
      exponent: 1.04,
      band: [
        { x: 20, low: 9, high: 11 },
        { x: 90, low: 40, high: 50 },
      ],
    },
    { row: 'mild', individuals: [{ specimen: 'm1', x: 25, y: 20, unforeseen: false }], band: [] },
  ],
};

test('individuals that the others do not foresee are named, and a press goes to them', async () => {
  server.on('GET /api/v1/studies/meadow', study({ characters: [height, width] }));
  server.on('GET /api/v1/studies/meadow/readings/of-character/height/beside/width', beside);
  const heard: string[] = [];
  const page = await mountInStudy(
    defineComponent(
      () => () =>
        h(BesideSize, {
          rows: [row('bane'), row('mild')],
          characters: [height, width],
          character: height,
          row: 'bane',
          specimen: 'c1',
          onChoose: (specimen: string) => heard.push(specimen),
        }),
    ),
  );
  const field = page.all('.v-select .v-field')[0];
  field?.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }));
  await vi.waitFor(() => {
    const choice = [...document.querySelectorAll<HTMLElement>('.v-list-item')].find(
      (e) => e.textContent === 'carapace width',
    );
    expect(choice).toBeDefined();
    choice?.click();
  });
  await vi.waitFor(() => expect(page.text()).toContain('the power 1.04 of the other size (1: in proportion), by 8'));
  expect(page.all('circle')).toHaveLength(9);
  expect(page.all('circle.mine')).toHaveLength(8);
  page.byText('.strange button', 'c3').click();
  expect(heard).toEqual(['c3']);
});

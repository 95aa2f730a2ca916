import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { mount } from '@/testing/mount';
import KeyFlow from './KeyFlow.vue';
import PrintedKey from './PrintedKey.vue';

const statement = (text: string, plainText: string, role: string) => ({ character: 'c', text, plainText, role });
const end = (label: string, hazard: Schemas['NameView']['hazard'] = 'NONE_KNOWN') => ({
  names: [
    { row: label.toLowerCase(), label, stage: '', plain: '', rank: '', hazard, hazardText: 'serious hazard: sap' },
  ],
  reason: '',
  notRuledOut: [] as Schemas['OpenDangerView'][],
});
const bane = {
  row: 'bane',
  label: 'Bane',
  stage: '',
  plain: '',
  rank: '',
  hazard: 'SERIOUS' as const,
  hazardText: '',
  folded: [],
};
const view = {
  title: 'Sallows',
  couplets: [
    {
      number: 1,
      leads: [
        {
          text: '',
          plainText: '',
          statements: [
            statement('Margin entire', 'Edge smooth', 'DECIDING'),
            statement('Stem usually round', 'Stem usually round', 'TENDENCY'),
          ],
          terminal: { ...end('Mild'), notRuledOut: [{ name: bane, signs: [] }] },
        },
        {
          text: '',
          plainText: '',
          statements: [statement('Margin toothed', 'Edge with teeth', 'DECIDING')],
          couplet: 2,
        },
      ],
    },
    {
      number: 2,
      from: 1,
      leads: [
        {
          text: '',
          plainText: '',
          statements: [statement('Leaf up to 6 mm', 'Leaf up to 6 mm', 'DECIDING')],
          terminal: end('Bane', 'SERIOUS'),
        },
        {
          text: '',
          plainText: '',
          statements: [statement('Leaf more than 6 mm', '', 'DECIDING')],
          terminal: { ...end('Calm'), notRuledOut: [{ name: bane, signs: ['pod colour', 'stem hairs'] }] },
        },
      ],
    },
  ],
} as unknown as Schemas['KeyView'];

test('couplets are numbered, refer back and lead on', async () => {
  const key = await mount(PrintedKey, { view, plain: false }, ['select']);
  expect(key.all('.couplet')).toHaveLength(2);
  expect(key.text()).toContain('Margin entire; stem usually round');
  expect(key.all('a[href="#couplet-2"]')).toHaveLength(1);
  expect(key.all('a[href="#couplet-1"]')[0]?.textContent?.trim()).toBe('(1)');
  key.all('a[href="#couplet-2"]')[0]?.click();
  expect(key.heard).toContainEqual(['select', 2]);
});

test('what decides is distinguished from what is only usual', async () => {
  const key = await mount(PrintedKey, { view, plain: false });
  expect(key.all('.deciding')).toHaveLength(4);
  expect(key.all('.tendency').map((e) => e.textContent)).toEqual(['stem usually round']);
});

test('danger stands at its name in words, and names lead to their pages', async () => {
  const key = await mount(PrintedKey, { view, plain: false, taxonLink: '?taxon=' });
  expect(key.all('.end')[1]?.textContent).toContain('serious hazard');
  expect(key.all('.end a').map((a) => a.getAttribute('href'))).toContain('/?taxon=bane');
});

test('a danger that the way does not rule out stands beside the name, with what to look at', async () => {
  const key = await mount(PrintedKey, { view, plain: false });
  const open = key.all('.open').map((e) => e.textContent?.replace(/\s+/g, ' ').trim());
  expect(open).toHaveLength(2);
  expect(open[0]).toMatch(/^Not ruled out: Bane.*This matrix has no checked sign that rules it out\.$/);
  expect(open[1]).toContain('Look also at: pod colour; stem hairs.');
});

test('plain words replace technical ones', async () => {
  const key = await mount(PrintedKey, { view, plain: true });
  expect(key.text()).toContain('Edge smooth');
  expect(key.text()).not.toContain('Margin entire');
});

test('the flow marks the way to danger and selects couplets', async () => {
  const flow = await mount(KeyFlow, { view, selected: 2 }, ['select']);
  expect(flow.all('path.ribbon')).toHaveLength(4);
  expect(flow.all('path.danger')).toHaveLength(2);
  expect(flow.all('rect.on')).toHaveLength(1);
  expect(flow.text()).toContain('⚠ Bane');
  flow.all('.knot')[0]?.dispatchEvent(new MouseEvent('click'));
  expect(flow.heard).toHaveLength(1);
});

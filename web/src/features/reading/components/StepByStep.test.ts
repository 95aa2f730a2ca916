import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { mount } from '@/testing/mount';
import { character } from '@/testing/study';
import StepByStep from './StepByStep.vue';

const name = (label: string, hazard: Schemas['NameView']['hazard'] = 'NONE_KNOWN') => ({
  row: label.toLowerCase(),
  label,
  stage: '',
  plain: '',
  rank: '',
  hazard,
  hazardText: 'deadly if eaten',
  folded: [],
});
const lead = (text: string, more: object) => ({
  text,
  plainText: `${text} in plain words`,
  statements: [
    { character: 'tip', text, plainText: `${text} in plain words`, role: 'DECIDING' },
    { character: 'stem', text: 'stem hollow', plainText: 'stem hollow', role: 'TENDENCY' },
  ],
  ...more,
});
const danger = { name: name('Bane', 'LIFE_THREATENING'), signs: ['root'] };
const end = (label: string, notRuledOut: object[] = []) => ({
  terminal: { names: [name(label)], reason: '', notRuledOut },
});
const view = {
  couplets: [
    { number: 1, character: 'tip', leads: [lead('Tip blunt', { couplet: 2 }), lead('Tip sharp', end('Acute'))] },
    {
      number: 2,
      from: 1,
      character: 'gone',
      leads: [
        lead('Leaf flat', end('Mild', [danger])),
        lead('Leaf round', { terminal: { names: [danger.name], reason: '', notRuledOut: [] } }),
      ],
    },
  ],
} as unknown as Schemas['KeyView'];

const open = (path = '/', plain = false) =>
  mount(
    StepByStep,
    {
      view,
      characters: [character('tip', { question: 'How does the leaf end?', method: 'lens', note: 'A whole leaf.' })],
      plain,
      taxonLink: '?view=taxon&taxon=',
    },
    [],
    [],
    path,
  );

test('one couplet at a time: a lead is taken as a whole, the way can be gone back on, and its end says what is not ruled out', async () => {
  const page = await open();
  expect(page.text()).toContain('1 How does the leaf end?How: lens. A whole leaf.');
  expect(page.all('.card').map((c) => c.querySelector('.deciding')?.textContent)).toEqual(['Tip blunt', 'Tip sharp']);
  expect(page.text()).toContain('Still possible, and dangerous: Banelife-threatening');
  page.all('.card')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('Which of these is it?'));
  expect(page.router.currentRoute.value.query.at).toBe('1a');
  expect(document.activeElement?.tagName).toBe('H2');
  page.all('.take')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('The key ends here'));
  expect(page.text()).toContain('Not ruled out: Bane');
  expect(page.text()).toContain('No result is permission');
  expect(page.all('.possible')).toHaveLength(0);
  page.all('.trail button')[1]?.click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.at).toBe('1a'));
});

test('who cannot tell keeps both ways open, and is shown the other one first', async () => {
  const page = await open('/', true);
  page.byText('button', 'Cannot tell').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.at).toBe('1a~'));
  expect(page.text()).toContain('1a Tip blunt in plain words (could not tell)');
  expect(page.text()).toContain('Still possible: 3 taxa');
  page.all('.take')[0]?.click();
  await vi.waitFor(() => expect(page.text()).toContain('Went astray?'));
  expect(page.text()).toContain('Not ruled out: Bane');
  expect(page.text()).toContain('Still possible: 2 taxa');
  const other = page.all('.others a');
  expect(other.map((a) => a.textContent?.trim())).toEqual([
    '1b Tip sharp in plain words',
    '2b Leaf round in plain words',
  ]);
  other[0]?.click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.at).toBe('1b~'));
  expect(page.byText('.end a', 'Acute')).toBeTruthy();
  expect(page.text()).toContain('Still possible: 3 taxa');
});

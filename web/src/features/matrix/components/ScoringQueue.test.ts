import { expect, test, vi } from 'vitest';
import { nextTick, reactive } from 'vue';
import type { Cell } from '@/study-kernel';
import { mount } from '@/testing/mount';
import { character, row, state } from '@/testing/study';
import ScoringQueue from './ScoringQueue.vue';

const margin = character('margin', { states: [state('entire'), state('toothed')], note: 'Look with a lens.' });
const width = character('width', { type: 'LENGTH', unit: 'mm' });
const cell = (text: string) => ({ text, kind: 'states', parts: [], from: null, revision: 4 }) as unknown as Cell;

async function open(of = margin, editable = true) {
  const items = ['mild', 'bane', 'calm'].map((id) => ({
    id,
    row: row(id),
    character: of,
    named: true,
    title: '',
    cell: id === 'bane' ? cell('entire') : undefined,
  }));
  const props = reactive<Record<string, unknown>>({
    items,
    heading: of.label,
    byRow: false,
    editable,
    problem: '',
    active: 0,
  });
  props['onUpdate:active'] = (n: number) => (props.active = n);
  const page = await mount(ScoringQueue, props, ['score', 'doubt']);
  const press = async (key: string, over: KeyboardEventInit = {}) => {
    const target = page.all('input')[0] ?? page.all('[role=listbox]')[0];
    target?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...over }));
    await nextTick();
  };
  const given = () => page.heard.map(([event, item, text]) => [event, (item as { id: string }).id, text]);
  return { ...page, press, given, active: () => props.active };
}

test('a digit scores and goes on, with Shift it adds a state and stays', async () => {
  const page = await open();
  expect(page.text()).toContain('Look with a lens.');
  await page.press('2', { code: 'Digit2' });
  expect(page.active()).toBe(1);
  await page.press('"', { code: 'Digit2', shiftKey: true });
  expect(page.active()).toBe(1);
  expect(page.given()).toEqual([
    ['score', 'mild', 'toothed'],
    ['score', 'bane', 'entire, toothed'],
  ]);
});

test('unknown, not applicable, doubt and emptying have keys of their own', async () => {
  const page = await open();
  await page.press('u');
  await page.press('d');
  await page.press('Delete');
  await page.press('-');
  expect(page.given()).toEqual([
    ['score', 'mild', '?'],
    ['doubt', 'bane', undefined],
    ['score', 'bane', ''],
    ['score', 'bane', 'n/a'],
  ]);
});

test('numbers are typed, Enter goes on and Escape gives up', async () => {
  const page = await open(width);
  await page.press('5', { code: 'Digit5' });
  const input = page.all('input')[0] as HTMLInputElement;
  expect(input.value).toBe('5');
  input.value = '5–9';
  input.dispatchEvent(new Event('input'));
  await page.press('Enter');
  expect(page.given()).toEqual([['score', 'mild', '5–9']]);
  await page.press('7', { code: 'Digit7' });
  await page.press('Escape');
  await vi.waitFor(() => expect(page.all('input')).toHaveLength(0));
  expect(page.given()).toHaveLength(1);
});

test('who may not score changes nothing', async () => {
  const page = await open(margin, false);
  await page.press('1', { code: 'Digit1' });
  await page.press('Enter');
  expect(page.given()).toEqual([]);
  await page.press('ArrowDown');
  expect(page.active()).toBe(1);
});

import { nextTick, reactive } from 'vue';
import { expect, test } from 'vitest';
import { mount } from '@/testing/mount';
import MonthBand from './MonthBand.vue';

async function band(months: number[], readonly = false) {
  const props = reactive<Record<string, unknown>>({ modelValue: months, label: 'Months', readonly });
  props['onUpdate:modelValue'] = (next: number[]) => (props.modelValue = next);
  const page = await mount(MonthBand, props);
  const button = (name: string) => page.all(`[aria-label=${name}]`)[0];
  const draw = async (...names: string[]) => {
    button(names[0] ?? '')?.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
    for (const name of names.slice(1)) button(name)?.dispatchEvent(new PointerEvent('pointerenter'));
    window.dispatchEvent(new PointerEvent('pointerup'));
    await nextTick();
    return props.modelValue;
  };
  return { ...page, props, button, draw };
}

test('a season is drawn in one go, back as well as forth, and drawn away again', async () => {
  const { draw } = await band([1]);
  expect(await draw('May', 'June', 'August')).toEqual([1, 5, 6, 7, 8]);
  expect(await draw('August', 'December', 'July')).toEqual([1, 5, 6]);
  expect(await draw('June')).toEqual([1, 5]);
});

test('a key press takes one month in; without any it is all year', async () => {
  const page = await band([]);
  expect(page.text()).toContain('all year');
  page.button('March')?.dispatchEvent(new MouseEvent('click', { detail: 0, bubbles: true }));
  await nextTick();
  expect(page.props.modelValue).toEqual([3]);
  expect(page.button('March')?.getAttribute('aria-pressed')).toBe('true');
  page.byText('button', 'All year').click();
  await nextTick();
  expect(page.props.modelValue).toEqual([]);
});

test('who only views changes nothing', async () => {
  const { draw } = await band([4], true);
  expect(await draw('May', 'June')).toEqual([4]);
});

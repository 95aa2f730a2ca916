import { nextTick, reactive } from 'vue';
import { expect, test } from 'vitest';
import { EMPTY_CELL } from '@/study-kernel';
import { mount } from '@/testing/mount';
import OriginForm from './OriginForm.vue';

const cell = (note: string) => ({ ...EMPTY_CELL, text: 'toothed', kind: 'states', basis: 'JUDGEMENT', note });

async function open(note: string) {
  const props = reactive({ cell: cell(note), references: [], specimens: [], unit: '' });
  const page = await mount(OriginForm, props, ['save']);
  const field = page.all('textarea')[0] as HTMLTextAreaElement;
  const write = async (text: string) => {
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await nextTick();
  };
  const read = async (text: string) => {
    props.cell = cell(text);
    await nextTick();
    await nextTick();
  };
  return { page, field, write, read };
}

test('what is being typed stays when the cell is loaded again, and when somebody else changed it', async () => {
  const { field, write, read } = await open('old');
  await write('mine');
  await read('old');
  expect(field.value).toBe('mine');
  await read('theirs');
  expect(field.value).toBe('mine');
});

test('what nobody is changing follows the cell; so does what was saved', async () => {
  const { page, field, write, read } = await open('old');
  await read('theirs');
  expect(field.value).toBe('theirs');
  await write(' mine ');
  page.byText('button', 'Save').click();
  expect(page.heard).toHaveLength(1);
  await read('mine');
  expect(field.value).toBe('mine');
});

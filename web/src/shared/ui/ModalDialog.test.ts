import { defineComponent, h, nextTick, ref } from 'vue';
import { afterEach, expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import ModalDialog from './ModalDialog.vue';

afterEach(() => document.body.replaceChildren());

/** A button, and a dialog that it opens; `gone` takes the dialog away instead of closing it. */
async function page(gone: boolean) {
  const open = ref(false);
  const Page = defineComponent(() => () => [
    h('button', { id: 'opens', onClick: () => (open.value = true) }, 'open'),
    !gone || open.value
      ? h(
          ModalDialog,
          { modelValue: open.value, 'onUpdate:modelValue': (now: boolean) => (open.value = now) },
          { default: () => h('button', { id: 'inside' }, 'inside') },
        )
      : null,
  ]);
  const mounted = await mount(Page, {});
  const button = mounted.all('#opens')[0] as HTMLElement;
  button.focus();
  button.click();
  await vi.waitFor(() => expect(document.getElementById('inside')).not.toBeNull());
  document.getElementById('inside')?.focus();
  return { open, button };
}

test.each([false, true])('whatever had the focus has it again (taken away when it closes: %s)', async (gone) => {
  const { open, button } = await page(gone);
  expect(document.activeElement).not.toBe(button);
  open.value = false;
  await nextTick();
  await vi.waitFor(() => expect(document.activeElement).toBe(button));
});

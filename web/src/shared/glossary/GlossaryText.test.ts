import { defineComponent, h } from 'vue';
import { expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import GlossaryText from './GlossaryText.vue';
import { provideGlossary } from './glossary';

const ring = {
  id: 'ring',
  term: 'ring',
  definition: 'Remains of a skin on the stem.',
  plain: 'a collar',
  synonyms: ['annulus'],
  misspellings: [],
  picture: '',
};
const page = (text: string) =>
  mount(
    defineComponent({
      setup() {
        provideGlossary(() => [ring]);
        return () => h('p', h(GlossaryText, { text }));
      },
    }),
    {},
  );

test('a term can be reached by keyboard and explains itself when focused', async () => {
  const mounted = await page('Annulus present?');
  const term = mounted.all('button.term')[0];
  expect(term?.textContent).toBe('Annulus');
  term?.focus();
  term?.dispatchEvent(new FocusEvent('focus'));
  await vi.waitFor(() => expect(document.body.textContent).toContain('Remains of a skin on the stem.'));
  expect(document.body.textContent).toContain('a collar');
});

test('a text without terms is only a text', async () => {
  const mounted = await page('How wide is the cap?');
  expect(mounted.all('button')).toHaveLength(0);
  expect(mounted.text()).toBe('How wide is the cap?');
});

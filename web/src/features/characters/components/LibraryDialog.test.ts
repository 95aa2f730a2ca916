import { defineComponent, h } from 'vue';
import { expect, test, vi } from 'vitest';
import { fakeServer } from '@/testing/server';
import { character, mountInStudy, state, study } from '@/testing/study';
import LibraryDialog from './LibraryDialog.vue';

const PATH = '/api/v1/studies/meadow';
const server = fakeServer();

function answers(more = {}) {
  server.on(`GET ${PATH}`, study(more));
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/columns?character=`, []);
}

const within = (selector: string) => [...document.body.querySelectorAll<HTMLElement>(selector)];

test('ready characters are found by their states, and those that are here cannot be copied again', async () => {
  answers({ characters: [character('margin')] });
  const gills = character('gills', { organ: 'cap', states: [state('free', { picture: 'gills-free' })] });
  const picture = { id: 'gills-free', mediaType: 'image/svg+xml', data: 'PHN2Zy8+', shows: 'free' };
  server.on('GET /api/v1/library', { characters: [character('margin'), gills], pictures: [picture] });
  server.on(`POST ${PATH}/library`, { id: '', revision: 8 });
  const closed = vi.fn();
  await mountInStudy(
    defineComponent({ render: () => h(LibraryDialog, { modelValue: true, 'onUpdate:modelValue': closed }) }),
  );
  await vi.waitFor(() => expect(within('.v-dialog label.one')).toHaveLength(2));
  expect((within('.v-dialog input[value=margin]')[0] as HTMLInputElement).disabled).toBe(true);
  expect(within('.v-dialog img').map((i) => i.getAttribute('src'))).toEqual(['data:image/svg+xml;base64,PHN2Zy8+']);

  const search = within('.v-dialog input[type=text]')[0] as HTMLInputElement;
  search.value = 'free';
  search.dispatchEvent(new Event('input'));
  await vi.waitFor(() => expect(within('.v-dialog label.one')).toHaveLength(1));
  within('.v-dialog input[value=gills]')[0]?.click();
  await vi.waitFor(() => expect(within('.v-dialog button').at(-1)?.textContent).toContain('Copy one character'));
  within('.v-dialog button').at(-1)?.click();
  await vi.waitFor(() => expect(closed).toHaveBeenCalledWith(false));
  expect(server.bodies(`POST ${PATH}/library`)).toEqual([{ characters: ['gills'], baseRevision: 7 }]);
});

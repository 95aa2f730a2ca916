import { defineComponent, h, ref } from 'vue';
import { expect, test, vi } from 'vitest';
import { providePictures } from '@/shared/picture/pictures';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';
import PictureChooser from './PictureChooser.vue';

const PATH = '/api/v1/studies/meadow';
const server = fakeServer();
const picture = (id: string, shows: string) => ({
  id,
  content: `hash-of-${id}`,
  mediaType: 'image/png',
  width: 1,
  height: 1,
  shows,
  credit: '',
  licence: '',
  row: '',
  place: '',
  data: '',
});
const pictures = [picture('teeth', 'A toothed margin'), picture('smooth', 'An entire margin')];

async function open(readonly = false) {
  server.on(`GET ${PATH}`, study({ pictures }));
  server.on(`GET ${PATH}/next-step`, { kind: 'REVIEW', subject: '', rows: [], count: 0, month: 0, open: 0, thin: 0 });
  server.on(`GET ${PATH}/columns?character=`, []);
  const chosen = ref('teeth');
  const page = await mountInStudy(
    defineComponent({
      setup() {
        providePictures(
          () => `${PATH}/pictures`,
          () => pictures,
        );
        return () =>
          h(PictureChooser, {
            modelValue: chosen.value,
            'onUpdate:modelValue': (id: string) => (chosen.value = id),
            name: 'toothed',
            readonly,
          });
      },
    }),
  );
  return { page, chosen };
}

const dialog = (selector: string) => [...document.body.querySelectorAll<HTMLElement>(`.v-dialog ${selector}`)];
const button = (text: string) => dialog('button').find((b) => b.textContent?.trim() === text);

async function opened() {
  const { page, chosen } = await open();
  page.byText('button', 'Another picture').click();
  await vi.waitFor(() => expect(dialog('li button')).toHaveLength(2));
  return { page, chosen };
}

test('shows the picture with what it shows, small', async () => {
  const { page } = await open(true);
  const image = page.all('img')[0];
  expect(image?.getAttribute('src')).toBe(`${PATH}/pictures/hash-of-teeth?small=true`);
  expect(image?.getAttribute('alt')).toBe('A toothed margin');
  expect(page.all('button')).toHaveLength(0);
});

test('a picture is found by what it shows, chosen, and given up', async () => {
  const { chosen } = await opened();
  const search = dialog('input[type=text]')[0] as HTMLInputElement;
  search.value = 'ENTIRE';
  search.dispatchEvent(new Event('input'));
  await vi.waitFor(() => expect(dialog('li button')).toHaveLength(1));
  dialog('li button')[0]?.click();
  expect(chosen.value).toBe('smooth');
  button('No picture')?.click();
  expect(chosen.value).toBe('');
});

async function upload(answer: unknown) {
  server.on(`POST ${PATH}/pictures`, answer);
  const { chosen } = await opened();
  const input = dialog('input[type=file]')[0] as HTMLInputElement;
  const file = new File(['x'], 'x.png', { type: 'image/png' });
  Object.defineProperty(input, 'files', { value: [file], configurable: true });
  input.dispatchEvent(new Event('change'));
  await vi.waitFor(() => expect((button('Add the picture') as HTMLButtonElement).disabled).toBe(false));
  button('Add the picture')?.closest('form')?.dispatchEvent(new Event('submit'));
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/pictures`)).toHaveLength(1));
  return { chosen, form: server.bodies(`POST ${PATH}/pictures`)[0] as FormData };
}

test('a new picture is named after what it is for, does not keep its place, and is chosen', async () => {
  const { chosen, form } = await upload({ id: 'new-one', revision: 8 });
  expect(form.get('shows')).toBe('toothed');
  expect(form.get('keepPlace')).toBe('false');
  await vi.waitFor(() => expect(chosen.value).toBe('new-one'));
});

test('a picture that is refused is told why, and stays chosen for another try', async () => {
  const detail = 'This is not a PNG, JPEG, WebP or SVG picture.';
  const { chosen } = await upload(new Refusal(422, { code: 'picture', detail }));
  await vi.waitFor(() => expect(document.body.textContent).toContain(detail));
  expect(chosen.value).toBe('teeth');
  expect((button('Add the picture') as HTMLButtonElement).disabled).toBe(false);
});

import { nextTick } from 'vue';
import { expect, test } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer } from '@/testing/server';
import type { BenchMark } from '../logic/marks';
import PictureBench from './PictureBench.vue';

fakeServer();

async function bench(more: Record<string, unknown> = {}) {
  const page = await mount(
    PictureBench,
    { src: '/p', small: '/s', width: 400, height: 300, shape: 'LINE', parts: 1, marks: [], chosen: '', ...more },
    ['done', 'moved'],
  );
  const area = page.all('.bench')[0];
  if (!area) throw new Error('no bench');
  const press = async (...keys: string[]) => {
    for (const key of keys) {
      const [name = '', shift] = key.split('+shift');
      area.dispatchEvent(
        new KeyboardEvent('keydown', { key: name, shiftKey: shift !== undefined, bubbles: true, cancelable: true }),
      );
    }
    await nextTick();
  };
  return { ...page, press };
}

test('a line is placed by keys alone, to the pixel', async () => {
  const { press, heard } = await bench();
  await press(' ', 'ArrowRight', 'ArrowRight', 'ArrowUp', ' ');
  expect(heard).toEqual([
    [
      'done',
      [
        [
          { x: 200, y: 150 },
          { x: 202, y: 149 },
        ],
      ],
    ],
  ]);
});

test('a path ends with Enter, Backspace takes the last point back, Escape all', async () => {
  const { press, heard } = await bench({ shape: 'PATH' });
  await press(' ', 'ArrowDown', ' ', 'ArrowLeft', ' ', 'Backspace', 'ArrowLeft', ' ', 'Enter');
  expect(heard).toEqual([
    [
      'done',
      [
        [
          { x: 200, y: 150 },
          { x: 200, y: 151 },
          { x: 198, y: 151 },
        ],
      ],
    ],
  ]);
  await press(' ', ' ', 'Escape', 'Enter');
  expect(heard).toHaveLength(1);
});

test('a ratio takes two lines', async () => {
  const { press, heard } = await bench({ parts: 2 });
  await press(' ', 'ArrowRight', ' ');
  expect(heard).toHaveLength(0);
  await press(' ', 'ArrowDown', ' ');
  expect(heard).toEqual([
    [
      'done',
      [
        [
          { x: 200, y: 150 },
          { x: 201, y: 150 },
        ],
        [
          { x: 201, y: 150 },
          { x: 201, y: 151 },
        ],
      ],
    ],
  ]);
});

test('a double press ends a path where it is, and counts no thing twice', async () => {
  const { press, heard, all } = await bench({ shape: 'PATH' });
  const twice = () => all('.bench')[0]?.dispatchEvent(new MouseEvent('dblclick', { bubbles: true }));
  await press(' ', 'ArrowDown', ' ', ' ');
  twice();
  expect(heard).toEqual([
    [
      'done',
      [
        [
          { x: 200, y: 150 },
          { x: 200, y: 151 },
        ],
      ],
    ],
  ]);
  const counting = await bench({ shape: 'COUNT' });
  await counting.press(' ', ' ');
  counting.all('.bench')[0]?.dispatchEvent(new MouseEvent('dblclick', { bubbles: true }));
  expect(counting.heard).toHaveLength(0);
});

test('a kept mark is moved by its points, once the hand rests', async () => {
  const mark: BenchMark = {
    id: 'r',
    shape: 'LINE',
    label: '2 mm',
    movable: true,
    parts: [
      [
        { x: 10, y: 10 },
        { x: 50, y: 10 },
      ],
    ],
  };
  const { press, heard } = await bench({ marks: [mark], chosen: 'r' });
  await press(']', ']', 'ArrowRight', 'ArrowRight', 'ArrowDown');
  await new Promise((resolve) => setTimeout(resolve, 800));
  expect(heard).toEqual([
    [
      'moved',
      'r',
      [
        [
          { x: 10, y: 10 },
          { x: 52, y: 11 },
        ],
      ],
    ],
  ]);
});

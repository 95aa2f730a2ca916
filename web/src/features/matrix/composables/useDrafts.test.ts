import { expect, test, vi } from 'vitest';
import { defineComponent } from 'vue';
import { Problem } from '@/api/client';
import { mount } from '@/testing/mount';
import { useDrafts } from './useDrafts';

/** A server that answers when it is told to, and cells that catch up when they are told to. */
async function open(study: string) {
  const written: { text: string; base: number; answer: (result: number | Error) => void }[] = [];
  const catching: ((failed?: Error) => void)[] = [];
  let drafts: ReturnType<typeof useDrafts> | undefined;
  const component = defineComponent({
    setup() {
      drafts = useDrafts(study, {
        write: ([edit]) =>
          new Promise((resolve, reject) =>
            written.push({
              text: edit?.text ?? '',
              base: edit?.baseRevision ?? -1,
              answer: (result) => (typeof result === 'number' ? resolve(result) : reject(result)),
            }),
          ),
        catchUp: () =>
          new Promise((resolve, reject) => catching.push((failed) => (failed ? reject(failed) : resolve()))),
        revisionOf: () => 3,
      });
      return () => null;
    },
  });
  await mount(component, {});
  if (!drafts) throw new Error('not set up');
  const answer = async (k: number, result: number | Error) => {
    await vi.waitFor(() => expect(written.length).toBeGreaterThan(k));
    written[k]?.answer(result);
  };
  return { drafts, written, catching, answer };
}

test('the next text is sent as soon as one is stored, without waiting for the cells', async () => {
  const { drafts, written, catching, answer } = await open('quick');
  void drafts.type('aa', 'margin', 'entire');
  void drafts.type('bb', 'margin', 'toothed');
  await answer(0, 8);
  await vi.waitFor(() => expect(written.map((w) => w.text)).toEqual(['entire', 'toothed']));
  expect(catching).toHaveLength(1);
  expect(drafts.of('aa', 'margin')).toMatchObject({ text: 'entire', stored: true });
  expect(drafts.of('bb', 'margin')).toMatchObject({ text: 'toothed', stored: false });
  await answer(1, 9);
  await vi.waitFor(() => expect(catching).toHaveLength(2));
  catching.forEach((done) => done());
  await drafts.settled();
  expect([drafts.of('aa', 'margin'), drafts.of('bb', 'margin')]).toEqual([undefined, undefined]);
});

test('what is typed over a stored text is based on what was stored, also before the cell shows it', async () => {
  const { drafts, written, catching, answer } = await open('again');
  void drafts.type('aa', 'margin', 'entire');
  await answer(0, 8);
  await vi.waitFor(() => expect(drafts.of('aa', 'margin')?.stored).toBe(true));
  void drafts.type('aa', 'margin', 'lobed');
  await vi.waitFor(() =>
    expect(written.map((w) => [w.text, w.base])).toEqual([
      ['entire', 3],
      ['lobed', 8],
    ]),
  );
  catching[0]?.();
  await Promise.resolve();
  expect(drafts.of('aa', 'margin')).toMatchObject({ text: 'lobed', stored: false });
});

test('a stored text stands in its cell until the cell shows it, however often that fails', async () => {
  vi.useFakeTimers({ shouldAdvanceTime: true, advanceTimeDelta: 500 });
  const { drafts, catching, answer } = await open('offline');
  void drafts.type('aa', 'margin', 'entire');
  await answer(0, 8);
  await vi.waitFor(() => expect(catching).toHaveLength(1));
  catching[0]?.(new Error('no connection'));
  await vi.waitFor(() => expect(catching).toHaveLength(2), 10_000);
  expect(drafts.of('aa', 'margin')).toMatchObject({ text: 'entire', stored: true });
  catching[1]?.();
  await vi.waitFor(() => expect(drafts.of('aa', 'margin')).toBeUndefined());
  vi.useRealTimers();
});

test('a refusal keeps its own text, and the ones after it go on', async () => {
  const { drafts, written, answer } = await open('refused');
  void drafts.type('aa', 'margin', 'tooothed');
  void drafts.type('bb', 'margin', 'entire');
  await answer(0, new Problem(422, 'rejected', 'No.', { rejections: [{ reason: "'tooothed' is not a state." }] }));
  await vi.waitFor(() => expect(written).toHaveLength(2));
  expect(drafts.refused.value).toMatchObject([{ row: 'aa', text: 'tooothed', reason: "'tooothed' is not a state." }]);
});

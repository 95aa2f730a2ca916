import { effectScope, reactive, ref } from 'vue';
import { expect, test } from 'vitest';
import { useMarking } from './useMarking';
import type { View } from './useView';
import type { Point } from '../logic/viewport';

/** Two lines on a picture, without a screen. */
function ratio() {
  const sent: Point[][][] = [];
  const view = {
    pixels: ref({ width: 400, height: 300 }),
    inside: (point: Point) => point,
    reveal: () => undefined,
  } as unknown as View;
  const work = reactive({ shape: 'LINE' as const, parts: 2 as const, marks: [], chosen: '', src: '/p' });
  const scope = effectScope();
  const marking = scope.run(() =>
    useMarking(
      work,
      view,
      (parts) => sent.push(parts),
      () => undefined,
    ),
  );
  if (!marking) throw new Error('no marking');
  return { marking, sent };
}

const A = { x: 10, y: 10 };
const B = { x: 90, y: 10 };
const C = { x: 10, y: 60 };

test('a second line may begin where the first one does; a point of its own is only held', () => {
  const { marking, sent } = ratio();
  marking.place(A);
  marking.held.value = { mark: '', part: 0, point: 0 };
  expect(marking.landmark()).toBeUndefined();
  marking.place(B);
  marking.held.value = { mark: '', part: 0, point: 0 };
  expect(marking.landmark()).toEqual(A);
  marking.place(marking.landmark() ?? B);
  marking.place(C);
  expect(sent).toEqual([
    [
      [A, B],
      [A, C],
    ],
  ]);
});

test('points that were refused stay, can be moved, and are sent again by Enter', () => {
  const { marking, sent } = ratio();
  [A, B, A, A].forEach(marking.place);
  expect(sent).toHaveLength(1);
  expect(marking.draft.value).toEqual([[]]);
  marking.restore(sent[0] ?? []);
  marking.held.value = { mark: '', part: 1, point: 1 };
  marking.moveHeld(C);
  marking.place(marking.cursor.value);
  expect(sent[1]).toEqual([
    [A, B],
    [A, C],
  ]);
  // What was begun meanwhile is not overwritten.
  marking.place(B);
  marking.restore(sent[0] ?? []);
  expect(marking.draft.value).toEqual([[B]]);
});

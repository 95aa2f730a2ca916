import { computed, onScopeDispose, ref, watch } from 'vue';
import { isEnough, pointsOf, type BenchMark, type Shape } from '../logic/marks';
import type { Point } from '../logic/viewport';
import type { View } from './useView';

/** A point that can be held and moved; of what is being marked if it names no mark. */
export interface Handle {
  mark: string;
  part: number;
  point: number;
}

interface Work {
  shape: Shape | undefined;
  parts: number;
  marks: BenchMark[];
  chosen: string;
  src: string;
}

export type Marking = ReturnType<typeof useMarking>;

/** A mark that was moved is kept once the hand rests so long, in milliseconds. */
const RESTS = 400;

/** Points that are being placed, and those of marks that are moved. */
export function useMarking(
  work: Readonly<Work>,
  view: View,
  done: (parts: Point[][]) => void,
  moved: (id: string, parts: Point[][]) => void,
) {
  const cursor = ref<Point>({ x: view.pixels.value.width / 2, y: view.pixels.value.height / 2 });
  /** Part by part. */
  const draft = ref<Point[][]>([[]]);
  const held = ref<Handle | null>(null);
  /** Points of a mark while they are moved. */
  const shifted = ref<{ id: string; parts: Point[][] } | null>(null);

  const drawn = computed<BenchMark[]>(() =>
    work.marks.map((m) => (shifted.value?.id === m.id ? { ...m, parts: shifted.value.parts } : m)),
  );
  const now = computed(() => draft.value[draft.value.length - 1] ?? []);
  const canFinish = computed(
    () =>
      work.shape !== undefined &&
      (endsSet() || (pointsOf(work.shape) === undefined && isEnough(work.shape, now.value))),
  );
  /** Whether nothing is begun of a further part of a set that has some. */
  const endsSet = () => work.parts === Infinity && draft.value.length > 1 && now.value.length === 0;

  const at = (handle: Handle): Point | undefined => {
    const parts = handle.mark ? drawn.value.find((m) => m.id === handle.mark)?.parts : draft.value;
    return parts?.[handle.part]?.[handle.point];
  };
  const heldPoint = computed(() => (held.value ? at(held.value) : undefined));
  /** What arrows and the magnifier are about. */
  const focus = computed<Point>(() => heldPoint.value ?? cursor.value);

  /** All points that can be held, those of the draft first. */
  const handles = computed<Handle[]>(() => {
    const of = (mark: string, parts: Point[][]) =>
      parts.flatMap((p, part) => p.map((_, point) => ({ mark, part, point })));
    const chosen = drawn.value.filter((m) => m.id === work.chosen && m.movable);
    return [...of('', draft.value), ...chosen.flatMap((m) => of(m.id, m.parts))];
  });

  let resting: ReturnType<typeof setTimeout> | undefined;
  /** Keeps what was moved, at once or when the hand rests. */
  function keepMoved(after = 0) {
    clearTimeout(resting);
    const keep = () => shifted.value && moved(shifted.value.id, shifted.value.parts);
    if (after) resting = setTimeout(keep, after);
    else keep();
  }
  onScopeDispose(() => clearTimeout(resting));

  function cancel() {
    clearTimeout(resting);
    draft.value = [[]];
    held.value = null;
    shifted.value = null;
  }

  watch(
    () => work.src,
    () => {
      cancel();
      cursor.value = { x: view.pixels.value.width / 2, y: view.pixels.value.height / 2 };
    },
  );
  watch(() => [work.shape, work.parts], cancel);
  watch(
    () => work.marks,
    () => (shifted.value = null),
  );

  function place(point: Point) {
    if (!work.shape) return;
    // What was refused is complete, and is sent again as it is.
    if (now.value.length === pointsOf(work.shape)) return finish();
    const points = [...now.value, view.inside(point)];
    draft.value = [...draft.value.slice(0, -1), points];
    held.value = null;
    if (points.length === pointsOf(work.shape)) finish();
  }

  /**
   * Where the point that is held lies, if a line that has begun, or is to begin, may take it for its own: two measurements
   * often start at one landmark. A point of the line itself is only held.
   */
  function landmark(): Point | undefined {
    const of = held.value;
    const begun = draft.value.length > 1 || now.value.length > 0;
    const own = of?.mark === '' && of.part === draft.value.length - 1;
    return of && begun && !own ? at(of) : undefined;
  }

  /** Points that were refused: they stay, to be moved or sent again, unless others were placed meanwhile. */
  function restore(parts: Point[][]) {
    if (draft.value.length === 1 && now.value.length === 0) draft.value = parts;
  }

  /** Ends the part; the last part ends the mark. */
  function finish() {
    if (!work.shape || !(endsSet() || isEnough(work.shape, now.value))) return;
    held.value = null;
    if (endsSet()) {
      const parts = draft.value.slice(0, -1);
      draft.value = [[]];
      return done(parts);
    }
    if (draft.value.length < work.parts) {
      draft.value = [...draft.value, []];
      return;
    }
    const parts = draft.value;
    draft.value = [[]];
    done(parts);
  }

  /** Takes the last point back, also over the end of a part. */
  function stepBack() {
    const before = draft.value.slice(0, -1);
    if (now.value.length) draft.value = [...before, now.value.slice(0, -1)];
    else if (before.length) draft.value = [...before.slice(0, -1), (before.at(-1) ?? []).slice(0, -1)];
    held.value = null;
  }

  function moveHeld(to: Point) {
    const of = held.value;
    if (!of) return;
    const point = view.inside(to);
    const change = (parts: Point[][]) =>
      parts.map((p, i) => (i === of.part ? p.map((q, j) => (j === of.point ? point : q)) : p));
    const mark = drawn.value.find((m) => m.id === of.mark);
    if (!of.mark) draft.value = change(draft.value);
    else if (mark?.movable) shifted.value = { id: of.mark, parts: change(mark.parts) };
    view.reveal(point);
  }

  /** Moves the held point, or else the cursor, by pixels of the picture. */
  function nudge(dx: number, dy: number) {
    const to = view.inside({ x: focus.value.x + dx, y: focus.value.y + dy });
    if (held.value) {
      moveHeld(to);
      keepMoved(RESTS);
    } else {
      cursor.value = to;
      view.reveal(to);
    }
  }

  function holdNext(step: number) {
    const all = handles.value;
    const is = (h: Handle) => JSON.stringify(h) === JSON.stringify(held.value);
    held.value = all[(all.findIndex(is) + step + all.length) % all.length] ?? null;
  }

  return {
    cursor,
    draft,
    drawn,
    held,
    heldPoint,
    focus,
    handles,
    now,
    canFinish,
    at,
    place,
    landmark,
    restore,
    finish,
    stepBack,
    cancel,
    moveHeld,
    keepMoved,
    nudge,
    holdNext,
  };
}

import { ref, type Ref } from 'vue';
import type { Point } from '../logic/viewport';
import type { Marking } from './useMarking';
import type { View } from './useView';

/** A press that moves less than so far, in pixels of the screen, places a point. */
const SHORT_WAY = 5;
/** So near a press takes hold of a point; a finger is broader. */
const NEAR = { mouse: 14, touch: 22 };

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const STEP = 1.4;

const distance = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

/** Mouse, pen, fingers and keys over a bench. */
export function usePointing(bench: Ref<HTMLElement | null>, view: View, marking: Marking) {
  /** Whether keys were used last, so that their cursor has to be seen. */
  const byKeys = ref(false);
  const pointers = new Map<number, Point>();
  let began: Point | null = null;
  let far = false;
  let dragging = false;

  function placeOf(event: MouseEvent): Point {
    const box = bench.value?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  }

  function near(point: Point, reach: number) {
    return marking.handles.value.find((h) => {
      const at = marking.at(h);
      return at && distance(view.toScreen(at), point) <= reach;
    });
  }

  function pointerdown(event: PointerEvent) {
    if (event.button > 1) return;
    byKeys.value = false;
    bench.value?.focus({ preventScroll: true });
    bench.value?.setPointerCapture(event.pointerId);
    const point = placeOf(event);
    pointers.set(event.pointerId, point);
    began = point;
    far = pointers.size > 1;
    const handle = far ? undefined : near(point, event.pointerType === 'touch' ? NEAR.touch : NEAR.mouse);
    dragging = handle !== undefined;
    if (handle) marking.held.value = handle;
  }

  function pointermove(event: PointerEvent) {
    const point = placeOf(event);
    const before = pointers.get(event.pointerId);
    if (!before) {
      if (event.pointerType !== 'touch') marking.cursor.value = view.toPicture(point);
      return;
    }
    const other = [...pointers].find(([id]) => id !== event.pointerId)?.[1];
    pointers.set(event.pointerId, point);
    if (other) {
      const was = distance(before, other);
      if (was > 0)
        view.zoomAt(distance(point, other) / was, { x: (point.x + other.x) / 2, y: (point.y + other.y) / 2 });
      return;
    }
    if (began && distance(point, began) > SHORT_WAY) far = true;
    if (far && dragging) marking.moveHeld(view.toPicture(point));
    else if (far) view.moveBy(point.x - before.x, point.y - before.y);
  }

  function pointerup(event: PointerEvent) {
    if (!pointers.delete(event.pointerId)) return;
    if (dragging) {
      dragging = false;
      const landmark = far ? undefined : marking.landmark();
      if (landmark) marking.place(landmark);
      else marking.keepMoved();
    } else if (!far && pointers.size === 0 && event.type === 'pointerup') {
      const point = view.toPicture(placeOf(event));
      marking.cursor.value = point;
      marking.place(point);
      // A finger hides what it points at: what it placed can be moved by the pad.
      const placed = marking.now.value.length;
      if (event.pointerType === 'touch' && placed) {
        marking.held.value = { mark: '', part: marking.draft.value.length - 1, point: placed - 1 };
      }
    }
    if (!pointers.size) began = null;
  }

  /** The second press of two placed a point where the first did already. What is counted has one press each. */
  function dblclick(shape: string | undefined) {
    if (shape === 'COUNT' || !marking.canFinish.value) return;
    marking.stepBack();
    marking.finish();
  }

  const wheel = (event: WheelEvent) =>
    view.zoomAt(Math.exp(-event.deltaY * (event.deltaMode ? 0.05 : 0.0015)), placeOf(event));

  const KEYS: Record<string, () => void> = {
    ' ': () => marking.place(marking.cursor.value),
    Enter: () => (marking.canFinish.value ? marking.finish() : marking.place(marking.cursor.value)),
    Backspace: marking.stepBack,
    Escape: marking.cancel,
    '+': () => view.zoomAt(STEP, view.toScreen(marking.focus.value)),
    '=': () => view.zoomAt(STEP, view.toScreen(marking.focus.value)),
    '-': () => view.zoomAt(1 / STEP, view.toScreen(marking.focus.value)),
    '0': view.fitAll,
    ']': () => marking.holdNext(1),
    '[': () => marking.holdNext(-1),
  };

  function keydown(event: KeyboardEvent) {
    const arrow = ARROWS[event.key];
    const key = KEYS[event.key];
    if (event.ctrlKey || event.metaKey || (!arrow && !key)) return;
    byKeys.value = true;
    if (arrow) {
      // One pixel of the picture, or so many that the cursor crosses the bench in some twenty presses.
      const crossing = Math.max(10, Math.round(view.size.value.width / view.view.value.scale / 20));
      const pixels = event.shiftKey ? crossing : 1;
      marking.nudge(arrow[0] * pixels, arrow[1] * pixels);
    } else key?.();
    event.preventDefault();
    event.stopPropagation();
  }

  return { byKeys, pointerdown, pointermove, pointerup, dblclick, wheel, keydown };
}

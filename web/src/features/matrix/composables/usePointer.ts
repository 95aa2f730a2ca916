import { useEventListener } from '@vueuse/core';
import { type Ref } from 'vue';
import { SIZE, TOP, type Geometry, type Offset, type Place } from '../logic/geometry';
import { corners, drawnTo, whole, type Box, type Selection } from '../logic/grid';
import { HANDLE } from '../logic/paint';

interface Sheet {
  geometry: () => Geometry;
  scroll: () => Offset;
  selection: () => Selection;
  editable: () => boolean;
  /** What is to be finished before the pointer does something. */
  before: () => void;
  select: (next: Selection, show: boolean) => void;
  /** What a selection that is drawn by its corner would fill; null when it is let go. */
  drawing: (box: Box | null) => void;
  fill: (box: Box) => void;
  width: (column: number, width: number) => void;
}

/** Takes hold of what is under it; from then on it hears where the pointer goes, and that it is let go. */
interface Grip {
  to: (event: MouseEvent) => void;
  end?: () => void;
}

/** What the pointer does on a sheet: selects cells, whole rows and columns, draws a selection further or a column wider. */
export function usePointer(scroller: Readonly<Ref<HTMLElement | null>>, sheet: Sheet) {
  let grip: Grip | null = null;

  function point(event: MouseEvent): { x: number; y: number } {
    const box = scroller.value?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  }

  const placeAt = (event: MouseEvent): Place | null => {
    const { x, y } = point(event);
    return sheet.geometry().placeAt(x, y, sheet.scroll());
  };
  const nearest = (event: MouseEvent): Place => {
    const { x, y } = point(event);
    return sheet.geometry().nearest(x, y, sheet.scroll());
  };
  const headingAt = (event: MouseEvent) => {
    const { x, y } = point(event);
    return sheet.geometry().headingAt(x, y, sheet.scroll());
  };

  /** Over the bar that scrolls, where nothing of the sheet is. */
  function overBar(event: MouseEvent): boolean {
    const { x, y } = point(event);
    const box = scroller.value;
    return box !== null && (x >= box.clientWidth || y >= box.clientHeight);
  }

  function onHandle(event: MouseEvent): boolean {
    const { x, y } = point(event);
    const box = corners(sheet.selection());
    const right = sheet.geometry().left(box.right, sheet.scroll()) + sheet.geometry().width(box.right);
    const bottom = TOP + (box.bottom + 1) * SIZE.row - sheet.scroll().top;
    return Math.abs(x - right + HANDLE / 2) <= HANDLE / 2 + 2 && Math.abs(y - bottom + HANDLE / 2) <= HANDLE / 2 + 2;
  }

  /** Whole rows or columns, as far as the pointer goes. */
  function wholes(what: 'rows' | 'columns', from: Place, keepAnchor: boolean): Grip {
    const { rows, columns } = sheet.geometry();
    const anchor = keepAnchor ? sheet.selection().anchor : from;
    const choose = (at: Place) => sheet.select(whole(what, { at, anchor }, rows, columns), false);
    choose(from);
    return { to: (event) => choose(nearest(event)) };
  }

  function drawFurther(): Grip {
    const from = corners(sheet.selection());
    let to = from;
    return {
      to: (event) => sheet.drawing((to = drawnTo(from, nearest(event)))),
      end: () => {
        sheet.drawing(null);
        if (to !== from) sheet.fill(to);
      },
    };
  }

  function drawWider(column: number): Grip {
    return {
      to: (event) => {
        const width = point(event).x - sheet.geometry().left(column, sheet.scroll());
        sheet.width(column, Math.round(Math.max(SIZE.narrowest, Math.min(SIZE.widest, width))));
      },
    };
  }

  function take(event: MouseEvent): Grip | null {
    if (sheet.editable() && onHandle(event)) return drawFurther();
    const heading = headingAt(event);
    const { rows, columns } = sheet.geometry();
    switch (heading?.kind) {
      case 'corner':
        sheet.select(whole('all', sheet.selection(), rows, columns), false);
        return null;
      case 'row':
        return wholes('rows', { row: heading.row, column: 0 }, event.shiftKey);
      case 'column':
        return wholes('columns', { row: 0, column: heading.column }, event.shiftKey);
      case 'border':
        return drawWider(heading.column);
    }
    const place = placeAt(event);
    if (!place) return null;
    const anchor = event.shiftKey ? sheet.selection().anchor : place;
    sheet.select({ at: place, anchor }, true);
    return { to: (moved) => sheet.select({ at: nearest(moved), anchor }, true) };
  }

  useEventListener(scroller, 'mousedown', (event: MouseEvent) => {
    if (event.button !== 0 || overBar(event)) return;
    sheet.before();
    grip = take(event);
  });
  useEventListener(window, 'mousemove', (event: MouseEvent) => {
    if (grip && event.buttons === 1) grip.to(event);
    else if (scroller.value) scroller.value.style.cursor = cursor(event);
  });
  useEventListener(window, 'mouseup', () => {
    grip?.end?.();
    grip = null;
  });
  useEventListener(scroller, 'dblclick', (event: MouseEvent) => {
    const heading = headingAt(event);
    if (heading?.kind === 'border') sheet.width(heading.column, SIZE.column);
  });

  function cursor(event: MouseEvent): string {
    if (event.target instanceof Node && !scroller.value?.contains(event.target)) return '';
    if (headingAt(event)?.kind === 'border') return 'col-resize';
    return sheet.editable() && onHandle(event) ? 'crosshair' : '';
  }

  return {
    overCells: (event: MouseEvent) => placeAt(event) !== null,
    /** The menu is for what is under the pointer, unless that is selected already. */
    reach(event: MouseEvent) {
      const heading = headingAt(event);
      const box = corners(sheet.selection());
      const { rows, columns } = sheet.geometry();
      const place = nearest(event);
      const inside =
        place.row >= box.top && place.row <= box.bottom && place.column >= box.left && place.column <= box.right;
      if (inside) return;
      const at = { at: place, anchor: place };
      if (heading?.kind === 'row') sheet.select(whole('rows', at, rows, columns), false);
      else if (heading?.kind === 'column') sheet.select(whole('columns', at, rows, columns), false);
      else sheet.select(at, false);
    },
  };
}

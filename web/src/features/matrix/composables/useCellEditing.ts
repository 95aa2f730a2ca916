import { nextTick, ref, type Ref } from 'vue';
import type { Place } from '../logic/grid';

/** Where the writer goes on after a cell. */
export type Way = 'down' | 'up' | 'left' | 'right' | 'next' | 'previous' | 'stay';

const STEPS: Record<Way, [number, number]> = {
  down: [1, 0],
  up: [-1, 0],
  left: [0, -1],
  right: [0, 1],
  next: [0, 1],
  previous: [0, -1],
  stay: [0, 0],
};

interface Sheet {
  at: () => Place;
  size: () => { rows: number; columns: number };
  /** Takes the focus back from the editor. */
  focus: () => void;
  go: (to: Place) => void;
  write: (cell: Place & { text: string }) => void;
}

/**
 * The text that is being typed into the cell of a sheet, and where its writer goes next: Tab runs along a row, and Enter
 * at the end of such a run begins the next row where the run began.
 */
export function useCellEditing(sheet: Sheet) {
  const text: Ref<string | null> = ref(null);
  /** Whether the arrows move on: in a text that was opened to be corrected they move in it. */
  const fresh = ref(false);
  /** The column in which a run of Tabs began. */
  let runFrom: number | null = null;

  async function begin(first: string, typed: boolean) {
    text.value = first;
    fresh.value = typed;
    await nextTick();
  }

  function close(): string | null {
    const typed = text.value;
    text.value = null;
    sheet.focus();
    return typed;
  }

  function commit(way: Way) {
    const typed = close();
    if (typed !== null) sheet.write({ ...sheet.at(), text: typed.trim() });
    if (way !== 'stay') step(way);
  }

  function step(way: Way) {
    const from = sheet.at();
    const { rows, columns } = sheet.size();
    const [down, right] = STEPS[way];
    const within = (n: number, most: number) => Math.max(0, Math.min(most - 1, n));
    const back = way === 'down' && runFrom !== null ? runFrom : from.column + right;
    if (way === 'next') runFrom ??= from.column;
    else if (way !== 'previous') runFrom = null;
    sheet.go({ row: within(from.row + down, rows), column: within(back, columns) });
  }

  return {
    text,
    fresh,
    begin,
    commit,
    cancel: close,
    step,
    running: () => runFrom !== null,
    endRun: () => (runFrom = null),
  };
}

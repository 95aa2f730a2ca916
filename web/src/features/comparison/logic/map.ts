import type { Schemas } from '@/api/client';

/** Signs of the server: 0 none, 1 tendency, 2 thin, 3 firm; - need not be told. */
export type Sign = '0' | '1' | '2' | '3' | '-';
export type Order = 'similar' | 'related' | 'name';
export const ORDERS: Order[] = ['similar', 'related', 'name'];
export const VERDICTS: Record<Sign, string> = {
  '0': 'NONE',
  '1': 'TENDENCY',
  '2': 'THIN',
  '3': 'FIRM',
  '-': 'SAME',
};

export interface MapRow {
  id: string;
  name: string;
  dangerous: boolean;
}

/** Rows in an order, and how well each two of them are told apart. */
export interface PairTable {
  rows: MapRow[];
  sign: (a: number, b: number) => Sign;
}

export function pairTable(
  map: Schemas['PairMap'],
  order: Order,
  named: (id: string) => Omit<MapRow, 'id'>,
  related: (id: string) => number,
): PairTable {
  const all = map.rows.map((id) => ({ id, ...named(id) }));
  const places = map.rows.map((_, i) => i);
  const sorted =
    order === 'similar'
      ? map.similar
      : order === 'related'
        ? places.sort((a, b) => related(map.rows[a] ?? '') - related(map.rows[b] ?? ''))
        : places.sort((a, b) => (all[a]?.name ?? '').localeCompare(all[b]?.name ?? '', 'en'));
  return {
    rows: sorted.map((i) => all[i] as MapRow),
    sign: (a, b) => {
      const i = sorted[a] ?? 0;
      const j = sorted[b] ?? 0;
      return ((map.verdicts[Math.max(i, j)] ?? '')[Math.min(i, j)] ?? '-') as Sign;
    },
  };
}

export interface ListedPair {
  first: MapRow;
  second: MapRow;
  sign: Sign;
}

/** Whether a wrong name would take a danger for something else. */
export const isGrave = (first: MapRow | undefined, second: MapRow | undefined) =>
  first?.dangerous !== second?.dangerous;

/** Pairs that are not firmly separated, worst first. */
export function weakPairs(table: PairTable, graveOnly: boolean): ListedPair[] {
  const found: ListedPair[] = [];
  table.rows.forEach((second, b) => {
    for (let a = 0; a < b; a++) {
      const first = table.rows[a] as MapRow;
      const sign = table.sign(a, b);
      if (sign !== '3' && sign !== '-' && (!graveOnly || isGrave(first, second))) found.push({ first, second, sign });
    }
  });
  return found.sort((x, y) => x.sign.localeCompare(y.sign));
}

export interface Cell {
  row: number;
  column: number;
}

/** The next pair after one that is not firmly separated, row by row; undefined if there is none. */
export function nextWeak(table: PairTable, from: Cell, back: boolean, graveOnly: boolean): Cell | undefined {
  const n = table.rows.length;
  const count = (n * (n - 1)) / 2;
  const step = back ? -1 : 1;
  let at = (from.row * (from.row - 1)) / 2 + from.column;
  for (let k = 0; k < count; k++) {
    at = (at + step + count) % count;
    const row = Math.floor((1 + Math.sqrt(1 + 8 * at)) / 2);
    const column = at - (row * (row - 1)) / 2;
    const counts = !graveOnly || isGrave(table.rows[row], table.rows[column]);
    if (counts && '012'.includes(table.sign(row, column))) return { row, column };
  }
  return undefined;
}

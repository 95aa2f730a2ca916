/** Sizes of the sheet in CSS pixels; a column has this width until somebody draws it wider. */
export const SIZE = { rowHeader: 216, organBand: 24, header: 54, column: 118, row: 32, narrowest: 48, widest: 640 };
export const TOP = SIZE.organBand + SIZE.header;
/** So near to the border between two headings it is the border that is meant. */
const BORDER = 4;

export interface Place {
  row: number;
  column: number;
}

export interface Offset {
  left: number;
  top: number;
}

export interface Extent {
  width: number;
  height: number;
}

/** What of the headings lies under a point. */
export type Heading = { kind: 'corner' } | { kind: 'row'; row: number } | { kind: 'column' | 'border'; column: number };

/** Where rows and columns of a sheet lie; the first `frozen` columns stand still when the others are scrolled. */
export class Geometry {
  /** Where each column begins, and where the last one ends. */
  private readonly edges: number[];

  constructor(
    readonly rows: number,
    widths: readonly number[],
    readonly frozen = 0,
  ) {
    this.edges = [0];
    for (const width of widths) this.edges.push(this.edge(this.edges.length - 1) + width);
  }

  get columns(): number {
    return this.edges.length - 1;
  }

  /** Size of all that can be scrolled, with the headings. */
  get extent(): Extent {
    return { width: SIZE.rowHeader + this.edge(this.columns) + 1, height: TOP + this.rows * SIZE.row + 1 };
  }

  private edge(column: number): number {
    return this.edges[Math.max(0, Math.min(this.columns, column))] ?? 0;
  }

  width(column: number): number {
    return this.edge(column + 1) - this.edge(column);
  }

  /** Where a column begins in the window, whether it stands still or not. */
  left(column: number, scroll: { left: number }): number {
    return SIZE.rowHeader + this.edge(column) - (column < this.frozen ? 0 : scroll.left);
  }

  /** Where the columns that stand still end in the window. */
  get still(): number {
    return SIZE.rowHeader + this.edge(this.frozen);
  }

  /** The column at a distance from the first one, by halving; `columns` if it lies beyond the last. */
  private columnAt(x: number): number {
    let from = 0;
    let to = this.columns;
    while (from < to) {
      const middle = (from + to) >> 1;
      if (this.edge(middle + 1) <= x) from = middle + 1;
      else to = middle;
    }
    return from;
  }

  private columnUnder(x: number, scroll: { left: number }): number {
    return this.columnAt(x - SIZE.rowHeader + (x < this.still ? 0 : scroll.left));
  }

  private rowUnder(y: number, scroll: { top: number }): number {
    return Math.floor((y - TOP + scroll.top) / SIZE.row);
  }

  /** Rows and columns that show in a window of the sheet, beside the frozen ones. */
  visible(scroll: Offset, view: Extent) {
    const clamp = (n: number) => Math.max(0, Math.min(this.rows, n));
    const end = this.columnAt(scroll.left + view.width - SIZE.rowHeader - 0.5) + 1;
    return {
      rows: [
        clamp(Math.floor(scroll.top / SIZE.row)),
        clamp(Math.ceil((scroll.top + view.height - TOP) / SIZE.row)),
      ] as const,
      columns: [this.columnAt(this.edge(this.frozen) + scroll.left), Math.min(this.columns, end)] as const,
    };
  }

  /** The cell under a point of the window, or null over the headings and beyond the last cell. */
  placeAt(x: number, y: number, scroll: Offset): Place | null {
    if (x < SIZE.rowHeader || y < TOP) return null;
    const place = { row: this.rowUnder(y, scroll), column: this.columnUnder(x, scroll) };
    return place.row < this.rows && place.column < this.columns ? place : null;
  }

  /** The cell nearest to a point, for whoever draws over the edge. */
  nearest(x: number, y: number, scroll: Offset): Place {
    return {
      row: Math.max(0, Math.min(this.rows - 1, this.rowUnder(Math.max(TOP, y), scroll))),
      column: Math.max(0, Math.min(this.columns - 1, this.columnUnder(Math.max(SIZE.rowHeader, x), scroll))),
    };
  }

  /** The heading under a point of the window, or null over the cells. */
  headingAt(x: number, y: number, scroll: Offset): Heading | null {
    if (x < SIZE.rowHeader && y < TOP) return { kind: 'corner' };
    if (x < SIZE.rowHeader) {
      const row = this.rowUnder(y, scroll);
      return row < this.rows ? { kind: 'row', row } : null;
    }
    if (y >= TOP) return null;
    const column = this.columnUnder(x, scroll);
    const here = this.left(column, scroll);
    if (column > 0 && x - here < BORDER) return { kind: 'border', column: column - 1 };
    if (column < this.columns && here + this.width(column) - x <= BORDER) return { kind: 'border', column };
    return column < this.columns ? { kind: 'column', column } : null;
  }

  /** Scroll offset that brings a cell into the window. */
  scrolledTo(place: Place, scroll: Offset, view: Extent): Offset {
    const width = view.width - SIZE.rowHeader;
    const height = view.height - TOP;
    const left = this.edge(place.column) - this.edge(this.frozen);
    const top = place.row * SIZE.row;
    return {
      left:
        place.column < this.frozen
          ? scroll.left
          : Math.min(left, Math.max(scroll.left, this.edge(place.column + 1) - width)),
      top: Math.min(top, Math.max(scroll.top, top + SIZE.row - height)),
    };
  }
}

/** How many of the columns that are to stand still do so: there is room to scroll one more. */
export function frozenOf(wanted: number, widths: readonly number[], width: number): number {
  let frozen = 0;
  let edge = SIZE.rowHeader;
  while (frozen < wanted && edge + (widths[frozen] ?? 0) + (widths[frozen + 1] ?? SIZE.column) <= width) {
    edge += widths[frozen] ?? 0;
    frozen++;
  }
  return frozen;
}

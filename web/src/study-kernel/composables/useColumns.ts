import { shallowReactive } from 'vue';
import { api, type Schemas } from '@/api/client';

/** What a row shows for a character; `from` is the row that the score is inherited from. */
export type Cell = Schemas['FaceView'] & { from: string | null; revision: number };

export interface Columns {
  /** The cell of a row (by its place in the study) and a character; undefined while the column is not here yet. */
  cell: (row: number, character: string) => Cell | undefined;
  /** Common scale of a numeric column: from the least to the greatest value that any row shows. */
  scale: (character: string) => { min: number; max: number };
  has: (character: string) => boolean;
  /** Fetches the columns that are not here yet; resolves when all are. */
  want: (characters: string[]) => Promise<void>;
}

const AT_ONCE = 50;
export const EMPTY_CELL: Omit<Cell, 'revision'> = {
  text: '',
  kind: 'empty',
  parts: [],
  range: undefined,
  doubtful: false,
  basis: '',
  source: '',
  note: '',
  months: [],
  scorer: '',
  date: '',
  concept: '',
  sample: { specimens: [], provisional: false },
  from: null,
};

/** One column as it came, its cells made when they are looked at. */
export class Column {
  private readonly cells: (Cell | undefined)[] = [];
  private measured: { min: number; max: number } | undefined;

  constructor(
    private readonly view: Schemas['ColumnView'],
    private readonly rows: string[],
  ) {}

  cell(row: number): Cell | undefined {
    const known = this.cells[row];
    if (known || row >= this.view.face.length) return known;
    const face = this.view.faces[this.view.face[row] ?? -1];
    const from = this.view.from[row] ?? -1;
    const made = {
      ...EMPTY_CELL,
      ...face,
      from: from < 0 ? null : (this.rows[from] ?? null),
      revision: this.view.revision[row] ?? 0,
    };
    this.cells[row] = made;
    return made;
  }

  scale() {
    if (!this.measured) {
      const ranges = this.view.faces.flatMap((f) => f.range ?? []);
      const min = Math.min(...ranges.map((r) => r.min));
      const max = Math.max(...ranges.map((r) => r.max));
      this.measured = ranges.length === 0 ? { min: 0, max: 1 } : { min, max: max > min ? max : min + 1 };
    }
    return this.measured;
  }
}

/** The columns of a study that somebody looked at; what others change is fetched again by `fetched`. */
export function createColumns(slug: string, rows: () => string[]) {
  const columns = shallowReactive(new Map<string, Column>());
  const asked = new Map<string, Promise<void>>();

  async function fetched(characters: string[]): Promise<Schemas['ColumnView'][]> {
    const parts: Promise<Schemas['ColumnView'][]>[] = [];
    for (let k = 0; k < characters.length; k += AT_ONCE) {
      const character = characters.slice(k, k + AT_ONCE);
      parts.push(api.get('/api/v1/studies/{slug}/columns', { slug, character }));
    }
    return (await Promise.all(parts)).flat();
  }

  function put(views: Schemas['ColumnView'][]) {
    const ids = rows();
    views.forEach((view) => columns.set(view.character, new Column(view, ids)));
  }

  async function want(characters: string[]) {
    const missing = characters.filter((c) => !columns.has(c) && !asked.has(c));
    if (missing.length) {
      const coming = fetched(missing)
        .then(put)
        .finally(() => missing.forEach((c) => asked.delete(c)));
      missing.forEach((c) => asked.set(c, coming));
    }
    await Promise.all(characters.map((c) => asked.get(c)));
  }

  const face: Columns = {
    cell: (row, character) => columns.get(character)?.cell(row),
    scale: (character) => columns.get(character)?.scale() ?? { min: 0, max: 1 },
    has: (character) => columns.has(character),
    want,
  };
  return { ...face, face, loaded: () => [...columns.keys()], fetched, put };
}

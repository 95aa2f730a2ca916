import { ref } from 'vue';
import type { Schemas } from '@/api/client';
import type { StudyModel } from '@/study-kernel';
import type { Pasted } from '../logic/grid';

interface Sheet {
  /** Changes of the cells that a block fills, by what stands in the sheet now: rows move once others are added. */
  editsOf: (cells: Pasted['cells']) => Schemas['CellEdit'][];
  characters: () => string[];
  revisionOf: (row: string, character: string) => number;
  send: (edits: Schemas['CellEdit'][]) => Promise<void>;
}

/** As the server compares names when it adds taxa. */
const folded = (name: string) =>
  name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replace(/\s+/g, ' ').trim();

/** A block that is larger than the sheet: what fits is written alone, or with taxa that are named for its last lines. */
export function useOverEdge(model: StudyModel, sheet: Sheet) {
  const block = ref<(Pasted & { edits: Schemas['CellEdit'][]; ids: string[] }) | null>(null);
  const adding = ref(false);

  function reach(pasted: Pasted) {
    block.value = { ...pasted, edits: sheet.editsOf(pasted.cells), ids: sheet.characters() };
  }

  async function writeFitting() {
    const edits = block.value?.edits ?? [];
    block.value = null;
    if (edits.length) await sheet.send(edits);
  }

  const rowOf = (name: string | undefined) =>
    name && model.study.value?.rows.find((r) => !r.stage && folded(r.label) === folded(name))?.id;

  /** The last lines are of the taxa that were named for them, in their order; those without one are asked for again. */
  async function writeWith(names: string[]) {
    const { value } = block;
    block.value = null;
    if (!value) return;
    const lines = value.below.map((cells, i) => ({ cells, row: rowOf(names[i]) }));
    const more = lines.flatMap(({ cells, row }) =>
      cells.flatMap(({ column, text }) => {
        const character = value.ids[column];
        return row && character && text
          ? [{ row, character, text, baseRevision: sheet.revisionOf(row, character) }]
          : [];
      }),
    );
    await sheet.send([...value.edits, ...more]);
    const below = lines.filter((line) => !line.row).map((line) => line.cells);
    if (below.length) block.value = { ...value, cells: [], edits: [], below, columns: 0 };
  }

  return { block, adding, reach, writeFitting, writeWith };
}

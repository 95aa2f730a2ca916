import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { taxonTree } from '@/features/taxa';
import { isOpen, useAgreement, useFindings, type Cell, type StudyModel } from '@/study-kernel';
import { bands, byOrgan, pinnedFirst } from '../logic/grid';
import type { GridModel } from '../logic/paint';
import { useComments } from './useComments';
import { useDrafts } from './useDrafts';
import { FILTERS, filtered, type Filter } from '../logic/view';

/** More columns than these are fetched as they come into view. */
const AT_ONCE = 80;

/** The rows and columns of a study that are on the sheet, and their cells. */
export function useSheet(model: StudyModel) {
  const drafts = useDrafts(model.slug, {
    write: model.edit,
    revisionOf: (row, character) => cellOf(row, character)?.revision ?? 0,
  });
  model.writesBeforeUndo(drafts.settled);
  const route = useRoute();
  const router = useRouter();
  const hidden = ref(new Set<string>());
  const findings = useFindings(
    model.slug,
    computed(() => model.study.value?.revision),
  );
  const filter = computed<Filter>({
    get: () => FILTERS.find((f) => f === route.query.filter) ?? 'all',
    set: (value) => void router.replace({ query: { ...route.query, filter: value === 'all' ? undefined : value } }),
  });
  const agreement = useAgreement(model, () => filter.value === 'disputed');
  const comments = useComments(model);
  const grouped = computed<boolean>({
    get: () => route.query.order !== 'study',
    set: (value) => void router.replace({ query: { ...route.query, order: value ? undefined : 'study' } }),
  });

  const frozen = computed<Set<string>>({
    get: () =>
      new Set(
        String(route.query.frozen ?? '')
          .split(',')
          .filter(Boolean),
      ),
    set: (value) => void router.replace({ query: { ...route.query, frozen: [...value].join(',') || undefined } }),
  });

  const places = computed(() => new Map((model.study.value?.rows ?? []).map((row, i) => [row.id, i])));
  const flags = computed(() => {
    const found = new Map<string, string[]>();
    for (const finding of findings.data.value ?? []) {
      const key = `${finding.row} ${finding.character}`;
      if (isOpen(finding) && finding.row && finding.character)
        found.set(key, [...(found.get(key) ?? []), finding.reason]);
    }
    return found;
  });
  const disputed = computed(
    () => new Set((agreement.data.value ?? []).flatMap((a) => a.toSettle.map((row) => `${row} ${a.character}`))),
  );
  const cellOf = (row: string, character: string): Cell | undefined =>
    model.columns.cell(places.value.get(row) ?? -1, character);
  const flagsOf = (row: string, character: string) => flags.value.get(`${row} ${character}`) ?? [];

  function isLookedFor(row: string, character: string): boolean {
    if (filter.value === 'disputed') return disputed.value.has(`${row} ${character}`);
    return filter.value === 'comments' ? comments.isOpen(row, character) : flagsOf(row, character).length > 0;
  }

  const all = computed(() => {
    const characters = model.study.value?.characters ?? [];
    return pinnedFirst(grouped.value ? byOrgan(characters) : characters, frozen.value);
  });
  const shown = computed(() =>
    filtered(
      filter.value,
      taxonTree(model.study.value?.rows ?? []),
      all.value.filter((c) => !hidden.value.has(c.id)),
      ({ row }, character) => cellOf(row.id, character),
      ({ row }, character) => isLookedFor(row.id, character),
    ),
  );
  const rows = computed(() => shown.value.rows);
  const characters = computed(() => shown.value.characters);
  const still = computed(() => characters.value.filter((c) => frozen.value.has(c.id)).length);
  const cellAt = (row: number, column: number) =>
    cellOf(rows.value[row]?.row.id ?? '', characters.value[column]?.id ?? '');

  const draftOf = (row: number, column: number) =>
    drafts.of(rows.value[row]?.row.id ?? '', characters.value[column]?.id ?? '');
  const draftAt = (row: number, column: number) => {
    const draft = draftOf(row, column);
    return draft && { text: draft.text, refused: draft.reason !== '' };
  };

  const grid = computed<GridModel>(() => ({
    rows: rows.value.map(({ row, depth }) => ({ label: row.label, stage: row.stage, depth, hazard: row.hazard })),
    columns: characters.value.map((character) => ({
      label: character.label,
      unit: character.unit,
      get scale() {
        return model.columns.scale(character.id);
      },
    })),
    bands: grouped.value ? bands(characters.value, still.value) : [],
    frozen: still.value,
    cell: cellAt,
    draft: draftAt,
    flagged: (row, column) => flagsOf(rows.value[row]?.row.id ?? '', characters.value[column]?.id ?? '').length > 0,
    commented: (row, column) => comments.isOpen(rows.value[row]?.row.id ?? '', characters.value[column]?.id ?? ''),
    // Columns that arrive later are a reason to paint again.
    loaded: characters.value.filter((c) => model.columns.has(c.id)).length,
    findings: flags.value.size,
    drafts: drafts.changes.value,
  }));

  /** Fetches the columns that come into view, and their neighbours; a filter looks at all of them. */
  function look(from: number, to: number) {
    const margin = to - from;
    void model.columns.want(characters.value.slice(Math.max(0, from - margin), to + margin).map((c) => c.id));
  }

  watch(
    [all, filter],
    () => {
      if (all.value.length <= AT_ONCE || filter.value !== 'all') void model.columns.want(all.value.map((c) => c.id));
    },
    { immediate: true },
  );

  return {
    rows,
    characters,
    comments,
    drafts,
    draftOf,
    all,
    grid,
    cellOf,
    cellAt,
    flagsOf,
    filter,
    grouped,
    hidden,
    frozen,
    look,
  };
}

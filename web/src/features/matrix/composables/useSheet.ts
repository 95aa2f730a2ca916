import { useLocalStorage } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { taxonTree } from '@/features/taxa';
import { rowName } from '@/shared/taxon/rowNames';
import { isOpen, useAgreement, useFindings, type Cell, type StudyModel } from '@/study-kernel';
import { SIZE } from '../logic/geometry';
import { bands, byOrgan, pinnedFirst } from '../logic/grid';
import { sorted, sortingOf } from '../logic/order';
import type { GridModel } from '../logic/paint';
import { useComments } from './useComments';
import { useDrafts } from './useDrafts';
import { FILTERS, filtered, type Filter } from '../logic/view';

/** More columns than these are fetched as they come into view. */
const AT_ONCE = 80;

/** The rows and columns of a study that are on the sheet, and their cells. */
export function useSheet(model: StudyModel) {
  const drafts = useDrafts(model.slug, {
    write: model.write,
    catchUp: model.catchUp,
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

  /** Rows in the order of a character; and only those that show the same for one as a row that somebody chose. */
  const sorting = computed({
    get: () => sortingOf(route.query.sort),
    set: (by) =>
      void router.replace({ query: { ...route.query, sort: by ? (by.down ? '-' : '') + by.character : undefined } }),
  });
  const like = computed({
    get: () => {
      const [character, text] = [route.query.likeCharacter, route.query.like];
      return typeof character === 'string' && typeof text === 'string' ? { character, text } : null;
    },
    set: (by) => void router.replace({ query: { ...route.query, likeCharacter: by?.character, like: by?.text } }),
  });
  /** Widths that somebody drew in this browser, by character. */
  const widths = useLocalStorage<Record<string, number>>(`polyclave.widths.${model.slug}`, {});

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
  const characterOf = (id: string | undefined) => all.value.find((c) => c.id === id);
  const rows = computed(() => {
    const only = characterOf(like.value?.character);
    const by = characterOf(sorting.value?.character);
    const kept = only
      ? shown.value.rows.filter(({ row }) => (cellOf(row.id, only.id)?.text ?? '') === like.value?.text)
      : shown.value.rows;
    return by ? sorted(kept, by, sorting.value?.down ?? false, ({ row }) => cellOf(row.id, by.id)) : kept;
  });
  const characters = computed(() => shown.value.characters);
  const still = computed(() => characters.value.filter((c) => frozen.value.has(c.id)).length);
  const cellAt = (row: number, column: number) =>
    cellOf(rows.value[row]?.row.id ?? '', characters.value[column]?.id ?? '');

  const draftOf = (row: number, column: number) =>
    drafts.of(rows.value[row]?.row.id ?? '', characters.value[column]?.id ?? '');
  const draftAt = (row: number, column: number) => {
    const draft = draftOf(row, column);
    return draft && { text: draft.text, refused: draft.reason !== '', stored: draft.stored };
  };

  const grid = computed<GridModel>(() => ({
    // Away from what they belong to, sexes and stages have their whole name.
    rows: rows.value.map(({ row, depth }) =>
      sorting.value || like.value
        ? { label: rowName(row), stage: '', depth: 0, hazard: row.hazard }
        : { label: row.label, stage: row.stage, depth, hazard: row.hazard },
    ),
    columns: characters.value.map((character) => ({
      id: character.id,
      label: character.label,
      states: character.states.map((s) => s.label),
      width: widths.value[character.id] ?? SIZE.column,
      sortable: character.type !== 'MONTHS',
      sorted: sorting.value?.character === character.id ? (sorting.value.down ? 'down' : 'up') : undefined,
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
    [all, filter, sorting, like],
    () => {
      const needed = [sorting.value?.character, like.value?.character].filter((c) => c !== undefined);
      if (needed.length) void model.columns.want(needed);
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
    sorting,
    like,
    widths,
    look,
  };
}

import { computed, ref } from 'vue';
import { Problem } from '@/api/client';
import { queue, useKept } from '@/shared/ui/useKept';
import { useUnsaved } from '@/shared/ui/useUnsaved';
import type { Conflict } from '../components/ConflictDialog.vue';
import type { Rejection } from '../components/PastePreview.vue';

/** A text on its way to its cell, or stored and not shown by the cell yet; refused, it stays until it is corrected or discarded. */
export interface Draft {
  row: string;
  character: string;
  text: string;
  /** Revision of the cell that the writer saw. */
  base: number;
  /** Why it was not taken; empty while nobody has answered. */
  reason: string;
  conflict: Conflict | null;
  stored: boolean;
}

interface Sheet {
  write: (edits: { row: string; character: string; text: string; baseRevision: number }[]) => Promise<number>;
  /** Brings the cells up to date with what was written until now. */
  catchUp: () => Promise<void>;
  revisionOf: (row: string, character: string) => number;
}

const TRY_AGAIN_MS = 2000;

const keyOf = (row: string, character: string) => `${row} ${character}`;

/**
 * Texts that were typed into single cells, one after the other however slow the network is: each is bound to the cell that it
 * was typed into, and neither an answer nor a refusal touches another cell, or what is being typed. The next is sent as soon
 * as one is stored; the cells catch up meanwhile, many at once.
 */
export function useDrafts(slug: string, sheet: Sheet) {
  const { drafts, changes, sending, shown } = useKept('scores', slug, () => ({
    drafts: ref(new Map<string, Draft>()),
    /** Something to look at that is another one whenever a draft is. */
    changes: ref(0),
    sending: queue(),
    /** Waits until the cells show what was stored last. */
    shown: { last: Promise.resolve() },
  }));
  const of = (row: string, character: string) => drafts.value.get(keyOf(row, character));
  const refused = computed(() => [...drafts.value.values()].filter((d) => d.reason));

  function set(key: string, draft: Draft | undefined) {
    const next = new Map(drafts.value);
    if (draft) next.set(key, draft);
    else next.delete(key);
    drafts.value = next;
    changes.value++;
  }

  function type(row: string, character: string, text: string) {
    const before = of(row, character);
    const base = before && !before.conflict ? before.base : sheet.revisionOf(row, character);
    const draft = { row, character, text, base, reason: '', conflict: null, stored: false };
    const key = keyOf(row, character);
    set(key, draft);
    return sending.add(() => send(key, draft));
  }

  async function send(key: string, draft: Draft) {
    // Something else was typed into the cell, or it was discarded, before its turn came.
    const waiting = drafts.value.get(key);
    if (!waiting || !sameText(waiting, draft)) return;
    // The base may be newer than when it was typed: whoever typed on saw what they wrote themselves.
    const { row, character, text, base } = waiting;
    let revision: number;
    try {
      revision = await sheet.write([{ row, character, text, baseRevision: base }]);
    } catch (failure) {
      if (sameText(drafts.value.get(key), draft)) set(key, explained(draft, failure as Problem));
      return;
    }
    const now = drafts.value.get(key);
    if (now) set(key, { ...now, base: revision, stored: sameText(now, draft) });
    shown.last = show(key, draft);
  }

  /** A stored text stands in its cell until the cell shows it, however often that fails. */
  async function show(key: string, draft: Draft) {
    for (let caughtUp = false; !caughtUp;) {
      caughtUp = await sheet.catchUp().then(
        () => true,
        () => false,
      );
      if (!caughtUp) await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS));
    }
    const now = drafts.value.get(key);
    if (now?.stored && sameText(now, draft)) set(key, undefined);
  }

  /** Everything that was typed is stored or refused, and its cells show it. */
  async function settled() {
    await sending.settled();
    await shown.last;
  }

  function discard(row: string, character: string) {
    if (of(row, character)) set(keyOf(row, character), undefined);
  }

  useUnsaved(() => [...drafts.value.values()].some((d) => !d.stored));
  return { of, refused, changes, type, discard, settled };
}

const sameText = (a: Draft | undefined, b: Draft) => a !== undefined && a.text === b.text;

function explained(draft: Draft, failure: Problem): Draft {
  const conflicts = failure.code === 'cell-changed' ? (failure.details.conflicts as Conflict[]) : [];
  const rejections = (failure.details?.rejections ?? []) as Rejection[];
  return { ...draft, reason: rejections[0]?.reason ?? failure.message, conflict: conflicts[0] ?? null };
}

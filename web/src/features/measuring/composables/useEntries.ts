import { ref } from 'vue';
import { queue, useKept } from '@/shared/ui/useKept';
import type { Draft } from './useMeasured';
import { nextItem } from '../logic/marks';

/** What was typed and is not read yet; refused, it waits until it is corrected or discarded. */
export interface Entry {
  id: number;
  /** One, or the lines that were pasted together. */
  texts: string[];
  specimen: string;
  character: string;
  item: string;
  refused: unknown;
}

const SEPARATOR = '; ';
let ids = 0;

/**
 * Readings in the order in which they were typed: each is of the specimen, character and item that it was typed for, however
 * slow the network is and whatever is typed or chosen meanwhile.
 */
export function useEntries(slug: string, add: (drafts: Draft[]) => Promise<string>) {
  const { entries, sending } = useKept('readings', slug, () => ({ entries: ref<Entry[]>([]), sending: queue() }));

  const drafts = (entry: Entry): Draft[] => {
    let at = entry.item;
    return entry.texts.map((typed) => {
      const draft = { specimen: entry.specimen, character: entry.character, item: at, typed };
      at = nextItem(at);
      return draft;
    });
  };

  const change = (id: number, to: (entry: Entry) => Entry[]) =>
    (entries.value = entries.value.flatMap((e) => (e.id === id ? to(e) : [e])));

  function send(id: number) {
    void sending.add(async () => {
      const entry = entries.value.find((e) => e.id === id);
      if (!entry) return;
      try {
        await add(drafts(entry));
        change(id, () => []);
      } catch (refused) {
        change(id, (e) => [{ ...e, refused }]);
      }
    });
  }

  function take(texts: string[], of: Pick<Entry, 'specimen' | 'character' | 'item'>) {
    const id = ++ids;
    entries.value = [...entries.value, { id, texts, ...of, refused: null }];
    send(id);
  }

  /** Sends a corrected text; several readings of one paste stay several. */
  function retry(entry: Entry, text: string) {
    const texts = entry.texts.length > 1 ? text.split(';').map((s) => s.trim()) : [text.trim()];
    change(entry.id, (e) => [{ ...e, texts: texts.filter(Boolean), refused: null }]);
    send(entry.id);
  }

  const discard = (entry: Entry) => change(entry.id, () => []);

  return { entries, take, retry, discard };
}

export const textOf = (entry: Entry) => entry.texts.join(SEPARATOR);

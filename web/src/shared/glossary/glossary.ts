import { computed, inject, provide, type ComputedRef, type InjectionKey } from 'vue';
import type { Schemas } from '@/api/client';

export type Term = Schemas['GlossaryTerm'];

/** A piece of a text, explained by a term or not. */
export interface Piece {
  text: string;
  term?: Term;
}

/** Finds the terms of a glossary in texts; longer ones first, so that "gill edge" is not taken for "gill". */
export interface Finder {
  pieces: (text: string) => Piece[];
}

const escaped = (word: string) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

export function finderOf(terms: readonly Term[]): Finder {
  const byWord = new Map<string, Term>();
  for (const term of terms) {
    for (const word of [term.term, ...term.synonyms]) if (word.trim()) byWord.set(word.trim().toLowerCase(), term);
  }
  if (!byWord.size) return { pieces: (text) => [{ text }] };
  const words = [...byWord.keys()].sort((a, b) => b.length - a.length).map(escaped);
  const found = new RegExp(`(?<![\\p{L}\\p{M}])(${words.join('|')})(?:e?s)?(?![\\p{L}\\p{M}])`, 'giu');
  return {
    pieces(text) {
      const pieces: Piece[] = [];
      let at = 0;
      for (const match of text.matchAll(found)) {
        if (match.index > at) pieces.push({ text: text.slice(at, match.index) });
        pieces.push({ text: match[0], term: byWord.get((match[1] ?? '').toLowerCase()) });
        at = match.index + match[0].length;
      }
      if (at < text.length || !pieces.length) pieces.push({ text: text.slice(at) });
      return pieces;
    },
  };
}

const KEY: InjectionKey<ComputedRef<Finder>> = Symbol('glossary');

export function provideGlossary(terms: () => readonly Term[] | undefined) {
  provide(
    KEY,
    computed(() => finderOf(terms() ?? [])),
  );
}

export const useGlossary = (): ComputedRef<Finder> =>
  inject(
    KEY,
    computed(() => finderOf([])),
  );

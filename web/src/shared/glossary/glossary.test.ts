import { describe, expect, it } from 'vitest';
import { finderOf, type Term } from './glossary';

const term = (word: string, synonyms: string[] = []): Term => ({
  id: word,
  term: word,
  definition: `what ${word} is`,
  plain: '',
  synonyms,
  misspellings: [],
  picture: '',
});
const said = (text: string, ...terms: Term[]) =>
  finderOf(terms)
    .pieces(text)
    .map((p) => (p.term ? `[${p.text}:${p.term.id}]` : p.text))
    .join('');

describe('terms in a text', () => {
  it('are found by word, plural and synonym, whatever their case', () => {
    expect(said('Gills free; lamellae white', term('gill', ['lamellae']))).toBe(
      '[Gills:gill] free; [lamellae:gill] white',
    );
  });

  it('are whole words, and the longest that fit', () => {
    expect(said('gill edge of a gillyflower', term('gill'), term('gill edge'))).toBe(
      '[gill edge:gill edge] of a gillyflower',
    );
    expect(said('naïvely naïve', term('naïve'))).toBe('naïvely [naïve:naïve]');
  });

  it('leave texts without terms, empty texts and odd characters as they are', () => {
    expect(said('a (b) c')).toBe('a (b) c');
    expect(said('', term('ring'))).toBe('');
    expect(said('a (ring) c', term('(ring)'), term('ring'))).toBe('a [(ring):(ring)] c');
  });
});

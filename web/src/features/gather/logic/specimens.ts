import type { Schemas } from '@/api/client';

type Specimen = Schemas['Specimen'];
type Determination = Schemas['Determination'];

/** What it is held to be now: the last determination. */
export const present = (specimen: Specimen): Determination | undefined => specimen.determinations.at(-1);

/** A new name; it begins with what it was named last, by who names it today. */
export function renamed(specimen: Specimen, by: string, today: string): Determination {
  const last = present(specimen);
  return {
    row: last?.row ?? '',
    qualifier: '',
    kind: last ? 'CONFIRMED' : 'DETERMINED',
    by,
    date: today,
    how: '',
    characters: [],
  };
}

/** Specimens whose code, present name or people hold every word. */
export function matching(specimens: Specimen[], typed: string, nameOf: (row: string) => string): Specimen[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return specimens.filter((specimen) => {
    const last = present(specimen);
    const people = specimen.determinations.map((d) => d.by);
    const text = [specimen.code, specimen.note, last ? nameOf(last.row) : '', ...people].join(' ').toLowerCase();
    return words.every((word) => text.includes(word));
  });
}

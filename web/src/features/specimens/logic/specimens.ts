import type { Schemas } from '@/api/client';

type Specimen = Schemas['Specimen'];
type Determination = Schemas['Determination'];

/** A specimen of which nothing is known yet. */
export const blankSpecimen = (): Specimen => ({
  id: '',
  code: '',
  determinations: [],
  event: { date: '', place: '', coordinates: '', collector: '', habitat: '', host: '' },
  stage: '',
  sex: '',
  treatments: [],
  storage: '',
  note: '',
});

/** Whether anything is known of when and where it was found. */
export const isFound = ({ event }: Specimen): boolean => Object.values(event).some(Boolean);

/** Where and when it was found, in short. */
export const foundAt = ({ event }: Specimen): string => [event.place, event.date].filter(Boolean).join(', ');

/** What it is identified as now: the last determination. */
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

/** Specimens whose code, present name, people, place or storage hold every word. */
export function matching(specimens: Specimen[], typed: string, nameOf: (row: string) => string): Specimen[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return specimens.filter((specimen) => {
    const last = present(specimen);
    const people = specimen.determinations.map((d) => d.by);
    const { event } = specimen;
    const known = [
      specimen.code,
      specimen.note,
      specimen.storage,
      event.place,
      event.collector,
      event.habitat,
      event.host,
    ];
    const text = [...known, last ? nameOf(last.row) : '', ...people].join(' ').toLowerCase();
    return words.every((word) => text.includes(word));
  });
}

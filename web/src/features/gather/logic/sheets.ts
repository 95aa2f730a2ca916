import type { Schemas } from '@/api/client';
import { rowName } from '@/shared/rowNames';

type Specimen = Schemas['Specimen'];

/** What can be printed of specimens. */
export const KINDS = ['collecting', 'determination', 'scoring', 'answers', 'kit'] as const;
export type Kind = (typeof KINDS)[number];

/** Labels as large as the boxes they go into, in millimetres, with the size of their type in points. */
export const SIZES = [
  { id: 'vial', width: 30, height: 12, type: 4 },
  { id: 'pin', width: 42, height: 18, type: 4.5 },
  { id: 'box', width: 60, height: 28, type: 6 },
  { id: 'sheet', width: 95, height: 48, type: 8.5 },
] as const;

export interface Label {
  id: string;
  code: string;
  name: string;
  lines: string[];
}

const joined = (...parts: (string | undefined | false)[]) => parts.filter(Boolean).join(', ');

/** Shelf order: group, then the name that the specimen has now, then its code. */
export function inShelfOrder(specimens: Specimen[], rows: Schemas['StudyRow'][]): Specimen[] {
  const place = new Map(rows.map((r, i) => [r.id, i]));
  const at = (s: Specimen) => place.get(s.determinations.at(-1)?.row ?? '') ?? rows.length;
  return [...specimens].sort(
    (a, b) => at(a) - at(b) || a.code.localeCompare(b.code, undefined, { numeric: true, sensitivity: 'base' }),
  );
}

/** Where and when it was found, what was done to it. */
export function collectingLabel(specimen: Specimen, treated: (how: string) => string): Label {
  const { event } = specimen;
  return {
    id: specimen.id,
    code: specimen.code,
    name: '',
    lines: [
      event.place,
      joined(event.coordinates, event.uncertainty != null && `±${event.uncertainty} m`),
      joined(event.habitat, event.host),
      joined(event.date, event.collector && `leg. ${event.collector}`),
      joined(specimen.sex, specimen.stage, ...specimen.treatments.map((t) => joined(treated(t.how), t.date))),
    ].filter(Boolean),
  };
}

/** Its names, the present one large, earlier ones kept. */
export function determinationLabel(specimen: Specimen, rows: Schemas['StudyRow'][]): Label {
  const named = (row: string) => {
    const found = rows.find((r) => r.id === row);
    return found ? rowName(found) : row;
  };
  const all = [...specimen.determinations].reverse();
  const by = (d: Schemas['Determination']) =>
    joined(`${d.kind === 'CONFIRMED' ? 'conf.' : 'det.'} ${d.by}`.trim(), d.date);
  const [now, ...before] = all;
  return {
    id: specimen.id,
    code: specimen.code,
    name: now ? [now.qualifier, named(now.row)].filter(Boolean).join(' ') : '',
    lines: [
      now ? by(now) : '',
      ...before.map((d) => `(${[d.qualifier, named(d.row)].filter(Boolean).join(' ')}; ${by(d)})`),
    ].filter(Boolean),
  };
}

/** What has to be at hand: by how the characters are looked at, and by what the taxa can do. */
export function kit(characters: Schemas['StudyCharacter'][], rows: Schemas['StudyRow'][]) {
  const methods = [...new Set(characters.map((c) => c.method.trim().toLowerCase()).filter(Boolean))].sort();
  const cautions = [...new Set(rows.flatMap((r) => r.hazards.map((h) => h.caution)).filter(Boolean))].sort();
  const dangerous = rows.filter((r) => r.hazard === 'SERIOUS' || r.hazard === 'LIFE_THREATENING');
  return { methods, cautions, dangerous };
}

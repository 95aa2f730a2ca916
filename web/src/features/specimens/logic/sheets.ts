import type { Schemas } from '@/api/client';
import { isDangerous } from '@/shared/taxon/hazards';

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

/** What the taxa can do, and what their authors say about it, each once. */
export function warnings(rows: Schemas['StudyRow'][]) {
  const cautions = [...new Set(rows.flatMap((r) => r.hazards.map((h) => h.caution)).filter(Boolean))].sort();
  const dangerous = rows.filter((r) => isDangerous(r.hazard));
  return { cautions, dangerous };
}

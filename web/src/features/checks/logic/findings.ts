import type { Finding } from '@/study-kernel';

/** Findings by kind, in the order in which they come. */
export function byKind(findings: Finding[]): [string, Finding[]][] {
  const groups = new Map<string, Finding[]>();
  for (const finding of findings) groups.set(finding.kind, [...(groups.get(finding.kind) ?? []), finding]);
  return [...groups];
}

const ABOUT_TAXA = [
  'hazard-not-assessed',
  'no-caution',
  'same-text',
  'text-against-score',
  'rest-not-confirmed',
  'whole-or-rest',
  'rest-not-scored',
  'danger-in-no-key',
];
const ABOUT_CHARACTERS = ['unused-state', 'never-varies', 'no-question', 'no-definition'];

/** Where a finding is dealt with: the page and what it selects there. */
export function placeOf(finding: Finding): { stage: string; query: Record<string, string> } {
  const query: Record<string, string> = {};
  if (finding.row) query.row = finding.row;
  if (finding.character) query.character = finding.character;
  if (finding.kind === 'danger-not-ruled-out') return { stage: 'dangers', query: { row: finding.row } };
  if (ABOUT_TAXA.includes(finding.kind)) return { stage: 'scope', query: { row: finding.row } };
  if (ABOUT_CHARACTERS.includes(finding.kind)) return { stage: 'characters', query: { character: finding.character } };
  if (finding.kind === 'out-of-date') return { stage: 'gather/cells', query: { character: finding.character } };
  if (['reading-to-settle', 'out-of-proportion'].includes(finding.kind)) {
    return { stage: 'gather/measure', query: { character: finding.character } };
  }
  return { stage: 'score', query };
}

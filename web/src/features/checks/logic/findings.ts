import type { Finding } from '@/study-kernel';

/** Findings by kind, in the order in which they come. */
export function byKind(findings: Finding[]): [Finding['kind'], Finding[]][] {
  const groups = new Map<Finding['kind'], Finding[]>();
  for (const finding of findings) groups.set(finding.kind, [...(groups.get(finding.kind) ?? []), finding]);
  return [...groups];
}

const ABOUT_TAXA: Finding['kind'][] = [
  'HAZARD_NOT_ASSESSED',
  'NO_CAUTION',
  'SAME_TEXT',
  'TEXT_AGAINST_SCORE',
  'NUMBER_AGAINST_SCORE',
  'COPIED_TEXT',
  'REST_NOT_CONFIRMED',
  'WHOLE_OR_REST',
  'REST_NOT_SCORED',
  'DANGER_IN_NO_KEY',
];
const ABOUT_CHARACTERS: Finding['kind'][] = [
  'UNUSED_STATE',
  'NEVER_VARIES',
  'NO_QUESTION',
  'NO_DEFINITION',
  'LABEL_IS_SIZE',
  'GO_TOGETHER',
];

/** Where a finding is dealt with: the page and what it selects there. */
export function placeOf(finding: Finding): { stage: string; query: Record<string, string> } {
  const query: Record<string, string> = {};
  if (finding.row) query.row = finding.row;
  if (finding.character) query.character = finding.character;
  if (finding.kind === 'DANGER_NOT_RULED_OUT') return { stage: 'dangers', query: { row: finding.row } };
  if (ABOUT_TAXA.includes(finding.kind)) return { stage: 'scope', query: { row: finding.row } };
  if (ABOUT_CHARACTERS.includes(finding.kind)) return { stage: 'characters', query: { character: finding.character } };
  if (finding.kind === 'OUT_OF_DATE') return { stage: 'gather/cells', query: { character: finding.character } };
  if (['READING_TO_SETTLE', 'OUT_OF_PROPORTION'].includes(finding.kind)) {
    return { stage: 'gather/measure', query: { character: finding.character } };
  }
  return { stage: 'score', query };
}

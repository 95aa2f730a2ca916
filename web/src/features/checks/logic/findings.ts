import type { Finding } from '@/study-kernel';

/** Things by what they have in common, in the order in which they come. */
function grouped<K, T>(all: T[], key: (one: T) => K): [K, T[]][] {
  const groups = new Map<K, T[]>();
  for (const one of all) {
    const members = groups.get(key(one));
    if (members) members.push(one);
    else groups.set(key(one), [one]);
  }
  return [...groups];
}

/** Findings of one kind, which are dealt with in one place. */
export interface KindOfFinding {
  kind: Finding['kind'];
  findings: Finding[];
}

/** Findings by the page where they are dealt with, and by kind. */
export function byPlace(findings: Finding[]): { stage: string; count: number; kinds: KindOfFinding[] }[] {
  return grouped(findings, (f) => placeOf(f).stage)
    .sort(([a], [b]) => PLACES.indexOf(a) - PLACES.indexOf(b))
    .map(([stage, all]) => ({
      stage,
      count: all.length,
      kinds: grouped(all, (f) => f.kind).map(([kind, members]) => ({ kind, findings: members })),
    }));
}

/** Dangers first; then as the path through a study goes. */
const PLACES = ['dangers', 'scope', 'gather/measure', 'gather/cells', 'characters', 'score'];

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

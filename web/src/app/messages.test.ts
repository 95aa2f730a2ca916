import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import en from './messages/en';

/**
 * Where the words of each enum of the API are; an empty list where people never see its values. An enum that the API
 * gains fails this test until somebody says where its words are.
 */
const WORDS: Record<string, string[]> = {
  'Answer.covers': ['coverage'],
  'Answer.kind': ['coverings.kind', 'coverings.all', 'coverings.notAll'],
  'AnswerRequest.certainty': ['certainty'],
  'AnswerRequest.rule': ['rough.of', 'rough.where'],
  'CellToConfirm.why': ['dangers.why'],
  'AtHandRequest.preserved': ['apart.treated', 'gather.treated'],
  'Change.how': ['difference.how'],
  'Change.kind': ['difference.kind'],
  'CheckPointView.verdict': ['check.verdict'],
  'Choice.type': ['type'],
  'Claim.kind': ['claims.kind'],
  'Count.frequency': [],
  'Done.kind': ['undo.kind'],
  'Coverage.describes': ['describes'],
  // What the author has to do about a danger is said by links where it is to confirm cells, or nothing.
  'Danger.remedy': [],
  'Danger.severity': ['hazard'],
  'Determination.kind': ['gather.kinds', 'gather.short'],
  // How a reading stands is shown by what can be done with it.
  'DraftRequest.standing': [],
  'Failing.kind': ['dangers.kind'],
  'FateCount.fate': ['import.fate'],
  'Field.name': ['difference.field'],
  'FindingView.kind': ['finding'],
  'HandfulRequest.observer': ['observer'],
  // How a job stands is shown by what the page does.
  'ImportProgress.status': [],
  'ImportRequest.step': ['import.stage'],
  'ComparedView.objective': ['objective'],
  'LabelSheetRequest.size': [],
  'LeftOutLine.reason': ['import.reason'],
  'Looking.subject': ['subject'],
  'MappedColumn.role': ['mapping.role'],
  'Mark.shape': ['measure.shape'],
  'MarkMeaning.meaning': ['mapping.meaning'],
  'MeasuredCell.material': ['measure.material'],
  'MeasuredCell.standing': ['measure.into.standings'],
  'MeasuredItem.barred': ['measure.barred'],
  'MeasuredItem.cause': ['measure.cause'],
  'MemberResponse.role': ['role', 'sharing.role'],
  'NextStep.kind': ['step.kind'],
  'Origin.basis': ['basis'],
  'PairView.verdict': ['apart.verdict'],
  'PointView.kind': ['apart.kind'],
  'PointView.lack': ['apart.lack'],
  'PriceView.kind': ['key.price'],
  // Problems bring a sentence of their own.
  'Problem.code': [],
  'Recognition.completion': [],
  'StudyRow.naming': [],
  'Token.scope': ['tokens.scope'],
  'Trust.origin': ['trust.origins'],
  'Use.role': ['use.role', 'use.why'],
};

interface Schema {
  enum?: string[];
  items?: Schema;
  properties?: Record<string, Schema>;
}

/** Each enum once, by the first property that has it. */
function enums(): Map<string, string[]> {
  const api = JSON.parse(readFileSync(join(import.meta.dirname, '../../../openapi.json'), 'utf8')) as {
    components: { schemas: Record<string, Schema> };
  };
  const found = new Map<string, { place: string; values: string[] }>();
  for (const [name, schema] of Object.entries(api.components.schemas))
    for (const [property, value] of Object.entries(schema.properties ?? {})) {
      const values = value.enum ?? value.items?.enum;
      if (values && !found.has(values.join())) found.set(values.join(), { place: `${name}.${property}`, values });
    }
  return new Map([...found.values()].map(({ place, values }) => [place, values]));
}

const at = (path: string): unknown =>
  path.split('.').reduce<unknown>((words, key) => (words as Record<string, unknown> | undefined)?.[key], en);

test('every enum of the API is known here', () => {
  expect([...enums().keys()].sort()).toEqual(Object.keys(WORDS).sort());
});

test.each([...enums()])('%s has its words', (place, values) => {
  for (const path of WORDS[place] ?? [])
    for (const value of values) expect(at(`${path}.${value}`), `${path}.${value}`).toEqual(expect.any(String));
});

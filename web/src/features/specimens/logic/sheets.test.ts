import { expect, test } from 'vitest';
import { row } from '@/testing/study';
import { warnings } from './sheets';

test('a kit list warns of what is dangerous, and says each caution once', () => {
  const hazard = { kind: 'thorns', severity: 'CAUTION' as const, routes: ['skin'], parts: '', caution: 'Wear gloves.' };
  const found = warnings([
    row('mild', { hazard: 'CAUTION', hazards: [hazard] }),
    row('bane', { hazard: 'SERIOUS', hazards: [hazard] }),
  ]);
  expect(found.dangerous.map((r) => r.id)).toEqual(['bane']);
  expect(found.cautions).toEqual(['Wear gloves.']);
});

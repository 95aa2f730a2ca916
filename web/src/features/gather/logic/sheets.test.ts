import { expect, test } from 'vitest';
import { row } from '@/testing/study';
import { collectingLabel, determinationLabel, inShelfOrder } from './sheets';
import { blankSpecimen } from './specimens';

const named = (code: string, ...names: [string, string][]) => ({
  ...blankSpecimen(),
  id: code,
  code,
  determinations: names.map(([of, qualifier]) => ({
    row: of,
    qualifier,
    kind: 'DETERMINED' as const,
    by: 'Oswin',
    date: '2025',
    how: '',
    characters: [],
  })),
});

test('specimens stand as on the shelf: by taxon as the study has them, then by number', () => {
  const all = [named('V 10', ['bane', '']), named('V 9', ['bane', '']), named('V 1'), named('V 30', ['mild', ''])];
  expect(inShelfOrder(all, [row('mild'), row('bane')]).map((s) => s.code)).toEqual(['V 30', 'V 9', 'V 10', 'V 1']);
});

test('a determination label keeps the earlier names', () => {
  const label = determinationLabel(named('V 1', ['mild', 'cf.'], ['bane', '']), [row('mild'), row('bane')]);
  expect(label.name).toBe('Bane');
  expect(label.lines).toEqual(['det. Oswin, 2025', '(cf. Mild; det. Oswin, 2025)']);
});

test('a collecting label tells what is known and leaves out what is not', () => {
  const specimen = {
    ...named('V 1'),
    event: { ...blankSpecimen().event, place: 'the weir', date: '2025-05-04', collector: 'Isolde' },
    treatments: [{ how: 'DRIED' as const, date: '2025-05-06', note: '' }],
  };
  expect(collectingLabel(specimen, (how) => how.toLowerCase()).lines).toEqual([
    'the weir',
    '2025-05-04, leg. Isolde',
    'dried, 2025-05-06',
  ]);
});

import { expect, test } from 'vitest';
import { row } from '@/testing/study';
import { taxonGroups } from './groups';

test('taxa are offered by status, region, habitat and how common they are, their stages with them', () => {
  const at = (regions: string[], habitat = '') => ({
    months: [],
    habitat,
    regions: regions.map((region) => ({ region, status: '', doubtful: false })),
  });
  const rows = [
    row('a', { status: ['introduced'], occurrence: at(['north'], 'river'), weight: 3 }),
    row('b', { status: ['introduced', 'regulated'], occurrence: at(['north', 'south'], 'river') }),
    row('b-male', { stage: 'male', status: ['introduced'], parent: 'b' }),
    row('c'),
  ];
  expect(taxonGroups(rows, () => 'common')).toEqual([
    { title: 'introduced (2)', value: ['a', 'b'] },
    { title: 'north (2)', value: ['a', 'b'] },
    { title: 'river (2)', value: ['a', 'b'] },
    { title: 'regulated (1)', value: ['b'] },
    { title: 'south (1)', value: ['b'] },
    { title: 'common (1)', value: ['a'] },
  ]);
  expect(taxonGroups([row('a'), row('b')], () => 'common')).toEqual([]);
});

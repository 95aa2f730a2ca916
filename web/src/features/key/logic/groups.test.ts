import { expect, test } from 'vitest';
import { row } from '@/testing/study';
import { stopGroups, taxonGroups } from './groups';

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

test('a key may stop at groups of several taxa, unless only some of them are dangerous', () => {
  const rows = [
    row('ga', { rank: 'genus' }),
    row('ga-a', { parent: 'ga' }),
    row('ga-b', { parent: 'ga' }),
    row('gb', { rank: 'genus' }),
    row('gb-a', { parent: 'gb' }),
    row('gb-b', { parent: 'gb' }),
    row('gb-b-male', { parent: 'gb-b', stage: 'male', hazard: 'SERIOUS' }),
    row('gc', { rank: 'genus', hazard: 'SERIOUS' }),
    row('gc-a', { parent: 'gc' }),
    row('gc-b', { parent: 'gc' }),
    row('gd', { rank: 'genus' }),
    row('gd-a', { parent: 'gd' }),
    row('gd-a-male', { parent: 'gd-a', stage: 'male' }),
  ];
  expect(stopGroups(rows).map((g) => [g.value, g.mixed])).toEqual([
    ['ga', false],
    ['gb', true],
    ['gc', false],
  ]);
});

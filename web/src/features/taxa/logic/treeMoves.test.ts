import { describe, expect, test } from 'vitest';
import { row } from '@/testing/study';
import { taxonTree } from './taxonTree';
import { mayDrop, step, type Direction } from './treeMoves';

// genus: aa (with aa-male), bb; cc at the top.
const tree = taxonTree([
  row('genus'),
  row('aa', { parent: 'genus' }),
  row('bb', { parent: 'genus' }),
  row('aa-male', { parent: 'aa', stage: 'male' }),
  row('cc'),
]);

describe('a step in the tree', () => {
  test.each<[string, Direction, unknown]>([
    ['bb', 'up', { parent: 'genus', before: 'aa' }],
    ['aa', 'up', undefined],
    ['aa', 'down', { parent: 'genus', before: undefined }],
    ['genus', 'down', { parent: undefined, before: undefined }],
    ['cc', 'down', undefined],
    ['cc', 'up', { parent: undefined, before: 'genus' }],
    ['bb', 'in', { parent: 'aa' }],
    ['cc', 'in', { parent: 'genus' }],
    ['aa', 'in', undefined],
    ['bb', 'out', { parent: undefined, before: 'cc' }],
    ['cc', 'out', undefined],
    ['aa-male', 'out', undefined],
    ['nobody', 'up', undefined],
  ])('%s %s', (id, direction, place) => {
    expect(step(tree, id, direction)).toEqual(place);
  });
});

test('nothing is dropped on itself or on what belongs to it', () => {
  expect(mayDrop(tree, 'genus', 'genus')).toBe(false);
  expect(mayDrop(tree, 'genus', 'aa-male')).toBe(false);
  expect(mayDrop(tree, 'genus', 'cc')).toBe(true);
  expect(mayDrop(tree, 'bb', 'aa')).toBe(true);
});

import { expect, test } from 'vitest';
import { matching } from './stages';

const commands = ['Go to Score', 'Go to Key', 'Export as table (CSV)', 'Undo'].map((label) => ({ label }));

test('the palette finds commands by any words in any order', () => {
  expect(matching(commands, 'key go').map((c) => c.label)).toEqual(['Go to Key']);
  expect(matching(commands, '')).toHaveLength(4);
  expect(matching(commands, 'nonsense')).toEqual([]);
});

import { expect, it } from 'vitest';
import { figure, ownCell, percent, statesIn } from './cells';

it('finds the states of a typed score again', () => {
  const states = [{ label: 'toothed' }, { label: 'double-toothed' }, { label: 'entire' }];
  const score = {
    row: 'a',
    character: 'm',
    text: 'usually toothed, rarely entire',
    doubtful: true,
    note: 'x',
    revision: 4,
  };
  const cell = ownCell(score, states);
  expect(cell.parts.map((p) => p.label)).toEqual(['toothed', 'entire']);
  expect(cell.revision).toBe(4);
  expect(ownCell(undefined, states).text).toBe('');
});

it('takes no part of a name for a state', () => {
  const states = [{ label: 'toothed' }, { label: 'double-toothed' }];
  expect(statesIn('double-toothed', states)).toEqual([{ label: 'double-toothed' }]);
  expect(statesIn('toothed + double-toothed', states)).toEqual(states);
  expect(statesIn('mistaken toothed', states)).toEqual([]);
});

it('writes figures, and a dash for those that cannot be had', () => {
  expect(percent(2 / 3)).toBe('67 %');
  expect(figure(0.4)).toBe('0.40');
  expect(figure(undefined)).toBe('–');
});

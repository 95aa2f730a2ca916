import { expect, test } from 'vitest';
import { asked, EVERYTHING, fromQuery, isEverything, toQuery, type ViewingConditions } from './conditions';

test('viewing conditions go through the address and back', () => {
  const conditions: ViewingConditions = {
    months: [1, 12],
    organs: ['leaf, lower', 'stem'],
    methods: ['eye'],
    preserved: ['DRIED'],
    stages: ['male'],
    novice: true,
    safely: true,
  };
  expect(fromQuery(JSON.parse(JSON.stringify(toQuery(conditions))))).toEqual(conditions);
  expect(fromQuery(JSON.parse(JSON.stringify(toQuery(EVERYTHING))))).toEqual(EVERYTHING);
  expect(fromQuery({ months: '0|3|x|13', preserved: 'BURNT' })).toEqual({ ...EVERYTHING, months: [3] });
});

test('the server is asked for the limits only', () => {
  expect(isEverything(EVERYTHING)).toBe(true);
  expect(asked({ ...EVERYTHING, months: [1, 2], novice: true }, { rows: ['aa', 'bb'] })).toEqual({
    months: [1, 2],
    observer: 'NOVICE',
    rows: ['aa', 'bb'],
  });
});

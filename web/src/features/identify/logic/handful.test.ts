import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import type { Given } from './answers';
import { answered, decodeEach, encodeEach, listed, nextQuestion, unanswered, type Each } from './handful';

const characters = [
  { id: 'ring', type: 'STATES', states: [{ id: 'present' }, { id: 'absent' }] },
  { id: 'cap', type: 'LENGTH', states: [] },
] as unknown as Schemas['StudyCharacter'][];
const ring = (state: string): Given => ({
  character: 'ring',
  states: [state],
  value: null,
  certainty: 'SURE',
  passed: null,
});
const cap: Given = { character: 'cap', states: [], value: 40, certainty: 'LIKELY', passed: null };

test('individuals are listed as people do', () => {
  expect(listed([1, 2, 3, 5, 7, 8])).toBe('1–3, 5, 7, 8');
  expect(listed([])).toBe('');
});

test('the address keeps a dozen, one of which differs, and reads back the same', () => {
  let each: Each = Array.from({ length: 12 }, () => []);
  each = answered(each, unanswered(each, 'ring'), 'ring', ring('present'));
  each = answered(each, [3], 'ring', ring('absent'));
  each = answered(each, [3, 12], 'cap', cap);
  const text = encodeEach(each);
  expect(text).toBe('1.2.4-11/ring:present|3/cap:=40~,ring:absent|12/cap:=40~,ring:present');
  expect(decodeEach(text, 12, characters)).toEqual(each);
  expect(unanswered(each, 'cap')).toEqual([1, 2, 4, 5, 6, 7, 8, 9, 10, 11]);
  expect(encodeEach(answered(each, [3, 12], 'cap', null))).toBe('1.2.4-12/ring:present|3/ring:absent');
});

test('an address that says more than the handful holds does no harm', () => {
  expect(decodeEach('1-999999999/ring:present|x/ring:absent|0/ring:absent|nonsense', 2, characters)).toEqual([
    [ring('present')],
    [ring('present')],
  ]);
});

test('what was passed over is not asked again, and those that were looked at least come first', () => {
  const group = (individuals: number[], said: number, missing: string[], asked: string[]) =>
    ({
      individuals,
      missing,
      differing: [],
      found: { said: Array.from({ length: said }), questions: asked.map((character) => ({ character })) },
    }) as unknown as Schemas['HandfulGroup'];
  const groups = [group([1, 2], 2, [], ['cap', 'scent']), group([3], 1, ['ring'], ['cap'])];
  const each: Each = [[ring('present')], [ring('present')], []];
  const none = () => false;
  expect(nextQuestion(groups, each, none)).toBe('ring');
  const passed = answered(each, [3], 'ring', { ...ring('present'), states: [], passed: 'cannot-see' });
  expect(nextQuestion(groups, passed, none)).toBe('cap');
  expect(nextQuestion(groups, answered(passed, [3], 'cap', cap), none)).toBe('cap');
  expect(nextQuestion(groups, answered(passed, [1, 2, 3], 'cap', cap), none)).toBe('scent');
  expect(nextQuestion(groups, answered(passed, [3], 'cap', cap), (c) => c === 'scent')).toBe('scent');
  expect(nextQuestion([], each, none)).toBeUndefined();
});

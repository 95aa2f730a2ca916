import { describe, expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { decode, encode, requestOf, toggled, type Given, lookedAgain } from './answers';

const characters = [
  { id: 'margin', type: 'STATES', states: [{ id: 'toothed' }, { id: 'entire' }] },
  { id: 'width', type: 'LENGTH', states: [] },
] as unknown as Schemas['StudyCharacter'][];

const weighed = {
  strikeOut: false,
  tolerance: 0,
  month: 0,
  novice: false,
  measuredOf: () => [],
  presence: true,
  atHand: { organs: [], methods: [], preserved: [] },
};
const answers: Given[] = [
  { character: 'margin', states: ['toothed', 'entire'], value: null, certainty: 'LIKELY', passed: null },
  { character: 'width', states: [], value: 4.5, certainty: 'SURE', passed: null },
];

describe('the address', () => {
  test('says the same as the answers', () => {
    expect(decode(encode(answers), characters)).toEqual(answers);
    const rough: Given[] = [
      { character: 'width', states: [], value: 1.5, certainty: 'UNSURE', passed: null, rule: 'PENCIL' },
    ];
    expect(decode(encode(rough), characters)).toEqual(rough);
    const range: Given[] = [
      { character: 'width', states: [], value: 37.5, certainty: 'SURE', passed: null, spread: 2.5 },
    ];
    expect(decode(encode(range), characters)).toEqual(range);
    expect(requestOf(range, weighed).answers[0]).toMatchObject({ value: 37.5, uncertainty: 2.5 });
    const passed: Given[] = [{ character: 'width', states: [], value: null, certainty: 'SURE', passed: 'cannot-see' }];
    expect(decode(encode(passed), characters)).toEqual(passed);
  });

  test('drops what the key does not know', () => {
    expect(decode('margin:lobed,colour:red,width:=x,width:=2*TOE,width:=3', characters)).toEqual([
      { character: 'width', states: [], value: 3, certainty: 'SURE', passed: null },
    ]);
  });
});

test('not sure is not evidence, but is not asked again', () => {
  const request = requestOf([...answers.slice(0, 1), { ...(answers[1] as Given), passed: 'not-sure' }], {
    ...weighed,
    novice: true,
  });
  expect(request.observer).toBe('NOVICE');
  expect(request.answers.map((a) => a.character)).toEqual(['margin']);
  expect(request.unavailable).toEqual(['width']);
});

test('taking away the last state withdraws the answer', () => {
  const one = toggled([], 'margin', 'toothed');
  expect(one[0]?.states).toEqual(['toothed']);
  expect(toggled(one, 'margin', 'entire')[0]?.states).toEqual(['toothed', 'entire']);
  expect(toggled(one, 'margin', 'toothed')).toEqual([]);
});

test('a rough length goes with what was measured of one’s own', () => {
  const rough: Given = { ...(answers[1] as Given), value: 2, rule: 'FINGER_WIDTH' };
  const request = requestOf([rough], {
    ...weighed,
    measuredOf: (rule) => (rule === 'FINGER_WIDTH' ? [15, 16, 17] : []),
  });
  expect(request.answers[0]).toMatchObject({ value: 2, rule: 'FINGER_WIDTH', measured: [15, 16, 17] });
  expect(requestOf([answers[1] as Given], weighed).answers[0]).not.toHaveProperty('rule');
});

test('further looks are kept in the address, reach the server, and stop at the fourth', () => {
  const characters = [
    { id: 'ring', type: 'STATES', states: [{ id: 'present' }, { id: 'absent' }] },
  ] as unknown as Schemas['StudyCharacter'][];
  let answers = toggled([], 'ring', 'present');
  for (let k = 0; k < 5; k++) answers = lookedAgain(answers, 'ring', k === 1 ? 'absent' : 'present');
  expect(answers[0]?.again).toEqual(['present', 'absent', 'present']);
  expect(decode(encode(answers), characters)).toEqual(answers);
  expect(requestOf(answers, weighed).answers[0]?.further).toHaveLength(3);
});

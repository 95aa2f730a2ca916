import { expect, test } from 'vitest';
import { addressOf, wishOf, type Wish } from './wish';

const PLAIN: Wish = {
  objective: 'CAUTIOUS',
  evenWeights: true,
  months: [],
  organs: [],
  methods: [],
  preserved: [],
  taxa: [],
  forbidden: [],
  hazardsFirst: false,
  questions: [],
  stages: [],
  groups: [],
  leads: 2,
  magnification: 0,
  readers: undefined,
};

/** What the address keeps of a wish. */
const there = (wish: Wish) => Object.entries(addressOf(wish)).filter(([, value]) => value !== undefined);

test('an address says only what is wanted otherwise than usual, and is read back as it was', () => {
  expect(there(PLAIN)).toEqual([]);
  const wishes: Wish[] = [
    PLAIN,
    { ...PLAIN, objective: 'FEWEST', evenWeights: false },
    { ...PLAIN, months: [1, 12], organs: ['leaf, upper', 'stem'], methods: ['cut across'], preserved: ['DRIED'] },
    { ...PLAIN, taxa: ['aa-bane', 'bb'], forbidden: ['leaf-margin'] },
    { ...PLAIN, hazardsFirst: true, questions: [{ character: 'leaf-tip', rows: [] }] },
    {
      ...PLAIN,
      stages: ['female, in winter', 'juvenile'],
      groups: ['aa', 'bb'],
      leads: 4,
      readers: 'NOVICE',
      magnification: 400,
    },
    {
      ...PLAIN,
      questions: [
        { character: 'leaf-tip', rows: ['aa-bane', 'bb'] },
        { character: 'stem', rows: ['bb'] },
      ],
    },
  ];
  for (const wish of wishes) {
    expect(wishOf(Object.fromEntries(there(wish)) as Record<string, string>)).toEqual(wish);
  }
});

test('an address that asks for too many leads, or readers that there are not, is read as what there is', () => {
  expect(wishOf({ leads: '99' }).leads).toBe(8);
  expect(wishOf({ leads: 'many' }).leads).toBe(2);
  expect(wishOf({ times: '1e12' }).magnification).toBe(999_999);
  expect(wishOf({ leads: '-3', readers: 'EVERYONE' })).toMatchObject({ leads: 2, readers: undefined });
});

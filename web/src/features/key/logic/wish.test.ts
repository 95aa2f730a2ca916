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

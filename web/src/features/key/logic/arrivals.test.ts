import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { rowsByLead } from './arrivals';

const end = (...rows: string[]) => ({ terminal: { names: rows.map((row) => ({ row })) } });

test('what goes down a lead is all that is named below it, each row once', () => {
  const key = {
    couplets: [
      { number: 1, leads: [{ couplet: 2 }, end('bane')] },
      { number: 2, leads: [end('mild', 'odd'), { couplet: 3 }] },
      { number: 3, leads: [end('mild'), end('tall')] },
    ],
  } as unknown as Schemas['KeyView'];
  const [first, second] = key.couplets;
  expect(first && rowsByLead(key, first)).toEqual([['mild', 'odd', 'tall'], ['bane']]);
  expect(second && rowsByLead(key, second)).toEqual([
    ['mild', 'odd'],
    ['mild', 'tall'],
  ]);
});

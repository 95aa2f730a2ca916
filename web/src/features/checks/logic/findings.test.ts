import { expect, test } from 'vitest';
import en from '@/app/messages/en';
import type { Finding } from '@/study-kernel';
import { placeOf } from './findings';

const finding = (kind: Finding['kind']) => ({ kind, row: 'bane', character: 'margin' }) as Finding;

test('every finding leads to a page that has a name, and selects there what it is about', () => {
  for (const kind of Object.keys(en.finding) as Finding['kind'][]) {
    const { stage, query } = placeOf(finding(kind));
    expect(en.stage, kind).toHaveProperty([stage]);
    expect(Object.values(query).some((v) => v === 'bane' || v === 'margin')).toBe(true);
  }
});

test('a danger that cannot be ruled out leads to its cells', () => {
  expect(placeOf(finding('DANGER_NOT_RULED_OUT'))).toEqual({ stage: 'dangers', query: { row: 'bane' } });
});

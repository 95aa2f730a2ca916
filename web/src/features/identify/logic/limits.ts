import type { Schemas } from '@/api/client';
import { names } from '@/shared/viewing/choices';
import { TREATMENTS } from '@/shared/viewing/conditions';

/** What can be limited to what is at hand, and to which values. */
export interface Limit {
  of: 'organs' | 'methods' | 'preserved';
  items: { value: string; title: string }[];
}

/** Of which there are several in a study. */
export function limitsOf(characters: Schemas['StudyCharacter'][], treated: (treatment: string) => string): Limit[] {
  const named = (values: string[]) => names(values).map((value) => ({ value, title: value }));
  const all: Limit[] = [
    { of: 'organs', items: named(characters.map((c) => c.organ)) },
    { of: 'methods', items: named(characters.map((c) => c.method)) },
    { of: 'preserved', items: TREATMENTS.map((value) => ({ value, title: treated(value) })) },
  ];
  return all.filter((limit) => limit.items.length > 1);
}

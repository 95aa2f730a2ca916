import type { Schemas } from '@/api/client';

const MAGNIFIES = /lens|microscope|magnif|binocular/;
const LEAF = /\bleaf\b|\bleaves\b/;

/** Each once, in small letters as the server compares them, in order. */
export function names(values: string[]): string[] {
  return [...new Set(values.map((value) => value.toLowerCase()).filter(Boolean))].sort((a, b) =>
    a.localeCompare(b, 'en'),
  );
}

export const partsOf = (study: Schemas['StudyView']) => names(study.characters.map((c) => c.organ));
export const equipmentOf = (study: Schemas['StudyView']) => names(study.characters.map((c) => c.method));

/** How many times the characters of a study must be magnified, from the least. */
export function magnificationsOf(study: Schemas['StudyView']): number[] {
  const needed = study.characters.flatMap((c) => Number(/\d{1,6}/.exec(c.where.magnification)?.[0]) || []);
  return [...new Set(needed)].sort((a, b) => a - b);
}

/** The part that is called leaf, if the study has one. */
export const leafOf = (study: Schemas['StudyView']) => partsOf(study).find((part) => LEAF.test(part));

/** What there is when nothing that magnifies is at hand; the eye always is. */
export const withoutLens = (study: Schemas['StudyView']) => [
  ...new Set(['eye', ...equipmentOf(study).filter((method) => !MAGNIFIES.test(method))]),
];

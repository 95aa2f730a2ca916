import type { Schemas } from '@/api/client';
import type { Point } from './viewport';

export type Shape = Schemas['Mark']['shape'];

/** A mark as the bench draws it. */
export interface BenchMark {
  id: string;
  shape: Shape;
  parts: Point[][];
  label: string;
  /** One's own, which can be moved. */
  movable: boolean;
}

/** Ways of marking that give a reading of a kind of character, the usual one first. */
export function shapesFor(type: Schemas['StudyCharacter']['type']): Shape[] {
  switch (type) {
    case 'LENGTH':
      return ['LINE', 'PATH', 'OUTLINE', 'LONGEST', 'LARGEST'];
    case 'ANGLE':
      return ['ANGLE'];
    case 'COUNT':
      return ['COUNT'];
    case 'RATIO':
    case 'PERCENT':
      return ['LINE', 'OUTLINE', 'PATH'];
    default:
      return [];
  }
}

/** Ratios are of two lines, or of two outlines: the part first, then the whole. */
export const isOfTwo = (type: Schemas['StudyCharacter']['type']): boolean => type === 'RATIO' || type === 'PERCENT';

/** How many parts a mark has; a set has as many as the hand gives it. */
export const partsFor = (type: Schemas['StudyCharacter']['type'], shape: Shape): number =>
  shape === 'LONGEST' || shape === 'LARGEST' ? Infinity : isOfTwo(type) ? 2 : 1;

/** How many points a shape takes; without a number it ends when the hand says so. */
export const pointsOf = (shape: Shape): number | undefined =>
  shape === 'LINE' || shape === 'LONGEST' ? 2 : shape === 'ANGLE' ? 3 : undefined;

const FEWEST: Record<Shape, number> = {
  LINE: 2,
  PATH: 2,
  ANGLE: 3,
  OUTLINE: 3,
  COUNT: 1,
  LONGEST: 2,
  LARGEST: 3,
};

/** Whether a part can end with the points that it has. */
export const isEnough = (shape: Shape, points: Point[]): boolean => points.length >= FEWEST[shape];

/** "12.34 mm ± 0.05": two standard uncertainties, about 95 %, to two digits. */
export function spread(uncertainty: number | undefined | null): string {
  if (!uncertainty) return '';
  const twice = 2 * uncertainty;
  const places = Math.max(0, 1 - Math.floor(Math.log10(twice)));
  return twice.toFixed(Math.min(places, 6));
}

const NUMBERED = /^(.*?)(\d+)$/;

/** "spore 8" after "spore 7"; what bears no number stays as it is. */
export function nextItem(item: string): string {
  const numbered = NUMBERED.exec(item);
  return numbered ? `${numbered[1] ?? ''}${Number(numbered[2]) + 1}` : item;
}

import type { Schemas } from '@/api/client';

/** Whether a wrong name could do lasting harm: what is shown first, and must be ruled out twice. */
export const isDangerous = (hazard: Schemas['StudyRow']['hazard'] | undefined) =>
  hazard === 'SERIOUS' || hazard === 'LIFE_THREATENING';

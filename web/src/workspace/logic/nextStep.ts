import type { Schemas } from '@/api/client';

type Step = Schemas['NextStep'];

/** Where a step is done: an address below the study's. */
export function placeOf(step: Step): string {
  const rows = step.rows.join(',');
  const places: Record<Step['kind'], string> = {
    IMPORT: 'score',
    ASSESS_HAZARDS: 'scope',
    SEPARATE_PAIR: `apart?rows=${rows}`,
    SEPARATE_DANGER: `apart?rows=${rows}&safely=true`,
    CONFIRM_DANGER: `dangers?row=${rows}`,
    NAME_PARTS: 'characters',
    SCORE_CELL: 'apart?view=next',
    SCORE_CELL_NOW: 'apart?view=next',
    SEPARATE_IN_MONTH: `apart?view=calendar&months=${step.month}`,
    SCORE_CHARACTER: 'score',
    PUBLISH: 'publish',
    REVIEW: 'key',
  };
  return places[step.kind];
}

import type { Schemas } from '@/api/client';

export interface Stage {
  id: 'scope' | 'gather' | 'characters' | 'score' | 'apart' | 'key' | 'any-order' | 'publish';
  /** Words of the gauge, by message and numbers. */
  gauge: { message: string; numbers: Record<string, number> };
}

/** The stages of the work, in order, each with an honest number. */
export function stages(study: Schemas['StudyView'], step?: Schemas['NextStep']): Stage[] {
  const g = study.progress;
  return [
    {
      id: 'scope',
      gauge: g.taxa
        ? { message: 'gauge.scope', numbers: { taxa: g.taxa, open: g.notAssessed, n: g.notAssessed } }
        : { message: 'gauge.noTaxa', numbers: {} },
    },
    { id: 'gather', gauge: { message: 'gauge.gather', numbers: { n: study.specimens.length } } },
    { id: 'characters', gauge: { message: 'gauge.characters', numbers: { n: g.characters } } },
    {
      id: 'score',
      gauge: study.blind
        ? { message: 'gauge.blind', numbers: {} }
        : g.cells
          ? { message: 'gauge.score', numbers: { part: g.scored, all: g.cells } }
          : { message: 'gauge.nothing', numbers: {} },
    },
    {
      id: 'apart',
      gauge:
        g.taxa < 2 || !g.characters
          ? { message: 'gauge.nothing', numbers: {} }
          : step
            ? {
                message: step.dangers > 0 ? 'gauge.apartDangers' : 'gauge.apart',
                numbers: { n: step.open, thin: step.thin, dangers: step.dangers },
              }
            : { message: 'gauge.notYet', numbers: {} },
    },
    { id: 'key', gauge: { message: 'gauge.key', numbers: { n: g.taxaInKeys } } },
    { id: 'any-order', gauge: { message: 'gauge.anyOrder', numbers: { n: g.characters } } },
    { id: 'publish', gauge: { message: 'gauge.publish', numbers: { n: g.editions } } },
  ];
}

/** Commands of the palette whose words hold every word typed. */
export function matching<T extends { label: string }>(commands: T[], typed: string): T[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return commands.filter((command) => words.every((word) => command.label.toLowerCase().includes(word)));
}

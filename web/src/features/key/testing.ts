import type { Schemas } from '@/api/client';

export const KEYS = '/api/v1/studies/meadow/keys';

export const key = (text: string): Schemas['KeyView'] => {
  const end = (label: string): Schemas['TerminalView'] => ({
    names: [
      {
        row: label.toLowerCase(),
        label,
        stage: '',
        plain: '',
        rank: '',
        hazard: 'NONE_KNOWN',
        hazardText: '',
        folded: [],
      },
    ],
    reason: '',
    notRuledOut: [],
  });
  const lead = (words: string, label: string): Schemas['LeadView'] => ({
    text: words,
    plainText: words,
    statements: [{ character: 'margin', text: words, plainText: words, role: 'DECIDING' }],
    terminal: end(label),
  });
  return {
    title: 'Meadow plants',
    leftOut: [],
    couplets: [
      {
        number: 1,
        leads: [lead(text, 'Mild'), lead(`Not ${text}`, 'Bane')],
        character: 'margin',
        gain: 1,
        rows: ['mild', 'bane'],
        duplicated: [],
        prices: [],
        alternatives: [],
      },
    ],
    figures: {
      rows: 2,
      couplets: 1,
      terminals: 2,
      expectedSteps: 1,
      longestPath: 1,
      entropyBound: 1,
      completion: 'OPTIMAL',
      proven: true,
      observations: 4,
      failures: [],
    },
  };
};
export const job = (id: string, status: string, progress: number, view?: Schemas['KeyView']) => ({
  id,
  revision: 7,
  status,
  progress,
  key: view,
  compared: [],
});

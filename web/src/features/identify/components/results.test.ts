import { describe, expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { mount } from '@/testing/mount';
import DangerNote from './DangerNote.vue';
import EvidenceLadder from './EvidenceLadder.vue';
import VerdictNote from './VerdictNote.vue';

const name = (row: string, hazard: Schemas['NameView']['hazard'] = 'NONE_KNOWN', stage = '') =>
  ({ row, label: row, stage, plain: '', rank: 'species', hazard, hazardText: '', folded: [] }) as Schemas['NameView'];
const standing = (row: string, posterior: number, bits: number[], extra = {}) =>
  ({
    name: name(row),
    taxon: name(row),
    posterior,
    namePosterior: posterior,
    outOfSeason: false,
    mismatches: 0,
    struckOut: false,
    why: bits.map((b, i) => ({ character: `c${i}`, label: `c${i}`, bits: b, known: true })),
    ...extra,
  }) as unknown as Schemas['StandingView'];
const labels = new Map([['margin', { id: 'margin', label: 'leaf margin' } as Schemas['StudyCharacter']]]);

describe('the ladder', () => {
  test('draws evidence for and against, and shares without false precision', async () => {
    const ladder = await mount(EvidenceLadder, {
      standings: [standing('Alpha', 0.999, [2, 1]), standing('Beta', 0.0004, [-3, 1])],
      selected: [],
      strikeOut: false,
      month: 0,
    });
    expect(ladder.all('li')).toHaveLength(2);
    expect(ladder.all('rect.against')).toHaveLength(1);
    expect(ladder.text()).toContain('> 99 %');
    expect(ladder.text()).toContain('< 1 %');
  });

  test('strikes out by counting contradictions', async () => {
    const ladder = await mount(
      EvidenceLadder,
      {
        standings: [standing('Alpha', 1, []), standing('Beta', 0, [], { mismatches: 1, struckOut: true })],
        selected: ['Beta'],
        strikeOut: true,
        month: 0,
      },
      ['select'],
    );
    expect(ladder.all('li.out')).toHaveLength(1);
    expect(ladder.text()).toContain('1 contradiction');
    ladder.all('button')[1]?.click();
    expect(ladder.heard).toEqual([['select', 'Beta']]);
  });
});

describe('the ladder of names', () => {
  const form = (taxon: string, stage: string, posterior: number, namePosterior: number) =>
    standing(`${taxon}-${stage}`, posterior, [1], {
      taxon: name(taxon),
      name: name(taxon, 'NONE_KNOWN', stage),
      namePosterior,
    });

  test('folds sexes and stages into their name and counts them together', async () => {
    const shown = await mount(EvidenceLadder, {
      standings: [form('Alpha', 'female', 0.5, 0.7), form('Alpha', 'male', 0.2, 0.7), standing('Beta', 0.3, [1])],
      selected: [],
      strikeOut: false,
      month: 0,
    });
    expect(shown.all('li')).toHaveLength(2);
    expect(shown.text()).toContain('70 %');
    expect(shown.text()).toContain('likeliest first: female, male');
  });

  test('says what a name contradicts that stands above one that fits, and who is not met in the month', async () => {
    const against = [{ character: 'margin', label: 'Leaf margin', bits: -3, known: true, contradicts: true }];
    const shown = await mount(EvidenceLadder, {
      standings: [
        standing('Alpha', 0.004, [], { mismatches: 1, why: against }),
        standing('Beta', 0.003, [1], { outOfSeason: true }),
        standing('Gamma', 0.002, [1]),
        standing('Delta', 0.002, [], { mismatches: 1, why: against }),
      ],
      selected: [],
      strikeOut: false,
      month: 6,
    });
    const lines = shown.all('li').map((l) => l.textContent ?? '');
    expect(lines[0]).toContain('contradicts: leaf margin');
    expect(lines[1]).toContain('not found in June');
    expect(lines[1]).not.toContain('contradicts');
    expect(lines[3]).not.toContain('contradicts');
  });
});

describe('danger', () => {
  const outside = [
    { name: 'Far bane', why: 'Shores only.', hazard: 'LIFE_THREATENING' },
    { name: 'Far friend', why: 'Ponds.', hazard: 'NONE_KNOWN' },
  ] as Schemas['OutsideTaxon'][];
  const margin = (row: string, ruledOut: boolean, safeQuestions: string[]) =>
    ({
      name: name(row, 'LIFE_THREATENING', 'shoot'),
      ruledOut,
      agreeing: 1,
      features: safeQuestions.length ? 2 : 0,
      safeQuestions,
      looks: safeQuestions.flatMap((q) => [q, q]),
      later: [],
      laterMonths: [],
    }) as Schemas['MarginView'];

  test('that is not ruled out is named with the safe way to do so', async () => {
    const note = await mount(DangerNote, { margins: [margin('Near bane', false, ['margin'])], outside, labels }, [
      'ask',
    ]);
    expect(note.text()).toMatch(
      /Near bane, shoot\s*life-threatening\s*1 of about 3 agreeing looks. Look at: leaf margin/,
    );
    note.byText('button', 'leaf margin').click();
    expect(note.heard).toEqual([['ask', 'leaf margin']]);
  });

  test('without a safe way defers to a qualified person', async () => {
    const note = await mount(DangerNote, { margins: [margin('Near bane', false, [])], outside: [], labels });
    expect(note.text()).toContain('This key cannot rule it out');
  });

  test('outside the key is never ruled out by it', async () => {
    const note = await mount(DangerNote, { margins: [margin('Near bane', true, [])], outside, labels });
    expect(note.text()).toContain('Far bane life-threatening Not in this key, so never ruled out by it.');
    expect(note.text()).not.toContain('Far friend');
    expect(note.text()).toContain('Ruled out by independent observations: Near bane, shoot.');
  });
});

describe('the verdict', () => {
  const result = (conclusion: string, remaining: string[]) =>
    ({
      conclusion,
      remaining,
      standings: remaining.map((row) => standing(row, 1, [])),
      margins: [],
      outside: 0,
      questions: [],
      notCompared: [],
      mustShow: [],
    }) as unknown as Schemas['IdentifyResponse'];
  const outside = [{ name: 'Far one', why: '', hazard: 'NOT_ASSESSED' }] as Schemas['OutsideTaxon'][];

  test('is never a permission', async () => {
    for (const conclusion of ['OPEN', 'SETTLED', 'REMAINING', 'OUTSIDE', 'NONE_LEFT']) {
      const note = await mount(VerdictNote, {
        result: result(conclusion, ['Alpha']),
        answers: 3,
        outside,
        characters: labels,
      });
      expect(note.text()).toContain('not permission to eat, touch, keep or handle anything');
    }
  });

  test('of one name that is not settled it does not say that questions separate it, and danger is marked', async () => {
    const alone = result('REMAINING', ['Bane']);
    alone.standings = [{ ...standing('Bane', 1, []), name: name('Bane', 'SERIOUS', 'seedling') }];
    const note = await mount(VerdictNote, { result: alone, answers: 3, outside: [], characters: labels });
    expect(note.text()).toContain('Fits best, but is not settled');
    expect(note.text()).toContain('serious hazard');
    const two = await mount(VerdictNote, {
      result: result('REMAINING', ['A', 'B']),
      answers: 3,
      outside: [],
      characters: labels,
    });
    expect(two.text()).toContain('no question here would do much to separate them');
  });

  test('tells the taxon from its form, and what must be looked at first', async () => {
    const settled = result('SETTLED', ['a-male', 'a-female']);
    settled.standings = ['male', 'female'].map((stage) => ({
      ...standing(`a-${stage}`, 0.5, []),
      name: { ...name('Alpha', 'NONE_KNOWN', stage), row: `a-${stage}` },
      taxon: name('Alpha'),
      namePosterior: 0.99,
    }));
    const note = await mount(VerdictNote, { result: settled, answers: 3, outside: [], characters: labels });
    expect(note.text()).toContain('The taxon is settled; which of its forms it is remains open: male, female.');
    expect(note.all('strong')).toHaveLength(1);
    const open = { ...result('OPEN', ['Alpha']), mustShow: ['margin'] };
    const unseen = await mount(VerdictNote, { result: open, answers: 3, outside: [], characters: labels });
    expect(unseen.text()).toContain('Still to look at, because it must be there: leaf margin.');
  });

  test('names a few and counts the rest', async () => {
    const note = await mount(VerdictNote, {
      result: result('OPEN', ['A', 'B', 'C', 'D', 'E', 'F']),
      answers: 1,
      outside: [],
      characters: labels,
    });
    expect(note.text()).toContain('A, B, C, D and 2 more');
  });

  test('points outside when something outside is likelier', async () => {
    const note = await mount(VerdictNote, {
      result: result('OUTSIDE', ['Alpha']),
      answers: 4,
      outside,
      characters: labels,
    });
    expect(note.text()).toContain('Perhaps something outside this key');
    expect(note.text()).toContain('Far one hazard not assessed');
  });
});

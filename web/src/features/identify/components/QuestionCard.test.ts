import { describe, expect, test, vi } from 'vitest';
import { mount } from '@/testing/mount';
import { fakeServer } from '@/testing/server';
import { character, state } from '@/testing/study';
import type { Given } from '../logic/answers';
import QuestionCard from './QuestionCard.vue';

const server = fakeServer();
const EVENTS = ['toggle', 'measure', 'rough', 'certainty', 'pass', 'withdraw'];
const margin = character('margin', {
  label: 'leaf margin',
  question: 'How is the edge?',
  plainQuestion: 'What is the rim like?',
  note: 'Middle of the leaf.',
  states: [state('toothed', { plain: 'with teeth', definition: 'Points all along' }), state('entire')],
});
const width = { ...margin, id: 'width', label: 'leaf width', type: 'LENGTH', unit: 'mm', states: [] };
const given: Given = { character: 'margin', states: ['toothed'], value: null, certainty: 'SURE', passed: null };

describe('an open question', () => {
  test('offers its states, in plain words on request, and ways to pass', async () => {
    const technical = await mount(QuestionCard, { character: margin, given: undefined, plain: false }, EVENTS);
    expect(technical.text()).toContain('How is the edge?');
    technical.byText('button', 'toothed').click();
    technical.byText('button', 'Not sure').click();
    technical.byText('button', 'Can’t see it').click();
    expect(technical.heard).toEqual([
      ['toggle', 'toothed'],
      ['pass', 'not-sure'],
      ['pass', 'cannot-see'],
    ]);
    const plain = await mount(QuestionCard, { character: margin, given: undefined, plain: true }, EVENTS);
    expect(plain.text()).toContain('What is the rim like?');
    expect(plain.byText('button', 'with teeth').getAttribute('title')).toBe('Points all along');
  });

  test('reads a number or range as it is typed, and says why it cannot', async () => {
    const card = await mount(QuestionCard, { character: width, given: undefined, plain: false }, EVENTS);
    const input = card.all('input')[0] as HTMLInputElement;
    const type = (typed: string) => {
      input.value = typed;
      input.dispatchEvent(new Event('input'));
      card.all('form')[0]?.dispatchEvent(new Event('submit', { cancelable: true }));
    };
    server.on('GET /api/v1/typed-answers?typed=broad&type=LENGTH&unit=mm', {
      spread: 0,
      reason: "'broad' is no range.",
    });
    type('broad');
    await vi.waitFor(() => expect(card.text()).toContain("'broad' is no range."));
    expect(input.value).toBe('broad');
    type('');
    server.on('GET /api/v1/typed-answers?typed=35-40&type=LENGTH&unit=mm', { value: 37.5, spread: 2.5, reason: '' });
    type('35-40');
    await vi.waitFor(() => expect(card.heard).toEqual([['measure', 37.5, 2.5]]));
    expect(card.text()).not.toContain('is no range');

    const [times, rule] = card.all('select') as HTMLSelectElement[];
    if (!times || !rule) throw new Error('No ruler, no rules');
    times.value = '2.5';
    times.dispatchEvent(new Event('change'));
    rule.value = 'PENCIL';
    rule.dispatchEvent(new Event('change'));
    card.all('form')[1]?.dispatchEvent(new Event('submit', { cancelable: true }));
    expect(card.heard[1]).toEqual(['rough', 2.5, 'PENCIL']);
  });
});

describe('an answered question', () => {
  test('shows what was said, and can be changed or withdrawn', async () => {
    const card = await mount(QuestionCard, { character: margin, given, plain: false }, EVENTS);
    expect(card.byText('button', 'toothed').getAttribute('aria-pressed')).toBe('true');
    expect(card.byText('button', 'entire').getAttribute('aria-pressed')).toBe('false');
    card.all('input[type=radio]')[1]?.dispatchEvent(new Event('change'));
    card.byText('button', 'Withdraw').click();
    expect(card.heard).toEqual([['certainty', 'LIKELY'], ['withdraw']]);
  });

  test('that was passed says that this is not evidence', async () => {
    const card = await mount(
      QuestionCard,
      { character: margin, given: { ...given, passed: 'cannot-see' }, plain: false },
      EVENTS,
    );
    expect(card.text()).toContain('no evidence either way');
    card.byText('button', 'Ask again').click();
    expect(card.heard).toEqual([['withdraw']]);
  });
});

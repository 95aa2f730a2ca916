import { expect, test } from 'vitest';
import { character, row } from '@/testing/study';
import { kit } from './sheets';

test('a kit is what the characters and the dangers ask for, each once', () => {
  const list = kit(
    [character('a', { method: 'Lens' }), character('b', { method: 'lens' }), character('c', { method: '' })],
    [row('mild', { hazard: 'NONE_KNOWN' }), row('bane', { hazard: 'SERIOUS' })],
  );
  expect(list.methods).toEqual(['lens']);
  expect(list.dangerous.map((r) => r.id)).toEqual(['bane']);
});

import { expect, it } from 'vitest';
import { character, state } from '@/testing/study';
import { dependencies } from './dependencies';

const states = [state('present'), state('absent')];
const on = (controller: string, ...shown: string[]) => ({ appliesWhen: [{ character: controller, states: shown }] });

it('lays characters out behind those that they depend on', () => {
  const { nodes, edges } = dependencies([
    character('ring-place', { ...on('ring', 'present') }),
    character('ring', { states }),
    character('veil', { states }),
    character('ring-colour', { ...on('ring-place', 'high') }),
    character('ring-edge', { ...on('ring', 'present', 'absent') }),
  ]);
  expect(nodes.map((n) => [n.id, n.depth, n.place])).toEqual([
    ['ring-place', 1, 0],
    ['ring', 0, 0],
    ['ring-colour', 2, 0],
    ['ring-edge', 1, 1],
  ]);
  expect(edges.map((e) => `${e.from.id} ${e.states.join('|')} ${e.to.id}`)).toEqual([
    'ring present ring-place',
    'ring-place  ring-colour',
    'ring present|absent ring-edge',
  ]);
});

it('draws nothing of independent characters and does not hang on a circle', () => {
  expect(dependencies([character('a'), character('b')]).nodes).toEqual([]);
  const { nodes } = dependencies([character('a', { ...on('b', 'x') }), character('b', { ...on('a', 'x') })]);
  expect(nodes).toHaveLength(2);
});

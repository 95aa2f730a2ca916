import { expect, it } from 'vitest';
import { address, FILES, takesAll } from './files';

it('asks for each kind of file as the server knows it', () => {
  expect(address('my study', 'csv', false).file).toBe('/api/v1/studies/my%20study/export?format=csv');
  expect(address('s', 'xlsx-long', true)).toEqual({
    file: '/api/v1/studies/s/export?format=xlsx&layout=long&whole=true',
    losses: '/api/v1/studies/s/export/losses?format=xlsx&layout=long&whole=true',
  });
  expect(address('s', 'darwin-core', false).file).toBe('/api/v1/studies/s/export?format=darwin-core');
  expect(FILES.filter((kind) => !takesAll(kind))).toEqual(['darwin-core', 'json']);
});

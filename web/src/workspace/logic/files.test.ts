import { expect, it } from 'vitest';
import { addressOf } from '@/api/client';
import { FILES, takesAll, wished, type FileKind } from './files';

it('asks for each kind of file as the server knows it', () => {
  const file = (slug: string, kind: FileKind, whole: boolean) =>
    addressOf('/api/v1/studies/{slug}/export', wished(slug, kind, whole));
  expect(file('my study', 'csv', false)).toBe('/api/v1/studies/my%20study/export?format=csv');
  expect(file('s', 'xlsx-long', true)).toBe('/api/v1/studies/s/export?format=xlsx&layout=long&whole=true');
  expect(file('s', 'darwin-core', false)).toBe('/api/v1/studies/s/export?format=darwin-core');
  expect(FILES.filter((kind) => !takesAll(kind))).toEqual(['darwin-core', 'json']);
});

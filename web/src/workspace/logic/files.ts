/** Kinds of files that a study is saved as; tables also with one score a line. */
export const FILES = ['csv', 'tsv', 'xlsx', 'csv-long', 'xlsx-long', 'nexus', 'darwin-core', 'json'] as const;

export type FileKind = (typeof FILES)[number];

/** Whether a kind of file can take along what its format cannot say. A study file says all, a list of taxa is only that. */
export const takesAll = (kind: FileKind): boolean => kind !== 'json' && kind !== 'darwin-core';

/** What is asked of the server for a kind of file. */
export function wished(slug: string, kind: FileKind, whole: boolean) {
  const long = kind.endsWith('-long');
  return {
    slug,
    format: long ? kind.slice(0, -'-long'.length) : kind,
    layout: long ? 'long' : undefined,
    whole: whole || undefined,
  };
}

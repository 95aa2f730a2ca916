/** Kinds of files that a study is saved as; tables also with one score a line. */
export const FILES = ['csv', 'tsv', 'xlsx', 'csv-long', 'xlsx-long', 'nexus', 'darwin-core', 'json'] as const;

export type FileKind = (typeof FILES)[number];

/** Whether a kind of file can take along what its format cannot say. A study file says all, a list of taxa is only that. */
export const takesAll = (kind: FileKind): boolean => kind !== 'json' && kind !== 'darwin-core';

/** Where a file and the list of what it does not hold are to be had. */
export function address(slug: string, kind: FileKind, whole: boolean): { file: string; losses: string } {
  const long = kind.endsWith('-long');
  const format = long ? kind.slice(0, -'-long'.length) : kind;
  const wish = `format=${format}${long ? '&layout=long' : ''}${whole ? '&whole=true' : ''}`;
  const path = `/api/v1/studies/${encodeURIComponent(slug)}/export`;
  return { file: `${path}?${wish}`, losses: `${path}/losses?${wish}` };
}

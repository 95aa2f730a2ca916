import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const SRC = import.meta.dirname;

function files(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory()
      ? files(path)
      : /\.(ts|vue)$/.test(name) && !name.includes('.test.')
        ? [path]
        : [];
  });
}

/** The unit that a path below src belongs to: a feature, or one of the other folders. */
function unitOf(path: string): string {
  const parts = path.split('/');
  return parts[0] === 'features' ? `features/${parts[1]}` : (parts[0] ?? '');
}

function edges(): Map<string, Set<string>> {
  const graph = new Map<string, Set<string>>();
  for (const path of files(SRC)) {
    const from = unitOf(path.slice(SRC.length + 1));
    const uses = graph.get(from) ?? new Set<string>();
    graph.set(from, uses);
    // What is loaded by routes only, when somebody goes there, ties nothing together.
    for (const [, to] of readFileSync(path, 'utf8').matchAll(/from '@\/([^']+)'/g)) {
      if (to && unitOf(to) !== from) uses.add(unitOf(to));
    }
  }
  return graph;
}

function circle(graph: Map<string, Set<string>>): string[] {
  const done = new Set<string>();
  const walk = (unit: string, way: string[]): string[] => {
    if (way.includes(unit)) return [...way.slice(way.indexOf(unit)), unit];
    if (done.has(unit)) return [];
    for (const next of graph.get(unit) ?? []) {
      const found = walk(next, [...way, unit]);
      if (found.length) return found;
    }
    done.add(unit);
    return [];
  };
  for (const unit of graph.keys()) {
    const found = walk(unit, []);
    if (found.length) return found;
  }
  return [];
}

describe('the units of the front end', () => {
  it('never depend on one another in a circle', () => {
    const graph = edges();
    expect(graph.size).toBeGreaterThan(20);
    expect(circle(graph)).toEqual([]);
  });

  it('would be told if they did', () => {
    expect(
      circle(
        new Map([
          ['a', new Set(['b'])],
          ['b', new Set(['a'])],
        ]),
      ),
    ).toEqual(['a', 'b', 'a']);
  });
});

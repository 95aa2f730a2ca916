import type { Schemas } from '@/api/client';

type Character = Pick<Schemas['StudyCharacter'], 'id' | 'label' | 'states' | 'appliesWhen'>;

export interface Node {
  id: string;
  label: string;
  /** How many characters have to be answered before this one, at the longest. */
  depth: number;
  /** Place among the nodes of the same depth. */
  place: number;
}

export interface Edge {
  from: Node;
  to: Node;
  /** The states of the first with which the second applies. */
  states: string[];
}

/** Which characters depend on which, in layers; characters that neither depend nor are depended on are left out. */
export function dependencies(characters: readonly Character[]): { nodes: Node[]; edges: Edge[] } {
  const byId = new Map(characters.map((c) => [c.id, c]));
  const depths = new Map<string, number>();
  const depth = (id: string, above: readonly string[]): number => {
    const known = depths.get(id);
    // A circle is refused when it is saved; a drawing must not hang on one all the same.
    if (known !== undefined || above.includes(id)) return known ?? 0;
    const controllers = byId.get(id)?.appliesWhen.filter((a) => byId.has(a.character)) ?? [];
    const own = Math.max(-1, ...controllers.map((a) => depth(a.character, [...above, id]))) + 1;
    depths.set(id, own);
    return own;
  };
  const involved = characters.filter(
    (c) => c.appliesWhen.length > 0 || characters.some((d) => d.appliesWhen.some((a) => a.character === c.id)),
  );
  const taken = new Map<number, number>();
  const nodes = involved.map((c) => {
    const at = depth(c.id, []);
    const place = taken.get(at) ?? 0;
    taken.set(at, place + 1);
    return { id: c.id, label: c.label, depth: at, place };
  });
  const nodeOf = new Map(nodes.map((n) => [n.id, n]));
  const edges = involved.flatMap((c) =>
    c.appliesWhen.flatMap((condition) => {
      const from = nodeOf.get(condition.character);
      const to = nodeOf.get(c.id);
      const states = byId.get(condition.character)?.states.filter((s) => condition.states.includes(s.id)) ?? [];
      return from && to ? [{ from, to, states: states.map((s) => s.label) }] : [];
    }),
  );
  return { nodes, edges };
}

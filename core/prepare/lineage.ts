/** Who stands on whom: for each node, the nodes that it stands on. */
export type StandsOn = ReadonlyMap<string, readonly string[]>;

function reach(from: string, steps: (id: string) => readonly string[]): Set<string> {
  const seen = new Set<string>();
  const waiting = [...steps(from)];
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    if (seen.has(id)) continue;
    seen.add(id);
    waiting.push(...steps(id));
  }
  return seen;
}

/** All that a node stands on, however far down. Holds the node itself where the lineage is circular. */
export const ancestorsOf = (id: string, standsOn: StandsOn): Set<string> =>
  reach(id, (n) => standsOn.get(n) ?? []);

/** All that stands on a node, however far up. */
export function dependentsOf(id: string, standsOn: StandsOn): Set<string> {
  const carries = new Map<string, string[]>();
  for (const [node, grounds] of standsOn) {
    for (const ground of grounds) carries.set(ground, [...(carries.get(ground) ?? []), node]);
  }
  return reach(id, (n) => carries.get(n) ?? []);
}

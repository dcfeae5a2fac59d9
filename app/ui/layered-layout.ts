import * as dagre from "@dagrejs/dagre";

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Layout {
  readonly width: number;
  readonly height: number;
  /** Middle of each node. */
  readonly places: ReadonlyMap<string, Point>;
  readonly edges: readonly { readonly from: string; readonly to: string }[];
}

/** Places nodes of one size in layers from left to right, so that each stands right of what it stands on. */
export function layOut(
  ids: readonly string[],
  standsOn: ReadonlyMap<string, readonly string[]>,
  size: { readonly width: number; readonly height: number },
): Layout {
  const graph = new dagre.graphlib.Graph<
    { rankdir: string; nodesep: number; ranksep: number; marginx: number; marginy: number },
    { width: number; height: number },
    object
  >();
  graph.setGraph({ rankdir: "LR", nodesep: 18, ranksep: 46, marginx: 12, marginy: 12 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const id of ids) graph.setNode(id, { ...size });
  for (const [id, grounds] of standsOn) {
    for (const ground of grounds) if (graph.hasNode(id) && graph.hasNode(ground)) graph.setEdge(ground, id);
  }
  dagre.layout(graph as never);
  const whole = graph.graph() as { width?: number; height?: number };
  return {
    width: whole.width ?? 0,
    height: whole.height ?? 0,
    places: new Map(ids.map((id) => [id, graph.node(id) as unknown as Point])),
    edges: graph.edges().map((edge) => ({ from: edge.v, to: edge.w })),
  };
}

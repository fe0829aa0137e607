/**
 * In: a planar map. Out: its seam lines: edges that go on into one another where they meet, as a ruler or a smooth curve lies through
 * them, from where each begins to where it ends.
 */
import { dot, type Point } from '../plane/index.ts';
import { directionOn } from '../plane/segment.ts';
import type { MapEdge, PlanarMap } from '../shape/index.ts';

/** Edges that turn by less than this where they meet are one line, degrees. */
export const goesOnWithinDegrees = 2.5;

/** The direction in which an edge leaves one of its ends. */
export function leaving({ from, to, segment }: MapEdge, node: number, nodes: readonly Point[]): Point {
  if (node === from) return directionOn(nodes[from] as Point, segment, 0);
  const d = directionOn(nodes[from] as Point, segment, 1);
  return node === to ? { x: -d.x, y: -d.y } : d;
}

/** Edges of a line in order, and the nodes that it passes: one more than edges; the first again where it closes. */
export interface SeamLine {
  readonly edges: readonly number[];
  readonly nodes: readonly number[];
}

export const otherEnd = ({ from, to }: MapEdge, node: number): number => (node === from ? to : from);

/** At each node the edges that end there. */
export function edgesAt({ nodes, edges }: Pick<PlanarMap, 'nodes' | 'edges'>): number[][] {
  const at = nodes.map((): number[] => []);
  edges.forEach(({ from, to }, k) => {
    at[from]?.push(k);
    if (to !== from) at[to]?.push(k);
  });
  return at;
}

export function seamLines(map: Pick<PlanarMap, 'nodes' | 'edges'>): SeamLine[] {
  const { nodes, edges } = map;
  const at = edgesAt(map);
  const least = Math.cos((goesOnWithinDegrees * Math.PI) / 180);
  /** The edge that goes on from another past a node: each the straightest choice of the other. */
  const goesOn = (edge: number, node: number): number | null => {
    const straightest = (k: number): number | null => {
      const d = leaving(edges[k] as MapEdge, node, nodes);
      let [best, value] = [null as number | null, least];
      for (const l of at[node] ?? []) {
        if (l === k) continue;
        const e = leaving(edges[l] as MapEdge, node, nodes);
        const along = -dot(d, e);
        if (along > value) [best, value] = [l, along];
      }
      return best;
    };
    const next = straightest(edge);
    return next !== null && straightest(next) === edge ? next : null;
  };
  const taken = new Set<number>();
  return edges.flatMap((edge, first): SeamLine[] => {
    if (taken.has(first)) return [];
    taken.add(first);
    const walk = (from: number): { edges: number[]; nodes: number[] } => {
      const walked: { edges: number[]; nodes: number[] } = { edges: [], nodes: [] };
      for (let [k, node] = [first, from]; ; ) {
        const next = goesOn(k, node);
        if (next === null || taken.has(next)) return walked;
        taken.add(next);
        node = otherEnd(edges[next] as MapEdge, node);
        walked.edges.push(next);
        walked.nodes.push(node);
        k = next;
      }
    };
    const [on, back] = [walk(edge.to), walk(edge.from)];
    return [{ edges: [...back.edges.reverse(), first, ...on.edges], nodes: [...back.nodes.reverse(), edge.from, edge.to, ...on.nodes] }];
  });
}

/**
 * In: a graph of lines. Out: the shortest walk along all of them, each at least once: some are walked twice.
 * Rests on: the route inspection method of Edmonds & Johnson (1973): nodes where an odd number of lines end are paired so that the ways
 * between the pairs are shortest in all; those ways are walked twice, and what comes of it is walked in one go. The pairs are a perfect
 * matching of least weight (Edmonds' blossom algorithm, as in Galil 1986). Where start and end are free, the dearest pair is left out:
 * two nodes more, that are near to all, stand for them.
 */
/// <reference path="./edmonds-blossom-fixed.d.ts" />
import blossom from 'edmonds-blossom-fixed';
import FlatQueue from 'flatqueue';

export interface GraphEdge {
  readonly from: number;
  readonly to: number;
  readonly length: number;
}

/** What is walked along beside the lines themselves: the edges that are walked once more. */
export interface Inspection {
  /** Edges by their number, one more time each. */
  readonly again: readonly number[];
  /** Where the walk starts and ends; the same where it comes back. */
  readonly start: number;
  readonly end: number;
}

/** Whole units that lengths are weighed in, of the longest way: the matching adds and subtracts without loss. */
const weightSteps = 1 << 22;
/** Where more nodes than this are odd, each is paired with one of so many near ones only. */
const mostForAllPairs = 160;
const nearestTried = 24;

/**
 * @param edges of one part that hangs together
 * @param comesBack whether the walk ends where it starts; else both are free
 */
export function routeInspection(edges: readonly GraphEdge[], comesBack: boolean): Inspection {
  const count = edges.reduce((max, { from, to }) => Math.max(max, from, to), -1) + 1;
  const around = neighboursOf(edges, count);
  const degree = new Int32Array(count);
  for (const { from, to } of edges) {
    degree[from] = (degree[from] as number) + 1;
    degree[to] = (degree[to] as number) + 1;
  }
  const odd = Array.from({ length: count }, (_, k) => k).filter((k) => (degree[k] as number) % 2 === 1);
  const isFree = !comesBack && odd.length > 0;
  const from = new Map(odd.map((node) => [node, shortestFrom(node, around, edges)]));
  const pairs = matched(odd, (a, b) => from.get(a)?.length[b] as number, isFree);
  const again: number[] = [];
  const left = new Set(odd);
  for (const [a, b] of pairs) {
    left.delete(a);
    left.delete(b);
    again.push(...wayTo(b, from.get(a) as Shortest, edges));
  }
  const [start = edges[0]?.from ?? 0, end = start] = isFree ? left : [];
  return { again, start, end };
}

type Neighbours = readonly (readonly { readonly edge: number; readonly to: number }[])[];

function neighboursOf(edges: readonly GraphEdge[], count: number): Neighbours {
  const around = Array.from({ length: count }, (): { edge: number; to: number }[] => []);
  edges.forEach(({ from, to }, edge) => {
    around[from]?.push({ edge, to });
    if (to !== from) around[to]?.push({ edge, to: from });
  });
  return around;
}

interface Shortest {
  readonly length: Float64Array;
  /** The edge by which each node is reached; -1 where it is not, or is the start. */
  readonly by: Int32Array;
}

/** Dijkstra's shortest ways from a node. */
function shortestFrom(start: number, around: Neighbours, edges: readonly GraphEdge[]): Shortest {
  const length = new Float64Array(around.length).fill(Infinity);
  const by = new Int32Array(around.length).fill(-1);
  length[start] = 0;
  const queue = new FlatQueue<number>();
  queue.push(start, 0);
  while (queue.length > 0) {
    const at = queue.peekValue() as number;
    const node = queue.pop() as number;
    if (at > (length[node] as number)) continue;
    for (const { edge, to } of around[node] ?? []) {
      const there = at + (edges[edge]?.length as number);
      if (there >= (length[to] as number)) continue;
      length[to] = there;
      by[to] = edge;
      queue.push(to, there);
    }
  }
  return { length, by };
}

function wayTo(node: number, { by }: Shortest, edges: readonly GraphEdge[]): number[] {
  const way: number[] = [];
  for (let at = node; by[at] !== -1; ) {
    const edge = by[at] as number;
    way.push(edge);
    at = edges[edge]?.from === at ? (edges[edge]?.to as number) : (edges[edge]?.from as number);
  }
  return way;
}

/** The pairs of least length in all; where ends are free, one pair fewer. */
function matched(odd: readonly number[], lengthOf: (a: number, b: number) => number, isFree: boolean): [number, number][] {
  if (odd.length < 2) return [];
  const tried = odd.length <= mostForAllPairs ? odd.length : nearestTried;
  const lengths: [number, number, number][] = [];
  odd.forEach((a, i) => {
    const others = odd.map((b, j) => ({ j, length: lengthOf(a, b) })).filter(({ j }) => j !== i);
    if (tried < odd.length) others.sort((p, q) => p.length - q.length);
    for (const { j, length } of others.slice(0, tried))
      if (i < j || tried < odd.length) lengths.push([Math.min(i, j), Math.max(i, j), length]);
  });
  const longest = lengths.reduce((max, [, , length]) => Math.max(max, length), 0) || 1;
  // The method looks for the heaviest matching: the shorter a way, the heavier.
  const seen = new Set<string>();
  const weighted: [number, number, number][] = [];
  for (const [i, j, length] of lengths) {
    const key = `${i} ${j}`;
    if (seen.has(key)) continue;
    seen.add(key);
    weighted.push([i, j, 2 * (weightSteps - Math.round((length / longest) * weightSteps)) + 2]);
  }
  if (isFree) {
    const [start, end] = [odd.length, odd.length + 1];
    for (let i = 0; i < odd.length; i++) weighted.push([i, start, 2 * weightSteps + 2], [i, end, 2 * weightSteps + 2]);
  }
  const mates: number[] = blossom(weighted, true);
  return odd.flatMap((a, i): [number, number][] => {
    const j = mates[i] ?? -1;
    return j > i && j < odd.length ? [[a, odd[j] as number]] : [];
  });
}

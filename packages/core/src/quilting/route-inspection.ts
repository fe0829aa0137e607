/**
 * In: a graph of lines. Out: the shortest walk along all of them, each at least once: some are walked twice.
 * Rests on: the route inspection method of Edmonds & Johnson (1973): nodes where an odd number of lines end are paired so that the ways
 * between the pairs are shortest in all; those ways are walked twice, and what comes of it is walked in one go. The pairs are a perfect
 * matching of least weight (Edmonds' blossom algorithm, as in Galil 1986). An end of the walk that is given changes the parity of its node;
 * one that is free is a node more, near to all.
 * Lines that may be walked, and need not be, join parts that do not hang together: first by a least spanning tree of the parts (Frederickson
 * 1979), which is at most half as long again as the best there is; with one part the pairs are the best.
 */
/// <reference path="./edmonds-blossom-fixed.d.ts" />
import blossom from 'edmonds-blossom-fixed';
import FlatQueue from 'flatqueue';
import { DisjointSets } from '../numeric/disjoint-sets.ts';

export interface GraphEdge {
  readonly from: number;
  readonly to: number;
  /** Or what it costs, where it need not be walked. */
  readonly length: number;
  /** It may be walked, and need not be. */
  readonly isOptional?: boolean;
}

/** Where the walk has to start and end, as nodes; null where that is free. */
export interface WalkEnds {
  readonly start: number | null;
  readonly end: number | null;
  /** Whether it ends where it starts; that is then its start, if one is given. */
  readonly comesBack: boolean;
}

/** What is walked along beside the lines themselves: the edges that are walked once more, and those that need not be and are. */
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

/** @param edges of one part that hangs together, optional ones counted */
export function routeInspection(edges: readonly GraphEdge[], ends: WalkEnds): Inspection {
  const count = edges.reduce((max, { from, to }) => Math.max(max, from, to), -1) + 1;
  const around = neighboursOf(edges, count);
  const joining = joiningWays(edges, around);
  const degree = new Int32Array(count);
  for (const k of [...edges.keys()].filter((edge) => !edges[edge]?.isOptional).concat(joining)) {
    const { from, to } = edges[k] as GraphEdge;
    degree[from] = (degree[from] as number) + 1;
    degree[to] = (degree[to] as number) + 1;
  }
  const isOdd = Array.from(degree, (d) => d % 2 === 1);
  const given = ends.comesBack ? [] : [ends.start, ends.end].flatMap((node) => node ?? []);
  for (const node of given) isOdd[node] = !isOdd[node];
  const odd = [...isOdd.keys()].filter((k) => isOdd[k]);
  // With no odd node a walk with free ends comes back by itself.
  const free = ends.comesBack || odd.length === 0 ? 0 : 2 - given.length;
  const from = new Map(odd.map((node) => [node, shortestFrom([node], around, edges)]));
  const pairs = matched(odd, (a, b) => from.get(a)?.length[b] as number, free);
  const again = [...joining];
  const left = new Set(odd);
  for (const [a, b] of pairs) {
    left.delete(a);
    left.delete(b);
    again.push(...wayTo(b, from.get(a) as Shortest, edges));
  }
  const found = [...left];
  const start = ends.start ?? found.shift() ?? ends.end ?? edges.find(({ isOptional }) => !isOptional)?.from ?? 0;
  const end = ends.comesBack ? start : (ends.end ?? found.shift() ?? start);
  return { again, start, end };
}

/** Edges that join the parts of what has to be walked, as a least spanning tree of the ways between them (Kruskal 1956). */
function joiningWays(edges: readonly GraphEdge[], around: Neighbours): number[] {
  if (!edges.some(({ isOptional }) => isOptional)) return [];
  const parts = new DisjointSets(around.length);
  const walked = new Set<number>();
  for (const { from, to, isOptional } of edges) {
    if (isOptional) continue;
    parts.unite(from, to);
    walked.add(from).add(to);
  }
  // From all parts at once: where two reaches meet is the nearest way between those two (Mehlhorn 1988).
  const reach = shortestFrom([...walked], around, edges);
  const whose = (node: number): number => {
    let at = node;
    while (reach.by[at] !== -1) at = otherEnd(edges[reach.by[at] as number] as GraphEdge, at);
    return parts.root(at);
  };
  const bridges = edges.flatMap(({ from, to, length }, edge) => {
    const [a, b] = [whose(from), whose(to)];
    return a === b || !walked.has(a) || !walked.has(b) ? [] : [{ edge, a, b, length: length + (reach.length[from] as number) + (reach.length[to] as number) }]; // biome-ignore format: one line
  });
  const ways = new Set<number>();
  for (const { edge, a, b } of bridges.sort((p, q) => p.length - q.length)) {
    if (parts.root(a) === parts.root(b)) continue;
    parts.unite(a, b);
    const { from, to } = edges[edge] as GraphEdge;
    for (const k of [edge, ...wayTo(from, reach, edges), ...wayTo(to, reach, edges)]) ways.add(k);
  }
  return [...ways];
}

const otherEnd = ({ from, to }: GraphEdge, node: number): number => (node === from ? to : from);

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

/** Dijkstra's shortest ways from the nearest of some nodes. */
function shortestFrom(starts: readonly number[], around: Neighbours, edges: readonly GraphEdge[]): Shortest {
  const length = new Float64Array(around.length).fill(Infinity);
  const by = new Int32Array(around.length).fill(-1);
  const queue = new FlatQueue<number>();
  for (const start of starts) {
    length[start] = 0;
    queue.push(start, 0);
  }
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
    at = otherEnd(edges[edge] as GraphEdge, at);
  }
  return way;
}

/** The pairs of least length in all, so many left out. */
function matched(odd: readonly number[], lengthOf: (a: number, b: number) => number, free: number): [number, number][] {
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
  for (let k = 0; k < free; k++) for (let i = 0; i < odd.length; i++) weighted.push([i, odd.length + k, 2 * weightSteps + 2]);
  const mates: number[] = blossom(weighted, true);
  return odd.flatMap((a, i): [number, number][] => {
    const j = mates[i] ?? -1;
    return j > i && j < odd.length ? [[a, odd[j] as number]] : [];
  });
}

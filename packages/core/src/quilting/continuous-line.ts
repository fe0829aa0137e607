/**
 * In: drawn lines. Out: one continuous line along all of them, or as few as there are parts that do not hang together: it goes twice along
 * as little as can be, and straight on where lines cross.
 * Where lines meet, ends are paired by the least turn; the closed walks that this makes are joined into one by changing pairs where two
 * of them meet, the least turns first (Hierholzer's joining of circuits, by transitions).
 */
import { DisjointSets } from '../numeric/disjoint-sets.ts';
import { directionOn, dot, type Path, type Point, type Segment } from '../plane/index.ts';
import { distance } from '../plane/point.ts';
import { reversedSegment, segmentLength } from '../plane/segment.ts';
import { type LineGraph, lineGraph } from '../shape/index.ts';
import { routeInspection } from './route-inspection.ts';

export interface LineRun {
  readonly path: Path;
  /** Of each segment whether it is walked a second time. */
  readonly isAgain: readonly boolean[];
}

export interface ContinuousLine {
  readonly runs: readonly LineRun[];
  readonly lengthMm: number;
  /** What of it is walked again. */
  readonly againMm: number;
  /** From the end of each run to the start of the next. */
  readonly jumpsMm: readonly number[];
}

/** Ends nearer than this meet, mm. */
const joinMm = 0.3;

export interface LineWishes {
  /** Whether stretches may be sewn twice, so that each part is one run; else the needle is lifted instead. */
  readonly isSewnTwice: boolean;
  /** Whether each part ends where it starts. */
  readonly comesBack: boolean;
}

/**
 * @param paths open and closed, mm
 * @param join ends nearer than this meet, mm
 */
export function continuousLine(paths: readonly Path[], wishes: LineWishes, join = joinMm): ContinuousLine {
  const graph = lineGraph(paths, join);
  const runs = inTurn(partsOf(graph).flatMap((edges) => walksAlong(graph, edges, wishes)));
  const length = (run: LineRun, again: boolean): number => {
    let [at, sum] = [run.path.start, 0];
    run.path.segments.forEach((segment, k) => {
      if (!again || run.isAgain[k]) sum += segmentLength(at, segment);
      at = segment.to;
    });
    return sum;
  };
  return {
    runs,
    lengthMm: runs.reduce((sum, run) => sum + length(run, false), 0),
    againMm: runs.reduce((sum, run) => sum + length(run, true), 0),
    jumpsMm: runs.slice(1).map((run, k) => distance(endOf(runs[k] as LineRun), run.path.start)),
  };
}

const endOf = ({ path }: LineRun): Point => path.segments.at(-1)?.to ?? path.start;

/** Edges by their number, those that hang together together. */
function partsOf({ nodes, edges }: LineGraph): number[][] {
  const sets = new DisjointSets(nodes.length);
  for (const { from, to } of edges) sets.unite(to, from);
  const parts = new Map<number, number[]>();
  edges.forEach(({ from }, k) => {
    const part = parts.get(sets.root(from));
    if (part) part.push(k);
    else parts.set(sets.root(from), [k]);
  });
  return [...parts.values()];
}

/** An edge on the walk, and whether it is walked once more than drawn. Its two ends are 2 k, where it starts, and 2 k + 1. */
interface Stretch {
  readonly edge: number;
  readonly isAgain: boolean;
}

function walksAlong(graph: LineGraph, own: readonly number[], { isSewnTwice, comesBack }: LineWishes): LineRun[] {
  if (!isSewnTwice)
    return tracedRuns(
      graph,
      own.map((edge) => ({ edge, isAgain: false })),
      null,
    );
  const numbers = new Map<number, number>();
  const numberOf = (node: number): number => {
    const known = numbers.get(node);
    if (known !== undefined) return known;
    numbers.set(node, numbers.size);
    return numbers.size - 1;
  };
  const nodes: number[] = [];
  const lines = own.map((k) => {
    const { from, to, segment } = graph.edges[k] as LineGraph['edges'][0];
    const ends = { from: numberOf(from), to: numberOf(to) };
    nodes[ends.from] = from;
    nodes[ends.to] = to;
    return { ...ends, length: segmentLength(graph.nodes[from] as Point, segment) };
  });
  const { again, start } = routeInspection(lines, comesBack);
  const stretches: Stretch[] = [
    ...own.map((edge) => ({ edge, isAgain: false })),
    ...again.map((k) => ({ edge: own[k] as number, isAgain: true })),
  ];
  return tracedRuns(graph, stretches, nodes[start] as number);
}

/** How far a walk turns from one end to another at their node: 0 straight on, 2 right back. */
const turnAt = (leaving: readonly Point[], a: number, b: number): number => 1 + dot(leaving[a] as Point, leaving[b] as Point);

/** @param start where the first run starts, if it has to start somewhere */
function tracedRuns(graph: LineGraph, stretches: readonly Stretch[], start: number | null): LineRun[] {
  const edgeOf = (end: number) => graph.edges[(stretches[end >> 1] as Stretch).edge] as LineGraph['edges'][0];
  const nodeOf = (end: number): number => (end % 2 === 0 ? edgeOf(end).from : edgeOf(end).to);
  const leaving = Array.from({ length: 2 * stretches.length }, (_, end): Point => {
    const { from, segment } = edgeOf(end);
    const d = directionOn(graph.nodes[from] as Point, segment, end % 2 === 0 ? 0 : 1);
    return end % 2 === 0 ? d : { x: -d.x, y: -d.y };
  });
  const fans = new Map<number, number[]>();
  for (let end = 0; end < leaving.length; end++) {
    const fan = fans.get(nodeOf(end));
    if (fan) fan.push(end);
    else fans.set(nodeOf(end), [end]);
  }
  const mate = new Int32Array(leaving.length).fill(-1);
  for (const fan of fans.values()) pairStraight(fan, leaving, mate);
  joinWalks(fans, leaving, mate);
  const seen = new Set<number>();
  const fan = start === null ? [] : (fans.get(start) ?? []);
  const first = fan.find((end) => mate[end] === -1) ?? fan[0];
  const free = [...mate.keys()].filter((end) => mate[end] === -1);
  // From where it is wanted first, then from every end, and round what is left.
  return [...(first === undefined ? [] : [first]), ...free, ...mate.keys()].flatMap((end) => (seen.has(end >> 1) ? [] : [runFrom(end, graph, stretches, mate, seen)])); // biome-ignore format: one line
}

/** Ends at a node in pairs, those that turn least first; where they are odd one is left. */
function pairStraight(fan: readonly number[], leaving: readonly Point[], mate: Int32Array): void {
  const pairs = fan.flatMap((a, k) => fan.slice(k + 1).map((b) => ({ a, b, turn: turnAt(leaving, a, b) })));
  for (const { a, b } of pairs.sort((p, q) => p.turn - q.turn)) if (mate[a] === -1 && mate[b] === -1) [mate[a], mate[b]] = [b, a];
}

/** Walks that meet at a node are made one by changing two pairs there, until there is one walk. */
function joinWalks(fans: ReadonlyMap<number, readonly number[]>, leaving: readonly Point[], mate: Int32Array): void {
  const { walk, walks } = walksOf(mate);
  const joined = new DisjointSets(walks);
  const rootOf = (end: number): number => joined.root(walk[end >> 1] as number);
  for (let left = walks; left > 1; left--) {
    const best = leastChange(fans, leaving, mate, rootOf);
    if (!best) return;
    const [a, c] = best;
    const [b, d] = [mate[a] as number, mate[c] as number];
    joined.unite(rootOf(a), rootOf(c));
    [mate[a], mate[c]] = [c, a];
    // Where one was the end of an open walk, the other's mate is that now.
    if (b >= 0) mate[b] = d;
    if (d >= 0) mate[d] = b;
  }
}

/** Which walk each stretch is part of, and how many there are. */
function walksOf(mate: Int32Array): { walk: Int32Array; walks: number } {
  const walk = new Int32Array(mate.length >> 1).fill(-1);
  let walks = 0;
  const follow = (first: number): void => {
    for (let end = first; end !== -1 && walk[end >> 1] === -1; end = mate[end ^ 1] as number) walk[end >> 1] = walks;
    walks++;
  };
  // Open walks from their ends first, so that each is followed whole.
  mate.forEach((other, end) => {
    if (other === -1 && walk[end >> 1] === -1) follow(end);
  });
  mate.forEach((_, end) => {
    if (walk[end >> 1] === -1) follow(end);
  });
  return { walk, walks };
}

/** Two ends of different walks at one node that turn least into one another, for what their pairs turned before. */
function leastChange(
  fans: ReadonlyMap<number, readonly number[]>,
  leaving: readonly Point[],
  mate: Int32Array,
  rootOf: (end: number) => number,
): [number, number] | null {
  const turn = (a: number, b: number): number => (a < 0 || b < 0 ? 0 : turnAt(leaving, a, b));
  let [best, least]: [[number, number] | null, number] = [null, Infinity];
  for (const fan of fans.values()) {
    if (fan.length < 3) continue;
    for (const a of fan)
      for (const c of fan) {
        if (rootOf(a) === rootOf(c)) continue;
        const [b, d] = [mate[a] as number, mate[c] as number];
        const cost = turn(a, c) + turn(b, d) - turn(a, b) - turn(c, d);
        if (cost < least) [best, least] = [[a, c], cost];
      }
  }
  return best;
}

/** @param seen stretches that are walked, which these join */
function runFrom(first: number, graph: LineGraph, stretches: readonly Stretch[], mate: Int32Array, seen: Set<number>): LineRun {
  const segments: Segment[] = [];
  const isAgain: boolean[] = [];
  const walked = new Set<number>();
  const ends = (end: number) => graph.edges[(stretches[end >> 1] as Stretch).edge] as LineGraph['edges'][0];
  const { from, to } = ends(first);
  const start = graph.nodes[first % 2 === 0 ? from : to] as Point;
  for (let end = first; end !== -1 && !seen.has(end >> 1); end = mate[end ^ 1] as number) {
    seen.add(end >> 1);
    const { edge } = stretches[end >> 1] as Stretch;
    const { from: node, segment } = ends(end);
    segments.push(end % 2 === 0 ? segment : reversedSegment(graph.nodes[node] as Point, segment));
    // Whichever of the two comes second is the one that goes over the other.
    isAgain.push(walked.has(edge));
    walked.add(edge);
  }
  return { path: { start, segments, closed: false }, isAgain };
}

/** Runs one after another, each the nearest to where the last one ended; either end of it may come first. */
function inTurn(runs: readonly LineRun[]): LineRun[] {
  const left = new Set(runs);
  const made: LineRun[] = [];
  let at: Point | null = null;
  while (left.size > 0) {
    let best: { run: LineRun; from: LineRun; away: number } | null = null;
    for (const run of left)
      for (const way of [run, backwards(run)]) {
        const away: number = at ? distance(at, way.path.start) : way.path.start.x + way.path.start.y;
        if (!best || away < best.away) best = { run, from: way, away };
      }
    const { run, from } = best as NonNullable<typeof best>;
    left.delete(run);
    made.push(from);
    at = endOf(from);
  }
  return made;
}

function backwards({ path, isAgain }: LineRun): LineRun {
  const starts = [path.start, ...path.segments.map(({ to }) => to)];
  const segments = path.segments.map((segment, k) => reversedSegment(starts[k] as Point, segment)).reverse();
  return { path: { start: starts.at(-1) as Point, segments, closed: false }, isAgain: [...isAgain].reverse() };
}

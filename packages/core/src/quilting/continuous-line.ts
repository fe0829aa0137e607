/**
 * In: drawn lines, and seams that may be travelled along. Out: one continuous line along all of the drawn ones, or as few as there are
 * parts that do not hang together: it goes twice along as little as can be, and straight on where lines cross.
 * Where lines meet, ends are paired by the least turn; the closed walks that this makes are joined into one by changing pairs where two
 * of them meet, the least turns first (Hierholzer's joining of circuits, by transitions).
 */
import { DisjointSets } from '../numeric/disjoint-sets.ts';
import {
  directionOn,
  distance,
  dot,
  nearestOnSegment,
  type Path,
  type Point,
  reversedPath,
  type Segment,
  segmentLength,
  stepsOf,
} from '../plane/index.ts';
import { reversedSegment } from '../plane/segment.ts';
import { type CutPlace, type LineGraph, lineGraph, samePlaceMm, splitAtPlaces } from '../shape/index.ts';
import { routeInspection } from './route-inspection.ts';

/** How a stretch comes into the line: drawn, drawn and sewn before, or along a seam on the way to the next. */
export type StretchKind = 'drawn' | 'again' | 'seam';

export interface LineRun {
  readonly path: Path;
  /** Of each segment. */
  readonly kinds: readonly StretchKind[];
}

export interface ContinuousLine {
  readonly runs: readonly LineRun[];
  readonly lengthMm: number;
  /** What of it is walked again. */
  readonly againMm: number;
  /** What of it runs along seams. */
  readonly alongSeamsMm: number;
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
  /** Where the line starts and ends: on a drawn line, as near to there as one comes. Null where that is free. */
  readonly startAt: Point | null;
  readonly endAt: Point | null;
}

/** Seams that may be travelled along, and what that costs for the length: 1 as much as sewing a line twice. */
export interface Travel {
  readonly seams: readonly Path[];
  readonly cost: number;
}

/**
 * @param paths open and closed, mm
 * @param join ends nearer than this meet, mm
 */
export function continuousLine(paths: readonly Path[], wishes: LineWishes, travel: Travel | null = null, join = joinMm): ContinuousLine {
  const seams = wishes.isSewnTwice ? travel : null;
  const wanted = {
    start: wishes.startAt && nearestOnPaths(paths, wishes.startAt),
    end: wishes.endAt && nearestOnPaths(paths, wishes.endAt),
  };
  const cut = withNodesAt(
    paths,
    Object.values(wanted).flatMap((place) => place ?? []),
  );
  const graph = lineGraph([...cut, ...(seams?.seams ?? [])], join);
  const network: Network = { graph, drawn: cut.length, cost: seams?.cost ?? 1 };
  const at = { start: wanted.start && nodeNear(graph, wanted.start.at), end: wanted.end && nodeNear(graph, wanted.end.at) };
  const parts = partsOf(graph).filter((edges) => edges.some((k) => isDrawn(network, k)));
  const runs = inTurn(parts.flatMap((edges) => walksAlong(network, edges, wishes, at)), at.start === null ? null : (graph.nodes[at.start] as Point), at.end === null ? null : (graph.nodes[at.end] as Point)); // biome-ignore format: one line
  const length = (kind: StretchKind | null): number =>
    runs.reduce((sum, { path, kinds }) => sum + stepsOf(path).reduce((all, { from, segment }, k) => (kind === null || kinds[k] === kind ? all + segmentLength(from, segment) : all), 0), 0); // biome-ignore format: one line
  return {
    runs,
    lengthMm: length(null),
    againMm: length('again'),
    alongSeamsMm: length('seam'),
    jumpsMm: jumpsBetween(runs),
  };
}

/** From the end of each run to the start of the next, mm. */
export const jumpsBetween = (runs: readonly LineRun[]): number[] =>
  runs.slice(1).map(({ path }, k) => distance(endOf(runs[k] as LineRun), path.start));

function nearestOnPaths(paths: readonly Path[], p: Point): CutPlace | null {
  const places = paths.flatMap((path, k) =>
    stepsOf(path).map(({ from, segment }, n) => ({ path: k, segment: n, ...nearestOnSegment(from, segment, p) })),
  );
  const [first] = places;
  if (!first) return null;
  const { path, segment, t, point } = places.reduce((a, b) => (b.distance < a.distance ? b : a), first);
  return { path, segment, t, at: point };
}

/** The paths cut at places on them, so that a node lies there. */
const withNodesAt = (paths: readonly Path[], places: readonly CutPlace[]): Path[] =>
  paths.flatMap((path, k) => {
    const own = places.filter((place) => place.path === k && place.t > 0 && place.t < 1);
    return own.length > 0 ? splitAtPlaces(path, own) : [path];
  });

function nodeNear({ nodes, edges }: LineGraph, p: Point): number | null {
  let [best, least]: [number | null, number] = [null, Infinity];
  for (const node of new Set(edges.flatMap(({ from, to }) => [from, to]))) {
    const away = distance(nodes[node] as Point, p);
    if (away < least) [best, least] = [node, away];
  }
  return best;
}

/** Lines and seams as one graph: edges of the first so many paths are drawn. */
interface Network {
  readonly graph: LineGraph;
  readonly drawn: number;
  readonly cost: number;
}

const isDrawn = ({ graph, drawn }: Network, edge: number): boolean => (graph.edges[edge] as LineGraph['edges'][0]).path < drawn;

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

type Ends = { readonly start: number | null; readonly end: number | null };

function walksAlong(network: Network, all: readonly number[], { isSewnTwice, comesBack }: LineWishes, ends: Ends): LineRun[] {
  const { graph, cost } = network;
  const drawn = all.filter((k) => isDrawn(network, k)).map((edge) => ({ edge, isAgain: false }));
  if (!isSewnTwice) return tracedRuns(network, drawn, ends.start);
  const numbers = new Map<number, number>();
  const nodes: number[] = [];
  const numberOf = (node: number): number => {
    const known = numbers.get(node);
    if (known !== undefined) return known;
    numbers.set(node, numbers.size);
    nodes.push(node);
    return numbers.size - 1;
  };
  const lines = all.map((k) => {
    const { from, to, segment } = graph.edges[k] as LineGraph['edges'][0];
    const length = segmentLength(graph.nodes[from] as Point, segment);
    const isOptional = !isDrawn(network, k);
    return { from: numberOf(from), to: numberOf(to), length: isOptional ? cost * length : length, isOptional };
  });
  const numbered = (node: number | null): number | null => (node === null ? null : (numbers.get(node) ?? null));
  const { again, start } = routeInspection(lines, { start: numbered(ends.start), end: numbered(ends.end), comesBack });
  return tracedRuns(network, [...drawn, ...again.map((k) => ({ edge: all[k] as number, isAgain: true }))], nodes[start] as number);
}

/** How far a walk turns from one end to another at their node: 0 straight on, 2 right back. */
const turnAt = (leaving: readonly Point[], a: number, b: number): number => 1 + dot(leaving[a] as Point, leaving[b] as Point);

/** @param start where the first run starts, if it has to start somewhere */
function tracedRuns(network: Network, stretches: readonly Stretch[], start: number | null): LineRun[] {
  const { graph } = network;
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
  return [...(first === undefined ? [] : [first]), ...free, ...mate.keys()].flatMap((end) => (seen.has(end >> 1) ? [] : [runFrom(end, network, stretches, mate, seen)])); // biome-ignore format: one line
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
function runFrom(first: number, network: Network, stretches: readonly Stretch[], mate: Int32Array, seen: Set<number>): LineRun {
  const { graph } = network;
  const segments: Segment[] = [];
  const kinds: StretchKind[] = [];
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
    kinds.push(!isDrawn(network, edge) ? 'seam' : walked.has(edge) ? 'again' : 'drawn');
    walked.add(edge);
  }
  return { path: { start, segments, closed: false }, kinds };
}

/**
 * Runs one after another, each the nearest to where the last one ended; either end of it may come first.
 * @param start where the first one starts, if it has to
 * @param end where the last one ends, if it has to
 */
export function inTurn(runs: readonly LineRun[], start: Point | null = null, end: Point | null = null): LineRun[] {
  const endsThere = (run: LineRun, p: Point | null): LineRun | null => p && ([run, backwards(run)].find((way) => distance(endOf(way), p) < samePlaceMm) ?? null); // biome-ignore format: one line
  // A run that has both ends is the first of several.
  const closing = runs.find((run) => endsThere(run, end) && (runs.length === 1 || !endsThere(run, start)));
  const left = new Set(runs.filter((run) => run !== closing));
  const made: LineRun[] = [];
  let at = start;
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
  return closing ? [...made, endsThere(closing, end) as LineRun] : made;
}

const backwards = ({ path, kinds }: LineRun): LineRun => ({ path: reversedPath(path), kinds: [...kinds].reverse() });

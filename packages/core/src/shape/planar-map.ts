/**
 * In: lines, straight or curved, that divide a part of the plane. Out: their planar map: nodes, the edges between them, and the faces
 * that the edges enclose, each edge knowing the face on either side.
 * Ends within a tolerance of one another are one node; an end that lies so near another line joins it there; lines are cut where they
 * cross. Faces are traced by half-edges, each followed by the next one clockwise about its end (de Berg et al. 2008, chapter 2).
 */
import { DisjointSets } from '../numeric/disjoint-sets.ts';
import { type Box, boxDistance } from '../plane/box.ts';
import { cachedSegment } from '../plane/cached-segment.ts';
import { type Path, pathArea, pathBox, stepsOf, transformedPath } from '../plane/path.ts';
import { distance, middleOf, type Point, subtract } from '../plane/point.ts';
import {
  nearestOnSegment,
  pointOn,
  reversedSegment,
  type Segment,
  segmentLength,
  splitSegment,
  transformedSegment,
} from '../plane/segment.ts';
import { apply, chain, determinant, shift, type Transform } from '../plane/transform.ts';
import { boxIndex } from './box-index.ts';
import { segmentCrossings } from './crossings.ts';
import { insidePoint } from './nesting.ts';
import { windingNumber } from './winding-number.ts';

export interface MapEdge {
  readonly from: number;
  readonly to: number;
  readonly segment: Segment;
  /** The faces to the left and to the right of travel; -1 is outside of all. */
  readonly left: number;
  readonly right: number;
}

/** An edge as a side of a face, which lies to the left of travel. */
export interface MapSide {
  readonly edge: number;
  /** Whether it is travelled as the edge is. */
  readonly isForward: boolean;
}

export interface MapFace {
  /** Round its outer border, counter-clockwise. */
  readonly sides: readonly MapSide[];
  readonly outer: Path;
  /** Borders of what lies in it without touching its outer border, clockwise. */
  readonly holes: readonly Path[];
  /** Holes taken off. */
  readonly area: number;
}

export interface PlanarMap {
  readonly nodes: readonly Point[];
  readonly edges: readonly MapEdge[];
  /** The largest first. */
  readonly faces: readonly MapFace[];
  /** Where lines end without meeting another: such lines bound no face and are left out. */
  readonly looseEnds: readonly Point[];
}

/** A segment between two nodes, by their numbers. */
interface Span {
  readonly from: number;
  readonly to: number;
  readonly segment: Segment;
  /** Which of the paths it is part of, by its place among them. */
  readonly path: number;
}

/** Lines from node to node that meet nowhere else. */
export interface LineGraph {
  readonly nodes: readonly Point[];
  readonly edges: readonly Span[];
}

/**
 * The lines of paths cut where they meet, loose ends and all.
 * @param join ends nearer than this are one, and ends so near another line end on it; in the paths' unit
 */
export function lineGraph(paths: readonly Path[], join: number): LineGraph {
  const { spans, nodes } = drawnTogether(paths, join);
  return { nodes, edges: onlyOnce(cutWhereTheyCross(cutWhereEndsTouch(spans, nodes, join), nodes, join), nodes, join) };
}

/** The planar map of paths, open and closed. @param join as for `lineGraph` */
export function planarMap(paths: readonly Path[], join: number): PlanarMap {
  const { nodes, edges } = lineGraph(paths, join);
  const { kept, looseEnds } = withoutLoose(edges, nodes);
  return { nodes, looseEnds, ...facesOf(kept, nodes) };
}

/**
 * The map with its nodes elsewhere: edges follow by similarities, and faces are found anew; nodes that now lie together are one.
 * @param join as for `planarMap`
 */
export function withNodesAt(map: PlanarMap, places: readonly Point[], join: number): PlanarMap {
  const paths = map.edges.map(({ from, to, segment }): Path => {
    const [start, end] = [places[from] as Point, places[to] as Point];
    return { start, segments: [carried(map.nodes[from] as Point, segment, start, end)], closed: false };
  });
  return { ...planarMap(paths, join), looseEnds: map.looseEnds };
}

/** The map under an affine map that does not mirror. */
export function transformedMap({ nodes, edges, faces, looseEnds }: PlanarMap, t: Transform): PlanarMap {
  return {
    nodes: nodes.map((p) => apply(t, p)),
    edges: edges.map((edge) => {
      const [segment] = transformedSegment(nodes[edge.from] as Point, edge.segment, t, 1e-6) as [Segment];
      return { ...edge, segment };
    }),
    faces: faces.map(({ sides, outer, holes, area }) => ({
      sides,
      outer: transformedPath(outer, t),
      holes: holes.map((hole) => transformedPath(hole, t)),
      area: area * determinant(t),
    })),
    looseEnds: looseEnds.map((p) => apply(t, p)),
  };
}

/** Places in cells, so that those near one are found at once. */
class NearPlaces {
  private readonly cells = new Map<number, number[]>();
  private readonly size: number;

  constructor(
    private readonly places: readonly Point[],
    private readonly within: number,
  ) {
    this.size = Math.max(within, 1e-9);
  }

  add(k: number): void {
    const key = keyOf(...this.cellOf(this.places[k] as Point));
    const cell = this.cells.get(key);
    if (cell) cell.push(k);
    else this.cells.set(key, [k]);
  }

  near(p: Point): number[] {
    const [x, y] = this.cellOf(p);
    const found: number[] = [];
    for (const i of [x - 1, x, x + 1])
      for (const j of [y - 1, y, y + 1])
        for (const k of this.cells.get(keyOf(i, j)) ?? []) if (distance(this.places[k] as Point, p) <= this.within) found.push(k);
    return found;
  }

  private cellOf({ x, y }: Point): [number, number] {
    return [Math.floor(x / this.size), Math.floor(y / this.size)];
  }
}

/** Cells with one key are told apart by the distance of what lies in them. */
const keyOf = (x: number, y: number): number => x * 0x4000000 + y;

/** Ends drawn together: a node is the middle of ends that lie within the tolerance of one another, or of one that does. */
function drawnTogether(paths: readonly Path[], join: number): { spans: Span[]; nodes: Point[] } {
  const steps = paths.flatMap((path, k) => stepsOf(path).map((step) => ({ ...step, path: k })));
  const ends = steps.flatMap(({ from, segment }) => [from, segment.to]);
  const sets = new DisjointSets(ends.length);
  const root = (k: number): number => sets.root(k);
  const places = new NearPlaces(ends, join);
  ends.forEach((p, k) => {
    for (const other of places.near(p)) sets.unite(k, other);
    places.add(k);
  });
  const groups = new Map<number, Point[]>();
  ends.forEach((p, k) => {
    const group = groups.get(root(k));
    if (group) group.push(p);
    else groups.set(root(k), [p]);
  });
  const numbers = new Map([...groups.keys()].map((key, k) => [key, k]));
  const nodes = [...groups.values()].map(middleOf);
  const spans = steps.flatMap(({ from, segment, path }, k): Span[] => {
    const [a, b] = [numbers.get(root(2 * k)) as number, numbers.get(root(2 * k + 1)) as number];
    return spanBetween({ from: a, to: b, segment, path }, from, nodes, join);
  });
  return { spans, nodes };
}

/** A span carried from where its segment starts to its nodes, by a similarity; none where it has shrunk to one node. */
function spanBetween({ from, to, segment, path }: Span, start: Point, nodes: readonly Point[], join: number): Span[] {
  if (from === to && segmentLength(start, segment) < 3 * join) return [];
  return [{ from, to, segment: carried(start, segment, nodes[from] as Point, nodes[to] as Point), path }];
}

/** A segment from `start` carried by a similarity so that it runs from `a` to `b`. */
function carried(start: Point, segment: Segment, a: Point, b: Point): Segment {
  if (segment.kind === 'line') return { kind: 'line', to: b };
  const [u, v] = [subtract(segment.to, start), subtract(b, a)];
  const size = u.x * u.x + u.y * u.y;
  const [c, s] = size > 0 ? [(u.x * v.x + u.y * v.y) / size, (u.x * v.y - u.y * v.x) / size] : [1, 0];
  const carry = chain(shift(a.x, a.y), chain({ a: c, b: s, c: -s, d: c, e: 0, f: 0 }, shift(-start.x, -start.y)));
  const [moved] = transformedSegment(start, segment, carry, 1e-6) as [Segment];
  return { ...moved, to: b };
}

interface Cut {
  readonly t: number;
  readonly node: number;
}

/** A span in parts, cut at nodes on it. @param start where its segment starts; its nodes may lie elsewhere by now */
function partsOf({ from, to, segment, path }: Span, start: Point, cuts: readonly Cut[], nodes: readonly Point[], join: number): Span[] {
  const parts: Span[] = [];
  let [rest, place, at, gone] = [segment, start, from, 0];
  for (const { t, node } of [...cuts].sort((a, b) => a.t - b.t)) {
    if (t <= gone || t >= 1 || node === at) continue;
    const [before, after] = splitSegment(place, rest, (t - gone) / (1 - gone));
    parts.push(...spanBetween({ from: at, to: node, segment: before, path }, place, nodes, join));
    [rest, place, at, gone] = [after, before.to, node, t];
  }
  return [...parts, ...spanBetween({ from: at, to, segment: rest, path }, place, nodes, join)];
}

const boxOf = ({ from, segment }: Span, nodes: readonly Point[]): Box => cachedSegment(nodes[from] as Point, segment).box;

/** Nodes that lie on a span join it there: they move on to it, and it is cut. */
function cutWhereEndsTouch(spans: readonly Span[], nodes: Point[], join: number): Span[] {
  const before = [...nodes];
  const index = boxIndex(
    before.map(({ x, y }) => ({ minX: x, minY: y, maxX: x, maxY: y })),
    join,
  );
  const cuts = spans.map((span): Cut[] => {
    const { minX, minY, maxX, maxY } = boxOf(span, before);
    return (index?.search(minX, minY, maxX, maxY) ?? []).flatMap((node): Cut[] => {
      if (node === span.from || node === span.to) return [];
      const near = nearestOnSegment(before[span.from] as Point, span.segment, before[node] as Point);
      if (near.distance > join || near.t <= 0 || near.t >= 1) return [];
      nodes[node] = near.point;
      return [{ t: near.t, node }];
    });
  });
  return spans.flatMap((span, k) => partsOf(span, before[span.from] as Point, cuts[k] as Cut[], nodes, join));
}

/** Where two spans cross there is a node, one that is there or a new one, and both are cut. */
function cutWhereTheyCross(spans: readonly Span[], nodes: Point[], join: number): Span[] {
  const places = new NearPlaces(nodes, join);
  nodes.forEach((_, k) => void places.add(k));
  const nodeAt = (p: Point): number => {
    const [known] = places.near(p).sort((a, b) => distance(nodes[a] as Point, p) - distance(nodes[b] as Point, p));
    if (known !== undefined) return known;
    nodes.push(p);
    places.add(nodes.length - 1);
    return nodes.length - 1;
  };
  const boxes = spans.map((span) => boxOf(span, nodes));
  const index = boxIndex(boxes);
  const cuts = spans.map((): Cut[] => []);
  spans.forEach((a, k) => {
    const { minX, minY, maxX, maxY } = boxes[k] as (typeof boxes)[0];
    for (const l of index?.search(minX, minY, maxX, maxY, (j) => j > k) ?? []) {
      const b = spans[l] as Span;
      const [p, q] = [nodes[a.from] as Point, nodes[b.from] as Point];
      for (const { at, t, u } of segmentCrossings({ from: p, segment: a.segment }, { from: q, segment: b.segment })) {
        const node = nodeAt(at);
        if (node !== a.from && node !== a.to) cuts[k]?.push({ t, node });
        if (node !== b.from && node !== b.to) cuts[l]?.push({ t: u, node });
      }
    }
  });
  return spans.flatMap((span, k) => partsOf(span, nodes[span.from] as Point, cuts[k] as Cut[], nodes, join));
}

/** Spans that run along one another between the same nodes are one, of the first of their paths. */
function onlyOnce(spans: readonly Span[], nodes: readonly Point[], join: number): Span[] {
  const kept = new Map<string, { span: Span; middle: Point }[]>();
  for (const span of spans) {
    const key = span.from < span.to ? `${span.from} ${span.to}` : `${span.to} ${span.from}`;
    const middle = pointOn(nodes[span.from] as Point, span.segment, 0.5);
    const same = kept.get(key) ?? [];
    const twin = same.findIndex((one) => distance(one.middle, middle) <= 2 * join);
    if (twin < 0) same.push({ span, middle });
    else {
      const known = (same[twin] as (typeof same)[0]).span;
      // Of a straight one and one that is nearly so the straight one stays.
      const kept = span.segment.kind === 'line' ? span : known;
      same[twin] = { span: { ...kept, path: Math.min(span.path, known.path) }, middle };
    }
    kept.set(key, same);
  }
  return [...kept.values()].flatMap((same) => same.map(({ span }) => span));
}

/** Lines that lead nowhere are taken off from their loose ends on. */
function withoutLoose(spans: readonly Span[], nodes: readonly Point[]): { kept: Span[]; looseEnds: Point[] } {
  const at = nodes.map((): Set<number> => new Set());
  spans.forEach(({ from, to }, k) => {
    at[from]?.add(k);
    at[to]?.add(k);
  });
  const gone = new Set<number>();
  const looseEnds = nodes.filter((_, n) => at[n]?.size === 1);
  const queue = nodes.flatMap((_, n) => (at[n]?.size === 1 ? [n] : []));
  for (let n = queue.pop(); n !== undefined; n = queue.pop()) {
    const [k] = at[n] ?? [];
    if (k === undefined || at[n]?.size !== 1 || spans[k]?.from === spans[k]?.to) continue;
    gone.add(k);
    for (const end of [spans[k]?.from as number, spans[k]?.to as number]) {
      at[end]?.delete(k);
      if (at[end]?.size === 1) queue.push(end);
    }
  }
  return { kept: spans.filter((_, k) => !gone.has(k)), looseEnds };
}

/** How far along an edge its direction at a node is taken, as a share: edges that leave along one tangent differ there. */
const directionShare = 0.02;

/** Half-edge 2 k runs along edge k, 2 k + 1 back along it. */
function facesOf(spans: readonly Span[], nodes: readonly Point[]): Pick<PlanarMap, 'edges' | 'faces'> {
  const origin = (h: number): number => (h % 2 === 0 ? spans[h >> 1]?.from : spans[h >> 1]?.to) as number;
  const angles = Float64Array.from({ length: 2 * spans.length }, (_, h) => {
    const { from, segment } = spans[h >> 1] as Span;
    const p = pointOn(nodes[from] as Point, segment, h % 2 === 0 ? directionShare : 1 - directionShare);
    const o = nodes[origin(h)] as Point;
    return Math.atan2(p.y - o.y, p.x - o.x);
  });
  const about = nodes.map((): number[] => []);
  for (let h = 0; h < 2 * spans.length; h++) about[origin(h)]?.push(h);
  const next = new Int32Array(2 * spans.length);
  for (const fan of about) {
    fan.sort((a, b) => (angles[a] as number) - (angles[b] as number));
    // What comes in along the twin of one goes out along the one before it, counted counter-clockwise.
    fan.forEach((h, k) => {
      next[h ^ 1] = fan.at(k - 1) as number;
    });
  }
  const cycles: { halves: number[]; path: Path; area: number }[] = [];
  const cycleOf = new Int32Array(2 * spans.length).fill(-1);
  for (let first = 0; first < 2 * spans.length; first++) {
    if (cycleOf[first] !== -1) continue;
    const halves: number[] = [];
    for (let h = first; cycleOf[h] === -1; h = next[h] as number) {
      cycleOf[h] = cycles.length;
      halves.push(h);
    }
    const path = pathAlong(halves, spans, nodes);
    cycles.push({ halves, path, area: pathArea(path) });
  }
  const inner = cycles.map((_, k) => k).filter((k) => (cycles[k]?.area as number) > 0).sort((a, b) => (cycles[b]?.area as number) - (cycles[a]?.area as number)); // biome-ignore format: one line
  const faceOf = new Map(inner.map((cycle, face) => [cycle, face]));
  const holes = inner.map((): Path[] => []);
  // The outer border of each part that hangs together lies in the smallest face about it, if in any.
  cycles.forEach(({ path, area, halves }, k) => {
    if (area > 0) return;
    const own = new Set(halves.map((h) => h >> 1));
    const p = outsidePoint(path);
    const around = inner.findLastIndex((j) => {
      const face = cycles[j] as (typeof cycles)[0];
      return boxDistance(pathBox(face.path), p) === 0 && !face.halves.some((h) => own.has(h >> 1)) && windingNumber([face.path], p) !== 0;
    });
    if (around < 0) return;
    holes[around]?.push(path);
    faceOf.set(k, around);
  });
  const faceLeftOf = (h: number): number => faceOf.get(cycleOf[h] as number) ?? -1;
  return {
    edges: spans.map((span, k) => ({ ...span, left: faceLeftOf(2 * k), right: faceLeftOf(2 * k + 1) })),
    faces: inner.map((cycle, face) => {
      const { halves, path, area } = cycles[cycle] as (typeof cycles)[0];
      const own = holes[face] as Path[];
      const sides = halves.map((h) => ({ edge: h >> 1, isForward: h % 2 === 0 }));
      return { sides, outer: path, holes: own, area: area + own.reduce((sum, hole) => sum + pathArea(hole), 0) };
    }),
  };
}

/** A place just outside of a border that runs clockwise about what it encloses. */
const outsidePoint = (path: Path): Point => {
  const inside = insidePoint(path);
  const near = stepsOf(path).map(({ from, segment }) => nearestOnSegment(from, segment, inside)).reduce((a, b) => (b.distance < a.distance ? b : a)); // biome-ignore format: one line
  return { x: 2 * near.point.x - inside.x, y: 2 * near.point.y - inside.y };
};

function pathAlong(halves: readonly number[], spans: readonly Span[], nodes: readonly Point[]): Path {
  const segments = halves.map((h): Segment => {
    const { from, segment } = spans[h >> 1] as Span;
    return h % 2 === 0 ? segment : reversedSegment(nodes[from] as Point, segment);
  });
  const first = halves[0] as number;
  const { from, to } = spans[first >> 1] as Span;
  return { start: nodes[first % 2 === 0 ? from : to] as Point, segments, closed: true };
}

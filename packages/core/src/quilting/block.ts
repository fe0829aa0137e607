/**
 * In: outlines of patches, drawn apart or side by side, or the lines between them, and the size that the block shall have. Out: the
 * block at its finished size: a planar map whose faces are the patches, its lower left corner at the origin.
 */
import { SaidError, say } from '../messages/index.ts';
import {
  boxAroundBoxes,
  chain,
  cross,
  distance,
  dot,
  inverse,
  type Path,
  type Point,
  pathArea,
  pathBox,
  rectanglePath,
  shift,
  stepsOf,
  stretch,
  subtract,
  type Transform,
  transformedPath,
  turn,
  unitVector,
} from '../plane/index.ts';
import { nearestOnSegment } from '../plane/segment.ts';
import { convexHull, polygonArea } from '../raster/convex-hull.ts';
import { offsetClosed, type PlanarMap, plainOffset, planarMap, transformedMap, windingNumber, withNodesAt } from '../shape/index.ts';
import { type BlockGrid, gridNamed, gridOf, reachOf } from './block-grid.ts';
import { middleWithin } from './middle-within.ts';
import { seamLines } from './seam-lines.ts';
import { straightened } from './straightened.ts';

/** A piece as far as a block asks. */
export interface BlockPiece {
  readonly id: string;
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export interface BlockSettings {
  /** The longer side of the finished block, mm. */
  readonly finishedMm: number;
  /** Corners drawn nearer than this are one, mm as drawn; null finds it. */
  readonly joinMm: number | null;
  /** The name of a grid, `auto`, or `none`. */
  readonly grid: string;
  /** Whether a rectangle about the lines is the block's edge, or what is drawn; by itself it takes what is drawn where that is a whole shape. */
  readonly edge: 'auto' | 'rectangle' | 'as drawn';
}

/** A corner that was moved on to the grid; both at the finished size. */
export interface MovedCorner {
  readonly from: Point;
  readonly to: Point;
}

export interface Block {
  readonly map: PlanarMap;
  readonly widthMm: number;
  readonly heightMm: number;
  /** From the finished block to the sheet that it is drawn on. */
  readonly toSheet: Transform;
  /** The grid that its corners were moved on to; null for none. */
  readonly grid: string | null;
  readonly moved: readonly MovedCorner[];
  /** The width that was left between patches drawn apart, mm as drawn. */
  readonly gapMm: number;
  /** Of each face whether it was drawn as a patch, rather than left between patches. */
  readonly isDrawn: readonly boolean[];
  /** Of an appliqué, the pieces of its shapes from the lowest up: those of the faces after the first. */
  readonly layers: readonly string[];
  readonly stems: readonly Stem[];
}

/** A strip cut on the bias, sewn along a drawn line. */
export interface Stem {
  readonly path: Path;
  /** As it lies finished. */
  readonly outline: readonly { readonly outer: Path; readonly holes: readonly Path[] }[];
  readonly lengthMm: number;
}

export class BlockError extends SaidError {
  readonly code = 'no-block';
}

/** As a share of the drawn block's longer side: corners within it are one, and the farthest that patches are drawn apart. */
const joinShare = 0.008;
const gapShare = 0.05;
/** A chain of segments so near its chord is a straight seam, as a share of the longer side. */
const straightShare = 0.004;
/** A line this close to level or plumb was meant to be, degrees. */
const levelDegrees = 4;

/** @throws BlockError where there is nothing that encloses a patch */
export function blockOf(pieces: readonly BlockPiece[], settings: BlockSettings): Block {
  const paths = pieces.flatMap(drawnPaths);
  const box = boxAroundBoxes(paths.map(pathBox));
  if (!box) throw new BlockError(say.quilting.nothingDrawn());
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  const level = turn(-leanOf(paths));
  const straight = paths.map((path) => straightened(transformedPath(path, level), straightShare * size));
  const gapMm = gapBetween(
    straight.filter(({ closed }) => closed),
    gapShare * size,
  );
  const patches = straight.flatMap((path) => (path.closed && gapMm > 0 ? grown(path, gapMm / 2) : [path]));
  const join = settings.joinMm ?? joinShare * size;
  const isWhole = settings.edge === 'as drawn' || (settings.edge === 'auto' && isWholeShape(planarMap(patches, join)));
  const edge = isWhole ? [] : edgeAbout(patches);
  const drawn = straightSeams(planarMap([...edge, ...patches], join), join);
  if (drawn.faces.length === 0) throw new BlockError(say.quilting.enclosesNothing());
  return atFinishedSize(drawn, patches, level, settings, gapMm);
}

/** The paths of a piece that bound patches: of one that is drawn lines, what the lines leave between them. */
function drawnPaths({ outer, holes }: BlockPiece): Path[] {
  if (!outer.closed) return [outer];
  const open = holes.reduce((sum, hole) => sum + Math.abs(pathArea(hole)), 0);
  return open > lineWorkShare * Math.abs(pathArea(outer)) ? [...holes] : [outer, ...holes];
}
/** A piece that is mostly hole is line work. */
const lineWorkShare = 0.5;

/** By how much what is nearly level and plumb leans, radians. */
function leanOf(paths: readonly Path[]): number {
  let [sum, weight] = [0, 0];
  for (const { from, segment } of paths.flatMap(stepsOf)) {
    if (segment.kind !== 'line') continue;
    const length = distance(from, segment.to);
    const angle = Math.atan2(segment.to.y - from.y, segment.to.x - from.x);
    const lean = angle - Math.round(angle / (Math.PI / 2)) * (Math.PI / 2);
    if (Math.abs(lean) > (levelDegrees * Math.PI) / 180) continue;
    sum += lean * length * length;
    weight += length * length;
  }
  return weight > 0 ? sum / weight : 0;
}

/** How far patches drawn apart lie from their neighbours; 0 where they lie side by side, or alone. */
function gapBetween(rings: readonly Path[], most: number): number {
  const sides = rings.flatMap((ring, k) => {
    const sign = Math.sign(pathArea(ring));
    return stepsOf(ring).flatMap(({ from, segment: { kind, to } }) => (kind === 'line' ? [{ ring: k, from, to, sign }] : []));
  });
  const gaps = sides.flatMap(({ ring, from, to, sign }) => {
    const along = unitVector(subtract(to, from));
    const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
    const found = sides.flatMap((other) => {
      if (other.ring === ring) return [];
      const near = nearestOnSegment(other.from, { kind: 'line', to: other.to }, middle);
      const isParallel = Math.abs(cross(along, unitVector(subtract(other.to, other.from)))) < Math.sin((levelDegrees * Math.PI) / 180);
      // Outside of a counter-clockwise ring is to the right.
      const isOutside = -sign * cross(along, subtract(near.point, middle)) > 0;
      const isAcross = Math.abs(dot(along, subtract(near.point, middle))) < 0.2 * near.distance;
      return isParallel && isOutside && isAcross && near.distance < most ? [near.distance] : [];
    });
    return found.length > 0 ? [Math.min(...found)] : [];
  });
  return gaps.length >= 2 ? (gaps.sort((a, b) => a - b)[gaps.length >> 1] as number) : 0;
}

/** A ring with its sides moved outwards, corners sharp. */
const grown = (path: Path, by: number): Path[] =>
  offsetClosed(path, -Math.sign(pathArea(path)) * by, { ...plainOffset, corners: 'mitre', mitreLimit: 12 });

/** Whether patches fill the convex shape about them, a hexagon, say: then no edge is missing. */
function isWholeShape({ nodes, edges, faces, looseEnds }: PlanarMap): boolean {
  if (looseEnds.length > 0) return false;
  const used = [...new Set(edges.flatMap(({ from, to }) => [from, to]))].map((k) => nodes[k] as Point);
  if (used.length < 3) return false;
  const hull = convexHull(used);
  return faces.reduce((sum, { area }) => sum + area, 0) > wholeShare * polygonArea(hull);
}
const wholeShare = 0.99;

function edgeAbout(paths: readonly Path[]): Path[] {
  const box = boxAroundBoxes(paths.map(pathBox));
  return box ? [rectanglePath(box)] : [];
}

/** Nodes along a seam that is nearly straight from end to end lie on it. */
function straightSeams(map: PlanarMap, within: number): PlanarMap {
  const nodes = [...map.nodes];
  let isMoved = false;
  const lines = seamLines(map).filter(({ edges }) => edges.length > 1 && edges.every((k) => map.edges[k]?.segment.kind === 'line'));
  for (const { nodes: along } of lines.sort((a, b) => b.nodes.length - a.nodes.length)) {
    const [from, to] = [nodes[along[0] as number] as Point, nodes[along.at(-1) as number] as Point];
    const near = along.map((n) => nearestOnSegment(from, { kind: 'line', to }, nodes[n] as Point));
    if (near.some(({ distance: off }) => off > within)) continue;
    along.forEach((n, k) => {
      if ((near[k]?.distance as number) < stillMm) return;
      nodes[n] = near[k]?.point as Point;
      isMoved = true;
    });
  }
  return isMoved ? withNodesAt(map, nodes, within / 100) : map;
}
/** Nodes that lie so near a line lie on it, mm. */
const stillMm = 1e-9;

/** A face is a drawn patch where a ring that was drawn covers its middle. */
function drawnFaces(map: PlanarMap, rings: readonly Path[]): boolean[] {
  return map.faces.map(({ outer }) => {
    const p = middleWithin(outer);
    return rings.reduce((sum, ring) => sum + Math.abs(windingNumber([ring], p)), 0) % 2 === 1;
  });
}

function atFinishedSize(drawn: PlanarMap, patches: readonly Path[], level: Transform, settings: BlockSettings, gapMm: number): Block {
  const { minX, minY, maxX, maxY } = boxAroundBoxes(drawn.faces.map(({ outer }) => pathBox(outer))) as NonNullable<ReturnType<typeof boxAroundBoxes>>; // biome-ignore format: one line
  const [width, height] = [maxX - minX, maxY - minY];
  const scale = settings.finishedMm / Math.max(width, height);
  const isSquare = Math.abs(width - height) < squareWithin * Math.max(width, height);
  const [widthMm, heightMm] = isSquare ? [settings.finishedMm, settings.finishedMm] : [width * scale, height * scale];
  const toFinished = chain(stretch(widthMm / width, heightMm / height), shift(-minX, -minY));
  const sized = sizedMap(drawn, toFinished, scale);
  const inShares = sized.nodes.map(({ x, y }) => ({ x: x / widthMm, y: y / widthMm }));
  const corners = cornersOf(sized).map((k) => inShares[k] as Point);
  const grid = settings.grid === 'none' ? null : settings.grid === 'auto' ? gridOf(corners) : gridNamed(settings.grid);
  const { nodes, moved } = grid ? onGrid(sized.nodes, inShares, grid, widthMm) : { nodes: sized.nodes, moved: [] };
  const map = grid ? withRoundSweeps(straightSeams(withNodesAt(sized, nodes, 0.01), 0.01)) : sized;
  const toSheet = chain(inverse(level), inverse(toFinished));
  return {
    map,
    widthMm,
    heightMm,
    toSheet,
    grid: grid?.name ?? null,
    moved,
    gapMm,
    layers: [],
    stems: [],
    isDrawn: drawnFaces(
      map,
      patches.filter(({ closed }) => closed).map((ring) => transformedPath(ring, toFinished)),
    ),
  };
}
/** On a grid arcs turn by whole parts of a circle: those that nearly do are made to. */
function withRoundSweeps(map: PlanarMap): PlanarMap {
  let isChanged = false;
  const paths = map.edges.map(({ from, segment }): Path => {
    const start = map.nodes[from] as Point;
    if (segment.kind !== 'arc') return { start, segments: [segment], closed: false };
    const sweep = Math.round(segment.sweep / sweepUnit) * sweepUnit;
    const isNear = sweep !== 0 && sweep !== segment.sweep && Math.abs(sweep - segment.sweep) < nearSweep;
    if (isNear) isChanged = true;
    return { start, segments: [isNear ? { ...segment, sweep } : segment], closed: false };
  });
  return isChanged ? { ...planarMap(paths, 0.01), looseEnds: map.looseEnds } : map;
}
const sweepUnit = Math.PI / 12;
const nearSweep = (2.5 * Math.PI) / 180;

/** A block whose sides differ by less than this share is square. */
const squareWithin = 0.02;

/** The map at its finished size. Where one side is stretched a hair more than the other, arcs stay arcs, and run between the same corners. */
function sizedMap(drawn: PlanarMap, toFinished: Transform, scale: number): PlanarMap {
  const stretched = transformedMap(drawn, toFinished);
  const isEven = Math.abs(toFinished.a - toFinished.d) < 1e-12;
  if (isEven || drawn.edges.every(({ segment }) => segment.kind === 'line')) return stretched;
  return withNodesAt(transformedMap(drawn, stretch(scale)), stretched.nodes, 1e-6);
}

/** Nodes where lines meet or turn, and not those that a line just passes. */
const cornersOf = (map: PlanarMap): number[] => [...new Set(seamLines(map).flatMap(({ nodes }) => [nodes[0] as number, nodes.at(-1) as number]))]; // biome-ignore format: one line

function onGrid(
  nodes: readonly Point[],
  inShares: readonly Point[],
  grid: BlockGrid,
  widthMm: number,
): { nodes: Point[]; moved: MovedCorner[] } {
  const moved: MovedCorner[] = [];
  const placed = nodes.map((from, k): Point => {
    const share = inShares[k] as Point;
    const next = grid.nearest(share);
    if (distance(next, share) > reachOf(grid)) return from;
    const to = { x: next.x * widthMm, y: next.y * widthMm };
    if (distance(from, to) > leastMoveMm) moved.push({ from, to });
    return to;
  });
  return { nodes: placed, moved };
}
const leastMoveMm = 0.005;

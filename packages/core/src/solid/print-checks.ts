/**
 * In: a solid and how it is printed. Out: what would go wrong: walls and gaps thinner than the nozzle, faces that hang over, islands that begin in
 * mid-air, a footprint that it tips from, more than the bed takes, and passages that a ball does not get through.
 */
import { booleanOpD, ClipType, FillRule, type PathsD } from 'clipper2-ts';
import { type Point, polygonPath } from '../plane/index.ts';
import { narrowPlaces } from '../proof/narrow.ts';
import { commonVolume } from './booleans.ts';
import type { Mesh } from './mesh.ts';
import type { PairedHalves } from './push-together.ts';
import type { SolidSettings } from './settings.ts';
import { type Contour, contourArea, Slicer, sectionArea } from './slicing.ts';
import type { SolidPlan } from './solid-plan.ts';

/** A place in a layer, in space, and how wide it is there, mm. */
export interface NarrowPlace {
  readonly at: readonly [number, number, number];
  readonly widthMm: number;
}

export interface PrintChecks {
  /** The thinnest wall and the narrowest gap below the nozzle's width, and how many there are over all layers that were looked at. */
  readonly wall: NarrowPlace | null;
  readonly gap: NarrowPlace | null;
  /** How much hangs over by more than the angle, and which triangles of each body do. */
  readonly overhangMm2: number;
  readonly overhanging: readonly Uint32Array[];
  readonly islands: readonly (readonly [number, number, number])[];
  /** How far it may lean before it tips, degrees; less than 0 where it falls over by itself. Null where nothing stands on the bed. */
  readonly tipsAtDegrees: number | null;
  readonly footprintMm2: number;
  readonly isTooLarge: boolean;
  /** The narrowest passage that the ball has to get through, where it is narrower than the ball. */
  readonly tight: NarrowPlace | null;
  /** Of each pair. */
  readonly fits: readonly PairFit[];
}

/** How two bodies go together as they stand. */
export interface PairFit {
  /** How much of each is in the other: none, where they go together, mm³. */
  readonly commonMm3: number;
  /** How far the second can be moved across its slot until it meets the first, both ways together, mm. */
  readonly playMm: number;
}

/** So many heights are looked at for narrow places, spread over the layers; and so many layers for islands. */
const mostNarrowHeights = 9;
const mostLayers = 400;
/** Contours of more corners than this are not looked at for narrow places, all together. */
const mostCorners = 30_000;
/** Two layers have to have this much in common for one to stand on the other, mm². */
const standingMm2 = 0.01;
/** Corners of contours nearer to a straight line than this are left out, mm. */
const straightMm = 2e-6;

/** Yields the share done, 0 to 1. */
export function* printChecks(plan: SolidPlan, settings: SolidSettings): Generator<number, PrintChecks> {
  const slicers = plan.parts.map(({ mesh }) => new Slicer(mesh));
  const sectionAt = (z: number): Contour[] => slicers.flatMap((slicer) => slicer.at(z)).map(withoutStraight);
  yield 0.05;
  const [low, high] = [plan.min[2], plan.max[2]];
  const { nozzleMm, ballMm } = settings;
  let [wall, gap, tight] = [null as NarrowPlace | null, null as NarrowPlace | null, null as NarrowPlace | null];
  const narrower = (one: NarrowPlace | null, other: NarrowPlace): NarrowPlace => (one && one.widthMm <= other.widthMm ? one : other);
  const heights = Array.from({ length: mostNarrowHeights }, (_, k) => low + ((k + 0.5) / mostNarrowHeights) * (high - low));
  const known = new Set<string>();
  for (const [k, z] of heights.entries()) {
    const contours = sectionAt(z);
    // A prism looks the same at every height.
    const key = contours.map((contour) => `${contour.length} ${contourArea(contour).toFixed(4)}`).join(' ');
    if (!known.has(key) && contours.reduce((sum, { length }) => sum + length, 0) <= mostCorners) {
      known.add(key);
      const limitMm = Math.max(nozzleMm, ballMm ?? 0);
      for (const { a, b, widthMm, isWeb } of narrowPlaces(contours.map(polygonPath), limitMm)) {
        const place: NarrowPlace = { at: [(a.x + b.x) / 2, (a.y + b.y) / 2, z], widthMm };
        if (isWeb && widthMm < nozzleMm) wall = narrower(wall, place);
        if (!isWeb && widthMm < nozzleMm) gap = narrower(gap, place);
        if (!isWeb && ballMm !== null && widthMm < ballMm) tight = narrower(tight, place);
      }
    }
    yield 0.05 + (0.35 * (k + 1)) / heights.length;
  }
  const islands = yield* islandsIn(sectionAt, low, high, settings.layerMm);
  const over = plan.parts.map(({ mesh }) => overhangOf(mesh, low, settings));
  const { bed } = settings;
  const size = [0, 1, 2].map((axis) => (plan.max[axis] as number) - (plan.min[axis] as number)) as [number, number, number];
  const standing = sectionAt(low + Math.min(settings.layerMm, high - low) / 2);
  return {
    wall,
    gap,
    tight,
    islands,
    overhangMm2: over.reduce((sum, { areaMm2 }) => sum + areaMm2, 0),
    overhanging: over.map(({ triangles }) => triangles),
    tipsAtDegrees: tipping(standing.flat(), plan),
    fits: plan.pairs.map((pair) => fitOf(pair, plan)),
    footprintMm2: sectionArea(standing),
    isTooLarge: size[2] > bed.heightMm || Math.min(size[0], size[1]) > Math.min(bed.widthMm, bed.depthMm) || Math.max(size[0], size[1]) > Math.max(bed.widthMm, bed.depthMm), // biome-ignore format: one line
  };
}

/** Bodies have something in common from this on, mm³: less is what rounding to single digits leaves. */
const meetingMm3 = 0.05;
/** Play is looked for within so much more than was asked, mm, in so many halvings. */
const beyondAskedMm = 0.5;
const halvings = 9;

function fitOf({ first, assembled, across, askedMm }: PairedHalves, { parts }: SolidPlan): PairFit {
  const own = parts[first]?.mesh as Mesh;
  const commonMm3 = commonVolume(own, assembled);
  const reach = (sign: number): number => {
    let [free, met] = [0, askedMm + beyondAskedMm];
    for (let k = 0; k < halvings; k++) {
      const middle = (free + met) / 2;
      const isFree = commonVolume(own, moved(assembled, sign * middle * across.x, sign * middle * across.y)) < meetingMm3;
      if (isFree) free = middle;
      else met = middle;
    }
    return (free + met) / 2;
  };
  return { commonMm3, playMm: commonMm3 < meetingMm3 ? reach(1) + reach(-1) : 0 };
}

const moved = ({ positions, triangles }: Mesh, dx: number, dy: number): Mesh => ({ positions: positions.map((value, k) => value + (k % 3 === 0 ? dx : k % 3 === 1 ? dy : 0)), triangles }); // biome-ignore format: one line

/** Where something begins that nothing of the layer below carries. */
function* islandsIn(
  sectionAt: (z: number) => Contour[],
  low: number,
  high: number,
  layerMm: number,
): Generator<number, [number, number, number][]> {
  const layers = Math.min(mostLayers, Math.max(1, Math.ceil((high - low) / layerMm)));
  const step = (high - low) / layers;
  const islands: [number, number, number][] = [];
  let below: PathsD | null = null;
  for (let layer = 0; layer < layers; layer++) {
    const z = low + (layer + 0.5) * step;
    const contours = sectionAt(z);
    const paths = contours as unknown as PathsD;
    const outer = contours.filter((contour) => contourArea(contour) > standingMm2);
    if (below)
      for (const contour of outer) {
        // The region itself: this outline less its holes.
        const own = booleanOpD(ClipType.Intersection, [contour] as unknown as PathsD, paths, FillRule.NonZero, 4);
        const common = booleanOpD(ClipType.Intersection, own, below, FillRule.NonZero, 4);
        if (common.reduce((sum, path) => sum + Math.abs(contourArea(path)), 0) < standingMm2) islands.push([(contour[0] as Point).x, (contour[0] as Point).y, z]); // biome-ignore format: one line
      }
    below = paths;
    if (layer % 8 === 0) yield 0.4 + (0.5 * layer) / layers;
  }
  return islands;
}

/** Triangles that face down by more than the angle, except on the bed. */
function overhangOf(
  { positions, triangles }: Mesh,
  low: number,
  { overhangDegrees, layerMm }: SolidSettings,
): { areaMm2: number; triangles: Uint32Array } {
  const limit = Math.sin((overhangDegrees * Math.PI) / 180) + 1e-6;
  const found: number[] = [];
  let areaMm2 = 0;
  const of = (vertex: number, axis: number): number => positions[3 * vertex + axis] as number;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t] as number, triangles[t + 1] as number, triangles[t + 2] as number];
    if (Math.max(of(a, 2), of(b, 2), of(c, 2)) <= low + layerMm / 2) continue;
    const [ux, uy, uz] = [of(b, 0) - of(a, 0), of(b, 1) - of(a, 1), of(b, 2) - of(a, 2)];
    const [vx, vy, vz] = [of(c, 0) - of(a, 0), of(c, 1) - of(a, 1), of(c, 2) - of(a, 2)];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const size = Math.hypot(nx, ny, nz);
    if (size === 0 || -nz / size <= limit) continue;
    found.push(t / 3);
    areaMm2 += size / 2;
  }
  return { areaMm2, triangles: Uint32Array.from(found) };
}

/** By the nearest edge of the hull of what stands on the bed, and the height of the middle of all. */
function tipping(standing: readonly Point[], { middle, min }: SolidPlan): number | null {
  const hull = hullOf(standing);
  if (hull.length < 3) return null;
  const inside = hull.reduce((least, p, k) => {
    const q = hull[(k + 1) % hull.length] as Point;
    const length = Math.hypot(q.x - p.x, q.y - p.y) || 1;
    return Math.min(least, ((q.x - p.x) * (middle[1] - p.y) - (q.y - p.y) * (middle[0] - p.x)) / length);
  }, Infinity);
  return (Math.atan2(inside, Math.max(1e-9, middle[2] - min[2])) * 180) / Math.PI;
}

/** Counter-clockwise; by Andrew 1979, monotone chains. */
function hullOf(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const chain = (ordered: readonly Point[]): Point[] => {
    const hull: Point[] = [];
    for (const p of ordered) {
      while (hull.length > 1 && !turnsLeft(hull.at(-2) as Point, hull.at(-1) as Point, p)) hull.pop();
      hull.push(p);
    }
    return hull.slice(0, -1);
  };
  return [...chain(sorted), ...chain(sorted.toReversed())];
}

const turnsLeft = (a: Point, b: Point, c: Point): boolean => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x) > 0;

/** Without corners that lie on a straight line, as triangles leave them along edges. */
function withoutStraight(contour: Contour): Contour {
  const kept = contour.filter((p, k) => {
    const [a, b] = [contour[(k + contour.length - 1) % contour.length] as Point, contour[(k + 1) % contour.length] as Point];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    return length < 1e-9 || Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length > straightMm;
  });
  return kept.length > 2 ? kept : contour;
}

/**
 * In: the middles of walls as single paths. Out: the walls at one thickness as closed outlines with their holes.
 * Rests on: bands about every path, mitred, and their union (clipper2-ts, Vatti 1992); lines and arcs are found again along
 * the union's many chords by the outline fit.
 */
import { EndType, FillRule, inflatePathsD, JoinType, type PathsD, unionD } from 'clipper2-ts';
import { type Path, polygonOf, stepsOf, transformedPath } from '../plane/path.ts';
import { add, distance, norm, type Point, subtract } from '../plane/point.ts';
import { directionOn } from '../plane/segment.ts';
import { stretch } from '../plane/transform.ts';
import { outlineAlong } from './outline.ts';

/** Chords leave a middle by no more than this share of the thickness. */
const chordShare = 2e-4;
/** Sharper corners than this many half thicknesses reach out are cut off. */
const mitreLimit = 4;
/** Walls are fitted at so many steps across, at least. */
const stepsAcross = 24;
/** Ends this near to one another, in thicknesses, meet. */
const meetShare = 1e-3;
/** Decimals that the union is computed with. */
const decimals = 5;

/**
 * @param middles in any unit
 * @param thickness in the same
 * @param tolerance largest distance of an outline from the exact wall
 */
export function wallsOf(middles: readonly Path[], thickness: number, tolerance: number): Path[] {
  if (!(thickness > 0)) throw new RangeError(`a wall cannot be ${thickness} thick`);
  const chord = Math.min(tolerance / 4, chordShare * thickness);
  const asPath = (points: readonly Point[]) => points.map(({ x, y }) => ({ x, y }));
  const band = (paths: PathsD, end: EndType): PathsD => inflatePathsD(paths, thickness / 2, JoinType.Miter, end, mitreLimit, decimals);
  const open = middles.filter(({ closed }) => !closed).map((path) => asPath(polygonOf(path, chord)));
  const closed = middles.filter((path) => path.closed).map((path) => asPath(polygonOf(path, chord)));
  const bands = [
    ...open.flatMap((path) => band([path], EndType.Butt)),
    ...closed.flatMap((path) => band([path], EndType.Joined)),
    ...elbows(middles, thickness).flatMap((corner) => band([asPath(corner)], EndType.Butt)),
  ];
  const scale = Math.max(1, stepsAcross / thickness);
  return unionD(bands, [], FillRule.NonZero, decimals)
    .filter((ring) => ring.length > 2)
    .map((ring) => fittedRing(ring, scale, tolerance));
}

/** Where ends meet and none runs on, two butt ends leave a notch: every pair of them gets a corner of its own. */
function elbows(middles: readonly Path[], thickness: number): Point[][] {
  const ends = middles.flatMap((path) => {
    if (path.closed) return [];
    const steps = stepsOf(path);
    const [first, last] = [steps[0], steps.at(-1)];
    if (!first || !last) return [];
    const out = along(directionOn(first.from, first.segment, 0), thickness);
    const back = along(directionOn(last.from, last.segment, 1), -thickness);
    return [
      { at: path.start, stub: add(path.start, out) },
      { at: last.segment.to, stub: add(last.segment.to, back) },
    ];
  });
  return ends.flatMap((a, k) =>
    ends.slice(k + 1).flatMap((b) => (distance(a.at, b.at) < meetShare * thickness && isBent(a, b) ? [[a.stub, a.at, b.stub]] : [])),
  );
}

const along = ({ x, y }: Point, by: number): Point => ({ x: x * by, y: y * by });

interface Stub {
  readonly at: Point;
  readonly stub: Point;
}

/** Whether two ends do not simply fold back on each other. */
function isBent(a: Stub, b: Stub): boolean {
  const [u, v] = [subtract(a.stub, a.at), subtract(b.stub, b.at)];
  const size = norm(u.x, u.y) * norm(v.x, v.y);
  return size > 0 && (u.x * v.x + u.y * v.y) / size < 0.98;
}

/** Lines and curves along a ring of chords. */
function fittedRing(ring: readonly Point[], scale: number, tolerance: number): Path {
  const points = Float64Array.from(ring.flatMap(({ x, y }) => [x * scale, y * scale]));
  return transformedPath(outlineAlong(points, 0.3, 0.005, tolerance * scale), stretch(1 / scale));
}

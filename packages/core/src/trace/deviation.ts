/**
 * In: traced outlines and the contours of the ink that they were fitted to, in pixels. Out: how far each lies from them.
 * Rests on: distances from points along the outline to the nearest chord of the contours, found by a grid of cells.
 */

import { nearestOnLine } from '../plane/line.ts';
import { type Path, polygonOf, stepsOf } from '../plane/path.ts';
import { distance, dot, norm, type Point } from '../plane/point.ts';
import { directionOn } from '../plane/segment.ts';

/** Points along an outline, each with its distance from the ink's border, px. */
export interface ContourDeviation {
  readonly points: readonly Point[];
  readonly off: readonly number[];
}

/** Points along outlines are this far apart, px. */
const stepPx = 2;
const cellPx = 8;

/**
 * @param contours x and y in turn, closed
 * @param cornerRadius beside a sharp corner an outline goes out to where softness has rounded the ink's: so near to one, px,
 * nothing is counted
 */
export function contourDeviation(paths: readonly Path[], contours: readonly Float64Array[], cornerRadius = 0): ContourDeviation[] {
  const chords = chordGrid(contours);
  return paths.map((path) => {
    const points = evenly(path);
    const corners = cornerRadius > 0 ? sharpJoints(path) : [];
    return { points, off: points.map((p) => (corners.some(({ at, width }) => distance(at, p) < width * cornerRadius) ? 0 : chords(p))) };
  });
}

/** Softness draws the border back from a tip the farther the more pointed it is; tips thinner than this count as so thin. */
const thinnest = 0.04;
/** Half a corner's angle from which on its own reach is wide enough, radians: some 17 degrees. */
const blunt = 0.3;

/** Joints that turn by more than 15 degrees, and how much wider than about a blunt one nothing is counted. */
function sharpJoints(path: Path): { readonly at: Point; readonly width: number }[] {
  const steps = stepsOf(path);
  return steps.flatMap(({ from, segment }, k) => {
    const before = steps.at(k - 1);
    if (!before || (!path.closed && k === 0)) return [];
    const turned = dot(directionOn(before.from, before.segment, 1), directionOn(from, segment, 0));
    if (turned >= Math.cos(0.26)) return [];
    const half = (Math.PI - Math.acos(Math.max(-1, turned))) / 2;
    return [{ at: from, width: Math.max(1, Math.tan(blunt) / Math.tan(Math.max(thinnest, half))) }];
  });
}

function evenly(path: Path): Point[] {
  const polygon = polygonOf(path, 0.02);
  const ends = path.closed ? [...polygon, polygon[0] as Point] : polygon;
  const points: Point[] = [];
  for (const [k, b] of ends.entries()) {
    const a = ends[k - 1];
    if (!a) {
      points.push(b);
      continue;
    }
    const parts = Math.max(1, Math.ceil(norm(b.x - a.x, b.y - a.y) / stepPx));
    for (let n = 1; n <= parts; n++) points.push({ x: a.x + ((b.x - a.x) * n) / parts, y: a.y + ((b.y - a.y) * n) / parts });
  }
  return points;
}

/** The distance of a point from the nearest chord of the contours. */
function chordGrid(contours: readonly Float64Array[]): (p: Point) => number {
  const cells = new Map<number, number[]>();
  const keyOf = (x: number, y: number) => Math.floor(y / cellPx) * 65536 + Math.floor(x / cellPx);
  contours.forEach((contour, which) => {
    for (let k = 0; k < contour.length; k += 2) {
      const key = keyOf(contour[k] as number, contour[k + 1] as number);
      const list = cells.get(key);
      if (list) list.push(which, k);
      else cells.set(key, [which, k]);
    }
  });
  const toChord = (which: number, k: number, p: Point): number => {
    const contour = contours[which] as Float64Array;
    const at = (i: number): Point => ({ x: contour[i % contour.length] as number, y: contour[(i + 1) % contour.length] as number });
    const before = at(k - 2 + contour.length);
    return Math.min(
      nearestOnLine(at(k), { kind: 'line', to: at(k + 2) }, p).distance,
      nearestOnLine(before, { kind: 'line', to: at(k) }, p).distance,
    );
  };
  return (p) => {
    let best = Infinity;
    for (let ring = 0; ring < 6 && best > (ring - 1) * cellPx; ring++) {
      for (let i = -ring; i <= ring; i++)
        for (let j = -ring; j <= ring; j++) {
          if (Math.max(Math.abs(i), Math.abs(j)) !== ring) continue;
          const list = cells.get(keyOf(p.x + i * cellPx, p.y + j * cellPx)) ?? [];
          for (let n = 0; n < list.length; n += 2) best = Math.min(best, toChord(list[n] as number, list[n + 1] as number, p));
        }
    }
    return best;
  };
}

/**
 * In: a bent segment. Out: its chords, with how far it leaves them at most, and the place of it that is nearest to another: chords first,
 * then slid to along the curve (Newton on the derivative of the distance).
 */
import { opsOf } from '../plane/curves.ts';
import type { Point } from '../plane/point.ts';
import { type CubicSegment, type Segment, splitSegment } from '../plane/segment.ts';

/** Places along a curve, evenly by t, x and y in turn, and how far it leaves the chords between them at most, mm. */
export interface Chords {
  readonly places: Float64Array;
  readonly count: number;
  readonly bowMm: number;
}

const chordCount = 12;

export function chordsAlong(from: Point, segment: Segment): Chords {
  const places = new Float64Array(2 * (chordCount + 1));
  [places[0], places[1]] = [from.x, from.y];
  let bowMm = 0;
  let [start, rest] = [from, segment];
  for (let k = 1; k <= chordCount; k++) {
    const [part, after] = k < chordCount ? splitSegment(start, rest, 1 / (chordCount - k + 1)) : [rest, rest];
    bowMm = Math.max(bowMm, opsOf(part).bow(start, part));
    [places[2 * k], places[2 * k + 1]] = [part.to.x, part.to.y];
    [start, rest] = [part.to, after];
  }
  return { places, count: chordCount, bowMm: bowMm + 1e-9 };
}

/** The nearest of a curve's chords: how far, and about which t. */
export function nearestChord({ places, count }: Chords, x: number, y: number): { away: number; t: number } {
  let [best, bestT] = [Infinity, 0];
  for (let k = 0; k < count; k++) {
    const [ax, ay] = [places[2 * k] as number, places[2 * k + 1] as number];
    const [dx, dy] = [(places[2 * k + 2] as number) - ax, (places[2 * k + 3] as number) - ay];
    const square = dx * dx + dy * dy;
    const along = (x - ax) * dx + (y - ay) * dy;
    const share = along <= 0 || square === 0 ? 0 : along >= square ? 1 : along / square;
    const [ox, oy] = [ax + share * dx - x, ay + share * dy - y];
    const away = ox * ox + oy * oy;
    if (away < best) [best, bestT] = [away, (k + share) / count];
  }
  return { away: Math.sqrt(best), t: bestT };
}

/** How far a place lies from a chord, and where along it the nearest is, 0 to 1. */
function chordAway(x: number, y: number, ax: number, ay: number, bx: number, by: number): { away: number; share: number } {
  const [dx, dy] = [bx - ax, by - ay];
  const square = dx * dx + dy * dy;
  const share = square > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / square)) : 0;
  return { away: Math.hypot(ax + share * dx - x, ay + share * dy - y), share };
}

/** The place of a cubic nearest to one: from the nearest chord, and from every other that may hide a nearer place. */
export function nearestOnCubic(
  from: Point,
  segment: CubicSegment,
  { places, count, bowMm }: Chords,
  x: number,
  y: number,
  nearest: { t: number },
): { t: number; point: Point } {
  let best = slid(from, segment, x, y, nearest.t);
  let away = Math.hypot(best.point.x - x, best.point.y - y);
  for (let k = 0; k < count; k++) {
    if (Math.abs((k + 0.5) / count - best.t) < 1 / count) continue;
    const chord = chordAway(
      x,
      y,
      places[2 * k] as number,
      places[2 * k + 1] as number,
      places[2 * k + 2] as number,
      places[2 * k + 3] as number,
    );
    if (chord.away - bowMm >= away) continue;
    const other = slid(from, segment, x, y, (k + chord.share) / count);
    const off = Math.hypot(other.point.x - x, other.point.y - y);
    if (off < away) [best, away] = [other, off];
  }
  return best;
}

/** The place of a cubic nearest to one, slid to from about where it is (Newton on the derivative of the distance). */
function slid(from: Point, { c1, c2, to }: CubicSegment, x: number, y: number, start: number): { t: number; point: Point } {
  const [ax, ay] = [to.x - from.x + 3 * (c1.x - c2.x), to.y - from.y + 3 * (c1.y - c2.y)];
  const [bx, by] = [3 * (from.x - 2 * c1.x + c2.x), 3 * (from.y - 2 * c1.y + c2.y)];
  const [dx, dy] = [3 * (c1.x - from.x), 3 * (c1.y - from.y)];
  let t = start;
  for (let round = 0; round < 12; round++) {
    const [ux, uy] = [((ax * t + bx) * t + dx) * t + from.x - x, ((ay * t + by) * t + dy) * t + from.y - y];
    const [vx, vy] = [(3 * ax * t + 2 * bx) * t + dx, (3 * ay * t + 2 * by) * t + dy];
    const [wx, wy] = [6 * ax * t + 2 * bx, 6 * ay * t + 2 * by];
    const slope = ux * vx + uy * vy;
    const bend = vx * vx + vy * vy + ux * wx + uy * wy;
    // Where the distance is not least but most it is gone down along the curve instead.
    const step = bend > 1e-12 ? slope / bend : Math.sign(slope) * 0.02;
    const next = Math.min(1, Math.max(0, t - Math.max(-0.1, Math.min(0.1, step))));
    const isThere = Math.abs(next - t) < 1e-13;
    t = next;
    if (isThere) break;
  }
  return { t, point: { x: ((ax * t + bx) * t + dx) * t + from.x, y: ((ay * t + by) * t + dy) * t + from.y } };
}

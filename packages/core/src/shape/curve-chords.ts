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

/**
 * The place of a bent segment that is nearest to another. Kept and asked again and again: it makes nothing anew, and what it found stands in it
 * until it is asked the next time.
 */
export class NearestOnCurve {
  /** Of each chord how far it lies off, squared, and where along it the nearest place is, 0 to 1. */
  private readonly squares = new Float64Array(chordCount);
  private readonly shares = new Float64Array(chordCount);
  private nearest = 0;
  /** The place that was found, and where along the curve it is. */
  x = 0;
  y = 0;
  t = 0;

  /** How far the nearest chord lies off, mm: the curve itself is at most its bow nearer. */
  toChords({ places, count }: Chords, x: number, y: number): number {
    let best = Infinity;
    for (let k = 0; k < count; k++) {
      const ax = places[2 * k] as number;
      const ay = places[2 * k + 1] as number;
      const dx = (places[2 * k + 2] as number) - ax;
      const dy = (places[2 * k + 3] as number) - ay;
      const square = dx * dx + dy * dy;
      const along = (x - ax) * dx + (y - ay) * dy;
      const share = along <= 0 || square === 0 ? 0 : along >= square ? 1 : along / square;
      const ox = ax + share * dx - x;
      const oy = ay + share * dy - y;
      const away = ox * ox + oy * oy;
      this.squares[k] = away;
      this.shares[k] = share;
      if (away < best) {
        best = away;
        this.nearest = k;
      }
    }
    return Math.sqrt(best);
  }

  /** From the nearest chord, and from every other that may hide a nearer place; after `toChords` of the same curve and place. */
  onCubic(from: Point, segment: CubicSegment, { count, bowMm }: Chords, x: number, y: number): void {
    this.slide(from, segment, x, y, (this.nearest + (this.shares[this.nearest] as number)) / count);
    let away = Math.hypot(this.x - x, this.y - y);
    for (let k = 0; k < count; k++) {
      const nearest = away + bowMm;
      if ((this.squares[k] as number) >= nearest * nearest || Math.abs((k + 0.5) / count - this.t) < 1 / count) continue;
      const { x: bestX, y: bestY, t } = this;
      this.slide(from, segment, x, y, (k + (this.shares[k] as number)) / count);
      const off = Math.hypot(this.x - x, this.y - y);
      if (off < away) away = off;
      else {
        this.x = bestX;
        this.y = bestY;
        this.t = t;
      }
    }
  }

  /** To the nearest place from about where it is: Newton on the derivative of the distance. */
  private slide(from: Point, { c1, c2, to }: CubicSegment, x: number, y: number, start: number): void {
    const ax = to.x - from.x + 3 * (c1.x - c2.x);
    const ay = to.y - from.y + 3 * (c1.y - c2.y);
    const bx = 3 * (from.x - 2 * c1.x + c2.x);
    const by = 3 * (from.y - 2 * c1.y + c2.y);
    const dx = 3 * (c1.x - from.x);
    const dy = 3 * (c1.y - from.y);
    let t = start;
    for (let round = 0; round < 12; round++) {
      const ux = ((ax * t + bx) * t + dx) * t + from.x - x;
      const uy = ((ay * t + by) * t + dy) * t + from.y - y;
      const vx = (3 * ax * t + 2 * bx) * t + dx;
      const vy = (3 * ay * t + 2 * by) * t + dy;
      const slope = ux * vx + uy * vy;
      const bend = vx * vx + vy * vy + ux * (6 * ax * t + 2 * bx) + uy * (6 * ay * t + 2 * by);
      // Where the distance is not least but most it is gone down along the curve instead.
      const step = bend > 1e-12 ? slope / bend : Math.sign(slope) * 0.02;
      const next = Math.min(1, Math.max(0, t - Math.max(-0.1, Math.min(0.1, step))));
      const isThere = Math.abs(next - t) < 1e-13;
      t = next;
      if (isThere) break;
    }
    this.t = t;
    this.x = ((ax * t + bx) * t + dx) * t + from.x;
    this.y = ((ay * t + by) * t + dy) * t + from.y;
  }
}

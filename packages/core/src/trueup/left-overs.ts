/**
 * In: a mark and the map to the sheet. Out: what is stated of it, what it comes to, and the difference.
 */
import { distance, middleOf, type Point, subtract } from '../plane/point.ts';
import { type Projection, project } from '../plane/projection.ts';
import { claimsOf } from './claims.ts';
import type { PullingKind, TrueUpMark } from './marks.ts';
import { plateAngle } from './solve.ts';
import { isPlate, platePlaces } from './strain.ts';

export interface Part {
  readonly name: 'length' | 'passage' | 'width' | 'height' | 'diameter';
  readonly statedMm: number;
  readonly measuredMm: number;
  /** Measured less stated. */
  readonly offMm: number;
  readonly offPercent: number;
}

export interface LeftOver {
  readonly kind: PullingKind;
  readonly id: string;
  /** One for each length that the mark states. */
  readonly parts: readonly Part[];
  /** The largest left-over of the mark, mm: of its lengths, of a plate's corners, or of a line's rise over its run. */
  readonly offMm: number;
  /** How far a line or corner leaves its direction, radians; null for lengths. */
  readonly offAngle: number | null;
  /** The share of all that the marks tell which this one tells, 0 to 1. */
  readonly pull: number;
  /** Whether the mark was set aside, because its statement looks like a slip of units. */
  readonly isSetAside: boolean;
}

export function leftOverAt(mark: TrueUpMark, toSheet: Projection, pull: number, isSetAside: boolean): LeftOver {
  const p = mark.points.map((q) => project(toSheet, q));
  const parts = partsOf(mark, p);
  const common = { kind: mark.kind, id: mark.id, pull, isSetAside };
  if (mark.kind === 'level' || mark.kind === 'plumb') {
    const [a, b] = p as [Point, Point];
    const raw = Math.atan2(b.y - a.y, b.x - a.x) - (mark.kind === 'plumb' ? Math.PI / 2 : 0);
    // Back to within a quarter turn: which end was marked first does not matter.
    const offAngle = raw - Math.PI * Math.round(raw / Math.PI);
    return { ...common, parts, offAngle, offMm: distance(a, b) * Math.sin(offAngle) };
  }
  if (mark.kind === 'right-angle') {
    const offAngle = cornerAngle(p as [Point, Point, Point]) - Math.PI / 2;
    const leg = Math.min(distance(p[0] as Point, p[1] as Point), distance(p[2] as Point, p[1] as Point));
    return { ...common, parts, offAngle, offMm: leg * Math.sin(offAngle) };
  }
  const worst = parts.reduce((off, part) => (Math.abs(part.offMm) > Math.abs(off) ? part.offMm : off), 0);
  const corners = isPlate(mark) ? worstCorner(platePlaces(mark), p) : 0;
  return { ...common, parts, offAngle: null, offMm: corners > Math.abs(worst) ? corners : worst };
}

const partNames: Partial<Record<PullingKind, readonly Part['name'][]>> = {
  clearance: ['passage'],
  frame: ['width', 'height'],
  box: ['width', 'height'],
  circle: ['diameter'],
};

const partsOf = (mark: TrueUpMark, placed: readonly Point[]): Part[] =>
  claimsOf(mark, placed).map(({ index, stated, measured }) => {
    const offMm = measured - stated;
    const name = partNames[mark.kind]?.[index] ?? 'length';
    return { name, statedMm: stated, measuredMm: measured, offMm, offPercent: (100 * offMm) / stated };
  });

/** The angle at the middle one of three points, 0 to pi. */
export function cornerAngle([a, corner, c]: readonly [Point, Point, Point]): number {
  const [u, v] = [subtract(a, corner), subtract(c, corner)];
  return Math.atan2(Math.abs(u.x * v.y - u.y * v.x), u.x * v.x + u.y * v.y);
}

/** How far the worst of a plate's points is from its place once the plate is laid on them as well as it goes. */
function worstCorner(places: readonly Point[], placed: readonly Point[]): number {
  const [from, to, angle] = [middleOf(places), middleOf(placed), plateAngle(places, placed)];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return Math.max(
    ...places.map((q, k) => {
      const [x, y] = [q.x - from.x, q.y - from.y];
      return distance({ x: to.x + c * x - s * y, y: to.y + s * x + c * y }, placed[k] as Point);
    }),
  );
}

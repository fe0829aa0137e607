/**
 * In: a circular arc, given by its two ends and its sweep. Out: its length, area, box, nearest point and parts, all exact; under a
 * stretch it becomes a part of an ellipse.
 */
import { type Box, boxAround } from './box.ts';
import { cubicOps } from './cubic.ts';
import { cross, distance, dot, norm, type Point, subtract, toLeft, unitVector } from './point.ts';
import type { ArcSegment, CubicSegment, CurveOps, EllipseSegment, Nearest, Segment } from './segment-kinds.ts';
import { apply, determinant, isFlat, isSimilarity, type Transform } from './transform.ts';

/** The circle under an arc: centre, radius, and the angle at which the arc starts. */
export interface Circle {
  readonly centre: Point;
  readonly radius: number;
  readonly startAngle: number;
}

/** The circle that an arc runs on. */
export function circleOf(from: Point, s: ArcSegment): Circle {
  const chord = subtract(s.to, from);
  const half = s.sweep / 2;
  // The centre lies on the chord's bisector, (c/2) cot(sweep/2) to the left of the direction of travel.
  const lift = Math.cos(half) / (2 * Math.sin(half));
  const centre = {
    x: (from.x + s.to.x) / 2 - chord.y * lift,
    y: (from.y + s.to.y) / 2 + chord.x * lift,
  };
  return { centre, radius: distance(centre, from), startAngle: Math.atan2(from.y - centre.y, from.x - centre.x) };
}

/** The arc about `centre` from `from`, turned by `sweep`. */
export function arcAbout(centre: Point, from: Point, sweep: number): ArcSegment {
  const [c, s] = [Math.cos(sweep), Math.sin(sweep)];
  const [x, y] = [from.x - centre.x, from.y - centre.y];
  return { kind: 'arc', to: { x: centre.x + c * x - s * y, y: centre.y + s * x + c * y }, sweep };
}

function arcLength(from: Point, s: ArcSegment): number {
  return circleOf(from, s).radius * Math.abs(s.sweep);
}

function arcArea(from: Point, s: ArcSegment): number {
  const { radius } = circleOf(from, s);
  return cross(from, s.to) / 2 + (radius * radius * (s.sweep - Math.sin(s.sweep))) / 2;
}

function pointOnArc(from: Point, s: ArcSegment, t: number): Point {
  const { centre, radius, startAngle } = circleOf(from, s);
  const angle = startAngle + s.sweep * t;
  return { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) };
}

function directionOnArc(from: Point, s: ArcSegment, t: number): Point {
  const angle = circleOf(from, s).startAngle + s.sweep * t;
  const sign = Math.sign(s.sweep);
  return { x: -Math.sin(angle) * sign, y: Math.cos(angle) * sign };
}

/** Where on the arc an angle about its centre lies, as a share of the sweep; above 1 when outside. */
function shareAt(startAngle: number, sweep: number, angle: number): number {
  const whole = 2 * Math.PI;
  const forward = ((((angle - startAngle) * Math.sign(sweep)) % whole) + whole) % whole;
  return forward / Math.abs(sweep);
}

function arcBox(from: Point, s: ArcSegment): Box {
  const { centre, radius, startAngle } = circleOf(from, s);
  const points = [from, s.to];
  for (let quarter = 0; quarter < 4; quarter++) {
    if (shareAt(startAngle, s.sweep, (quarter * Math.PI) / 2) >= 1) continue;
    const [x, y] = [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ][quarter] as [number, number];
    points.push({ x: centre.x + radius * x, y: centre.y + radius * y });
  }
  return boxAround(points) as Box;
}

function nearestOnArc(from: Point, s: ArcSegment, p: Point): Nearest {
  const { centre, radius, startAngle } = circleOf(from, s);
  const away = unitVector(subtract(p, centre));
  const share = shareAt(startAngle, s.sweep, Math.atan2(away.y, away.x));
  if (share <= 1 && (away.x !== 0 || away.y !== 0)) {
    const point = { x: centre.x + radius * away.x, y: centre.y + radius * away.y };
    return { t: share, point, distance: distance(point, p) };
  }
  const [toStart, toEnd] = [distance(from, p), distance(s.to, p)];
  return toStart <= toEnd ? { t: 0, point: from, distance: toStart } : { t: 1, point: s.to, distance: toEnd };
}

export function splitArc(from: Point, s: ArcSegment, t: number): [ArcSegment, ArcSegment] {
  return [
    { kind: 'arc', to: pointOnArc(from, s, t), sweep: s.sweep * t },
    { kind: 'arc', to: s.to, sweep: s.sweep * (1 - t) },
  ];
}

/** The arc under a similarity. */
function similarArc(s: ArcSegment, t: Transform): ArcSegment {
  return { kind: 'arc', to: apply(t, s.to), sweep: determinant(t) < 0 ? -s.sweep : s.sweep };
}

/** The arc under any affine map that keeps areas: a part of an ellipse, by the images of its centre and of two radii. */
function stretchedArc(from: Point, s: ArcSegment, t: Transform): EllipseSegment {
  const { centre } = circleOf(from, s);
  const sign = Math.sign(s.sweep);
  const u = subtract(from, centre);
  const v = { x: -u.y * sign, y: u.x * sign };
  return {
    kind: 'ellipse',
    to: apply(t, s.to),
    centre: apply(t, centre),
    v: { x: t.a * v.x + t.c * v.y, y: t.b * v.x + t.d * v.y },
    sweep: Math.abs(s.sweep),
  };
}

/** How much a transform lengthens the direction that it lengthens most (its larger singular value). */
function largestStretch(t: Transform): number {
  const [p, q] = [norm(t.a + t.d, t.b - t.c), norm(t.a - t.d, t.b + t.c)];
  return (p + q) / 2;
}

/**
 * Cubics that leave the arc by at most `tolerance`.
 * Rests on: handles of length 4/3 tan(sweep/4) r; their error grows with the sixth power of the sweep and is
 * 2.7253e-4 r at a quarter turn (Goldapp 1991).
 */
export function arcAsCubics(from: Point, s: ArcSegment, tolerance: number): CubicSegment[] {
  const { centre, radius, startAngle } = circleOf(from, s);
  const widest = (Math.PI / 2) * Math.min(1, (tolerance / (2.7253e-4 * radius)) ** (1 / 6));
  const count = Math.max(1, Math.ceil(Math.abs(s.sweep) / widest - 1e-9));
  const step = s.sweep / count;
  const handle = (4 / 3) * Math.tan(step / 4) * radius;
  return Array.from({ length: count }, (_, k) => {
    const [u, v] = [startAngle + k * step, startAngle + (k + 1) * step];
    const at = (angle: number, reach: number): Point => ({
      x: centre.x + radius * Math.cos(angle) - reach * Math.sin(angle),
      y: centre.y + radius * Math.sin(angle) + reach * Math.cos(angle),
    });
    return { kind: 'cubic', c1: at(u, handle), c2: at(v, -handle), to: k === count - 1 ? s.to : at(v, 0) };
  });
}

/** How many equal chords stay within `tolerance` of the arc (sagitta of a chord). */
function chordCount(from: Point, s: ArcSegment, tolerance: number): number {
  const { radius } = circleOf(from, s);
  const widest = 2 * Math.acos(Math.max(0, 1 - tolerance / radius));
  return Math.max(1, Math.ceil(Math.abs(s.sweep) / Math.min(widest, Math.PI / 2)));
}

/** Under an affine map; one that lays the plane on a line leaves no ellipse, there it goes by way of cubics. */
function transformedArc(from: Point, s: ArcSegment, t: Transform, tolerance: number): Segment[] {
  if (isSimilarity(t)) return [similarArc(s, t)];
  if (!isFlat(t)) return [stretchedArc(from, s, t)];
  return arcAsCubics(from, s, tolerance / largestStretch(t)).flatMap((c) => cubicOps.transformed(from, c, t, tolerance));
}

/** Set off onto its own centre it is a point, which nothing can be kept of. */
function offsetArc(from: Point, s: ArcSegment, by: number): Segment {
  const to = toLeft(s.to, directionOnArc(from, s, 1), by);
  const radius = circleOf(from, s).radius - Math.sign(s.sweep) * by;
  return Math.abs(radius) < 1e-9 ? { kind: 'line', to } : { kind: 'arc', to, sweep: s.sweep };
}

export const arcOps: CurveOps<ArcSegment> = {
  point: pointOnArc,
  derivative: (from, s, t) => {
    const size = circleOf(from, s).radius * Math.abs(s.sweep);
    const { x, y } = directionOnArc(from, s, t);
    return { x: size * x, y: size * y };
  },
  direction: directionOnArc,
  length: arcLength,
  area: arcArea,
  box: arcBox,
  nearest: nearestOnArc,
  split: splitArc,
  reversed: (from, s) => ({ kind: 'arc', to: from, sweep: -s.sweep }),
  transformed: transformedArc,
  asCubics: arcAsCubics,
  asArcs: (_, s) => [s],
  offset: offsetArc,
  bow: (from, { to, sweep }) => (Math.abs(sweep) > 3.1 ? Infinity : (distance(from, to) / 2) * Math.tan(Math.abs(sweep) / 4)),
  advances: (from, s, d) => Math.abs(s.sweep) <= Math.PI / 2 && [0, 1].every((t) => dot(directionOnArc(from, s, t), d) > 1e-9),
  centre: (from, s) => circleOf(from, s).centre,
  chordCount,
};

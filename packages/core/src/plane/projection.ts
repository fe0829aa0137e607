/**
 * In and out: projective maps of the plane, as a camera makes them of a flat sheet:
 * x' = (a x + c y + e) / w, y' = (b x + d y + f) / w, w = g x + h y + i.
 * Rests on: Hartley & Zisserman 2004, chapter 2; four points: Heckbert 1989, "Fundamentals of Texture Mapping".
 */
import { type Path, stepsOf } from './path.ts';
import { norm, type Point } from './point.ts';
import { asCubics, type Segment } from './segment.ts';
import type { Transform } from './transform.ts';

export interface Projection extends Transform {
  readonly g: number;
  readonly h: number;
  readonly i: number;
}

export const asProjection = (t: Transform): Projection => ({ ...t, g: 0, h: 0, i: 1 });

export function project(p: Projection, { x, y }: Point): Point {
  const w = p.g * x + p.h * y + p.i;
  return { x: (p.a * x + p.c * y + p.e) / w, y: (p.b * x + p.d * y + p.f) / w };
}

/** Positive on the side of the horizon that is before the camera, when it is positive at one point known to be there. */
export const depthAt = (p: Projection, { x, y }: Point): number => p.g * x + p.h * y + p.i;

/** First `inner`, then `outer`. */
export const chainProjections = (outer: Projection, inner: Projection): Projection => ({
  a: outer.a * inner.a + outer.c * inner.b + outer.e * inner.g,
  c: outer.a * inner.c + outer.c * inner.d + outer.e * inner.h,
  e: outer.a * inner.e + outer.c * inner.f + outer.e * inner.i,
  b: outer.b * inner.a + outer.d * inner.b + outer.f * inner.g,
  d: outer.b * inner.c + outer.d * inner.d + outer.f * inner.h,
  f: outer.b * inner.e + outer.d * inner.f + outer.f * inner.i,
  g: outer.g * inner.a + outer.h * inner.b + outer.i * inner.g,
  h: outer.g * inner.c + outer.h * inner.d + outer.i * inner.h,
  i: outer.g * inner.e + outer.h * inner.f + outer.i * inner.i,
});

/** The map back. Refuses one that flattens the plane. */
export function inverseProjection({ a, b, c, d, e, f, g, h, i }: Projection): Projection {
  const det = a * (d * i - f * h) - c * (b * i - f * g) + e * (b * h - d * g);
  if (det === 0 || !Number.isFinite(det)) throw new RangeError('a map that flattens the plane has no inverse');
  return {
    a: (d * i - f * h) / det, c: (e * h - c * i) / det, e: (c * f - d * e) / det,
    b: (f * g - b * i) / det, d: (a * i - e * g) / det, f: (b * e - a * f) / det,
    g: (b * h - d * g) / det, h: (c * g - a * h) / det, i: (a * d - b * c) / det,
  }; // biome-ignore format: a row of the matrix a line
}

/** The affine map that touches the projection at a point: same place there, same first derivatives. */
export function affineAt(p: Projection, at: Point): Transform {
  const w = depthAt(p, at);
  const { x, y } = project(p, at);
  const [a, b, c, d] = [(p.a - p.g * x) / w, (p.b - p.g * y) / w, (p.c - p.h * x) / w, (p.d - p.h * y) / w];
  return { a, b, c, d, e: x - a * at.x - c * at.y, f: y - b * at.x - d * at.y };
}

export type FourPoints = readonly [Point, Point, Point, Point];

/** The projection that takes the unit square's corners (0,0), (1,0), (1,1), (0,1) to four points, in closed form. */
function fromUnitSquare([p, q, r, s]: FourPoints): Projection {
  const [sx, sy] = [p.x - q.x + r.x - s.x, p.y - q.y + r.y - s.y];
  const [ux, uy, vx, vy] = [q.x - r.x, q.y - r.y, s.x - r.x, s.y - r.y];
  const det = ux * vy - vx * uy;
  const [g, h] = [(sx * vy - vx * sy) / det, (ux * sy - sx * uy) / det];
  return {
    a: q.x - p.x + g * q.x, c: s.x - p.x + h * s.x, e: p.x,
    b: q.y - p.y + g * q.y, d: s.y - p.y + h * s.y, f: p.y,
    g, h, i: 1,
  }; // biome-ignore format: a row of the matrix a line
}

/** The projection that takes four points to four others; null where three of either lie in one line. */
export function projectionOfFour(from: FourPoints, to: FourPoints): Projection | null {
  if (!isSpread(from) || !isSpread(to)) return null;
  return chainProjections(fromUnitSquare(to), inverseProjection(fromUnitSquare(from)));
}

/** Whether no three of four points lie in one line, to a thousandth of their extent. */
export function isSpread(points: FourPoints): boolean {
  const extent = Math.max(...points.flatMap((p) => points.map((q) => norm(p.x - q.x, p.y - q.y))));
  const twiceAreas = [0, 1, 2, 3].map((skip) => {
    const [p, q, r] = points.filter((_, k) => k !== skip) as [Point, Point, Point];
    return Math.abs((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x));
  });
  return extent > 0 && Math.min(...twiceAreas) > 1e-3 * extent * extent;
}

/**
 * A path under a projection: lines exact; curves by their ends and end tangents, exact to second order in how much
 * the projection bends over one segment.
 */
export function projectedPath(path: Path, p: Projection, tolerance = 0.001): Path {
  const moveFrom = (at: Point, handle: Point): Point => {
    const near = affineAt(p, at);
    return { x: near.a * handle.x + near.c * handle.y + near.e, y: near.b * handle.x + near.d * handle.y + near.f };
  };
  const segments = stepsOf(path).flatMap(({ from, segment }): Segment[] => {
    if (segment.kind === 'line') return [{ kind: 'line', to: project(p, segment.to) }];
    const cubics = asCubics(from, segment, tolerance);
    let start = from;
    return cubics.map((cubic): Segment => {
      const moved = { kind: 'cubic', c1: moveFrom(start, cubic.c1), c2: moveFrom(cubic.to, cubic.c2), to: project(p, cubic.to) } as const;
      start = cubic.to;
      return moved;
    });
  });
  return { start: project(p, path.start), segments, closed: path.closed };
}

/**
 * In: measures in mm. Out: closed paths that scenes are put together from.
 */
import {
  arcAbout,
  chain,
  circlePath,
  type Path,
  type Point,
  pathArea,
  polygonPath,
  reversedPath,
  type Segment,
  shift,
  stretch,
  transformedPath,
  turn,
} from '@nuvet/core/plane';

export const degrees = (value: number): number => (value * Math.PI) / 180;
/** The point at an angle (radians) and distance from a centre. */
export const polar = (centre: Point, angle: number, reach: number): Point => ({
  x: centre.x + reach * Math.cos(angle),
  y: centre.y + reach * Math.sin(angle),
});

export function rectangle(x: number, y: number, width: number, height: number): Path {
  return polygonPath([
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ]);
}

export function roundedRectangle(x: number, y: number, width: number, height: number, radius: number): Path {
  const [right, top] = [x + width, y + height];
  const corner = (to: Point): Segment => ({ kind: 'arc', to, sweep: Math.PI / 2 });
  const line = (to: Point): Segment => ({ kind: 'line', to });
  return {
    start: { x: x + radius, y },
    segments: [
      line({ x: right - radius, y }), corner({ x: right, y: y + radius }),
      line({ x: right, y: top - radius }), corner({ x: right - radius, y: top }),
      line({ x: x + radius, y: top }), corner({ x, y: top - radius }),
      line({ x, y: y + radius }), corner({ x: x + radius, y }),
    ], // biome-ignore format: a side and its corner a line
    closed: true,
  };
}

/** A star with `points` tips, its first tip straight up. */
export function star(centre: Point, points: number, outerRadius: number, innerRadius: number, angle = 0): Path {
  return polygonPath(
    Array.from({ length: points * 2 }, (_, k) =>
      polar(centre, Math.PI / 2 + angle + (k * Math.PI) / points, k % 2 === 0 ? outerRadius : innerRadius),
    ),
  );
}

export function regularPolygon(centre: Point, sides: number, radius: number, angle = 0): Path {
  return polygonPath(Array.from({ length: sides }, (_, k) => polar(centre, angle + (k * 2 * Math.PI) / sides, radius)));
}

export function ellipse(centre: Point, halfWidth: number, halfHeight: number, angle = 0): Path {
  const place = chain(shift(centre.x, centre.y), chain(turn(angle), stretch(halfWidth, halfHeight)));
  return transformedPath(circlePath({ x: 0, y: 0 }, 1), place, 1e-5);
}

/** A part of a ring, between two angles (radians), with sharp ends. */
export function ringSector(centre: Point, inner: number, outer: number, from: number, to: number): Path {
  const start = polar(centre, from, inner);
  const innerEnd = polar(centre, to, inner);
  return {
    start,
    segments: [
      { kind: 'line', to: polar(centre, from, outer) },
      arcAbout(centre, polar(centre, from, outer), to - from),
      { kind: 'line', to: innerEnd },
      { kind: 'arc', to: start, sweep: from - to },
    ],
    closed: true,
  };
}

/** A place on a drawn curve; `corner` lets the course turn sharply there. */
export type CurvePoint = readonly [x: number, y: number, corner?: 'corner'];

/**
 * A closed curve through points, in cubics.
 * Rests on: centripetal Catmull-Rom (Yuksel, Schaefer & Keyser 2011); at corners each side ends on its own course.
 */
export function curveThrough(points: readonly CurvePoint[], close: 'closed' | 'open' = 'closed'): Path {
  const count = points.length;
  const closed = close === 'closed';
  const at = (k: number): Point => {
    const [x, y] = points[closed ? (k + count) % count : Math.min(count - 1, Math.max(0, k))] as CurvePoint;
    return { x, y };
  };
  const isCorner = (k: number): boolean => points[(k + count) % count]?.[2] === 'corner';
  const knot = (a: Point, b: Point): number => Math.sqrt(Math.hypot(b.x - a.x, b.y - a.y)) || 1e-9;
  const segments: Segment[] = [];
  for (let k = 0; k < (closed ? count : count - 1); k++) {
    const [p1, p2] = [at(k), at(k + 1)];
    const p0 = isCorner(k) || (!closed && k === 0) ? p1 : at(k - 1);
    const p3 = isCorner(k + 1) || (!closed && k === count - 2) ? p2 : at(k + 2);
    const [d1, d2, d3] = [knot(p0, p1), knot(p1, p2), knot(p2, p3)];
    const handle = (a: Point, b: Point, c: Point, da: number, db: number): Point => ({
      x: (da * da * c.x - db * db * a.x + (2 * da * da + 3 * da * db + db * db) * b.x) / (3 * da * (da + db)),
      y: (da * da * c.y - db * db * a.y + (2 * da * da + 3 * da * db + db * db) * b.y) / (3 * da * (da + db)),
    });
    const third = (a: Point, b: Point): Point => ({ x: a.x + (b.x - a.x) / 3, y: a.y + (b.y - a.y) / 3 });
    segments.push({
      kind: 'cubic',
      c1: p0 === p1 ? third(p1, p2) : handle(p0, p1, p2, d1, d2),
      c2: p3 === p2 ? third(p2, p1) : handle(p3, p2, p1, d3, d2),
      to: p2,
    });
  }
  return { start: at(0), segments, closed };
}

/** A brush stroke: a closed outline about a course, as wide at each point as given. */
export function brushStroke(course: readonly (readonly [x: number, y: number, width: number])[]): Path {
  const spine = curveThrough(
    course.map(([x, y]) => [x, y]),
    'open',
  );
  const last = course.length - 1;
  const sides = course.map(([x, y, width], k) => {
    const before = k === 0 ? spine.start : (spine.segments[k - 1] as { c2: Point }).c2;
    const after = k === last ? { x, y } : (spine.segments[k] as { c1: Point }).c1;
    const [dx, dy] = [after.x - before.x, after.y - before.y];
    const size = Math.hypot(dx, dy) || 1;
    return { x, y, nx: (-dy / size) * (width / 2), ny: (dx / size) * (width / 2), width };
  });
  const isPointed = (k: number) => (sides[k]?.width ?? 0) < 0.05;
  const left = sides.map((s, k): CurvePoint => [s.x + s.nx, s.y + s.ny, k === 0 || k === last ? 'corner' : undefined]);
  const right = sides.map((s, k): CurvePoint => [s.x - s.nx, s.y - s.ny, k === 0 || k === last ? 'corner' : undefined]);
  if (isPointed(0)) right.shift();
  if (isPointed(last)) right.pop();
  const outline = curveThrough([...left, ...right.reverse()]);
  return pathArea(outline) < 0 ? reversedPath(outline) : outline;
}

/**
 * In: a spline by degree, knots, control points and weights. Out: cubics that leave it by at most a tolerance; exact
 * for splines without weights up to the third degree.
 * Rests on: de Boor 1972 in homogeneous coordinates; Hermite cubics between knots, halved until they fit.
 */
import { distance, type Point } from '../plane/point.ts';
import type { CubicSegment } from '../plane/segment.ts';

export interface Spline {
  readonly degree: number;
  readonly knots: readonly number[];
  readonly points: readonly Point[];
  readonly weights: readonly number[];
}

const deepest = 14;

/** Null where knots and points do not go together. */
export function splineAsCubics(spline: Spline, tolerance: number): { start: Point; segments: CubicSegment[] } | null {
  const { degree, knots, points } = spline;
  if (degree < 1 || points.length <= degree || knots.length !== points.length + degree + 1) return null;
  if (knots.some((k, i) => i > 0 && k < (knots[i - 1] as number))) return null;
  const spans = [...new Set(knots.slice(degree, points.length + 1))];
  if (spans.length < 2) return null;
  const segments: CubicSegment[] = [];
  let from = at(spline, spans[0] as number, spans[1] as number);
  const start = from.point;
  const cover = (a: number, b: number, left: Place, right: Place, depth: number): void => {
    const third = (b - a) / 3;
    const cubic: CubicSegment = {
      kind: 'cubic',
      c1: { x: left.point.x + left.slope.x * third, y: left.point.y + left.slope.y * third },
      c2: { x: right.point.x - right.slope.x * third, y: right.point.y - right.slope.y * third },
      to: right.point,
    };
    const isNear = [0.25, 0.5, 0.75].every(
      (t) => distance(cubicAt(left.point, cubic, t), at(spline, a + t * (b - a), b).point) <= tolerance,
    );
    if (isNear || depth >= deepest) segments.push(cubic);
    else {
      const middle = (a + b) / 2;
      const place = at(spline, middle, b);
      cover(a, middle, left, place, depth + 1);
      cover(middle, b, place, right, depth + 1);
    }
  };
  spans.slice(1).forEach((end, k) => {
    const begin = spans[k] as number;
    from = at(spline, begin, end);
    cover(begin, end, from, at(spline, end, end, begin), 0);
  });
  return { start, segments };
}

interface Place {
  readonly point: Point;
  readonly slope: Point;
}

/** The point and its derivative at `t`, taken from within the knot span that ends at `spanEnd`. */
function at({ degree, knots, points, weights }: Spline, t: number, spanEnd: number, spanStart = t): Place {
  let span = degree;
  while (
    span < points.length - 1 &&
    !(
      (knots[span] as number) <= spanStart &&
      (knots[span + 1] as number) >= spanEnd &&
      (knots[span] as number) < (knots[span + 1] as number)
    )
  )
    span++;
  const d = Array.from({ length: degree + 1 }, (_, k) => {
    const p = points[span - degree + k] as Point;
    const w = weights[span - degree + k] ?? 1;
    return [p.x * w, p.y * w, w] as [number, number, number];
  });
  let before = d.map((v) => [...v] as [number, number, number]);
  for (let r = 1; r <= degree; r++) {
    if (r === degree) before = d.map((v) => [...v] as [number, number, number]);
    for (let j = degree; j >= r; j--) {
      const low = knots[span - degree + j] as number;
      const high = knots[span + 1 + j - r] as number;
      const share = high > low ? (t - low) / (high - low) : 0;
      for (let k = 0; k < 3; k++)
        (d[j] as number[])[k] = (1 - share) * ((d[j - 1] as number[])[k] as number) + share * ((d[j] as number[])[k] as number);
    }
  }
  const [x, y, w] = d[degree] as [number, number, number];
  const width = (knots[span + 1] as number) - (knots[span] as number);
  const change = [0, 1, 2].map(
    (k) => ((((before[degree] as number[])[k] as number) - ((before[degree - 1] as number[])[k] as number)) * degree) / width,
  ) as [number, number, number];
  const point = { x: x / w, y: y / w };
  return { point, slope: { x: (change[0] - change[2] * point.x) / w, y: (change[1] - change[2] * point.y) / w } };
}

function cubicAt(from: Point, { c1, c2, to }: CubicSegment, t: number): Point {
  const u = 1 - t;
  const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: a * from.x + b * c1.x + c * c2.x + d * to.x, y: a * from.y + b * c1.y + c * c2.y + d * to.y };
}

/**
 * In: a stretch of a contour that turns from one straight edge into another. Out: the arc tangent to both, nearest to it.
 * One unknown, the place where the arc begins: its radius follows from touching the second edge as well. Unlike the
 * crossing of the edges that place is well determined where they are parallel, as about a slot's round end.
 * Rests on: Gauss-Newton steps over the squared distances.
 */
import { cross, norm, type Point } from '../plane/point.ts';
import type { ArcSegment } from '../plane/segment.ts';
import type { CurveEnd } from './curves.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';

interface Edge {
  readonly at: Point;
  readonly direction: Point;
}

export interface TangentArc {
  readonly start: Point;
  readonly arc: ArcSegment;
  /** Of the contour's distances from the arc and the edges, px. */
  readonly rms: number;
}

const maxPoints = parameters.tangentArcPoints;

/**
 * @param turn the arc's sweep: how far the second edge's direction is turned from the first's, radians
 * @returns null where no arc lies between
 */
export function tangentArc(sampled: SampledContour, start: CurveEnd & Edge, end: CurveEnd & Edge, turn: number): TangentArc | null {
  const side = Math.sign(turn);
  const normal = ({ x, y }: Point): Point => ({ x: -side * y, y: side * x });
  const [n1, n2] = [normal(start.direction), normal(end.direction)];
  const open = 1 - (n1.x * n2.x + n1.y * n2.y);
  const shapeAt = (moved: number) => {
    const from = { x: start.at.x + moved * start.direction.x, y: start.at.y + moved * start.direction.y };
    const radius = (n2.x * (from.x - end.at.x) + n2.y * (from.y - end.at.y)) / open;
    const centre = { x: from.x + radius * n1.x, y: from.y + radius * n1.y };
    return { from, radius, centre, to: { x: centre.x - radius * n2.x, y: centre.y - radius * n2.y } };
  };
  const points = pointsBetween(sampled, start, end);
  const residuals = (moved: number): number[] => {
    const { from, radius, centre, to } = shapeAt(moved);
    return points.map((p, k) => {
      // Of a slot's round end both edges lie behind either end of the arc.
      const isEarly = 2 * k < points.length;
      const [before, after] = [{ x: p.x - from.x, y: p.y - from.y }, { x: p.x - to.x, y: p.y - to.y }]; // biome-ignore format: one line
      if (isEarly && before.x * start.direction.x + before.y * start.direction.y < 0) return side * cross(start.direction, before);
      if (!isEarly && after.x * end.direction.x + after.y * end.direction.y > 0) return side * cross(end.direction, after);
      return radius - norm(p.x - centre.x, p.y - centre.y);
    });
  };
  const moved = minAt(residuals);
  const { from, to, radius } = shapeAt(moved);
  if (!(radius > 0)) return null;
  return { start: from, arc: { kind: 'arc', to, sweep: turn }, rms: rootMean(residuals(moved)) };
}

const rootMean = (list: readonly number[]): number => Math.sqrt(list.reduce((sum, r) => sum + r * r, 0) / Math.max(1, list.length));

function minAt(residuals: (value: number) => number[]): number {
  const step = 1e-4;
  let value = 0;
  let now = residuals(value);
  for (let round = 0; round < 12; round++) {
    const next = residuals(value + step);
    let [jj, jr] = [0, 0];
    now.forEach((r, k) => {
      const j = ((next[k] as number) - r) / step;
      jj += j * j;
      jr += j * r;
    });
    if (!(jj > 0)) break;
    let move = Math.max(-20, Math.min(20, -jr / jj));
    let tried = residuals(value + move);
    for (let halving = 0; halving < 5 && rootMean(tried) > rootMean(now); halving++) {
      move /= 2;
      tried = residuals(value + move);
    }
    if (rootMean(tried) > rootMean(now)) break;
    [value, now] = [value + move, tried];
    if (Math.abs(move) < 1e-4) break;
  }
  return value;
}

function pointsBetween(sampled: SampledContour, start: CurveEnd, end: CurveEnd): Point[] {
  const [first, last] = [start.index + Math.max(1, start.blurMargin), end.index - Math.max(1, end.blurMargin)];
  const stride = Math.max(1, Math.ceil((last - first) / maxPoints));
  return Array.from({ length: Math.max(0, Math.floor((last - first) / stride) + 1) }, (_, k) => ({
    x: sampled.x(first + k * stride),
    y: sampled.y(first + k * stride),
  }));
}

/**
 * Runs of a drawing's middles, and their ends at junctions: where the middle is read askew, the direction from farther on, corners.
 */
import { solveSymmetric } from '../numeric/linear-solve.ts';
import { crossing, distance, type Point } from '../plane/point.ts';
import type { Tip } from './dashes.ts';
import { type RunEnd, runEndOf } from './junction-point.ts';
import { walkedFrom } from './stroke.ts';

/** A chain read exactly, with what its two ends join. */
export interface Run {
  /** x and y in turn, px. */
  readonly points: Float64Array;
  readonly width: number;
  /** From end to end, junctions and the pen's ends included, px. */
  readonly length: number;
  readonly ends: readonly [RunEnd, RunEnd];
  /** Where its first and last pixels lie, those of the junctions. */
  readonly nodesAt: readonly [Point, Point];
  readonly closed: boolean;
  /** Which of several inks it is drawn with; 0 where there is one. */
  readonly kind: number;
}

export function tipsByNode(runs: readonly Run[]): Map<number, Tip[]> {
  const tipsAt = new Map<number, Tip[]>();
  runs.forEach(({ ends, closed }, run) => {
    if (closed) return;
    for (const side of [0, 1] as const) {
      const { node } = ends[side];
      const known = tipsAt.get(node);
      if (known) known.push({ run, side });
      else tipsAt.set(node, [{ run, side }]);
    }
  });
  return tipsAt;
}

/** So many widths about a junction where a dash ends on a line the line's middle is read askew. */
const askew = 2;

/** A run without the points near its end at a junction, whose direction is that of the points before. */
export function clearOfNode(run: Run, side: 0 | 1): { run: Run; end: BowedEnd } {
  const { points, width, ends, nodesAt } = run;
  const node = nodesAt[side];
  const [n, reach] = [points.length / 2, Math.max(8, Math.round(2 * width))];
  let drop = 0;
  const isNear = (k: number): boolean => {
    const i = side === 0 ? k : n - 1 - k;
    return distance(node, { x: points[2 * i] as number, y: points[2 * i + 1] as number }) < askew * width;
  };
  while (drop < n - reach && isNear(drop)) drop++;
  const left = side === 0 ? points.subarray(2 * drop) : points.subarray(0, points.length - 2 * drop);
  const end = sureEnd(left, side, ends[side].node, reach);
  return { end, run: { ...run, points: left, ends: side === 0 ? [end, ends[1]] : [ends[0], end] } };
}

/** An end with how the line bows there: 1 / its radius, px, positive where it turns left on its way out. */
export interface BowedEnd extends RunEnd {
  readonly bow: number;
}

/** A straight line's end is read over so many times the reach, that of a bow over fewer. */
const straightReaches = [6] as const;
const bowReaches = [3, 2] as const;
/** It is as even as that where the means of its points along quarters leave the curve through all by no more, px. */
const evenPx = 0.12;

/** The end of a run by the line, or else the parabola, through as many of its last points as lie on one. */
function sureEnd(points: Float64Array, side: 0 | 1, node: number, reach: number): BowedEnd {
  for (const [reaches, degree] of [[straightReaches, 1], [bowReaches, 2]] as const) // biome-ignore format: one line
    for (const factor of reaches) {
      const end = curveEnd(points, side, node, factor * reach, degree);
      if (end) return end;
    }
  return { ...runEndOf(points, side, node, reach), bow: 0 };
}

/** The line through all points of a straight stroke; null for a bowed one. */
export const straightThrough = (points: Float64Array): BowedEnd | null => curveEnd(points, 0, -1, points.length / 2, 1);

/** The end by a line or a parabola through so many points; null where they leave it. */
function curveEnd(points: Float64Array, side: 0 | 1, node: number, count: number, degree: 1 | 2): BowedEnd | null {
  const n = points.length / 2;
  if (count > n) return null;
  const { at, out } = runEndOf(points, side, node, count);
  const [us, vs] = [new Float64Array(count), new Float64Array(count)];
  for (let k = 0; k < count; k++) {
    const i = side === 0 ? k : n - 1 - k;
    const [x, y] = [(points[2 * i] as number) - at.x, (points[2 * i + 1] as number) - at.y];
    us[k] = x * out.x + y * out.y;
    vs[k] = y * out.x - x * out.y;
  }
  const [a, b, c] = degree === 1 ? [0, 0, 0] : (parabolaThrough(us, vs) ?? [0, 0, 0]);
  const quarter = Math.floor(count / 4);
  for (let part = 0; part < 4; part++) {
    let off = 0;
    for (let k = part * quarter; k < (part + 1) * quarter; k++) {
      const u = us[k] as number;
      off += ((vs[k] as number) - a - b * u - c * u * u) / quarter;
    }
    if (Math.abs(off) > evenPx) return null;
  }
  // The frame's origin is the foot of the end's own point: there the curve is read.
  const size = Math.sqrt(1 + b * b);
  return {
    node,
    at: { x: at.x - a * out.y, y: at.y + a * out.x },
    out: { x: (out.x - b * out.y) / size, y: (out.y + b * out.x) / size },
    bow: (2 * c) / size ** 3,
  };
}

/** v = a + b u + c u^2 by least squares; null where the points do not tell. */
function parabolaThrough(us: Float64Array, vs: Float64Array): [number, number, number] | null {
  const sum = (power: number, by?: Float64Array): number => us.reduce((s, u, k) => s + u ** power * (by ? (by[k] as number) : 1), 0);
  const [s1, s2, s3, s4] = [1, 2, 3, 4].map((power) => sum(power)) as [number, number, number, number];
  const matrix = [[us.length, s1, s2], [s1, s2, s3], [s2, s3, s4]]; // biome-ignore format: a matrix
  return solveSymmetric(matrix, [sum(0, vs), sum(1, vs), sum(2, vs)]) as [number, number, number] | null;
}

/** Where a bowed end is, and where it heads, so much farther on. */
function fartherOn({ node, at, out, bow }: BowedEnd, d: number): BowedEnd {
  const [turn, aside] = [bow * d, (bow * d * d) / 2];
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return {
    node,
    bow,
    at: { x: at.x + d * out.x - aside * out.y, y: at.y + d * out.y + aside * out.x },
    out: { x: c * out.x - s * out.y, y: s * out.x + c * out.y },
  };
}

/** Where two ends meet, each along its own bow; null where they run beside each other. */
export function meetingOfBows(p: BowedEnd, q: BowedEnd): Point | null {
  let [a, b] = [p, q];
  let met = crossing(a.at, a.out, b.at, b.out);
  for (let round = 0; round < 4 && met; round++) {
    const place: Point = met;
    const along = (end: BowedEnd): number => (place.x - end.at.x) * end.out.x + (place.y - end.at.y) * end.out.y;
    [a, b] = [fartherOn(p, along(p)), fartherOn(q, along(q))];
    met = crossing(a.at, a.out, b.at, b.out);
  }
  return met;
}

/** Lines that turn less at a junction have no corner there, radians. */
const minCorner = 0.08;

/** The corner in which two ends of a line come together at a junction; null where it runs on. */
export const cornerAtNode = (p: BowedEnd, q: BowedEnd, width: number): Point | null =>
  cornerBetween(p, q, minCorner, 2 * askew * width + 4);

/** Where two ends meet that turn by so much, no farther on from either than a limit; null where they do not. */
function cornerBetween(p: BowedEnd, q: BowedEnd, minTurn: number, limit: number): Point | null {
  const turn = Math.abs(Math.atan2(p.out.x * q.out.y - p.out.y * q.out.x, -(p.out.x * q.out.x + p.out.y * q.out.y)));
  const met = turn < minTurn ? null : meetingOfBows(p, q);
  return met && distance(met, p.at) < limit && distance(met, q.at) < limit ? met : null;
}

/** A run with its end led straight on to a corner, a pixel at a time. */
export function ledTo(run: Run, side: 0 | 1, corner: Point): Run {
  const more = stepsTo(run.ends[side].at, corner);
  const points = side === 0 ? [...walkedFrom(more, 1), ...run.points] : [...run.points, ...more];
  return { ...run, points: Float64Array.from(points) };
}

/** A line's middle cannot be read over so many of its widths about a corner that matters. */
const minGapWidths = 0.7;
/** Corners that turn by less are read well enough, radians. */
const minSharpCorner = 0.6;

/**
 * A line's points with its sharp corners put in: there the middle could not be read, and each side is led on to where both meet.
 * @param places for every point its place along the line, in steps of about a pixel
 */
export function withCorners(points: Float64Array, places: Float64Array, width: number): Float64Array {
  const n = places.length;
  const reach = Math.max(8, Math.round(2 * width));
  const isGap = (k: number): boolean => (places[k + 1] as number) - (places[k] as number) > Math.max(3, minGapWidths * width);
  const gaps = Array.from({ length: n - 1 }, (_, k) => k).filter(isGap);
  const inserted = new Map<number, number[]>();
  gaps.forEach((k, g) => {
    const [start, end] = [(gaps[g - 1] ?? -1) + 1, gaps[g + 1] ?? n - 1];
    if (k - start + 1 < reach || end - k < reach) return;
    const before = sureEnd(points.subarray(2 * start, 2 * k + 2), 1, -1, reach);
    const after = sureEnd(points.subarray(2 * k + 2, 2 * end + 2), 0, -1, reach);
    const corner = cornerBetween(before, after, minSharpCorner, 1.5 * ((places[k + 1] as number) - (places[k] as number)) + 2);
    if (!corner) return;
    inserted.set(k, [...stepsTo(before.at, corner), corner.x, corner.y, ...walkedFrom(stepsTo(after.at, corner), 1)]);
  });
  if (inserted.size === 0) return points;
  return Float64Array.from(
    Array.from({ length: n }, (_, k) => [points[2 * k] as number, points[2 * k + 1] as number, ...(inserted.get(k) ?? [])]).flat(),
  );
}

/** Places a pixel apart from one to another, both left out; x and y in turn. */
function stepsTo(from: Point, to: Point): Float64Array {
  const count = Math.floor(distance(from, to));
  return Float64Array.from({ length: 2 * count }, (_, i) => {
    const t = ((i >> 1) + 1) / (count + 1);
    return i % 2 === 0 ? from.x + t * (to.x - from.x) : from.y + t * (to.y - from.y);
  });
}

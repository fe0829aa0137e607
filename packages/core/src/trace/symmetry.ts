/**
 * In: the closed outlines of a piece. Out: the mirror axis or the centre and order that it nearly has, and the piece
 * made exactly so.
 * Rests on: candidates from the outline's angular weight about its middle, correlated with itself turned and turned over;
 * the axis or the centre settled by Gauss-Newton on the distances from the outline's image to the outline (iterative
 * closest points, Besl & McKay 1992, point to line); the outline rebuilt as the mean of its images.
 */

import { solveSymmetric } from '../numeric/linear-solve.ts';
import { nearestOnPath, type Path, pathBox, pathLength, stepsOf, transformedPath } from '../plane/path.ts';
import { distance, norm, type Point } from '../plane/point.ts';
import { pointOn, segmentLength } from '../plane/segment.ts';
import { apply, chain, shift, type Transform, turn } from '../plane/transform.ts';

export interface Mirror {
  readonly kind: 'mirror';
  /** A point of the axis and its angle, radians. */
  readonly at: Point;
  readonly angle: number;
  /** How far the image lies from the outline: root mean square, and at most, in its unit. */
  readonly rms: number;
  readonly worst: number;
}

export interface Turned {
  readonly kind: 'turned';
  readonly at: Point;
  /** How many turns of 1/order make a whole one. */
  readonly order: number;
  readonly rms: number;
  readonly worst: number;
}

export type Symmetry = Mirror | Turned;

export interface Outlines {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

/** Points at even steps along closed paths, with the outline's direction there. */
interface Sampled {
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly dxs: Float64Array;
  readonly dys: Float64Array;
  /** Which of the paths a point lies on. */
  readonly of: Int32Array;
}

const sampleCount = 900;
const bins = 720;
const maxOrder = 60;

/** The symmetries that the outlines have within `tolerance`, the turned one of the highest order and the best mirror. */
export function symmetriesOf(piece: Outlines, tolerance: number): Symmetry[] {
  const paths = [piece.outer, ...piece.holes];
  const samples = sampled(paths, sampleCount);
  const middle = { x: mean(samples.xs), y: mean(samples.ys) };
  const weight = angularWeight(samples, middle);
  const size = Math.max(...samples.xs.map((x, k) => norm(x - middle.x, (samples.ys[k] as number) - middle.y)));
  // A circle is symmetric about everything: nothing is to be told.
  if (paths.every((path) => isRound(sampled([path], 60), middle, tolerance))) return [];
  const look = { paths, samples, tree: lookup(samples), limit: Math.max(3 * tolerance, 0.02 * size) };
  const found: Symmetry[] = [];
  const mirrors = mirrorAngles(weight)
    .map((angle) => settledMirror(look, middle, angle))
    .filter((m): m is Mirror => m !== null && m.rms <= tolerance && m.worst <= 4 * tolerance)
    .sort((a, b) => a.rms - b.rms);
  // Of axes that are equally good the one most upright is what a person means.
  const [best] = mirrors;
  const uprights = mirrors.filter((m) => best && m.rms <= 1.5 * best.rms + 0.1 * tolerance);
  const upright = uprights.sort((a, b) => Math.abs(a.angle - Math.PI / 2) - Math.abs(b.angle - Math.PI / 2))[0];
  if (upright) found.push(upright);
  for (const order of ordersOf(weight)) {
    const turned = settledTurn(look, middle, order);
    if (turned && turned.rms <= tolerance && turned.worst <= 4 * tolerance) {
      found.push(turned);
      break;
    }
  }
  return found;
}

/** The map that takes a symmetric figure to itself: over the axis, or a turn of one part. */
export function imageOf(symmetry: Symmetry): Transform {
  const { x, y } = symmetry.at;
  if (symmetry.kind === 'turned') return chain(shift(x, y), chain(turn((2 * Math.PI) / symmetry.order), shift(-x, -y)));
  const [c, s] = [Math.cos(2 * symmetry.angle), Math.sin(2 * symmetry.angle)];
  return chain(shift(x, y), chain({ a: c, b: s, c: s, d: -c, e: 0, f: 0 }, shift(-x, -y)));
}

const mean = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / values.length;

function sampled(paths: readonly Path[], count: number): Sampled {
  const total = paths.reduce((sum, path) => sum + pathLength(path), 0);
  const step = total / count;
  const points: Point[] = paths.flatMap((path) => evenPoints(path, Math.max(12, Math.round(pathLength(path) / step))));
  const n = points.length;
  const [xs, ys, dxs, dys] = [new Float64Array(n), new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  const of = new Int32Array(n);
  let start = 0;
  for (const [which, path] of paths.entries()) {
    const own = Math.max(12, Math.round(pathLength(path) / step));
    for (let k = 0; k < own; k++) {
      const [p, a, b] = [points[start + k], points[start + ((k + own - 1) % own)], points[start + ((k + 1) % own)]] as [
        Point,
        Point,
        Point,
      ];
      const length = distance(a, b) || 1;
      of[start + k] = which;
      xs[start + k] = p.x;
      ys[start + k] = p.y;
      dxs[start + k] = (b.x - a.x) / length;
      dys[start + k] = (b.y - a.y) / length;
    }
    start += own;
  }
  return { xs, ys, dxs, dys, of };
}

/** So many points at even steps along a closed path, from its start on. */
export function evenPoints(path: Path, count: number): Point[] {
  const steps = stepsOf(path).map(({ from, segment }) => ({ from, segment, length: segmentLength(from, segment) }));
  const total = steps.reduce((sum, { length }) => sum + length, 0);
  const points: Point[] = [];
  let [gone, k] = [0, 0];
  for (const { from, segment, length } of steps) {
    for (; k < count && (k * total) / count < gone + length; k++)
      points.push(pointOn(from, segment, ((k * total) / count - gone) / length));
    gone += length;
  }
  for (; k < count; k++) points.push(path.start);
  return points;
}

/** Squared distance from the middle, summed over directions. */
function angularWeight({ xs, ys }: Sampled, middle: Point): Float64Array {
  const weight = new Float64Array(bins);
  for (let k = 0; k < xs.length; k++) {
    const [x, y] = [(xs[k] as number) - middle.x, (ys[k] as number) - middle.y];
    const place = ((Math.atan2(y, x) / (2 * Math.PI) + 1) % 1) * bins;
    // A Gaussian of two bins, so that samples do not beat with the bins.
    for (let i = -6; i <= 6; i++) {
      const bin = Math.floor(place) + i;
      const off = bin + 0.5 - place;
      const at = ((bin % bins) + bins) % bins;
      weight[at] = (weight[at] as number) + (x * x + y * y) * Math.exp((-off * off) / 8);
    }
  }
  const average = mean(weight);
  return weight.map((w) => w - average);
}

function isRound({ xs, ys }: Sampled, middle: Point, tolerance: number): boolean {
  const radii = Array.from(xs, (x, k) => norm(x - middle.x, (ys[k] as number) - middle.y));
  return Math.max(...radii) - Math.min(...radii) < 2 * tolerance;
}

/** The angles about which the weight turned over agrees best with itself, best first. */
function mirrorAngles(weight: Float64Array): number[] {
  const scores = Array.from({ length: bins }, (_, sum) => {
    let score = 0;
    for (let k = 0; k < bins; k++) score += (weight[k] as number) * (weight[(sum - k + 2 * bins) % bins] as number);
    return score;
  });
  const best = Math.max(...scores);
  return scores
    .map((score, sum) => ({ score, sum }))
    .filter(
      ({ score, sum }) =>
        score > 0.5 * best && score >= (scores[(sum + 1) % bins] as number) && score > (scores[(sum + bins - 1) % bins] as number),
    )
    .sort((a, b) => b.score - a.score)
    .slice(0, 8)
    .map(({ sum }) => ((sum + 1) / 2) * ((2 * Math.PI) / bins));
}

/** Orders whose turn leaves the weight about as it is, highest first. */
function ordersOf(weight: Float64Array): number[] {
  const energy = weight.reduce((sum, w) => sum + w * w, 0);
  const orders: number[] = [];
  for (let order = maxOrder; order >= 2; order--) {
    const lag = bins / order;
    let score = 0;
    for (let k = 0; k < bins; k++) {
      const at = k + lag;
      const low = Math.floor(at) % bins;
      const share = at - Math.floor(at);
      score += (weight[k] as number) * ((weight[low] as number) * (1 - share) + (weight[(low + 1) % bins] as number) * share);
    }
    if (score > 0.6 * energy) orders.push(order);
  }
  return orders;
}

interface Look {
  readonly paths: readonly Path[];
  readonly samples: Sampled;
  readonly tree: (x: number, y: number) => number;
  /** Samples whose image is farther from the outline are not counted while settling. */
  readonly limit: number;
}

/** The nearest sample, by a grid of cells. */
function lookup({ xs, ys }: Sampled): (x: number, y: number) => number {
  const [minX, maxX] = [Math.min(...xs), Math.max(...xs)];
  const [minY, maxY] = [Math.min(...ys), Math.max(...ys)];
  const cell = Math.max(maxX - minX, maxY - minY, 1e-9) / 40;
  const grid = new Map<number, number[]>();
  const keyOf = (i: number, j: number) => (i + 512) * 4096 + j + 512;
  const cellOf = (x: number, y: number): [number, number] => [Math.floor((x - minX) / cell), Math.floor((y - minY) / cell)];
  xs.forEach((x, k) => {
    const key = keyOf(...cellOf(x, ys[k] as number));
    grid.set(key, [...(grid.get(key) ?? []), k]);
  });
  const nearestIn = (i: number, j: number, x: number, y: number, from: { best: number; nearest: number }) => {
    for (const k of grid.get(keyOf(i, j)) ?? []) {
      const d = ((xs[k] as number) - x) ** 2 + ((ys[k] as number) - y) ** 2;
      if (d < from.nearest) [from.best, from.nearest] = [k, d];
    }
  };
  return (x, y) => {
    const [i, j] = cellOf(x, y);
    const found = { best: -1, nearest: Infinity };
    for (let ring = 0; ring < 45 && (found.best < 0 || (ring - 1) * cell < Math.sqrt(found.nearest)); ring++) {
      for (let a = -ring; a <= ring; a++) {
        // The top and bottom rows whole, of the others both ends.
        const step = Math.abs(a) === ring ? 1 : Math.max(1, 2 * ring);
        for (let b = -ring; b <= ring; b += step) nearestIn(i + a, j + b, x, y, found);
      }
    }
    return found.best;
  };
}

/** How far an image lies off the outline, measured across the nearest place of it. */
function offsets(
  { samples, tree, limit }: Look,
  image: Transform,
): { rms: number; worst: number; pairs: { k: number; at: number; off: number }[] } {
  const { xs, ys, dxs, dys } = samples;
  const pairs: { k: number; at: number; off: number }[] = [];
  let [squares, worst] = [0, 0];
  for (let k = 0; k < xs.length; k++) {
    const x = image.a * (xs[k] as number) + image.c * (ys[k] as number) + image.e;
    const y = image.b * (xs[k] as number) + image.d * (ys[k] as number) + image.f;
    const at = tree(x, y);
    const off = -(dys[at] as number) * (x - (xs[at] as number)) + (dxs[at] as number) * (y - (ys[at] as number));
    const along = Math.abs((dxs[at] as number) * (x - (xs[at] as number)) + (dys[at] as number) * (y - (ys[at] as number)));
    // Beside a corner the nearest line may run elsewhere: the distance itself then counts.
    const far = norm(x - (xs[at] as number), y - (ys[at] as number));
    squares += Math.min(off * off, far * far);
    worst = Math.max(worst, Math.min(Math.abs(off), far));
    if (Math.abs(off) < limit && along < limit) pairs.push({ k, at, off });
  }
  return { rms: Math.sqrt(squares / xs.length), worst, pairs };
}

/** How far an image lies from the outlines themselves, not from chords between samples. */
function exactly({ paths, samples, tree }: Look, image: Transform): { rms: number; worst: number } {
  let [squares, worst] = [0, 0];
  samples.xs.forEach((x, k) => {
    const p = apply(image, { x, y: samples.ys[k] as number });
    const off = nearestOnPath(paths[samples.of[tree(p.x, p.y)] as number] as Path, p).distance;
    squares += off * off;
    worst = Math.max(worst, off);
  });
  return { rms: Math.sqrt(squares / samples.xs.length), worst };
}

function settledMirror(look: Look, middle: Point, startAngle: number): Mirror | null {
  let mirror: Mirror = { kind: 'mirror', at: middle, angle: startAngle, rms: Infinity, worst: Infinity };
  const { samples } = look;
  for (let round = 0; round < 12; round++) {
    const { rms, worst, pairs } = offsets(look, imageOf(mirror));
    if (pairs.length < samples.xs.length / 2) return null;
    mirror = { ...mirror, rms, worst };
    // Unknowns: the angle, and how far the axis moves across itself.
    const [nx, ny] = [-Math.sin(mirror.angle), Math.cos(mirror.angle)];
    const moved = settleStep(look, pairs, 2, (x, y) => [[-2 * (y - mirror.at.y), 2 * (x - mirror.at.x)], [2 * nx, 2 * ny]], imageOf(mirror)); // biome-ignore format: one line
    if (!moved) return mirror;
    const [turned, across] = moved as [number, number];
    mirror = { ...mirror, angle: mirror.angle + turned, at: { x: mirror.at.x + across * nx, y: mirror.at.y + across * ny } };
    if (Math.abs(turned) < 1e-7 && Math.abs(across) < 1e-6) break;
  }
  const angle = mirror.angle - Math.PI * Math.floor(mirror.angle / Math.PI);
  return { ...mirror, angle, ...exactly(look, imageOf(mirror)) };
}

function settledTurn(look: Look, middle: Point, order: number): Turned | null {
  let found: Turned = { kind: 'turned', at: middle, order, rms: Infinity, worst: Infinity };
  const angle = (2 * Math.PI) / order;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  for (let round = 0; round < 8; round++) {
    const { rms, worst, pairs } = offsets(look, imageOf(found));
    if (pairs.length < look.samples.xs.length / 2) return null;
    found = { ...found, rms, worst };
    // Moving the centre moves the image by what the turn leaves of that.
    const moved = settleStep(look, pairs, 2, () => [[1 - c, -s], [s, 1 - c]], imageOf(found)); // biome-ignore format: one line
    if (!moved) return found;
    const [x, y] = moved as [number, number];
    found = { ...found, at: { x: found.at.x + x, y: found.at.y + y } };
    if (norm(x, y) < 1e-6) break;
  }
  return { ...found, ...exactly(look, imageOf(found)) };
}

/** One Gauss-Newton step; `motion` gives how an image point moves with each unknown. */
function settleStep(
  { samples }: Look,
  pairs: readonly { k: number; at: number; off: number }[],
  size: number,
  motion: (x: number, y: number) => number[][],
  image: Transform,
): number[] | null {
  const matrix = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const right = new Array<number>(size).fill(0);
  for (const { k, at, off } of pairs) {
    const [px, py] = [samples.xs[k] as number, samples.ys[k] as number];
    const [x, y] = [image.a * px + image.c * py + image.e, image.b * px + image.d * py + image.f];
    const [nx, ny] = [-(samples.dys[at] as number), samples.dxs[at] as number];
    const slopes = motion(x, y).map(([mx, my]) => nx * (mx as number) + ny * (my as number));
    slopes.forEach((slope, i) => {
      right[i] = (right[i] as number) - slope * off;
      slopes.forEach((other, j) => {
        (matrix[i] as number[])[j] = ((matrix[i] as number[])[j] as number) + slope * other;
      });
    });
  }
  return solveSymmetric(matrix, right);
}

/** Which of the outlines each one's image lies on. */
export function partners(paths: readonly Path[], image: Transform, tolerance: number): number[] {
  const middles = paths.map(middleOfBox);
  return paths.map((path) => {
    const moved = middleOfBox(transformedPath(path, image));
    const length = pathLength(path);
    const distances = paths.map((other, j) => distance(middles[j] as Point, moved) + Math.abs(pathLength(other) - length));
    const nearest = distances.indexOf(Math.min(...distances));
    return (distances[nearest] as number) < 12 * tolerance + 0.02 * length ? nearest : -1;
  });
}

function middleOfBox(path: Path): Point {
  const { minX, maxX, minY, maxY } = pathBox(path);
  return { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
}

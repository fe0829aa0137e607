/**
 * In: a grey picture of drawn lines. Out: their middles as paths that meet exactly at junctions, with their widths.
 * Rests on: the thinned ink for how lines hang together, the grey picture for where they run (raster/stroke-middle.ts).
 * At a junction the two lines that run on best are one path; what ends there ends on it, or where all meet.
 */
import type { Box } from '../plane/box.ts';
import { nearestOnPath, type Path, pathBox } from '../plane/path.ts';
import { distance, norm, type Point } from '../plane/point.ts';
import { centreline, edgeAlong } from '../raster/centreline.ts';
import type { GreyPicture } from '../raster/grey.ts';
import { inkCount, inkMask } from '../raster/ink-mask.ts';
import { type Chain, mergedJunctions, pruned, type Skeleton, skeletonOf } from '../raster/skeleton.ts';
import { thinned } from '../raster/thinning.ts';
import { joinedStrokes } from './joined-strokes.ts';
import { type RunEnd, runEndOf, withEnds } from './junction-point.ts';
import { openPathAlong, outlineAlong } from './outline.ts';
import { type Run, withCorners } from './run-ends.ts';
import type { Stroke } from './stroke.ts';

export interface MiddleLine {
  readonly path: Path;
  /** The drawn line's width, px. */
  readonly widthPx: number;
  readonly isDashed: boolean;
  /** Which of several inks it is drawn with; 0 where there is one. */
  readonly kind: number;
}

export interface NetworkSettings {
  /** Between two greys; what is darker is ink. */
  readonly level: number;
  /** Deviation of the Gaussian that softens the picture's edges, px. */
  readonly blur: number;
  readonly minNoise: number;
  readonly tolerancePx: number;
  /** Shorter lines that hang on nothing are specks, px. */
  readonly smallestPx: number;
  /** Where inks of several colours are told apart: which of them each pixel has, from 1; 0 for paper. */
  readonly kinds?: Uint8Array;
}

/** Yields the share done, 0 to 1. */
export function* networkOf(picture: GreyPicture, settings: NetworkSettings): Generator<number, MiddleLine[]> {
  const mask = inkMask(picture, settings.level);
  const inked = inkCount(mask);
  for (const _ of thinned(mask)) yield 0.3;
  const roughWidth = Math.max(1, inked / Math.max(1, inkCount(mask)));
  const skeleton = cleaned(skeletonOf(mask), roughWidth);
  yield 0.5;
  const degrees = nodeDegrees(skeleton);
  const runs: Run[] = [];
  for (const chain of skeleton.chains) {
    const run = runOf(picture, settings, mask.width, chain, roughWidth, degrees);
    if (run) runs.push(run);
  }
  yield 0.7;
  const strokes = joinedStrokes(runs, settings.smallestPx, (end, reach) => meetsInk(picture, settings.level, end, reach + roughWidth));
  const fitted: MiddleLine[] = [];
  for (const stroke of strokes) {
    fitted.push(fittedStroke(settings, stroke));
    if (fitted.length % 50 === 0) yield 0.7 + (0.3 * fitted.length) / strokes.length;
  }
  return metExactly(fitted, strokes);
}

function cleaned(skeleton: Skeleton, width: number): Skeleton {
  const spur = width + 2;
  return pruned(mergedJunctions(pruned(skeleton, spur), 1.3 * width + 1), spur);
}

/** How many chains end at each node. */
function nodeDegrees({ chains, nodeCount }: Skeleton): Int32Array {
  const degrees = new Int32Array(nodeCount);
  for (const { nodes } of chains) for (const node of nodes) if (node >= 0) degrees[node] = (degrees[node] as number) + 1;
  return degrees;
}

function runOf(
  picture: GreyPicture,
  { level, kinds }: NetworkSettings,
  stride: number,
  { pixels, nodes }: Chain,
  roughWidth: number,
  degrees: Int32Array,
): Run | null {
  const rough = new Float64Array(2 * pixels.length);
  pixels.forEach((p, k) => {
    rough[2 * k] = (p % stride) - 0.5;
    rough[2 * k + 1] = Math.floor(p / stride) - 0.5;
  });
  const closed = nodes[0] < 0;
  const read = centreline(picture, level, rough, closed, roughWidth);
  // Between two junctions as near as this no middle can be read; the line is there all the same.
  const isBetween = !closed && nodes.every((node) => (degrees[node] as number) > 1);
  const { points, width } =
    read.points.length < 4 && isBetween
      ? { points: middlePart(rough), width: roughWidth }
      : { points: withCorners(read.points, read.places, read.width), width: read.width };
  if (points.length < 4) return null;
  const reach = Math.max(8, Math.round(2 * width));
  const ends = ([0, 1] as const).map((side) => {
    const end = runEndOf(points, side, nodes[side], reach);
    return !closed && degrees[nodes[side]] === 1 ? drawnOut(picture, level, end, width) : end;
  }) as [RunEnd, RunEnd];
  const last = rough.length - 2;
  const nodesAt = ([0, last] as const).map((k): Point => ({ x: rough[k] as number, y: rough[k + 1] as number })) as [Point, Point];
  const beyond = ([0, 1] as const).map((side): number => {
    const { at } = ends[side];
    const first = side === 0 ? 0 : points.length - 2;
    // A free end has been drawn out; the line that another end hangs on is met at the chain's own last pixel.
    const from = degrees[nodes[side]] === 1 ? at : nodesAt[side];
    return distance(from, { x: points[first] as number, y: points[first + 1] as number });
  });
  let length = closed ? 0 : (beyond[0] as number) + (beyond[1] as number);
  for (let k = 2; k < points.length; k += 2)
    length += norm((points[k] as number) - (points[k - 2] as number), (points[k + 1] as number) - (points[k - 1] as number));
  return { points, width, length, closed, ends, nodesAt, kind: kinds ? mostOften(kinds, picture.width, points) : 0 };
}

/** The kind of ink that most of a line's places have; 0 where none has any. */
export function mostOften(kinds: Uint8Array, width: number, points: Float64Array): number {
  const counts = new Map<number, number>();
  for (let k = 0; k < points.length; k += 2) {
    const kind = kinds[Math.floor(points[k + 1] as number) * width + Math.floor(points[k] as number)] ?? 0;
    if (kind > 0) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}

/** The middle third of a short chain, where the lines at its ends pull least. */
function middlePart(rough: Float64Array): Float64Array {
  const n = rough.length / 2;
  if (n < 2) return rough;
  const [a, b] = [Math.floor((n - 1) / 3), Math.ceil((2 * (n - 1)) / 3)];
  return Float64Array.of(...rough.subarray(2 * a, 2 * a + 2), ...rough.subarray(2 * b, 2 * b + 2));
}

/** Whether there is ink ahead of an end, beyond the paper that follows it, within a reach, px. */
function meetsInk({ width, height, data }: GreyPicture, level: number, { at, out }: Pick<RunEnd, 'at' | 'out'>, reach: number): boolean {
  let hasPaper = false;
  for (let d = 0; d <= reach; d += 0.5) {
    const [i, j] = [Math.floor(at.x + d * out.x), Math.floor(at.y + d * out.y)];
    if (i < 0 || j < 0 || i >= width || j >= height) return false;
    const isInk = (data[j * width + i] as number) < level;
    if (isInk && hasPaper) return true;
    hasPaper ||= !isInk;
  }
  return false;
}

function fittedStroke(settings: NetworkSettings, { points, width, closed, ends, isDashed, kind }: Stroke): MiddleLine {
  const { blur, minNoise, tolerancePx } = settings;
  // Beside a corner of a wide line its middle cannot be read: as if it were that much softer.
  const bluntness = Math.max(blur, 0.45 * width);
  if (closed) return { path: outlineAlong(points, bluntness, minNoise, tolerancePx), widthPx: width, isDashed, kind };
  const [start, end] = ends.map(({ target, at }) => target ?? at) as [Point, Point];
  const whole = Float64Array.of(start.x, start.y, ...points, end.x, end.y);
  return { path: openPathAlong(whole, [start, end], bluntness, minNoise, tolerancePx), widthPx: width, isDashed, kind };
}

/** A free end where the drawn line ends: a pen's round end half its width before the ink, a square one with it. */
function drawnOut(picture: GreyPicture, level: number, end: RunEnd, width: number): RunEnd {
  const { at, out } = end;
  const left = edgeAlong(picture, level, at.x, at.y, out.x, out.y, 3 * width + 3);
  if (!Number.isFinite(left)) return end;
  const near = { x: at.x + (left - width / 4) * out.x, y: at.y + (left - width / 4) * out.y };
  const across = [1, -1].map((side) => edgeAlong(picture, level, near.x, near.y, -side * out.y, side * out.x, width));
  // A quarter of its width before its end a round line is 0.87 of it wide.
  const isSquare = (across[0] as number) + (across[1] as number) > 0.94 * width;
  const on = Math.max(0, isSquare ? left : left - width / 2);
  return { ...end, at: { x: at.x + on * out.x, y: at.y + on * out.y } };
}

/** Ends that lie on a line that runs through moved onto its fitted path. */
function metExactly(lines: readonly MiddleLine[], strokes: readonly Stroke[]): MiddleLine[] {
  const boxes = lines.map(({ path }) => pathBox(path));
  const isNear = (j: number, { x, y }: Point, reach: number): boolean => {
    const { minX, maxX, minY, maxY } = boxes[j] as Box;
    return x > minX - reach && x < maxX + reach && y > minY - reach && y < maxY + reach;
  };
  return lines.map((line, k) => {
    const { ends, closed, isDashed } = strokes[k] as Stroke;
    // A row of dashes keeps to its own line.
    if (closed || isDashed) return line;
    const onto = (side: 0 | 1): Point | null => {
      const { target, isOnThrough } = ends[side];
      if (!target || !isOnThrough) return null;
      let best: { point: Point; distance: number } | null = null;
      lines.forEach((other, j) => {
        if (j === k || !isNear(j, target, other.widthPx)) return;
        const near = nearestOnPath(other.path, target);
        if (near.distance < 0.5 * other.widthPx && (!best || near.distance < best.distance)) best = near;
      });
      return (best as { point: Point } | null)?.point ?? null;
    };
    return { ...line, path: withEnds(line.path, onto(0), onto(1)) };
  });
}

/**
 * In: a grey picture of drawn lines. Out: their middles as paths that meet exactly at junctions, with their widths.
 * Rests on: the thinned ink for how lines hang together, the grey picture for where they run (raster/stroke-middle.ts).
 * At a junction the two lines that run on best are one path; what ends there ends on it, or where all meet.
 */
import type { Box } from '../plane/box.ts';
import { nearestOnPath, type Path, pathBox } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { centreline, edgeAlong } from '../raster/centreline.ts';
import type { GreyPicture } from '../raster/grey.ts';
import { inkCount, inkMask } from '../raster/ink-mask.ts';
import { type Chain, mergedJunctions, pruned, type Skeleton, skeletonOf } from '../raster/skeleton.ts';
import { thinned } from '../raster/thinning.ts';
import { dashedRuns } from './dashes.ts';
import { meetingPlace, type RunEnd, runEndOf, withEnds } from './junction-point.ts';
import { openPathAlong, outlineAlong } from './outline.ts';
import { type Stroke, type StrokeEnd, walkedFrom } from './stroke.ts';

export interface MiddleLine {
  readonly path: Path;
  /** The drawn line's width, px. */
  readonly widthPx: number;
  readonly isDashed: boolean;
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
}

/** A chain read exactly, with what its two ends join. */
interface Run {
  readonly points: Float64Array;
  readonly width: number;
  readonly ends: readonly [RunEnd, RunEnd];
  readonly closed: boolean;
}

/** A run and which of its ends. */
interface Tip {
  readonly run: number;
  readonly side: 0 | 1;
}

/** Yields the share done, 0 to 1. */
export function* networkOf(picture: GreyPicture, settings: NetworkSettings): Generator<number, MiddleLine[]> {
  const mask = inkMask(picture, settings.level);
  const inked = inkCount(mask);
  for (const _ of thinned(mask)) yield 0.3;
  const roughWidth = Math.max(1, inked / Math.max(1, inkCount(mask)));
  const skeleton = cleaned(skeletonOf(mask), roughWidth);
  yield 0.5;
  const runs: Run[] = [];
  for (const chain of skeleton.chains) {
    const run = runOf(picture, settings, mask.width, chain, roughWidth);
    if (run) runs.push(run);
  }
  yield 0.7;
  const strokes = dashedRuns(
    joinedStrokes(runs).map((stroke) => drawnOut(picture, settings.level, stroke)),
    settings.smallestPx,
  );
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

function runOf(picture: GreyPicture, { level }: NetworkSettings, stride: number, { pixels, nodes }: Chain, roughWidth: number): Run | null {
  const rough = new Float64Array(2 * pixels.length);
  pixels.forEach((p, k) => {
    rough[2 * k] = (p % stride) - 0.5;
    rough[2 * k + 1] = Math.floor(p / stride) - 0.5;
  });
  const closed = nodes[0] < 0;
  const { points, width } = centreline(picture, level, rough, closed, roughWidth);
  if (points.length < 4) return null;
  const reach = Math.max(8, Math.round(2 * width));
  return { points, width, closed, ends: [runEndOf(points, 0, nodes[0], reach), runEndOf(points, 1, nodes[1], reach)] };
}

/** Lines that turn less than this at a junction may run on, radians. */
const straightOn = 0.45;

function joinedStrokes(runs: readonly Run[]): Stroke[] {
  const tipsAt = new Map<number, Tip[]>();
  runs.forEach(({ ends, closed }, run) => {
    if (closed) return;
    for (const side of [0, 1] as const) {
      const { node } = ends[side];
      tipsAt.set(node, [...(tipsAt.get(node) ?? []), { run, side }]);
    }
  });
  const endOfTip = ({ run, side }: Tip): RunEnd => (runs[run] as Run).ends[side];
  const partner = new Map<string, Tip>();
  const target = new Map<string, { at: Point; isOnThrough: boolean }>();
  const keyOf = ({ run, side }: Tip) => `${run}:${side}`;
  for (const tips of tipsAt.values()) {
    if (tips.length < 2) continue;
    const pairs = pairedTips(tips, endOfTip, (tip) => (runs[tip.run] as Run).width);
    for (const [a, b] of pairs) {
      partner.set(keyOf(a), b);
      partner.set(keyOf(b), a);
    }
    for (const tip of tips) {
      if (partner.has(keyOf(tip))) continue;
      const at = meetingPlace(
        endOfTip(tip),
        tips.map(endOfTip),
        pairs.map(([a, b]) => [endOfTip(a), endOfTip(b)] as const),
        (runs[tip.run] as Run).width,
      );
      target.set(keyOf(tip), { at, isOnThrough: pairs.length > 0 });
    }
  }
  const used = new Set<number>();
  const strokes: Stroke[] = [];
  runs.forEach((run, k) => {
    if (used.has(k)) return;
    used.add(k);
    if (run.closed) {
      strokes.push({
        points: run.points,
        width: run.width,
        closed: true,
        isDashed: false,
        ends: run.ends.map(freeEnd) as unknown as [StrokeEnd, StrokeEnd],
      });
      return;
    }
    const list: Tip[] = [{ run: k, side: 0 }];
    let closed = false;
    // Forward from its end, then backward from its start; a tip stands for its run walked from that side.
    for (let exit: Tip = { run: k, side: 1 }; ; ) {
      const next = partner.get(keyOf(exit));
      if (!next) break;
      if (used.has(next.run)) {
        closed = true;
        break;
      }
      used.add(next.run);
      list.push(next);
      exit = { run: next.run, side: next.side === 0 ? 1 : 0 };
    }
    for (let entry: Tip = { run: k, side: 0 }; !closed; ) {
      const before = partner.get(keyOf(entry));
      if (!before || used.has(before.run)) break;
      used.add(before.run);
      entry = { run: before.run, side: before.side === 0 ? 1 : 0 };
      list.unshift(entry);
    }
    strokes.push(strokeOf(runs, list, closed, (tip) => target.get(keyOf(tip)) ?? null));
  });
  return strokes;
}

const freeEnd = ({ at, out }: RunEnd): StrokeEnd => ({ at, out, target: null, isOnThrough: false });

function strokeOf(
  runs: readonly Run[],
  list: readonly Tip[],
  closed: boolean,
  targetOf: (tip: Tip) => { at: Point; isOnThrough: boolean } | null,
): Stroke {
  const points = list.flatMap(({ run, side }) => walkedFrom((runs[run] as Run).points, side));
  const first = list[0] as Tip;
  const last = list.at(-1) as Tip;
  const end = (tip: Tip): StrokeEnd => {
    const target = targetOf(tip);
    return { ...freeEnd((runs[tip.run] as Run).ends[tip.side]), target: target?.at ?? null, isOnThrough: target?.isOnThrough ?? false };
  };
  const lengths = list.map(({ run }) => (runs[run] as Run).points.length);
  const width =
    list.reduce((sum, { run }, k) => sum + (runs[run] as Run).width * (lengths[k] as number), 0) / lengths.reduce((a, b) => a + b, 0);
  return {
    points: Float64Array.from(points),
    width,
    closed,
    isDashed: false,
    ends: [end(first), end({ run: last.run, side: last.side === 0 ? 1 : 0 })],
  };
}

/** The tips of a junction that run on into each other, straightest first. */
function pairedTips(tips: readonly Tip[], runEndOf: (tip: Tip) => RunEnd, widthOf: (tip: Tip) => number): [Tip, Tip][] {
  const offers = tips.flatMap((a, k) =>
    tips.slice(k + 1).map((b) => {
      const [p, q] = [runEndOf(a), runEndOf(b)];
      const turn = Math.acos(Math.max(-1, Math.min(1, -(p.out.x * q.out.x + p.out.y * q.out.y))));
      const aside = Math.abs(p.out.x * (q.at.y - p.at.y) - p.out.y * (q.at.x - p.at.x));
      return { a, b, turn, aside: aside / Math.max(widthOf(a), widthOf(b)) };
    }),
  );
  const pairs: [Tip, Tip][] = [];
  const taken = new Set<Tip>();
  for (const { a, b, turn, aside } of offers.sort((m, n) => m.turn - n.turn)) {
    if (turn > straightOn || aside > 1 || taken.has(a) || taken.has(b)) continue;
    taken.add(a);
    taken.add(b);
    pairs.push([a, b]);
  }
  return pairs;
}

function fittedStroke(settings: NetworkSettings, { points, width, closed, ends, isDashed }: Stroke): MiddleLine {
  const { blur, minNoise, tolerancePx } = settings;
  // Beside a corner of a wide line its middle cannot be read: as if it were that much softer.
  const bluntness = Math.max(blur, 0.45 * width);
  if (closed) return { path: outlineAlong(points, bluntness, minNoise, tolerancePx), widthPx: width, isDashed };
  const [start, end] = ends.map(({ target, at }) => target ?? at) as [Point, Point];
  const whole = Float64Array.of(start.x, start.y, ...points, end.x, end.y);
  return { path: openPathAlong(whole, [start, end], bluntness, minNoise, tolerancePx), widthPx: width, isDashed };
}

/** A stroke with its free ends where the drawn line ends: a pen's round end half its width before the ink, a square one with it. */
function drawnOut(picture: GreyPicture, level: number, stroke: Stroke): Stroke {
  if (stroke.closed) return stroke;
  const { width } = stroke;
  const ends = stroke.ends.map((end): StrokeEnd => {
    const { target, at, out } = end;
    const left = target ? Number.NaN : edgeAlong(picture, level, at.x, at.y, out.x, out.y, 3 * width + 3);
    if (!Number.isFinite(left)) return end;
    const near = { x: at.x + (left - width / 4) * out.x, y: at.y + (left - width / 4) * out.y };
    const across = [1, -1].map((side) => edgeAlong(picture, level, near.x, near.y, -side * out.y, side * out.x, width));
    // A quarter of its width before its end a round line is 0.87 of it wide.
    const isSquare = (across[0] as number) + (across[1] as number) > 0.94 * width;
    const on = Math.max(0, isSquare ? left : left - width / 2);
    return { ...end, at: { x: at.x + on * out.x, y: at.y + on * out.y } };
  });
  return { ...stroke, ends: ends as unknown as readonly [StrokeEnd, StrokeEnd] };
}

/** Ends that lie on a line that runs through moved onto its fitted path. */
function metExactly(lines: readonly MiddleLine[], strokes: readonly Stroke[]): MiddleLine[] {
  const boxes = lines.map(({ path }) => pathBox(path));
  const isNear = (j: number, { x, y }: Point, reach: number): boolean => {
    const { minX, maxX, minY, maxY } = boxes[j] as Box;
    return x > minX - reach && x < maxX + reach && y > minY - reach && y < maxY + reach;
  };
  return lines.map((line, k) => {
    const { ends, closed } = strokes[k] as Stroke;
    if (closed) return line;
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

/**
 * In: borders from junction to junction. Out: a path along each, junctions met exactly.
 * Where two borders run on into each other at a junction they are fitted as one contour and cut there afterwards, so that
 * a side stays one line, a ring stays round; what ends on them ends where they are cut.
 */
import { nearestOnPath, type Path, reversedPath, stepsOf } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { type Segment, splitSegment } from '../plane/segment.ts';
import type { BorderChain } from '../raster/label-borders.ts';
import { meetingPlace, type RunEnd, runEndOf, withEnds } from './junction-point.ts';
import { openPathAlong, outlineAlong } from './outline.ts';
import { walkedFrom } from './stroke.ts';

/** A border placed to a part of a pixel. */
export interface ThroughBorder {
  readonly chain: BorderChain;
  /** x and y in turn, px; near a junction, where three colours mix, there are none. */
  readonly points: Float64Array;
  /** The label to its left and right. */
  readonly labels: readonly [number, number];
}

/** One side of a border: the border, and whether it is walked backwards. */
export interface HalfBorder {
  readonly border: number;
  readonly isBack: boolean;
}

/** A junction: about where it lies, and which two ends, if any, run on into each other. */
export interface Junction {
  readonly place: Point;
  readonly through: readonly [End, End] | null;
}

interface End {
  readonly border: number;
  readonly side: 0 | 1;
}

export interface ThroughPath {
  readonly list: readonly HalfBorder[];
  readonly closed: boolean;
}

/** Borders that turn less than this at a junction run on through it, radians. */
const straightOn = 0.25;
/** How far from the pixels' own corner a junction can come to lie, px. */
const farthest = 6;
/** Ends are read over so many points. */
const endReach = 14;

/** @param width of the picture, px: junctions are named by their corner of its lattice */
export function junctionsOf(borders: readonly ThroughBorder[], width: number): Map<number, Junction> {
  const ends = new Map<number, (End & { readonly sampled: RunEnd | null })[]>();
  borders.forEach(({ chain, points }, border) => {
    if (chain.start < 0) return;
    for (const side of [0, 1] as const) {
      const node = side === 0 ? chain.start : chain.end;
      const n = points.length / 2;
      const sampled = n >= 6 ? runEndOf(points, side, node, Math.min(endReach, n)) : null;
      ends.set(node, [...(ends.get(node) ?? []), { border, side, sampled }]);
    }
  });
  const stride = width + 1;
  return new Map([...ends].map(([node, list]) => [node, junctionAt(list, { x: node % stride, y: Math.floor(node / stride) })]));
}

function junctionAt(list: readonly (End & { readonly sampled: RunEnd | null })[], corner: Point): Junction {
  const read = list.filter((end): end is End & { sampled: RunEnd } => end.sampled !== null);
  if (read.length < 2) return { place: corner, through: null };
  const pairs = read.flatMap((a, k) => read.slice(k + 1).map((b) => ({ a, b, turn: turnOf(a.sampled, b.sampled) })));
  const best = pairs.filter(({ a, b, turn }) => turn < straightOn && a.border !== b.border).sort((p, q) => p.turn - q.turn)[0];
  const others = best ? read.filter((end) => end !== best.a && end !== best.b) : read;
  const sampledContours = read.map(({ sampled }) => sampled);
  const [first] = others;
  const middle = best && { x: (best.a.sampled.at.x + best.b.sampled.at.x) / 2, y: (best.a.sampled.at.y + best.b.sampled.at.y) / 2 };
  const met = first ? meetingPlace(first.sampled, sampledContours, best ? [[best.a.sampled, best.b.sampled]] : [], 4) : (middle ?? corner);
  return { place: distance(met, corner) < farthest ? met : corner, through: best ? [best.a, best.b] : null };
}

const turnOf = (a: RunEnd, b: RunEnd): number => Math.acos(Math.max(-1, Math.min(1, -(a.out.x * b.out.x + a.out.y * b.out.y))));

/** Borders strung together where they run on into each other; every border is in one contour. */
export function throughPaths(borders: readonly ThroughBorder[], junctions: ReadonlyMap<number, Junction>): ThroughPath[] {
  const partner = (border: number, side: 0 | 1): End | null => {
    const { chain } = borders[border] as ThroughBorder;
    const through = junctions.get(side === 0 ? chain.start : chain.end)?.through;
    const at = through?.findIndex((end) => end.border === border && end.side === side) ?? -1;
    return at < 0 || !through ? null : (through[1 - at] as End);
  };
  const used = new Set<number>();
  return borders.flatMap((_, k): ThroughPath[] => {
    if (used.has(k)) return [];
    used.add(k);
    if ((borders[k] as ThroughBorder).chain.start < 0) return [{ list: [{ border: k, isBack: false }], closed: true }];
    const list: HalfBorder[] = [{ border: k, isBack: false }];
    let closed = false;
    for (let end = partner(k, 1); end; ) {
      if (used.has(end.border)) {
        closed = end.border === k;
        break;
      }
      used.add(end.border);
      list.push({ border: end.border, isBack: end.side === 1 });
      end = partner(end.border, end.side === 0 ? 1 : 0);
    }
    for (let end = closed ? null : partner(k, 0); end && !used.has(end.border); ) {
      used.add(end.border);
      list.unshift({ border: end.border, isBack: end.side === 0 });
      end = partner(end.border, end.side === 0 ? 1 : 0);
    }
    return [{ list, closed }];
  });
}

const nodeOf = (borders: readonly ThroughBorder[], { border, isBack }: HalfBorder, atStart: boolean): number => {
  const { chain } = borders[border] as ThroughBorder;
  return atStart === isBack ? chain.end : chain.start;
};

export function fittedPath(
  { list, closed }: ThroughPath,
  borders: readonly ThroughBorder[],
  junctions: ReadonlyMap<number, Junction>,
  blur: number,
  tolerancePx: number,
): Path {
  const points = list.flatMap(({ border, isBack }) => {
    const own = (borders[border] as ThroughBorder).points;
    return walkedFrom(own, isBack ? 1 : 0);
  });
  if (closed && points.length >= 6) return outlineAlong(Float64Array.from(points), blur, minNoise, tolerancePx);
  const placeAt = (half: HalfBorder, atStart: boolean): Point => (junctions.get(nodeOf(borders, half, atStart)) as Junction).place;
  const [from, to] = [placeAt(list[0] as HalfBorder, true), placeAt(list.at(-1) as HalfBorder, false)];
  return openPathAlong(Float64Array.of(from.x, from.y, ...points, to.x, to.y), [from, to], blur, minNoise, tolerancePx);
}

const minNoise = 0.03;

/** A path for every border: the contours' paths cut at their junctions, ends moved onto what runs through. */
export function cutAtJunctions(
  sampledContours: readonly ThroughPath[],
  fits: readonly Path[],
  borders: readonly ThroughBorder[],
  junctions: ReadonlyMap<number, Junction>,
): Path[] {
  const places = new Map([...junctions].map(([node, { place }]) => [node, place]));
  const cuts = sampledContours.map(({ list, closed }, k) => {
    const nodes =
      closed && list.length === 1 && nodeOf(borders, list[0] as HalfBorder, true) < 0
        ? []
        : list.map((half) => nodeOf(borders, half, true));
    const inner = closed ? nodes : nodes.slice(1);
    return inner.map((node) => {
      const near = nearestOnPath(fits[k] as Path, places.get(node) as Point);
      places.set(node, near.point);
      return near;
    });
  });
  const paths: Path[] = [];
  sampledContours.forEach(({ list, closed }, k) => {
    const parts = cutPath(fits[k] as Path, cuts[k] as readonly Cut[], closed);
    list.forEach((half, n) => {
      const part = parts[n] as Path;
      const isRound = nodeOf(borders, half, true) < 0;
      const met = isRound
        ? part
        : withEnds(part, places.get(nodeOf(borders, half, true)) as Point, places.get(nodeOf(borders, half, false)) as Point);
      paths[half.border] = half.isBack ? reversedPath(met) : met;
    });
  });
  return paths;
}

interface Cut {
  readonly index: number;
  readonly t: number;
  readonly point: Point;
}

/** A path in the parts between its cuts, in order; a closed one begins at its first cut. */
function cutPath(path: Path, cuts: readonly Cut[], closed: boolean): Path[] {
  if (cuts.length === 0) return [path];
  const steps = stepsOf(path);
  const pieceOf = (index: number, from: number, to: number): Segment[] => {
    const { from: start, segment } = steps[index] as (typeof steps)[0];
    if (to - from < 1e-9) return [];
    const upTo = to >= 1 - 1e-9 ? segment : (splitSegment(start, segment, to)[0] as Segment);
    return [from <= 1e-9 ? upTo : (splitSegment(start, upTo, from / Math.min(1, to))[1] as Segment)];
  };
  const between = (a: { index: number; t: number }, b: { index: number; t: number }, isAround: boolean): Segment[] => {
    if (!isAround && a.index === b.index) return pieceOf(a.index, a.t, b.t);
    const whole: Segment[] = [];
    const n = steps.length;
    const last = isAround && b.index <= a.index ? b.index + n : b.index;
    for (let i = a.index + 1; i < last; i++) whole.push((steps[i % n] as (typeof steps)[0]).segment);
    return [...pieceOf(a.index, a.t, 1), ...whole, ...pieceOf(b.index, 0, b.t)];
  };
  const part = (start: Point, segments: Segment[]): Path => ({
    start,
    segments: segments.length > 0 ? segments : [{ kind: 'line', to: start }],
    closed: false,
  });
  if (closed) {
    return cuts.map((cut, k) => {
      const next = cuts[(k + 1) % cuts.length] as Cut;
      const isAround = next.index < cut.index || (next.index === cut.index && next.t <= cut.t);
      return part(cut.point, between(cut, next, isAround));
    });
  }
  const ends = [{ index: 0, t: 0, point: path.start }, ...cuts, { index: steps.length - 1, t: 1, point: path.start }];
  return ends.slice(1).map((next, k) => part((ends[k] as Cut).point, between(ends[k] as Cut, next, false)));
}

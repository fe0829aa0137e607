/**
 * In: a contour in pixels. Out: a closed path of lines and cubic curves along it, in pixels.
 * Corners part the contour into runs; a run is one line, or straight stretches with curves between; lines meet in
 * their crossing, and everything else joins with one tangent.
 */

import { nearestOnPath, type Path, withoutLoops } from '../plane/path.ts';
import { crossing, norm, type Point } from '../plane/point.ts';
import { withoutCornerLoops } from '../shape/corner-loops.ts';
import { withoutNeedless } from '../shape/needless.ts';
import { type Bend, type BendEnd, bendCost, fitBend, fitRound } from './bends.ts';
import { wholeFigure } from './circle-and-ellipse-fit.ts';
import type { Corner } from './corner.ts';
import { findCorners } from './corners.ts';
import { type EdgeModel, edgeModelOf, tipShrinkage } from './edge-model.ts';
import { type Join, joinAfter, type Part } from './joins.ts';
import { localCurve } from './local-curve.ts';
import { parameters } from './parameters.ts';
import { SampledContour } from './sampled-contour.ts';
import { modelCost } from './segment-cost.ts';
import { isStraight, type Stretch, straightStretches } from './straights.ts';
import { pathAlong } from './stray-parts.ts';

/**
 * @param contour x and y in turn, px, closed
 * @param blur deviation of the Gaussian that softens the picture's edges, px
 * @param minNoise what the kind of picture alone brings (stairs of a one-bit scan), px
 * @param tolerancePx largest distance of the outline from the contour
 */
export function outlineAlong(contour: Float64Array, blur: number, minNoise: number, tolerancePx: number): Path {
  const sampled = new SampledContour(contour);
  const edgeModel = edgeModelOf(blur, Math.min(0.4, Math.max(minNoise, sampled.noise())), tolerancePx);
  const found = wholeFigure(sampled, edgeModel);
  if (found) return found;
  const corners = findCorners(sampled, edgeModel);
  const along = (chosen: readonly Corner[]): Path => {
    const whole = assembled(sampled, edgeModel, partsOf(sampled, edgeModel, chosen));
    // About the tip of a spike a curve may be led into a loop, alone or with its neighbour: there is a corner instead.
    return withoutNeedless(withoutCornerLoops(withoutLoops(whole), cornerLoopPx), needlessPx).path;
  };
  const sure = corners.filter(({ isUnresolved }) => !isUnresolved);
  const path = along(sure);
  const left = corners.filter((one) => one.isUnresolved && offAbout(sampled, edgeModel, one, path) > edgeModel.worst);
  if (left.length === 0) return path;
  const pointed = along([...sure, ...left].sort((a, b) => a.index - b.index));
  const off = (of: Path) => Math.max(...left.map((one) => offAbout(sampled, edgeModel, one, of)));
  return off(pointed) < off(path) ? pointed : path;
}

/** How far a path leaves the contour about a corner, px. */
function offAbout(sampled: SampledContour, { gap, arm }: EdgeModel, { index }: Corner, path: Path): number {
  const reach = gap + arm;
  const offs = Array.from({ length: 2 * reach + 1 }, (_, k) => {
    const at = index - reach + k;
    return nearestOnPath(path, { x: sampled.x(at), y: sampled.y(at) }).distance;
  });
  return Math.max(...offs);
}

const cornerLoopPx = parameters.cornerLoopPx;

const needlessPx = parameters.needlessPx;

/** An end of an open contour: where the path must end and, where it goes on smoothly, its direction of travel there. */
interface HeldEnd {
  readonly at: Point;
  readonly direction: Point | null;
}
/** Null where the contour itself says it. */
export type PathEnd = Point | HeldEnd | null;
const held = (end: Point | HeldEnd): HeldEnd => ('at' in end ? end : { at: end, direction: null });

/**
 * The same along an open contour.
 * @param points x and y in turn, px
 */
export function openPathAlong(
  points: Float64Array,
  ends: readonly [PathEnd, PathEnd],
  blur: number,
  minNoise: number,
  tolerancePx: number,
): Path {
  const sampled = new SampledContour(points, false);
  const last = sampled.count - 1;
  const at = (index: number): Point => ({ x: sampled.x(index), y: sampled.y(index) });
  const [start, end] = [held(ends[0] ?? at(0)), held(ends[1] ?? at(last))];
  if (last < 4) return { start: start.at, segments: [{ kind: 'line', to: end.at }], closed: false };
  const edgeModel = edgeModelOf(blur, Math.min(0.4, Math.max(minNoise, sampled.noise())), tolerancePx);
  const inner = findCorners(sampled, edgeModel).filter(
    ({ index, isUnresolved }) => !isUnresolved && index > edgeModel.gap + edgeModel.arm && index < last - edgeModel.gap - edgeModel.arm,
  );
  // The ends join nothing, as corners do; nothing beside them is blurred.
  const blurMargin = new Map([[0, 1], [last, 1], ...inner.map((c) => [c.index, blurMarginOf(edgeModel, c.turn)] as const)]); // biome-ignore format: one line
  const stops = [0, ...inner.map((c) => c.index), last];
  const parts = withoutFalseCorners(
    sampled,
    edgeModel,
    stops.slice(1).flatMap((to, k) => partsOfRun(sampled, edgeModel, stops[k] as number, to, (i) => blurMargin.get(i) ?? 0)),
  );
  const joins = parts.slice(1).map((part, k) => joinAfter(sampled, edgeModel, parts[k] as Part, part, blurMargin));
  return withoutLoops(open(sampled, edgeModel, parts, [{ ...start, blurMargin: 1 }, ...joins, { ...end, blurMargin: 1 }]));
}

/** Straight parts in a row that are one straight edge all told made one. */
function withoutFalseCorners(sampled: SampledContour, edgeModel: EdgeModel, parts: readonly Part[]): Part[] {
  const kept: Part[] = [];
  for (const part of parts) {
    const before = kept.at(-1);
    if (before?.kind === 'line' && part.kind === 'line' && isStraight(sampled, edgeModel, before.first + 1, part.last - 1)) {
      kept[kept.length - 1] = { kind: 'line', first: before.first, last: part.last };
    } else kept.push(part);
  }
  return kept;
}

/** Points beside a corner that its softness bends: more where the corner is sharp. */
function blurMarginOf(edgeModel: EdgeModel, turn: number): number {
  const halfAngle = (Math.PI - Math.abs(turn)) / 2;
  return edgeModel.gap + Math.ceil(1.5 * tipShrinkage(edgeModel, halfAngle) - 0.8 * edgeModel.blur);
}

/** Parts in order of travel, with the corners between; a smooth closed contour is one part from a point to itself. */
function partsOf(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  corners: readonly Corner[],
): { parts: Part[]; corners: Map<number, number> } {
  const blurMargin = new Map(corners.map((c) => [c.index, blurMarginOf(edgeModel, c.turn)]));
  const runs: [number, number][] = corners.map((c, k) => {
    const next = corners[k + 1]?.index ?? (corners[0] as Corner).index + sampled.count;
    return [c.index, next];
  });
  if (runs.length === 0) runs.push(smoothRun(sampled, edgeModel));
  return {
    parts: runs.flatMap(([from, to]) => partsOfRun(sampled, edgeModel, from, to, (k) => blurMargin.get(sampled.wrap(k)) ?? 0)),
    corners: blurMargin,
  };
}

/** Where to open a smooth closed contour: inside its longest straight stretch, else at its farthest point. */
function smoothRun(sampled: SampledContour, edgeModel: EdgeModel): [number, number] {
  const stretches = straightStretches(sampled, edgeModel, 0, sampled.count - 1);
  const longest = stretches.reduce<Stretch | null>((a, b) => (a && a.last - a.first >= b.last - b.first ? a : b), null);
  // A stretch that passes the opening would be found in two halves: open at the end of the longest one.
  if (longest) return [longest.last, longest.last + sampled.count];
  const [x, y] = [sampled.xs.reduce((a, b) => a + b, 0) / sampled.count, sampled.ys.reduce((a, b) => a + b, 0) / sampled.count];
  let [best, farthest] = [0, 0];
  for (let k = 0; k < sampled.count; k++) {
    const d = norm(sampled.x(k) - x, sampled.y(k) - y);
    if (d > farthest) [best, farthest] = [k, d];
  }
  return [best, best + sampled.count];
}

function partsOfRun(sampled: SampledContour, edgeModel: EdgeModel, from: number, to: number, blurMarginAt: (k: number) => number): Part[] {
  const length = to - from;
  const trim = (k: number) => Math.min(blurMarginAt(k), Math.floor(length / 4));
  const [first, last] = [from + trim(from), to - trim(to)];
  const hasCorners = blurMarginAt(from) > 0;
  if (hasCorners && (length < 4 || isShortLine(sampled, edgeModel, first, last) || isStraight(sampled, edgeModel, first, last)))
    return [{ kind: 'line', first: from, last: to }];
  const stretches = straightStretches(sampled, edgeModel, first, last);
  const plain: Part[] = [{ kind: 'curve', first: from, last: to }];
  if (stretches.length === 0) return plain;
  // A stretch that ends this near to a corner or to the next stretch reaches it.
  const near = edgeModel.gap + (edgeModel.arm >> 1);
  const mixed = stretchedOut(sampled, edgeModel, stretches, from, hasCorners, near + trim(from), near);
  const at = (mixed.at(-1) as Part).last;
  if (to - at <= near + trim(to) && hasCorners) mixed[mixed.length - 1] = { ...(mixed.at(-1) as Part), last: to };
  else if (at < to) mixed.push({ kind: 'curve', first: at, last: to });
  return mixed.length > 1 && !isWorthwhile(sampled, edgeModel, mixed, plain, blurMarginAt)
    ? plain
    : withoutNeedlessLines(sampled, edgeModel, mixed, blurMarginAt);
}

/** Whether a run between corners is so short, and so straight, that a bow would be only what softness left of the corners. */
function isShortLine(sampled: SampledContour, edgeModel: EdgeModel, first: number, last: number): boolean {
  if (last - first > parameters.shortLine || edgeModel.aliasing > parameters.tipNarrowAliasing) return false;
  const line = sampled.line(first, last);
  for (let k = first; k <= last; k++) if (Math.abs(sampled.offset(k, line)) > parameters.shortLineOff) return false;
  return true;
}

const needlessLine = parameters.needlessLine;

/** Short straight parts between curves left out where one curve tells the three more cheaply. */
function withoutNeedlessLines(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  parts: readonly Part[],
  blurMarginAt: (k: number) => number,
): Part[] {
  const kept = [...parts];
  for (let k = 1; k + 1 < kept.length; k++) {
    const [before, line, after] = kept.slice(k - 1, k + 2) as [Part, Part, Part];
    if (line.kind !== 'line' || before.kind !== 'curve' || after.kind !== 'curve' || line.last - line.first > needlessLine) continue;
    const whole: Part = { kind: 'curve', first: before.first, last: after.last };
    if (isWorthwhile(sampled, edgeModel, [before, line, after], [whole], blurMarginAt)) continue;
    kept.splice(k - 1, 3, whole);
    k = Math.max(0, k - 2);
  }
  return kept;
}

/** Straight stretches as parts, those that nearly touch drawn on to where they meet, curves between the others. */
function stretchedOut(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  stretches: readonly Stretch[],
  from: number,
  hasCorners: boolean,
  nearStart: number,
  near: number,
): Part[] {
  const parts: Part[] = [];
  for (const [n, { first, last }] of stretches.entries()) {
    const before = stretches[n - 1];
    if (!before) {
      const reaches = hasCorners && first - from <= nearStart;
      if (!reaches && first > from) parts.push({ kind: 'curve', first: from, last: first });
      parts.push({ kind: 'line', first: reaches ? from : first, last });
      continue;
    }
    const meets = first - before.last <= near ? (before.last + first) >> 1 : null;
    const corner = shallowCorner(sampled, edgeModel, before, stretches[n] as Stretch) ?? meets;
    if (corner !== null) parts[parts.length - 1] = { ...(parts.at(-1) as Part), last: corner };
    else parts.push({ kind: 'curve', first: before.last, last: first });
    parts.push({ kind: 'line', first: corner ?? first, last });
  }
  return parts;
}

const cornerRadius = parameters.shallowCornerRadius;

/**
 * Where two straight stretches meet in a corner too shallow to be seen as one: where lines through the points before it and
 * after it leave least over. Null where a curve lies between.
 */
function shallowCorner(sampled: SampledContour, edgeModel: EdgeModel, a: Stretch, b: Stretch): number | null {
  if (b.first - a.last > 8 * (edgeModel.gap + edgeModel.arm)) return null;
  const min = 2 * edgeModel.arm;
  let [corner, best] = [-1, Infinity];
  for (let k = Math.max(a.first + min, a.last - cornerRadius); k <= Math.min(b.last - min, b.first + cornerRadius); k++) {
    const [before, after] = [sampled.line(a.first, k - 1), sampled.line(k + 1, b.last)];
    const left = before.rms ** 2 * (k - a.first) + after.rms ** 2 * (b.last - k);
    if (left < best) [corner, best] = [k, left];
  }
  if (corner < 0) return null;
  const [before, after] = [sampled.line(a.first, corner - 1), sampled.line(corner + 1, b.last)];
  const limit = Math.max(0.2, 3 * edgeModel.noise);
  const met = crossing(before, { x: before.dx, y: before.dy }, after, { x: after.dx, y: after.dy });
  // Where lines hardly turn their crossing lies less surely along them, but as surely across.
  const turn = Math.abs(before.dx * after.dy - before.dy * after.dx);
  if (!met || norm(sampled.x(corner) - met.x, sampled.y(corner) - met.y) * turn > Math.max(0.3, turn)) return null;
  for (let k = a.first; k <= b.last; k++) if (Math.abs(sampled.offset(k, k < corner ? before : after)) > limit) return null;
  return corner;
}

/** Whether straight stretches make the run cheaper to tell. */
function isWorthwhile(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  mixed: Part[],
  plain: Part[],
  blurMarginAt: (k: number) => number,
): boolean {
  const straight = mixed.reduce((sum, p) => sum + (p.kind === 'line' ? p.last - p.first : 0), 0);
  const [whole] = plain as [Part];
  if (straight > 0.5 * (whole.last - whole.first)) return true;
  const outer = (index: number): Join => {
    const blurMargin = blurMarginAt(index);
    const local = localCurve(sampled, index, index - (blurMargin ? 0 : 4), index + 4);
    return blurMargin ? { at: { x: sampled.x(index), y: sampled.y(index) }, direction: null, blurMargin } : { ...local, blurMargin: 0 };
  };
  const [start, end] = [outer(whole.first), outer(whole.last)];
  const cost = (parts: Part[]): number => {
    const joins = parts.slice(1).map((part, k) => joinAfter(sampled, edgeModel, parts[k] as Part, part, new Map()));
    const all = [start, ...joins, end];
    return parts.reduce(
      (sum, { kind }, k) => sum + (kind === 'line' ? modelCost.line : bendCost(sampled, edgeModel, ...bendEnds(sampled, parts, all, k))),
      0,
    );
  };
  return cost(mixed) < cost(plain);
}

function assembled(sampled: SampledContour, edgeModel: EdgeModel, { parts, corners }: ReturnType<typeof partsOf>): Path {
  const joins = parts.map((part, k) => joinAfter(sampled, edgeModel, part, parts[(k + 1) % parts.length] as Part, corners));
  const [only] = parts;
  const around = joins.at(-1) as Join;
  if (parts.length === 1 && only?.kind === 'curve' && around.direction) {
    const { start, segments } = fitRound(sampled, edgeModel, { ...around, index: only.first });
    return { start, segments, closed: true };
  }
  return { ...open(sampled, edgeModel, parts, [around, ...joins]), closed: true };
}

const cornerSeen = parameters.shallowCornerSeen;

/** The index whose point lies nearest to a corner's place, so that none beyond it counts for the side before it. */
function indexBeside(sampled: SampledContour, at: Point, index: number, room: number): number {
  const reach = Math.min(cornerSeen, room);
  let [best, min] = [index, Infinity];
  for (let k = index - reach; k <= index + reach; k++) {
    const d = norm(sampled.x(k) - at.x, sampled.y(k) - at.y);
    if (d < min) [best, min] = [k, d];
  }
  return best;
}

/** What the bend of a part joins at its two ends. Where the first and the last join are the same one, the parts run round. */
function bendEnds(sampled: SampledContour, parts: readonly Part[], joins: readonly Join[], k: number): [BendEnd, BendEnd] {
  const isRound = joins[0] === joins.at(-1);
  const kindAt = (n: number) => parts[isRound ? (n + parts.length) % parts.length : n]?.kind;
  const { first, last } = parts[k] as Part;
  const room = Math.floor((last - first) / 4);
  const end = (join: Join, index: number, beside: Part['kind'] | undefined): BendEnd => ({
    ...join,
    index: beside && join.direction === null ? indexBeside(sampled, join.at, index, room) : index,
    blurMargin: Math.min(join.blurMargin, room),
    slides: beside === 'line' && join.direction !== null,
  });
  return [end(joins[k] as Join, first, kindAt(k - 1)), end(joins[k + 1] as Join, last, kindAt(k + 1))];
}

/**
 * Parts drawn from join to join: one join more than parts. Where the first and the last join are the same one, so are
 * the places that bends beside straight edges move them to.
 */
function open(sampled: SampledContour, edgeModel: EdgeModel, parts: readonly Part[], joins: readonly Join[]): Path {
  const isRound = joins[0] === joins.at(-1);
  const bends = parts.map(({ kind }, k): Bend | null =>
    kind === 'line' ? null : fitBend(sampled, edgeModel, ...bendEnds(sampled, parts, joins, k)),
  );
  // An arc beside a straight edge says where the edge ends.
  const places = joins.map((join, k) => {
    const before = bends[isRound && k === 0 ? parts.length - 1 : k - 1];
    const after = bends[isRound && k === parts.length ? 0 : k];
    return before?.segments.at(-1)?.to ?? after?.start ?? join.at;
  });
  return pathAlong(sampled, edgeModel, parts, joins, places, bends);
}

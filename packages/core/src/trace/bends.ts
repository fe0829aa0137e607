/**
 * In: a curved stretch of a course, with what it joins at either end. Out: arcs and cubics along it.
 * Rests on: the cheapest way over breakpoints by dynamic programming (Bellman 1961; for curves Plass & Stone 1983):
 * every segment costs what it takes to tell it and what it leaves over, so that a true arc is told as an arc and a free
 * curve by few cubics. Runs of arcs are then settled together as one chain (arc-chain.ts).
 */
import { circleOf } from '../plane/arc.ts';
import { cross, norm, type Point, turnBetween } from '../plane/point.ts';
import { type ArcSegment, directionOn, type Segment } from '../plane/segment.ts';
import { type ChainEnd, settleChain } from './arc-chain.ts';
import type { Course } from './course.ts';
import { type Care, type CurveEnd, fitCubic } from './curves.ts';
import type { Grain } from './grain.ts';
import { localCurve } from './local-curve.ts';
import { tangentArc } from './tangent-arc.ts';

/** An end of a bend; it `slides` where it may move along a straight edge that it joins. */
export interface BendEnd extends CurveEnd {
  readonly slides: boolean;
}

export interface Bend {
  readonly start: Point;
  readonly segments: Segment[];
  /** What the segments cost to tell; a line costs 1. */
  readonly cost: number;
  /** Course indices between the segments. */
  readonly breaks: readonly number[];
}

/** What it takes to tell a segment, against a line. */
export const costOf: Record<Segment['kind'], number> = { line: 1, arc: 2.2, ellipse: 3, cubic: 3 };
const { arc: arcCost, cubic: cubicCost } = costOf;
/** What a segment that uses its limit up costs more. */
const leftOverCost = 0.4;
/** Steps between places where a segment may end, at least; and how many places there are at most. */
const leastStep = 6;
const mostPlaces = 26;
/** Along longer bends one place in so many steps, for tolerances of up to so many pixels. */
const evenPlaces = 24;
const evenTolerance = 2.4;
/** For comparing ways; the segments taken are fitted with more care. */
const quick: Care = { points: 24, rounds: 4 };

type Kind = 'line' | 'arc' | 'cubic';

interface Edge {
  readonly from: number;
  readonly kind: Kind;
}

/** Stops from one end of the bend to the other, and the kind of segment before each but the first. */
interface Way {
  readonly stops: readonly CurveEnd[];
  readonly kinds: readonly Kind[];
}

/** Arcs and cubics from `start` to `end`, whose index is larger. */
export function fitBend(course: Course, grain: Grain, start: BendEnd, end: BendEnd): Bend {
  const arc = oneArc(course, grain, start, end);
  if (arc) return arc;
  const places = placesAlong(course, grain, start, end);
  const way = settledWay(course, grain, cheapestWay(course, grain, places), (places[1] as CurveEnd).index - start.index);
  const made = drawn(course, grain, way, start, end);
  // Arcs that turn their neighbours from the course are no true arcs.
  const plain = made.fits ? made : drawn(course, grain, { ...way, kinds: way.kinds.map(() => 'cubic') }, start, end);
  return { ...plain, breaks: way.stops.slice(1, -1).map((stop) => stop.index) };
}

/** The whole bend as one arc, its ends moved along the straight edges that it joins. */
function oneArc(course: Course, grain: Grain, start: BendEnd, end: BendEnd): Bend | null {
  const asChainEnd = (e: BendEnd): ChainEnd => ({ ...e, freedom: e.slides ? 'along' : 'none' });
  const isHeld = (e: BendEnd) => e.direction !== null && !e.slides;
  if (isHeld(start) || isHeld(end) || end.index - start.index < 4) return null;
  const limits = arcLimits(grain);
  const { direction: into } = start;
  const { direction: out } = end;
  if (into && out && Math.abs(turnBetween(into, out)) > leastTangentTurn) {
    // Edges that run back nearly parallel may turn either way round by as much: the course itself says which.
    const turn = turnBetween(into, out);
    const middle = (start.index + end.index) >> 1;
    const bows = cross(into, { x: course.x(middle) - start.at.x, y: course.y(middle) - start.at.y });
    const sweep = bows * turn < 0 ? turn - 2 * Math.PI * Math.sign(turn) : turn;
    const made = tangentArc(course, { ...start, direction: into }, { ...end, direction: out }, sweep);
    const fits = made && made.rms <= limits.rms && Math.abs(sweep) < 5.5;
    return fits ? { start: made.start, segments: [made.arc], cost: arcCost, breaks: [] } : null;
  }
  const chain = settleChain(course, asChainEnd(start), asChainEnd(end), [], [false]);
  const arc = chain.segments[0] as ArcSegment;
  const isPlausible = chain.rms <= limits.rms && Math.abs(arc.sweep) > 0.05 && Math.abs(arc.sweep) < 5.5;
  return isPlausible ? { start: chain.start, segments: [arc], cost: arcCost, breaks: [] } : null;
}

/** Edges that turn less into each other are settled as a chain of one arc, radians. */
const leastTangentTurn = 0.4;

/** The place on the course at an index, read from the points within reach that lie between two limits. */
function placeAt(course: Course, grain: Grain, index: number, first: number, last: number): CurveEnd {
  const reach = Math.round(Math.min(8 + 40 * Math.max(0, grain.roughness - 0.05), course.count / 6));
  const room = Math.max(2, Math.min(reach, index - first, last - index));
  const { at, direction } = localCurve(course, index, index - room, index + room);
  return { at, direction, index, spoilt: 0 };
}

function placesAlong(course: Course, grain: Grain, start: BendEnd, end: BendEnd): CurveEnd[] {
  const [first, last] = [start.index + start.spoilt, end.index - end.spoilt];
  // Where a tolerance spans many pixels the course says nothing new between places that lie nearer.
  const apart = evenPlaces * Math.max(1, grain.worst / evenTolerance);
  const count = Math.min(Math.floor((last - first) / leastStep), Math.max(mostPlaces, Math.min(60, Math.round((last - first) / apart))));
  const inner = Array.from({ length: Math.max(0, count - 1) }, (_, k) =>
    placeAt(course, grain, Math.round(first + ((k + 1) * (last - first)) / count), first, last),
  );
  return [start, ...inner, end];
}

/** What a segment of a kind costs from one place to another; infinite where it does not keep within the limits. */
function priceOf(course: Course, grain: Grain, kind: Kind, a: CurveEnd, b: CurveEnd): number {
  if (kind === 'cubic') {
    const { fits, rms } = fitCubic(course, grain, a, b, quick);
    return fits ? cubicCost + leftOverCost * (rms / grain.rms) ** 2 : Infinity;
  }
  const limits = arcLimits(grain);
  if (kind === 'line') {
    const rms = lineBetween(course, a, b, limits);
    return rms === null ? Infinity : costOf.line + leftOverCost * (rms / limits.rms) ** 2;
  }
  const arc = arcBetween(course, a, b, limits);
  return arc ? arcCost + leftOverCost * (arc.rms / limits.rms) ** 2 : Infinity;
}

/** Dear, but a way: between neighbouring places something must lead on. */
const unfitCost = 40;
/** Shorter lines beside curves are left to these, points. */
const leastLine = 24;
/** Arcs that turn less are left to the curves, radians. */
const leastSweep = 0.2;

/** After so many places in a row that a kind of segment does not reach, farther ones are not tried. */
const mostMisses: Record<Kind, number> = { line: 3, arc: 3, cubic: 2 };

/** For every place the cheapest last segment that leads to it; read back from the end. */
function cheapestWay(course: Course, grain: Grain, places: readonly CurveEnd[]): Way {
  const cost = places.map((_, k) => (k === 0 ? 0 : Infinity));
  const best: (Edge | null)[] = places.map(() => null);
  for (let from = 0; from + 1 < places.length; from++) {
    for (const kind of ['line', 'arc', 'cubic'] as const) {
      let misses = 0;
      for (let to = from + 1; to < places.length && misses < mostMisses[kind]; to++) {
        const found = priceOf(course, grain, kind, places[from] as CurveEnd, places[to] as CurveEnd);
        misses = Number.isFinite(found) ? 0 : misses + 1;
        const price = (cost[from] as number) + (kind === 'cubic' && to === from + 1 ? Math.min(found, unfitCost) : found);
        if (price < (cost[to] as number)) [cost[to], best[to]] = [price, { from, kind }];
      }
    }
  }
  return readBack(places, best);
}

function readBack(places: readonly CurveEnd[], best: readonly (Edge | null)[]): Way {
  const stops = [places.at(-1) as CurveEnd];
  const kinds: Kind[] = [];
  for (let at = places.length - 1; at > 0; ) {
    const edge = best[at] as Edge;
    stops.unshift(places[edge.from] as CurveEnd);
    kinds.unshift(edge.kind);
    at = edge.from;
  }
  return { stops, kinds };
}

/** The way with stops left out that cost more than they save, the rest moved to where they cost least, then again. */
function settledWay(course: Course, grain: Grain, way: Way, reach: number): Way {
  return withFewerStops(course, grain, withStopsMoved(course, grain, withFewerStops(course, grain, way), reach));
}

function withFewerStops(course: Course, grain: Grain, { stops, kinds }: Way): Way {
  const [fewer, rest] = [[...stops], [...kinds]];
  const price = (kind: Kind, a: CurveEnd, b: CurveEnd) => Math.min(unfitCost, priceOf(course, grain, kind, a, b));
  for (let k = 1; k + 1 < fewer.length; ) {
    const [before, here, after] = [fewer[k - 1], fewer[k], fewer[k + 1]] as [CurveEnd, CurveEnd, CurveEnd];
    const cost = price(rest[k - 1] as Kind, before, here) + price(rest[k] as Kind, here, after);
    const kind = (['line', 'arc', 'cubic'] as const).find((one) => priceOf(course, grain, one, before, after) < cost);
    if (!kind) {
      k++;
      continue;
    }
    fewer.splice(k, 1);
    rest.splice(k - 1, 2, kind);
  }
  return { stops: fewer, kinds: rest };
}

/** Inner stops moved by halving steps, `reach` indices at most. */
function withStopsMoved(course: Course, grain: Grain, { stops, kinds }: Way, reach: number): Way {
  const now = [...stops];
  const price = (k: number, a: CurveEnd, b: CurveEnd) => Math.min(unfitCost, priceOf(course, grain, kinds[k] as Kind, a, b));
  for (let step = Math.round(reach / 2); step >= 2; step >>= 1) {
    for (let k = 1; k + 1 < now.length; k++) {
      const [before, here, after] = [now[k - 1], now[k], now[k + 1]] as [CurveEnd, CurveEnd, CurveEnd];
      let least = price(k - 1, before, here) + price(k, here, after);
      for (const index of [here.index - step, here.index + step]) {
        if (index < before.index + before.spoilt + leastStep || index > after.index - after.spoilt - leastStep) continue;
        const moved = placeAt(course, grain, index, before.index + before.spoilt, after.index - after.spoilt);
        const cost = price(k - 1, before, moved) + price(k, moved, after);
        if (cost < least) [least, now[k]] = [cost, moved];
      }
    }
  }
  return { stops: now, kinds };
}

interface ArcLimits {
  readonly rms: number;
  readonly worst: number;
  /** How far an arc may leave the course's direction at its ends, radians. */
  readonly angle: number;
}

const arcLimits = ({ roughness, worst }: Grain): ArcLimits => ({
  rms: Math.max(0.08, 1.4 * roughness),
  worst: Math.min(worst, Math.max(0.35, 5 * roughness)),
  angle: 0.012 + 0.35 * roughness,
});

const mostPoints = 20;

/** How far the course leaves the straight line between two places, root mean square; null where it is not straight. */
function lineBetween(course: Course, a: CurveEnd, b: CurveEnd, limits: ArcLimits): number | null {
  const [dx, dy] = [b.at.x - a.at.x, b.at.y - a.at.y];
  const size = norm(dx, dy);
  const [first, last] = [a.index + Math.max(1, a.spoilt), b.index - Math.max(1, b.spoilt)];
  if (!(size > 0) || last - first < leastLine) return null;
  for (const { direction } of [a, b]) {
    if (direction && Math.abs(direction.x * dy - direction.y * dx) > limits.angle * size) return null;
  }
  const stride = Math.max(1, Math.ceil((last - first + 1) / mostPoints));
  let [squares, count, worst] = [0, 0, 0];
  for (let k = first; k <= last; k += stride) {
    const off = (dx * (course.y(k) - a.at.y) - dy * (course.x(k) - a.at.x)) / size;
    squares += off * off;
    worst = Math.max(worst, Math.abs(off));
    count++;
  }
  const rms = Math.sqrt(squares / count);
  return rms <= limits.rms && worst <= limits.worst ? rms : null;
}

/** The arc through two places that lies nearest to the course between; null where none keeps within the limits. */
function arcBetween(course: Course, a: CurveEnd, b: CurveEnd, limits: ArcLimits): { sweep: number; rms: number } | null {
  const chord = norm(b.at.x - a.at.x, b.at.y - a.at.y);
  const along = Math.atan2(b.at.y - a.at.y, b.at.x - a.at.x);
  const turns = [a.direction && wrapped(along - angleOf(a.direction)), b.direction && wrapped(angleOf(b.direction) - along)].filter(
    (t): t is number => t !== null,
  );
  let sweep = turns.length > 0 ? (2 * turns.reduce((s, t) => s + t, 0)) / turns.length : sagittaSweep(course, a, b, chord);
  if (!(Math.abs(sweep) > 0.05) || Math.abs(sweep) > 5.5 || chord < 1e-9) return null;
  // Both ends must turn alike, as they do on an arc.
  if (turns.length === 2 && Math.abs((turns[0] as number) - (turns[1] as number)) > 2 * limits.angle + 0.04 * Math.abs(sweep)) return null;
  const first = a.index + Math.max(1, a.spoilt);
  const last = b.index - Math.max(1, b.spoilt);
  const stride = Math.max(1, Math.ceil((last - first + 1) / mostPoints));
  let found = { rms: Infinity, worst: Infinity };
  for (let round = 0; round < 3; round++) {
    const step = 1e-4;
    const here = offsetsFrom(course, a.at, b.at, sweep, first, last, stride);
    const there = offsetsFrom(course, a.at, b.at, sweep + step, first, last, stride);
    let [jj, jr, rr, worst] = [0, 0, 0, 0];
    for (let k = 0; k < here.length; k++) {
      const [r, j] = [here[k] as number, ((there[k] as number) - (here[k] as number)) / step];
      jj += j * j;
      jr += j * r;
      rr += r * r;
      worst = Math.max(worst, Math.abs(r));
    }
    found = { rms: Math.sqrt(rr / Math.max(1, here.length)), worst };
    if (!(jj > 0) || found.rms > (round > 0 ? 5 : 40) * limits.rms) break;
    const move = -jr / jj;
    if (Math.abs(move) < 1e-5 || round === 2) break;
    sweep += Math.max(-0.3, Math.min(0.3, move));
  }
  if (!(found.rms <= limits.rms && found.worst <= limits.worst) || Math.abs(sweep) < leastSweep || Math.abs(sweep) > 5.5) return null;
  const off = (turn: number | undefined) => turn !== undefined && Math.abs(turn - sweep / 2) > limits.angle + 0.02 * Math.abs(sweep);
  return off(turns[0]) || off(turns[1]) ? null : { sweep, rms: found.rms };
}

const angleOf = (d: Point): number => Math.atan2(d.y, d.x);
const wrapped = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));

/** A first sweep from how far the course bows in the middle. */
function sagittaSweep(course: Course, a: CurveEnd, b: CurveEnd, chord: number): number {
  const middle = (a.index + b.index) >> 1;
  const [dx, dy] = [(b.at.x - a.at.x) / chord, (b.at.y - a.at.y) / chord];
  const bow = dx * (course.y(middle) - a.at.y) - dy * (course.x(middle) - a.at.x);
  return -4 * Math.atan2(2 * bow, chord);
}

/** How far points of the course lie outside the arc from `from` to `to`, px. */
function offsetsFrom(course: Course, from: Point, to: Point, sweep: number, first: number, last: number, stride: number): Float64Array {
  const { centre, radius } = circleOf(from, { kind: 'arc', to, sweep });
  const offsets = new Float64Array(Math.max(0, Math.floor((last - first) / stride) + 1));
  for (let k = 0; k < offsets.length; k++) {
    const index = first + k * stride;
    offsets[k] = norm(course.x(index) - centre.x, course.y(index) - centre.y) - radius;
  }
  return offsets;
}

/** A stretch that no way over its places serves, in two. */
function halves(course: Course, grain: Grain, a: CurveEnd, b: CurveEnd): Segment[] {
  const middle = placeAt(course, grain, (a.index + b.index) >> 1, a.index + a.spoilt, b.index - b.spoilt);
  return [[a, middle] as const, [middle, b] as const].flatMap(
    ([from, to]) => fitBend(course, grain, { ...from, slides: false }, { ...to, slides: false }).segments,
  );
}

/** The segments of a way: runs of arcs settled as chains first, then cubics between, with the directions that arcs give. */
function drawn(
  course: Course,
  grain: Grain,
  { stops, kinds }: Way,
  start: BendEnd,
  end: BendEnd,
): Omit<Bend, 'breaks'> & { readonly fits: boolean } {
  const ends = [...stops];
  const segments: (Segment | null)[] = kinds.map(() => null);
  const lastStop = stops.length - 1;
  let fits = true;
  const chainEnd = (k: number): ChainEnd => {
    const slides = k === 0 ? start.slides : k === lastStop && end.slides;
    return { ...(stops[k] as CurveEnd), freedom: slides ? 'along' : k === 0 || k === lastStop ? 'none' : 'across' };
  };
  for (let first = 0; first < kinds.length; ) {
    let next = first;
    while (next < kinds.length && kinds[next] !== 'cubic') next++;
    if (next > first) {
      const isStraight = kinds.slice(first, next).map((kind) => kind === 'line');
      const chain = settleChain(course, chainEnd(first), chainEnd(next), stops.slice(first + 1, next), isStraight);
      // Several arcs settled together must still keep to the course.
      fits &&= chain.rms <= 1.5 * arcLimits(grain).rms;
      let from = chain.start;
      chain.segments.forEach((arc, k) => {
        segments[first + k] = arc;
        ends[first + k] = { ...(ends[first + k] as CurveEnd), at: from, direction: directionOn(from, arc, 0) };
        ends[first + k + 1] = { ...(ends[first + k + 1] as CurveEnd), at: arc.to, direction: directionOn(from, arc, 1) };
        from = arc.to;
      });
    }
    first = Math.max(next, first + 1);
  }
  // A corner stays without direction.
  const endOf = (k: number): CurveEnd => ({
    ...(ends[k] as CurveEnd),
    direction: stops[k]?.direction ? (ends[k] as CurveEnd).direction : null,
  });
  const cost = kinds.reduce((sum, kind) => sum + costOf[kind], 0);
  const all = segments.flatMap((segment, k): readonly Segment[] => {
    if (segment) return [segment];
    const [a, b] = [endOf(k), endOf(k + 1)];
    const made = fitCubic(course, grain, a, b);
    if (made.fits || b.index - a.index < 3 * leastStep) return [made.cubic];
    // Beside arcs another way may do; without them the stretch is looked at more closely.
    const isWhole = kinds.length === 1;
    fits &&= isWhole;
    return isWhole ? halves(course, grain, a, b) : fitBend(course, grain, { ...a, slides: false }, { ...b, slides: false }).segments;
  });
  return { start: (ends[0] as CurveEnd).at, segments: all, cost, fits };
}

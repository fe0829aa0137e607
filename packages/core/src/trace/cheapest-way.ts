/**
 * In: a stretch of a course from one place to another, or a closed one from a place round to itself. Out: the way over
 * breakpoints that costs least: where its segments end and what kinds they are.
 * Rests on: dynamic programming (Bellman 1961; for curves Plass & Stone 1983) over places in even steps, after which the
 * breakpoints are moved to where they cost least.
 */
import { bendJumps } from './bend-jumps.ts';
import type { Course } from './course.ts';
import type { CurveEnd } from './curves.ts';
import type { Grain } from './grain.ts';
import { localCurve } from './local-curve.ts';
import { costOf, type Kind, kinds, priceOf, tooShort } from './segment-price.ts';

/** Stops from one end to the other, and the kind of segment before each but the first. */
export interface Way {
  readonly stops: readonly CurveEnd[];
  readonly kinds: readonly Kind[];
}

/** Steps between places where a segment may end, at least; and how many places there are at most. */
export const leastStep = 6;
const mostPlaces = 26;
/** Along longer bends one place in so many steps, for tolerances of up to so many pixels. */
const evenPlaces = 24;
const evenTolerance = 2.4;

/** Dear, but a way: between neighbouring places something must lead on. */
const unfitCost = 40;

/** After so many places in a row that a kind of segment does not reach, farther ones are not tried. */
const mostMisses: Record<Kind, number> = { line: 3, arc: 3, cubic: 2 };

/** From so many points to either side a place on a course is read: more where it is rough. */
export const placeReach = (course: Course, { roughness }: Grain): number =>
  Math.round(Math.min(8 + 40 * Math.max(0, roughness - 0.05), course.count / 6));

/** The place on the course at an index, read from the points within reach that lie between two limits. */
export function placeAt(course: Course, grain: Grain, index: number, first: number, last: number): CurveEnd {
  const room = Math.max(2, Math.min(placeReach(course, grain), index - first, last - index));
  const { at, direction } = localCurve(course, index, index - room, index + room);
  return { at, direction, index, spoilt: 0 };
}

/** Places in even steps, and where the bend changes at once. */
function placesAlong(course: Course, grain: Grain, start: CurveEnd, end: CurveEnd): CurveEnd[] {
  const [first, last] = [start.index + start.spoilt, end.index - end.spoilt];
  // Where a tolerance spans many pixels the course says nothing new between places that lie nearer.
  const apart = evenPlaces * Math.max(1, grain.worst / evenTolerance);
  const count = Math.min(Math.floor((last - first) / leastStep), Math.max(mostPlaces, Math.min(60, Math.round((last - first) / apart))));
  const jumps = bendJumps(course, grain, first, last).filter((k) => Math.min(k - start.index, end.index - k) >= leastStep);
  const even = Array.from({ length: Math.max(0, count - 1) }, (_, k) => Math.round(first + ((k + 1) * (last - first)) / count));
  const free = even.filter((k) => jumps.every((jump) => Math.abs(jump - k) >= leastStep));
  const inner = [...free, ...jumps].sort((a, b) => a - b).map((k) => placeAt(course, grain, k, first, last));
  return [start, ...inner, end];
}

/** A place as one that a closed course reaches after some more rounds. */
const roundsOn = (course: Course, place: CurveEnd, rounds: number): CurveEnd =>
  rounds === 0 ? place : { ...place, index: place.index + rounds * course.count };

/** What segments between places cost, each worked out once; along a ring of places their numbers run on round it. */
class Prices {
  private readonly known: Float64Array;

  /** @param ring whether the last place is the first again, one round on */
  constructor(
    private readonly course: Course,
    private readonly grain: Grain,
    readonly places: readonly CurveEnd[],
    private readonly ring: boolean,
  ) {
    this.known = new Float64Array(kinds.length * this.size * (this.size + 1)).fill(Number.NaN);
  }

  private get size(): number {
    return this.ring ? this.places.length - 1 : this.places.length;
  }

  place(k: number): CurveEnd {
    if (!this.ring) return this.places[k] as CurveEnd;
    const [rounds, rest] = [Math.floor(k / this.size), k % this.size];
    return roundsOn(this.course, this.places[rest] as CurveEnd, rounds);
  }

  of(kind: number, from: number, to: number): number {
    const { size, known } = this;
    const slot = (kind * size + (from % size)) * (size + 1) + (to - from);
    if (Number.isNaN(known[slot])) {
      known[slot] = priceOf(this.course, this.grain, kinds[kind] as Kind, this.place(from), this.place(to));
    }
    return known[slot] as number;
  }
}

interface Found extends Way {
  readonly cost: number;
  /** The numbers of the stops' places. */
  readonly numbers: readonly number[];
}

/** For every place of a stretch what the cheapest way to it costs, and its last segment. */
interface Reached {
  readonly cost: Float64Array;
  readonly from: Int32Array;
  /** As numbers of `kinds`. */
  readonly by: Int32Array;
}

/** Offers segments of one kind from a place to those after it; `first` is the number of the stretch's first place. */
function reachOn(prices: Prices, first: number, from: number, kind: number, { cost, from: cameFrom, by }: Reached): void {
  const name = kinds[kind] as Kind;
  let misses = 0;
  for (let to = from + 1; to < cost.length && misses < mostMisses[name]; to++) {
    // A place that is reached at no more cost already gains nothing.
    if ((cost[from] as number) + costOf[name] >= (cost[to] as number)) continue;
    const found = prices.of(kind, first + from, first + to);
    if (found === tooShort) continue;
    misses = Number.isFinite(found) ? 0 : misses + 1;
    const price = (cost[from] as number) + (name === 'cubic' && to === from + 1 ? Math.min(found, unfitCost) : found);
    if (price < (cost[to] as number)) [cost[to], cameFrom[to], by[to]] = [price, from, kind];
  }
}

/** The cheapest way, from each place the cheapest last segment that leads to it, read back from the end. */
function cheapest(prices: Prices, first: number, last: number, allowed: readonly Kind[]): Found {
  const count = last - first + 1;
  const reached: Reached = { cost: new Float64Array(count).fill(Infinity), from: new Int32Array(count), by: new Int32Array(count) };
  reached.cost[0] = 0;
  const offered = kinds.flatMap((kind, k) => (allowed.includes(kind) ? [k] : []));
  for (let from = 0; from + 1 < count; from++) for (const kind of offered) reachOn(prices, first, from, kind, reached);
  const [numbers, by] = [[last], [] as Kind[]];
  for (let at = count - 1; at > 0; at = reached.from[at] as number) {
    by.unshift(kinds[reached.by[at] as number] as Kind);
    numbers.unshift(first + (reached.from[at] as number));
  }
  return { stops: numbers.map((k) => prices.place(k)), kinds: by, cost: reached.cost[count - 1] as number, numbers };
}

/** The cheapest way of segments of those kinds. */
export type Cheapest = (allowed: readonly Kind[]) => Way;

/** The cheapest ways from `start` to `end`, whose index is larger; prices are worked out once for all of them. */
export function cheapestWays(course: Course, grain: Grain, start: CurveEnd, end: CurveEnd): Cheapest {
  const prices = new Prices(course, grain, placesAlong(course, grain, start, end), false);
  const reach = (prices.places[1] as CurveEnd).index - start.index;
  return (allowed) => settled(course, grain, cheapest(prices, 0, prices.places.length - 1, allowed), reach, false, allowed);
}

/** About what the cheapest way costs to tell: over the places alone, its breakpoints not moved. */
export function wayCost(course: Course, grain: Grain, start: CurveEnd, end: CurveEnd): number {
  const prices = new Prices(course, grain, placesAlong(course, grain, start, end), false);
  const way = withFewerStops(course, grain, cheapest(prices, 0, prices.places.length - 1, kinds), kinds);
  return way.kinds.reduce((sum, kind) => sum + costOf[kind], 0);
}

/** The same once round a closed course, opened where it has a stop so that no segment is cut by the opening. */
export function cheapestRounds(course: Course, grain: Grain, start: CurveEnd): Cheapest {
  const prices = new Prices(course, grain, placesAlong(course, grain, start, roundsOn(course, start, 1)), true);
  const size = prices.places.length - 1;
  const reach = (prices.places[1] as CurveEnd).index - start.index;
  return (allowed) => {
    const first = cheapest(prices, 0, size, allowed);
    const middle = first.numbers.length > 2 ? (first.numbers[first.numbers.length >> 1] as number) : 0;
    const second = middle > 0 ? cheapest(prices, middle, middle + size, allowed) : first;
    const best = second.cost < first.cost ? second : first;
    return openedAtCurves(course, settled(course, grain, best, reach, true, allowed));
  };
}

/** A way round opened where two curves meet, if any do: there alone place and direction are the course's own. */
function openedAtCurves(course: Course, { stops, kinds: list }: Way): Way {
  const at = list.findIndex((kind, k) => kind === 'cubic' && list.at(k - 1) === 'cubic');
  if (at < 1) return { stops, kinds: list };
  const on = stops.slice(1, at + 1).map((stop) => roundsOn(course, stop, 1));
  return { stops: [...stops.slice(at), ...on], kinds: [...list.slice(at), ...list.slice(0, at)] };
}

function settled(course: Course, grain: Grain, way: Way, reach: number, isRound: boolean, allowed: readonly Kind[]): Way {
  const moved = withStopsMoved(course, grain, way, reach, isRound);
  const fewer = withoutBridges(course, grain, withFewerStops(course, grain, moved, allowed), allowed);
  return fewer.stops.length < moved.stops.length ? withStopsMoved(course, grain, fewer, reach, isRound) : moved;
}

/** Along a segment that may be left out the joint of its neighbours is looked for at so many places. */
const jointPlaces = 10;

/**
 * The way without segments that only bridge the gap between two places where the true joint lies: their neighbours are
 * drawn on to one joint between, of their own kinds or others.
 */
function withoutBridges(course: Course, grain: Grain, way: Way, allowed: readonly Kind[]): Way {
  const [stops, rest] = [[...way.stops], [...way.kinds]];
  const price = (kind: Kind, a: CurveEnd, b: CurveEnd) => priceOf(course, grain, kind, a, b);
  const cheapestOf = (a: CurveEnd, b: CurveEnd, most: number): { kind: Kind; cost: number } | null => {
    let best: { kind: Kind; cost: number } | null = null;
    for (const kind of allowed) {
      const least: number = best?.cost ?? most;
      const cost: number = costOf[kind] < least ? price(kind, a, b) : Infinity;
      if (cost < least) best = { kind, cost };
    }
    return best;
  };
  for (let k = 1; k + 1 < rest.length; ) {
    const [a, from, to, b] = stops.slice(k - 1, k + 3) as [CurveEnd, CurveEnd, CurveEnd, CurveEnd];
    let least = price(rest[k - 1] as Kind, a, from) + price(rest[k] as Kind, from, to) + price(rest[k + 1] as Kind, to, b);
    let found: { joint: CurveEnd; kinds: [Kind, Kind] } | null = null;
    const step = Math.max(1, (to.index - from.index) / jointPlaces);
    for (let at = from.index; at <= to.index; at += step) {
      const joint = placeAt(course, grain, Math.round(at), a.index + a.spoilt, b.index - b.spoilt);
      const before = cheapestOf(a, joint, least - costOf.line);
      const after = before && cheapestOf(joint, b, least - before.cost);
      if (after) [least, found] = [before.cost + after.cost, { joint, kinds: [before.kind, after.kind] }];
    }
    if (!found) {
      k++;
      continue;
    }
    stops.splice(k, 2, found.joint);
    rest.splice(k - 1, 3, ...found.kinds);
    k = Math.max(1, k - 1);
  }
  return { stops, kinds: rest };
}

/** The way with stops left out that cost more than they save. */
function withFewerStops(course: Course, grain: Grain, way: Way, allowed: readonly Kind[]): Way {
  const [fewer, rest] = [[...way.stops], [...way.kinds]];
  const price = (kind: Kind, a: CurveEnd, b: CurveEnd) => Math.min(unfitCost, priceOf(course, grain, kind, a, b));
  for (let k = 1; k + 1 < fewer.length; ) {
    const [before, here, after] = [fewer[k - 1], fewer[k], fewer[k + 1]] as [CurveEnd, CurveEnd, CurveEnd];
    const cost = price(rest[k - 1] as Kind, before, here) + price(rest[k] as Kind, here, after);
    const kind = allowed.find((one) => priceOf(course, grain, one, before, after) < cost);
    if (!kind) {
      k++;
      continue;
    }
    fewer.splice(k, 1);
    rest.splice(k - 1, 2, kind);
  }
  return { stops: fewer, kinds: rest };
}

/** Stops moved by halving steps, `reach` indices at most; of a way round, the one where it is opened as well. */
function withStopsMoved(course: Course, grain: Grain, way: Way, reach: number, isRound: boolean): Way {
  const now = [...way.stops];
  const last = now.length - 1;
  if (last < 2) return way;
  const price = (k: number, a: CurveEnd, b: CurveEnd) => Math.min(unfitCost, priceOf(course, grain, way.kinds[k] as Kind, a, b));
  const costs = way.kinds.map((_, k) => price(k, now[k] as CurveEnd, now[k + 1] as CurveEnd));
  const tryAt = (k: number, index: number): void => {
    const into = k === 0 ? last - 1 : k - 1;
    const before = k === 0 ? roundsOn(course, now[into] as CurveEnd, -1) : (now[into] as CurveEnd);
    const after = now[k + 1] as CurveEnd;
    const [least, most] = [before.index + before.spoilt, after.index - after.spoilt];
    if (index < least + leastStep || index > most - leastStep) return;
    const moved = placeAt(course, grain, index, least, most);
    const [one, two] = [price(into, before, moved), price(k, moved, after)];
    if (!(one + two < (costs[into] as number) + (costs[k] as number))) return;
    [costs[into], costs[k], now[k]] = [one, two, moved];
    if (k === 0) now[last] = roundsOn(course, moved, 1);
  };
  for (let step = Math.round(reach / 2); step >= 2; step >>= 1) {
    for (let k = isRound ? 0 : 1; k < last; k++) {
      const { index } = now[k] as CurveEnd;
      tryAt(k, index - step);
      tryAt(k, index + step);
    }
  }
  return { stops: now, kinds: way.kinds };
}

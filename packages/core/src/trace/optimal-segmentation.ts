/**
 * In: a stretch of a contour from one place to another, or a closed one from a place round to itself. Out: the way over
 * breakpoints that costs least: where its segments end and what kinds they are.
 * Rests on: dynamic programming (Bellman 1961; for curves Plass & Stone 1983) over places in even steps, after which the
 * breakpoints are moved to where they cost least.
 */
import { bendJumps } from './bend-jumps.ts';
import type { CurveEnd } from './curves.ts';
import type { EdgeModel } from './edge-model.ts';
import { localCurve } from './local-curve.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';
import { fitCost, impossible, type Kind, kinds, modelCost } from './segment-cost.ts';

/** Stops from one end to the other, and the kind of segment before each but the first. */
export interface Segmentation {
  readonly stops: readonly CurveEnd[];
  readonly kinds: readonly Kind[];
}

export const minStep = parameters.minBreakpointStep;
const maxPlaces = parameters.maxBreakpoints;
const evenPlaces = parameters.evenBreakpoints;
const evenTolerance = parameters.evenBreakpointTolerance;

const unfitCost = parameters.unfitCost;

/** After so many places in a row that a kind of segment does not reach, farther ones are not tried. */
const maxMisses: Record<Kind, number> = { line: 3, arc: 3, cubic: 2 };

/** From so many points to either side a place on a contour is read: more where it is rough. */
export const placeReach = (sampled: SampledContour, { noise }: EdgeModel): number =>
  Math.round(Math.min(8 + 40 * Math.max(0, noise - 0.05), sampled.count / 6));

/** The place on the contour at an index, read from the points within reach that lie between two limits. */
export function placeAt(sampled: SampledContour, edgeModel: EdgeModel, index: number, first: number, last: number): CurveEnd {
  const room = Math.max(2, Math.min(placeReach(sampled, edgeModel), index - first, last - index));
  const { at, direction } = localCurve(sampled, index, index - room, index + room);
  return { at, direction, index, blurMargin: 0 };
}

/** Places in even steps, and where the bend changes at once. */
function placesAlong(sampled: SampledContour, edgeModel: EdgeModel, start: CurveEnd, end: CurveEnd): CurveEnd[] {
  const [first, last] = [start.index + start.blurMargin, end.index - end.blurMargin];
  // Where a tolerance spans many pixels the contour says nothing new between places that lie nearer.
  const apart = evenPlaces * Math.max(1, edgeModel.worst / evenTolerance);
  const count = Math.min(Math.floor((last - first) / minStep), Math.max(maxPlaces, Math.min(60, Math.round((last - first) / apart))));
  const jumps = bendJumps(sampled, edgeModel, first, last).filter((k) => Math.min(k - start.index, end.index - k) >= minStep);
  const even = Array.from({ length: Math.max(0, count - 1) }, (_, k) => Math.round(first + ((k + 1) * (last - first)) / count));
  const free = even.filter((k) => jumps.every((jump) => Math.abs(jump - k) >= minStep));
  const inner = [...free, ...jumps].sort((a, b) => a - b).map((k) => placeAt(sampled, edgeModel, k, first, last));
  return [start, ...inner, end];
}

/** A place as one that a closed contour reaches after some more rounds. */
const roundsOn = (sampled: SampledContour, place: CurveEnd, rounds: number): CurveEnd =>
  rounds === 0 ? place : { ...place, index: place.index + rounds * sampled.count };

/** What segments between places cost, each worked out once; along a ring of places their numbers run on round it. */
class Prices {
  private readonly known: Float64Array;

  /** @param ring whether the last place is the first again, one round on */
  constructor(
    private readonly sampled: SampledContour,
    private readonly edgeModel: EdgeModel,
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
    return roundsOn(this.sampled, this.places[rest] as CurveEnd, rounds);
  }

  of(kind: number, from: number, to: number): number {
    const { size, known } = this;
    const slot = (kind * size + (from % size)) * (size + 1) + (to - from);
    if (Number.isNaN(known[slot])) {
      known[slot] = fitCost(this.sampled, this.edgeModel, kinds[kind] as Kind, this.place(from), this.place(to));
    }
    return known[slot] as number;
  }
}

interface Found extends Segmentation {
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
  for (let to = from + 1; to < cost.length && misses < maxMisses[name]; to++) {
    // A place that is reached at no more cost already gains nothing.
    if ((cost[from] as number) + modelCost[name] >= (cost[to] as number)) continue;
    const found = prices.of(kind, first + from, first + to);
    if (found === impossible) continue;
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
export type OptimalSegmentations = (allowed: readonly Kind[]) => Segmentation;

/** The cheapest ways from `start` to `end`, whose index is larger; prices are worked out once for all of them. */
export function optimalSegmentations(sampled: SampledContour, edgeModel: EdgeModel, start: CurveEnd, end: CurveEnd): OptimalSegmentations {
  const prices = new Prices(sampled, edgeModel, placesAlong(sampled, edgeModel, start, end), false);
  const reach = (prices.places[1] as CurveEnd).index - start.index;
  return (allowed) => settled(sampled, edgeModel, cheapest(prices, 0, prices.places.length - 1, allowed), reach, false, allowed);
}

/** About what the cheapest way costs to tell: over the places alone, its breakpoints not moved. */
export function segmentationCost(sampled: SampledContour, edgeModel: EdgeModel, start: CurveEnd, end: CurveEnd): number {
  const prices = new Prices(sampled, edgeModel, placesAlong(sampled, edgeModel, start, end), false);
  const segmentation = withFewerStops(sampled, edgeModel, cheapest(prices, 0, prices.places.length - 1, kinds), kinds);
  return segmentation.kinds.reduce((sum, kind) => sum + modelCost[kind], 0);
}

/** The same once round a closed contour, opened where it has a stop so that no segment is cut by the opening. */
export function closedSegmentation(sampled: SampledContour, edgeModel: EdgeModel, start: CurveEnd): OptimalSegmentations {
  const prices = new Prices(sampled, edgeModel, placesAlong(sampled, edgeModel, start, roundsOn(sampled, start, 1)), true);
  const size = prices.places.length - 1;
  const reach = (prices.places[1] as CurveEnd).index - start.index;
  return (allowed) => {
    const first = cheapest(prices, 0, size, allowed);
    const middle = first.numbers.length > 2 ? (first.numbers[first.numbers.length >> 1] as number) : 0;
    const second = middle > 0 ? cheapest(prices, middle, middle + size, allowed) : first;
    const best = second.cost < first.cost ? second : first;
    return openedAtCurves(sampled, settled(sampled, edgeModel, best, reach, true, allowed));
  };
}

/** A way round opened where two curves meet, if any do: there alone place and direction are the contour's own. */
function openedAtCurves(sampled: SampledContour, { stops, kinds: list }: Segmentation): Segmentation {
  const at = list.findIndex((kind, k) => kind === 'cubic' && list.at(k - 1) === 'cubic');
  if (at < 1) return { stops, kinds: list };
  const on = stops.slice(1, at + 1).map((stop) => roundsOn(sampled, stop, 1));
  return { stops: [...stops.slice(at), ...on], kinds: [...list.slice(at), ...list.slice(0, at)] };
}

function settled(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  segmentation: Segmentation,
  reach: number,
  isRound: boolean,
  allowed: readonly Kind[],
): Segmentation {
  const moved = withStopsMoved(sampled, edgeModel, segmentation, reach, isRound);
  const fewer = withoutBridges(sampled, edgeModel, withFewerStops(sampled, edgeModel, moved, allowed), allowed);
  return fewer.stops.length < moved.stops.length ? withStopsMoved(sampled, edgeModel, fewer, reach, isRound) : moved;
}

const jointPlaces = parameters.jointPlaces;

/**
 * The way without segments that only bridge the gap between two places where the true joint lies: their neighbours are
 * drawn on to one joint between, of their own kinds or others.
 */
function withoutBridges(sampled: SampledContour, edgeModel: EdgeModel, segmentation: Segmentation, allowed: readonly Kind[]): Segmentation {
  const [stops, rest] = [[...segmentation.stops], [...segmentation.kinds]];
  const price = (kind: Kind, a: CurveEnd, b: CurveEnd) => fitCost(sampled, edgeModel, kind, a, b);
  const cheapestOf = (a: CurveEnd, b: CurveEnd, max: number): { kind: Kind; cost: number } | null => {
    let best: { kind: Kind; cost: number } | null = null;
    for (const kind of allowed) {
      const min: number = best?.cost ?? max;
      const cost: number = modelCost[kind] < min ? price(kind, a, b) : Infinity;
      if (cost < min) best = { kind, cost };
    }
    return best;
  };
  for (let k = 1; k + 1 < rest.length; ) {
    const [a, from, to, b] = stops.slice(k - 1, k + 3) as [CurveEnd, CurveEnd, CurveEnd, CurveEnd];
    let min = price(rest[k - 1] as Kind, a, from) + price(rest[k] as Kind, from, to) + price(rest[k + 1] as Kind, to, b);
    let found: { joint: CurveEnd; kinds: [Kind, Kind] } | null = null;
    const step = Math.max(1, (to.index - from.index) / jointPlaces);
    for (let at = from.index; at <= to.index; at += step) {
      const joint = placeAt(sampled, edgeModel, Math.round(at), a.index + a.blurMargin, b.index - b.blurMargin);
      const before = cheapestOf(a, joint, min - modelCost.line);
      const after = before && cheapestOf(joint, b, min - before.cost);
      if (after) [min, found] = [before.cost + after.cost, { joint, kinds: [before.kind, after.kind] }];
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
function withFewerStops(sampled: SampledContour, edgeModel: EdgeModel, segmentation: Segmentation, allowed: readonly Kind[]): Segmentation {
  const [fewer, rest] = [[...segmentation.stops], [...segmentation.kinds]];
  const price = (kind: Kind, a: CurveEnd, b: CurveEnd) => Math.min(unfitCost, fitCost(sampled, edgeModel, kind, a, b));
  for (let k = 1; k + 1 < fewer.length; ) {
    const [before, here, after] = [fewer[k - 1], fewer[k], fewer[k + 1]] as [CurveEnd, CurveEnd, CurveEnd];
    const cost = price(rest[k - 1] as Kind, before, here) + price(rest[k] as Kind, here, after);
    const kind = allowed.find((one) => fitCost(sampled, edgeModel, one, before, after) < cost);
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
function withStopsMoved(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  segmentation: Segmentation,
  reach: number,
  isRound: boolean,
): Segmentation {
  const now = [...segmentation.stops];
  const last = now.length - 1;
  if (last < 2) return segmentation;
  const price = (k: number, a: CurveEnd, b: CurveEnd) =>
    Math.min(unfitCost, fitCost(sampled, edgeModel, segmentation.kinds[k] as Kind, a, b));
  const costs = segmentation.kinds.map((_, k) => price(k, now[k] as CurveEnd, now[k + 1] as CurveEnd));
  const tryAt = (k: number, index: number): void => {
    const into = k === 0 ? last - 1 : k - 1;
    const before = k === 0 ? roundsOn(sampled, now[into] as CurveEnd, -1) : (now[into] as CurveEnd);
    const after = now[k + 1] as CurveEnd;
    const [min, max] = [before.index + before.blurMargin, after.index - after.blurMargin];
    if (index < min + minStep || index > max - minStep) return;
    const moved = placeAt(sampled, edgeModel, index, min, max);
    const [one, two] = [price(into, before, moved), price(k, moved, after)];
    if (!(one + two < (costs[into] as number) + (costs[k] as number))) return;
    [costs[into], costs[k], now[k]] = [one, two, moved];
    if (k === 0) now[last] = roundsOn(sampled, moved, 1);
  };
  for (let step = Math.round(reach / 2); step >= 2; step >>= 1) {
    for (let k = isRound ? 0 : 1; k < last; k++) {
      const { index } = now[k] as CurveEnd;
      tryAt(k, index - step);
      tryAt(k, index + step);
    }
  }
  return { stops: now, kinds: segmentation.kinds };
}

/**
 * In: a curved stretch of a contour, with what it joins at either end. Out: arcs and cubics along it, by the cheapest way
 * over breakpoints (cheapest-way.ts), so that a true arc is told as an arc and a free curve by few cubics. Runs of arcs are
 * then settled together as one chain (arc-chain.ts).
 */
import { cross, type Point, turnBetween } from '../plane/point.ts';
import { type ArcSegment, directionOn, type Segment } from '../plane/segment.ts';
import { type ChainEnd, settleChain } from './arc-chain.ts';
import { type CurveEnd, fitCubic } from './curves.ts';
import type { EdgeModel } from './edge-model.ts';
import {
  closedSegmentation,
  minStep,
  type OptimalSegmentations,
  optimalSegmentations,
  placeAt,
  type Segmentation,
  segmentationCost,
} from './optimal-segmentation.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';
import { arcLimits, kinds, maxSweep, modelCost } from './segment-cost.ts';
import { tangentArc } from './tangent-arc.ts';

/** An end of a bend; it `slides` where it may move along a straight edge that it joins. */
export interface BendEnd extends CurveEnd {
  readonly slides: boolean;
}

export interface Bend {
  readonly start: Point;
  readonly segments: Segment[];
}

/** Arcs, lines and cubics from `start` to `end`, whose index is larger. */
export const fitBend = (sampled: SampledContour, edgeModel: EdgeModel, start: BendEnd, end: BendEnd): Bend =>
  oneArc(sampled, edgeModel, start, end) ??
  firstThatFits(optimalSegmentations(sampled, edgeModel, start, end), (segmentation) =>
    drawn(sampled, edgeModel, segmentation, start, end),
  );

/** About what the segments from `start` to `end` cost to tell, without fitting them to the last. */
export const bendCost = (sampled: SampledContour, edgeModel: EdgeModel, start: BendEnd, end: BendEnd): number =>
  oneArc(sampled, edgeModel, start, end) ? modelCost.arc : segmentationCost(sampled, edgeModel, start, end);

/** The same once round a smooth closed contour, opened where two segments meet. */
export const fitRound = (sampled: SampledContour, edgeModel: EdgeModel, start: CurveEnd): Bend =>
  firstThatFits(closedSegmentation(sampled, edgeModel, start), (segmentation) => {
    const [first, last] = [segmentation.stops[0], segmentation.stops.at(-1)] as [CurveEnd, CurveEnd];
    return drawn(sampled, edgeModel, segmentation, { ...first, slides: false }, { ...last, slides: false });
  });

/** Arcs that, settled together, leave the contour are no true arcs: it is told without them, at last by cubics alone. */
function firstThatFits(
  cheapest: OptimalSegmentations,
  drawnAlong: (segmentation: Segmentation) => Bend & { readonly fits: boolean },
): Bend {
  const all = drawnAlong(cheapest(kinds));
  if (all.fits) return all;
  const plain = drawnAlong(cheapest(['line', 'cubic']));
  return plain.fits ? plain : drawnAlong(cheapest(['cubic']));
}

/** The whole bend as one arc, its ends moved along the straight edges that it joins. */
function oneArc(sampled: SampledContour, edgeModel: EdgeModel, start: BendEnd, end: BendEnd): Bend | null {
  const asChainEnd = (e: BendEnd): ChainEnd => ({ ...e, freedom: e.slides ? 'along' : 'none' });
  const isHeld = (e: BendEnd) => e.direction !== null && !e.slides;
  if (isHeld(start) || isHeld(end) || end.index - start.index < 4) return null;
  const limits = arcLimits(edgeModel);
  const { direction: into } = start;
  const { direction: out } = end;
  if (into && out && Math.abs(turnBetween(into, out)) > minTangentTurn) {
    // Edges that run back nearly parallel may turn either way round by as much: the contour itself says which.
    const turn = turnBetween(into, out);
    const middle = (start.index + end.index) >> 1;
    const bows = cross(into, { x: sampled.x(middle) - start.at.x, y: sampled.y(middle) - start.at.y });
    const sweep = bows * turn < 0 ? turn - 2 * Math.PI * Math.sign(turn) : turn;
    const made = tangentArc(sampled, { ...start, direction: into }, { ...end, direction: out }, sweep);
    const fits = made && made.rms <= limits.rms && Math.abs(sweep) < maxSweep;
    return fits ? { start: made.start, segments: [made.arc] } : null;
  }
  const chain = settleChain(sampled, asChainEnd(start), asChainEnd(end), [], [false], limits.rms);
  if (!chain) return null;
  const arc = chain.segments[0] as ArcSegment;
  const isPlausible = chain.rms <= limits.rms && Math.abs(arc.sweep) > 0.05 && Math.abs(arc.sweep) < maxSweep;
  return isPlausible ? { start: chain.start, segments: [arc] } : null;
}

const minTangentTurn = parameters.minTangentTurn;

/** A stretch that no way over its places serves, in two. */
function halves(sampled: SampledContour, edgeModel: EdgeModel, a: CurveEnd, b: CurveEnd): Segment[] {
  const middle = placeAt(sampled, edgeModel, (a.index + b.index) >> 1, a.index + a.blurMargin, b.index - b.blurMargin);
  return [[a, middle] as const, [middle, b] as const].flatMap(
    ([from, to]) => fitBend(sampled, edgeModel, { ...from, slides: false }, { ...to, slides: false }).segments,
  );
}

/** The segments of a way: runs of arcs settled as chains first, then cubics between, with the directions that arcs give. */
function drawn(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  { stops, kinds }: Segmentation,
  start: BendEnd,
  end: BendEnd,
): Bend & { readonly fits: boolean } {
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
      // Several arcs settled together must still keep to the contour.
      const max = 1.5 * arcLimits(edgeModel).rms;
      const chain = settleChain(sampled, chainEnd(first), chainEnd(next), stops.slice(first + 1, next), isStraight, max);
      if (!chain) return { start: start.at, segments: [], fits: false };
      fits &&= chain.rms <= max;
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
  const all = segments.flatMap((segment, k): readonly Segment[] => {
    if (segment) return [segment];
    const [a, b] = [endOf(k), endOf(k + 1)];
    const made = fitCubic(sampled, edgeModel, a, b);
    if (made.fits || b.index - a.index < 3 * minStep) return [made.cubic];
    // Beside arcs another way may do; without them the stretch is looked at more closely.
    const isWhole = kinds.length === 1;
    fits &&= isWhole;
    return isWhole
      ? halves(sampled, edgeModel, a, b)
      : fitBend(sampled, edgeModel, { ...a, slides: false }, { ...b, slides: false }).segments;
  });
  return { start: (ends[0] as CurveEnd).at, segments: all, fits };
}

/**
 * In: outlines and a distance. Out: the outlines that lie at that distance.
 * The raw offset (raw-offset.ts) is cut at its own crossings, and the runs are kept that nowhere come nearer to the outline than
 * the distance (as in Tiller & Hanson 1984).
 */
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import { type Path, pathArea, type Step, stepsOf, withoutLoops } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { pointOn, splitSegment } from '../plane/segment.ts';
import { combined, nested, overlapsUnited } from './combine.ts';
import { merged } from './merging.ts';
import { validLoops } from './offset-loops.ts';
import { type CrossingMemory, noCrossingMemory } from './path-crossings.ts';
import { nearnessSlack, type OffsetSettings, plainOffset, rawOffset } from './raw-offset.ts';
import { nearnessToSteps } from './winding-number.ts';

/**
 * The closed paths at a distance from a closed one: to its left where `by` is positive. Loops that close up vanish; what an
 * outline grows about without reaching it is left as a loop that runs the other way.
 * @param by mm
 */
export function offsetClosed(
  outline: Path,
  by: number,
  settings: OffsetSettings = plainOffset,
  memory: OffsetMemory = noOffsetMemory(),
): Path[] {
  if (!outline.closed) throw new RangeError('an open line has no offset that closes; lay a band about it');
  if (by === 0) return [outline];
  const path = withoutWideArcs(cachedSegments(outline).some(({ loop }) => loop) ? withoutLoops(outline) : outline);
  return keptLoops(rawOffset(path, by, settings), path, by, settings, memory);
}

/** Of an arc that comes nearly round to its start the ends hardly tell the centre any more: moved by a hair they would move it far. */
const widestArc = 4;

/** The same path, such arcs in halves. */
function withoutWideArcs(path: Path): Path {
  const isWide = ({ segment }: Step): boolean => segment.kind === 'arc' && Math.abs(segment.sweep) > widestArc;
  if (!cachedSegments(path).some(isWide)) return path;
  return {
    ...path,
    segments: stepsOf(path).flatMap((step) => (isWide(step) ? splitSegment(step.from, step.segment, 0.5) : [step.segment])),
  };
}

/** What was found of an outline's offset before one of its points was moved; it is brought up to date with every offset. */
export interface OffsetMemory {
  readonly crossings: CrossingMemory;
  readonly nearness: NearnessMemory;
}

export const noOffsetMemory = (): OffsetMemory => ({
  crossings: noCrossingMemory(),
  nearness: { limit: 0, steps: new Set(), isNear: new WeakMap() },
});

/** A piece grown by `by` on all its borders, or shrunk where that is negative: what becomes of it, in pieces. */
export function offsetPiece(
  piece: { readonly outer: Path; readonly holes: readonly Path[] },
  by: number,
  settings: OffsetSettings = plainOffset,
  memory: OffsetMemory = noOffsetMemory(),
): { outer: Path; holes: Path[] }[] {
  const outward = (path: Path, isHole: boolean): Path[] => {
    const isTurned = pathArea(path) > 0 === isHole;
    return offsetClosed(path, isTurned ? by : -by, settings, isHole ? noOffsetMemory() : memory);
  };
  // Growing, an outline may close up about what lies in its bay: that stays out of it, as a hole, or as an island of one.
  const areasOf = (path: Path, isHole: boolean): Path[][] => nested(outward(path, isHole)).map(({ outer, holes }) => [outer, ...holes]);
  const outers = areasOf(piece.outer, false).flat();
  const holes = overlapsUnited(piece.holes.flatMap((hole) => areasOf(hole, true)));
  return nested(holes.length === 0 ? outers : combined(outers, holes, 'take-away'));
}

/** The runs of a raw offset that keep their distance, joined. */
function keptLoops(raw: Path, outline: Path, by: number, settings: OffsetSettings, memory: OffsetMemory): Path[] {
  const slack = nearnessSlack(settings);
  const isNearer = nearnessOf(outline, Math.abs(by) - slack, memory.nearness);
  const orientation = Math.sign(pathArea(outline));
  const isGrowing = orientation * by < 0;
  return validLoops(raw, (run) => keepsAway(run, isNearer), slack, memory.crossings)
    .filter((path) => isGrowing || Math.sign(pathArea(path)) === orientation)
    .map(merged);
}

/** Whether a run comes nowhere nearer than the limit; looked at in several places of each segment. */
function keepsAway(run: Path, { step, place }: Nearness): boolean {
  const steps = cachedSegments(run);
  if (steps.every((s) => !step(s))) {
    if (steps.length > 3) return true;
    return steps.every(({ from, segment }) => [0.18, 0.82].every((t) => !place(pointOn(from, segment, t))));
  }
  return false;
}

interface NearnessMemory {
  limit: number;
  steps: ReadonlySet<CachedSegment>;
  /** Of segments seen before whether their middles were nearer than the limit to any of these. */
  isNear: WeakMap<CachedSegment, boolean>;
}

/** Whether a segment's middle, or a place, is nearer to an outline than a limit. */
interface Nearness {
  readonly step: (s: CachedSegment) => boolean;
  readonly place: (p: Point) => boolean;
}

/** What was far stays so but for segments that are new; what was near is looked at again. */
function nearnessOf(outline: Path, limit: number, memory: NearnessMemory): Nearness {
  const steps = cachedSegments(outline);
  if (memory.limit !== limit || memory.steps.size === 0) memory.isNear = new WeakMap();
  const added = steps.filter((s) => !memory.steps.has(s));
  const hasLost = steps.length - added.length < memory.steps.size;
  let whole: ((p: Point, limit: number) => boolean) | null = null;
  const toAll = (p: Point): boolean => {
    whole ??= nearnessToSteps(steps);
    return whole(p, limit);
  };
  const toAdded = nearnessToSteps(added);
  const before = memory.isNear;
  [memory.limit, memory.steps] = [limit, new Set(steps)];
  return {
    place: toAll,
    step: (s) => {
      const was = before.get(s);
      const isNear = was === undefined || (was && hasLost) ? toAll(s.middle) : was || toAdded(s.middle, limit);
      if (isNear !== was) before.set(s, isNear);
      return isNear;
    },
  };
}

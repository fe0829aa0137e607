/**
 * In: outlines and a distance. Out: the outlines that lie at that distance.
 * The raw offset (raw-offset.ts) is cut at its own crossings, and the runs are kept that nowhere come nearer to the outline than
 * the distance (as in Tiller & Hanson 1984).
 */
import { type KnownStep, knownSteps } from '../plane/known-step.ts';
import { type Path, pathArea, pathLength, type Step, stepsOf, withoutLoops } from '../plane/path.ts';
import { distance, dot, type Point, turnBetween } from '../plane/point.ts';
import { directionOn, pointOn } from '../plane/segment.ts';
import { combined, nested, unitedOutlines } from './combine.ts';
import { withoutCornerLoops } from './corner-loops.ts';
import { samePlaceMm } from './crossings.ts';
import { nearnessToSteps } from './inside.ts';
import { merged } from './merging.ts';
import { type CrossingMemory, noCrossingMemory, selfCrossings } from './path-crossings.ts';
import { nearnessSlack, type OffsetSettings, plainOffset, rawOffset } from './raw-offset.ts';
import { endOf, joinedRuns, runsOf } from './runs.ts';
import { withoutTails } from './tails.ts';

/**
 * The closed paths at a distance from a closed one: to its left where `by` is positive. Loops that close up vanish.
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
  const path = knownSteps(outline).some(({ loop }) => loop) ? withoutLoops(outline) : outline;
  return keptLoops(rawOffset(path, by, settings), path, by, settings, memory);
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
  const outers = nested(outward(piece.outer, false)).flatMap(({ outer }) => outer);
  const holes = unitedOutlines(piece.holes.flatMap((hole) => outward(hole, true)));
  return nested(holes.length === 0 ? outers : combined(outers, holes, 'take-away'));
}

/** The same distances again and again: rings about a piece, the nearest first. */
export function rings(
  piece: { readonly outer: Path; readonly holes: readonly Path[] },
  by: number,
  count: number,
  settings: OffsetSettings = plainOffset,
  memories: (ring: number) => OffsetMemory = noOffsetMemory,
): { outer: Path; holes: Path[] }[] {
  return Array.from({ length: count }, (_, k) => offsetPiece(piece, by * (k + 1), settings, memories(k))).flat();
}

/** The runs of a raw offset that keep their distance, joined. */
function keptLoops(whole: Path, outline: Path, by: number, settings: OffsetSettings, memory: OffsetMemory): Path[] {
  const slack = nearnessSlack(settings);
  const raw = withoutTails(whole, 100 * slack);
  const runs = runsOf(raw, selfCrossings([raw], memory.crossings));
  const isNearer = nearnessOf(outline, Math.abs(by) - slack, memory.nearness);
  // Scraps no longer than what counts as one place would lead a chain astray.
  const kept = runs.filter((run) => keepsAway(run, isNearer) && !isScrap(run));
  const way = Math.sign(pathArea(outline));
  return healed(joinedRuns(kept, 10 * samePlaceMm, straightest), 10 * slack)
    .filter((path) => path.closed && Math.abs(pathArea(path)) > 1e-9)
    .filter((path) => Math.sign(pathArea(path)) === way)
    .flatMap((path) => withoutSpecks(path, 10 * slack))
    .map(merged);
}

/**
 * An offset without loops no longer than `most`, and nothing of one that is no longer itself: where the outline is bent as
 * tightly as the distance, its offset turns about itself in far less than any tool can follow.
 */
function withoutSpecks(path: Path, most: number): Path[] {
  const steps = knownSteps(path);
  let round = 0;
  for (let k = 0; k < steps.length && round <= most; k++)
    round += distance((steps[k] as KnownStep).from, (steps[k] as KnownStep).segment.to);
  if (round <= most && pathLength(path) <= most) return [];
  const isTurned = steps.some(({ arrives }, k) => dot(arrives, (steps[(k + 1) % steps.length] as KnownStep).setsOut) < 0);
  if (!isTurned) return [path];
  const bare = withoutCornerLoops(withoutTails(path, 10 * most), most);
  const crossings = selfCrossings([bare]);
  if (crossings.length === 0) return [bare];
  const isSpeck = (run: Path): boolean => distance(run.start, endOf(run)) <= 10 * samePlaceMm && pathLength(run) <= most;
  const kept = runsOf(bare, crossings).filter((run) => !isSpeck(run));
  return joinedRuns(kept, 10 * samePlaceMm, straightest).filter(({ closed }) => closed);
}

/**
 * Chains that were parted by less than `gap` led on into one another: where many crossings lie on nearly one place a scrap
 * between two of them may have been taken for too near.
 */
function healed(paths: readonly Path[], gap: number): Path[] {
  const open = paths.filter((path) => !path.closed && (path.segments.length > 8 || pathLength(path) > gap));
  if (open.length === 0) return [...paths];
  const bridges = open.flatMap((path): Path[] => {
    const end = endOf(path);
    const next = open.reduce((best, other) => (distance(other.start, end) < distance(best.start, end) ? other : best));
    const isNear = distance(next.start, end) <= gap && distance(next.start, end) > 0;
    return isNear ? [{ start: end, segments: [{ kind: 'line', to: next.start }], closed: false }] : [];
  });
  return [...paths.filter((path) => path.closed), ...joinedRuns([...open, ...bridges], 10 * samePlaceMm, longest)];
}

const isScrap = (run: Path): boolean =>
  !run.closed && run.segments.length < 4 && distance(run.start, endOf(run)) <= 10 * samePlaceMm && pathLength(run) <= 20 * samePlaceMm;

const longest = (_: Path, choices: readonly Path[]): Path =>
  choices.reduce((best, path) => (path.segments.length > best.segments.length ? path : best));

/** Whether a run comes nowhere nearer than the limit; looked at in several places of each segment. */
function keepsAway(run: Path, { step, place }: Nearness): boolean {
  const steps = knownSteps(run);
  if (steps.every((s) => !step(s))) {
    if (steps.length > 3) return true;
    return steps.every(({ from, segment }) => [0.18, 0.82].every((t) => !place(pointOn(from, segment, t))));
  }
  return false;
}

interface NearnessMemory {
  limit: number;
  steps: ReadonlySet<KnownStep>;
  /** Of segments seen before whether their middles were nearer than the limit to any of these. */
  isNear: WeakMap<KnownStep, boolean>;
}

/** Whether a segment's middle, or a place, is nearer to an outline than a limit. */
interface Nearness {
  readonly step: (s: KnownStep) => boolean;
  readonly place: (p: Point) => boolean;
}

/** What was far stays so but for segments that are new; what was near is looked at again. */
function nearnessOf(outline: Path, limit: number, memory: NearnessMemory): Nearness {
  const steps = knownSteps(outline);
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

/** Where several runs go on, the one that goes straightest on. */
function straightest(before: Path, choices: readonly Path[]): Path {
  const last = stepsOf(before).at(-1) as Step;
  const into = directionOn(last.from, last.segment, 1);
  const bend = (run: Path): number => {
    const [{ from, segment }] = stepsOf(run) as [Step];
    const out = directionOn(from, segment, 0);
    return Math.abs(turnBetween(into, out));
  };
  return choices.reduce((best, run) => (bend(run) < bend(best) ? run : best));
}

/**
 * In: a raw offset or band, closed, that crosses itself, and which of its runs are true. Out: the loops that those make, without
 * what is smaller than any tool can follow.
 */
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import { endOf, type Path, pathArea, pathLength, type Step, stepsOf } from '../plane/path.ts';
import { distance, dot, turnBetween } from '../plane/point.ts';
import { directionOn, type Segment, segmentLength } from '../plane/segment.ts';
import { boxIndex } from './box-index.ts';
import { joinChains, splitAtPlaces } from './chains.ts';
import { withoutCornerLoops } from './corner-loops.ts';
import { samePlaceMm } from './crossings.ts';
import { type CrossingMemory, noCrossingMemory, selfCrossings } from './path-crossings.ts';
import { removeSpikes } from './spikes.ts';

/**
 * @param isTrue whether a run between two crossings belongs to the outcome
 * @param slack by how much it may be off, mm
 */
export function validLoops(raw: Path, isTrue: (run: Path) => boolean, slack: number, memory: CrossingMemory = noCrossingMemory()): Path[] {
  const bare = removeSpikes(raw, 100 * slack);
  const runs = splitAtPlaces(bare, selfCrossings([bare], memory));
  // Scraps no longer than what counts as one place would lead a chain astray.
  const kept = runs.filter((run) => isTrue(run) && !isScrap(run));
  const joined = joinChains(kept, 10 * samePlaceMm, straightest);
  const chains = joined.every(({ closed }) => closed) ? joined : joinChains(withoutDeadEnds(kept), 10 * samePlaceMm, straightest);
  // Loops as narrow as the slack lie between two sides that are one.
  return healed(chains, 10 * slack)
    .filter(({ closed }) => closed)
    .flatMap((path) => withoutSpecks(path, 10 * slack))
    .filter((path) => 2 * Math.abs(pathArea(path)) > slack * pathLength(path));
}

/**
 * Runs without those that begin out of nothing where another one leads to the same place, or end in nothing where another one
 * leads on: beside a border that lies just within the slack they would be taken for its own.
 */
function withoutDeadEnds(runs: readonly Path[]): Path[] {
  const places = runs.flatMap((run) => [run.start, endOf(run)]);
  const index = boxIndex(places.map(({ x, y }) => ({ minX: x, minY: y, maxX: x, maxY: y })), 10 * samePlaceMm); // biome-ignore format: one line
  // Places that are one have the number of the first of them.
  const numbers = places.map(({ x, y }, k) => (index?.search(x, y, x, y) ?? []).reduce((a, b) => Math.min(a, b), k));
  const [leaving, arriving] = [new Int32Array(places.length), new Int32Array(places.length)];
  const count = (k: number, by: 1 | -1): void => {
    leaving[numbers[2 * k] as number] = (leaving[numbers[2 * k] as number] as number) + by;
    arriving[numbers[2 * k + 1] as number] = (arriving[numbers[2 * k + 1] as number] as number) + by;
  };
  for (const k of runs.keys()) count(k, 1);
  const isDead = (k: number): boolean => {
    const [from, to] = [numbers[2 * k] as number, numbers[2 * k + 1] as number];
    if (from === to) return false;
    return (arriving[from] === 0 && (arriving[to] as number) > 1) || (leaving[to] === 0 && (leaving[from] as number) > 1);
  };
  let kept = runs.map((_, k) => k);
  for (let before = -1; before !== kept.length; ) {
    before = kept.length;
    kept = kept.filter((k) => {
      const stays = !isDead(k);
      if (!stays) count(k, -1);
      return stays;
    });
  }
  return kept.map((k) => runs[k] as Path);
}

/**
 * An offset without loops no longer than `max`, and nothing of one that is no longer itself: where the outline is bent as
 * tightly as the distance, its offset turns about itself in far less than any tool can follow.
 */
function withoutSpecks(whole: Path, max: number): Path[] {
  const path = withoutCrumbs(whole);
  const steps = cachedSegments(path);
  let round = 0;
  for (let k = 0; k < steps.length && round <= max; k++)
    round += distance((steps[k] as CachedSegment).from, (steps[k] as CachedSegment).segment.to);
  if (round <= max && pathLength(path) <= max) return [];
  const isTurned = steps.some(({ endTangent }, k) => dot(endTangent, (steps[(k + 1) % steps.length] as CachedSegment).startTangent) < 0);
  if (!isTurned) return [path];
  const bare = withoutCornerLoops(removeSpikes(path, 10 * max), max);
  const crossings = selfCrossings([bare]);
  if (crossings.length === 0) return [bare];
  const isSpeck = (run: Path): boolean => distance(run.start, endOf(run)) <= 10 * samePlaceMm && pathLength(run) <= max;
  const kept = splitAtPlaces(bare, crossings).filter((run) => !isSpeck(run));
  return joinChains(kept, 10 * samePlaceMm, straightest).filter(({ closed }) => closed);
}

/** Segments no longer than this have no direction to speak of, nor surely found crossings, mm. */
const crumbMm = 2e-4;

/** A path without crumbs: what comes before one ends where it did. */
function withoutCrumbs(path: Path): Path {
  const isCrumb = ({ from, segment }: Step): boolean => distance(from, segment.to) < crumbMm && segmentLength(from, segment) < 2 * crumbMm;
  const steps = cachedSegments(path);
  if (!steps.some(isCrumb)) return path;
  const kept: Segment[] = [];
  for (const step of steps) {
    const before = kept.at(-1);
    if (before && isCrumb(step)) kept[kept.length - 1] = { ...before, to: step.segment.to };
    else kept.push(step.segment);
  }
  return { ...path, segments: kept };
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
  return [...paths.filter((path) => path.closed), ...joinChains([...open, ...bridges], 10 * samePlaceMm, longest)];
}

const isScrap = (run: Path): boolean =>
  !run.closed && run.segments.length < 4 && distance(run.start, endOf(run)) <= 10 * samePlaceMm && pathLength(run) <= 20 * samePlaceMm;

const longest = (_: Path, choices: readonly Path[]): Path =>
  choices.reduce((best, path) => (path.segments.length > best.segments.length ? path : best));

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

/**
 * In: two areas, each as closed paths (outer ones counter-clockwise, holes clockwise). Out: both united, one taken away from
 * the other, what they have in common, or all parts divided; lines, arcs and curves stay what they are.
 * Rests on: cutting both borders at every place where they meet and keeping the runs that the wish asks for by where their
 * middles lie (as in Weiler & Atherton 1977), runs that both have in common kept once.
 */

import { isInBox } from '../plane/box.ts';
import { cachedSegments } from '../plane/cached-segment.ts';
import { type Path, pathArea, pathBox, pathLength, reversedPath, type Step, stepsOf } from '../plane/path.ts';
import { distance, dot, turnBetween } from '../plane/point.ts';
import { directionOn, nearestOnSegment, pointOn } from '../plane/segment.ts';
import { finished } from '../steps.ts';
import { boxIndex } from './box-index.ts';
import { closedExactly, joinChains, splitAtPlaces } from './chains.ts';
import { samePlaceMm } from './crossings.ts';
import { merged } from './merging.ts';
import { insidePoint, nestedRegions } from './nesting.ts';
import { type CutPlace, pathCrossings, selfCrossings } from './path-crossings.ts';
import { windingNumber } from './winding-number.ts';

export type Combining = 'unite' | 'take-away' | 'keep-common';

/** Pieces smaller than this are what rounding leaves behind, square mm. */
const minArea = 1e-9;
/** A loop that is shorter has less area whatever its shape (isoperimetric inequality), mm; ends that hardly meet may make it seem more. */
const minRound = Math.sqrt(4 * Math.PI * minArea);

const isArea = (path: Path): boolean => path.closed && Math.abs(pathArea(path)) > minArea && pathLength(path) > minRound;

/** A path turned counter-clockwise if it is closed. */
export const counterClockwise = (path: Path): Path => (path.closed && pathArea(path) < 0 ? reversedPath(path) : path);

/** Of area `a` and area `b` what `how` says; closed paths, outer ones counter-clockwise, holes clockwise. */
export function combined(a: readonly Path[], b: readonly Path[], how: Combining): Path[] {
  const { onA, onB } = pathCrossings(a, b);
  const [runsA, runsB] = [cutAt(a, onA), cutAt(b, onB)];
  const kept: Path[] = [];
  for (const run of runsA) {
    const place = placeOf(run, b);
    const isKept =
      how === 'unite'
        ? place === 'outside' || place === 'along'
        : how === 'keep-common'
          ? place === 'inside' || place === 'along'
          : place === 'outside' || place === 'against';
    if (isKept) kept.push(run);
  }
  for (const run of runsB) {
    const place = placeOf(run, a);
    if (how === 'unite' && place === 'outside') kept.push(run);
    if (how === 'keep-common' && place === 'inside') kept.push(run);
    if (how === 'take-away' && place === 'inside') kept.push(reversedPath(run));
  }
  return joinChains(kept, 10 * samePlaceMm, maxToTheLeft)
    .flatMap(partedAtTouches)
    .filter(isArea)
    .map(merged);
}

/** Both areas cut along each other's borders: what only one has, what both have. */
export const divided = (a: readonly Path[], b: readonly Path[]): Path[][] =>
  [combined(a, b, 'take-away'), combined(a, b, 'keep-common'), combined(b, a, 'take-away')].filter((part) => part.length > 0);

function cutAt(paths: readonly Path[], places: readonly CutPlace[]): Path[] {
  const of = paths.map((): CutPlace[] => []);
  for (const place of places) of[place.path]?.push(place);
  return paths.flatMap((path, k) => splitAtPlaces(path, of[k] as CutPlace[]));
}

type Place = 'inside' | 'outside' | 'along' | 'against';

/** Where a run lies to an area whose border it meets at its ends at most. */
function placeOf(run: Path, area: readonly Path[]): Place {
  // The middle of its longest segment is farthest from what rounding could confuse.
  const steps = stepsOf(run);
  const { from, segment } = steps.reduce((best, step) =>
    distance(step.from, step.segment.to) > distance(best.from, best.segment.to) ? step : best,
  );
  const [p, d] = [pointOn(from, segment, 0.4871), directionOn(from, segment, 0.4871)];
  const near = 5 * samePlaceMm;
  for (const path of area) {
    for (const { from: start, segment: other, box } of cachedSegments(path)) {
      if (!isInBox(box, p, near)) continue;
      const { distance: off, t } = nearestOnSegment(start, other, p);
      if (off <= near) return dot(d, directionOn(start, other, t)) > 0 ? 'along' : 'against';
    }
  }
  return windingNumber(area, p) > 0 ? 'inside' : 'outside';
}

/** At a place where several runs start, the one that turns most to the left stays with the same area, where areas only touch. */
function maxToTheLeft(before: Path, choices: readonly Path[]): Path {
  const last = stepsOf(before).at(-1) as ReturnType<typeof stepsOf>[0];
  const into = directionOn(last.from, last.segment, 1);
  const turnOf = (run: Path): number => {
    const [{ from, segment }] = stepsOf(run) as [ReturnType<typeof stepsOf>[0]];
    const out = directionOn(from, segment, 0);
    const turn = turnBetween(into, out);
    return Math.abs(turn) > Math.PI - 1e-9 ? -Math.PI : turn;
  };
  return choices.reduce((best, run) => (turnOf(run) > turnOf(best) ? run : best));
}

/**
 * Closed paths that may cross themselves or one another, as the area that they go round at least once: outer paths
 * counter-clockwise, holes clockwise.
 */
export function unitedOutlines(paths: readonly Path[]): Path[] {
  // One after another, each made simple first, so that every step joins two proper areas.
  return paths.flatMap(simpleParts).reduce<Path[]>((area, path) => (area.length === 0 ? [path] : combined(area, [path], 'unite')), []);
}

/** The loops of a closed path, cut at its own crossings, each counter-clockwise; of a plain one itself. */
export function simpleParts(path: Path): Path[] {
  const cuts = selfCrossings([path]);
  if (cuts.length === 0) return [counterClockwise(path)];
  const loops = joinChains(splitAtPlaces(path, cuts), 10 * samePlaceMm, maxToTheLeft).flatMap(partedAtTouches);
  return loops.filter(isArea).map(counterClockwise);
}

/** A closed path that comes back to one of its own points, parted there in two, until none does. */
function partedAtTouches(loop: Path): Path[] {
  const steps = stepsOf(loop);
  const index = boxIndex(steps.map(({ from: { x, y } }) => ({ minX: x, minY: y, maxX: x, maxY: y })), 0); // biome-ignore format: one line
  const near = 10 * samePlaceMm;
  for (const [k, { from }] of steps.entries()) {
    const again = index
      ?.search(from.x - near, from.y - near, from.x + near, from.y + near)
      .filter((j) => j > k + 1 && j < steps.length + k - 1);
    const [j] = again?.sort((p, q) => p - q) ?? [];
    if (j === undefined) continue;
    const part = (of: readonly Step[]): Path =>
      closedExactly({ start: (of[0] as Step).from, segments: of.map(({ segment }) => segment), closed: true });
    return [part(steps.slice(k, j)), part([...steps.slice(j), ...steps.slice(0, k)])].flatMap(partedAtTouches);
  }
  return [loop];
}

/** Whether two areas meet, or one lies in the other. */
function doOverlap(a: readonly Path[], b: readonly Path[]): boolean {
  if (pathCrossings(a, b).onA.length > 0) return true;
  const isIn = ([outer]: readonly Path[], area: readonly Path[]): boolean => windingNumber(area, insidePoint(outer as Path)) > 0;
  return isIn(a, b) || isIn(b, a);
}

/** Areas, each an outer path and its holes, that meet one another united, group by group; those that lie apart stay as they are. */
export function overlapsUnited(areas: readonly Path[][]): Path[] {
  if (areas.length < 2) return areas.flat();
  const group = areas.map((_, k) => k);
  const leader = (k: number): number => (group[k] === k ? k : leader(group[k] as number));
  const boxes = areas.map(([outer]) => pathBox(outer as Path));
  const index = boxIndex(boxes);
  for (const [k, area] of areas.entries()) {
    const { minX, minY, maxX, maxY } = boxes[k] as (typeof boxes)[0];
    for (const l of index?.search(minX, minY, maxX, maxY) ?? []) {
      if (l < k && leader(l) !== leader(k) && doOverlap(area, areas[l] as Path[])) group[leader(k)] = leader(l);
    }
  }
  const groups = new Map<number, Path[][]>();
  for (const [k, area] of areas.entries()) groups.set(leader(k), [...(groups.get(leader(k)) ?? []), area]);
  return [...groups.values()].flatMap((list) => {
    if (list.length === 1) return list.flat();
    if (list.every(({ length }) => length === 1)) return unitedOutlines(list.flat());
    return list.reduce((area, one) => combined(area, one, 'unite'));
  });
}

/** Closed paths as pieces, the largest first: each outer one counter-clockwise, the holes that lie in it clockwise. */
export function nested(paths: readonly Path[]): { readonly outer: Path; readonly holes: Path[] }[] {
  return finished(nestedRegions(paths)).map(({ outer, holes }) => ({
    outer: counterClockwise(paths[outer] as Path),
    holes: holes.map((k) => clockwise(paths[k] as Path)),
  }));
}

const clockwise = (path: Path): Path => (pathArea(path) > 0 ? reversedPath(path) : path);

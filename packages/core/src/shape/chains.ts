/**
 * In: paths and places on them. Out: the paths cut there into runs, and runs joined again into paths.
 * Ends of runs are the very places that were given, so that what meets there meets exactly.
 */
import { endOf, type Path, type Step, stepsOf } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { pointOn, type Segment, splitSegment } from '../plane/segment.ts';
import { samePlaceMm } from './crossings.ts';
import type { CutPlace } from './path-crossings.ts';

/** A path cut at places on it (for `path` 0 of a list of one), in order of travel; uncut it comes back whole. */
export function splitAtPlaces(path: Path, places: readonly CutPlace[]): Path[] {
  if (places.length === 0) return [path];
  const cuts = path.segments.map((): { t: number; at: Point }[] => []);
  for (const { segment, t, at } of places) cuts[segment]?.push({ t, at });
  const runs: { start: Point; segments: Segment[] }[] = [{ start: path.start, segments: [] }];
  const cutHere = (at: Point): void => {
    runs.push({ start: at, segments: [] });
  };
  let isStartCut = false;
  stepsOf(path).forEach(({ from, segment }, k) => {
    let [rest, start, gone] = [segment, from, 0];
    for (const { t, at } of withoutDoubles({ from, segment }, cuts[k] as { t: number; at: Point }[])) {
      if (distance(at, from) <= samePlaceMm) {
        if (k === 0) isStartCut = true;
        else if ((runs.at(-1)?.segments.length ?? 0) > 0) cutHere(from);
        continue;
      }
      if (distance(at, segment.to) <= samePlaceMm) continue;
      const [before, after] = splitSegment(start, rest, (t - gone) / (1 - gone));
      (runs.at(-1) as (typeof runs)[0]).segments.push(endedAt(before, at));
      cutHere(at);
      [rest, start, gone] = [after, at, t];
    }
    (runs.at(-1) as (typeof runs)[0]).segments.push(rest);
    const isEndCut = (cuts[k] as { t: number; at: Point }[]).some(({ at }) => distance(at, segment.to) <= samePlaceMm);
    if (isEndCut) {
      if (k === path.segments.length - 1) isStartCut = true;
      else cutHere(segment.to);
    }
  });
  const made = runs.filter(({ segments }) => segments.length > 0).map((run): Path => ({ ...run, closed: false }));
  if (!path.closed) return made;
  if (made.length === 1 && !isStartCut) return [path];
  if (isStartCut || made.length === 1) return made;
  // The last run goes on over the start into the first.
  const [first, ...others] = made as [Path, ...Path[]];
  const last = others.pop() as Path;
  return [{ start: last.start, segments: [...last.segments, ...first.segments], closed: false }, ...others];
}

const endedAt = (segment: Segment, at: Point): Segment => ({ ...segment, to: at });

/** Places that are told twice once; a curve that comes back to the same place on its way has been there twice. */
function withoutDoubles({ from, segment }: Step, cuts: readonly { t: number; at: Point }[]): { t: number; at: Point }[] {
  return [...cuts]
    .sort((a, b) => a.t - b.t)
    .filter(({ t, at }, k, all) => {
      const before = all[k - 1];
      if (!before || distance(at, before.at) > samePlaceMm) return true;
      return distance(pointOn(from, segment, (t + before.t) / 2), at) > 10 * samePlaceMm;
    });
}

/** One path from runs that follow each other. */
export const concatenated = (runs: readonly Path[], closed: boolean): Path => ({
  start: (runs[0] as Path).start,
  segments: runs.length === 1 ? (runs[0] as Path).segments : runs.flatMap((run) => run.segments),
  closed,
});

/**
 * Runs joined where the end of one lies on the start of another, within `tolerance`; where several start, the one that
 * `choose` likes best follows. What closes comes out closed.
 */
export function joinChains(
  runs: readonly Path[],
  tolerance = 10 * samePlaceMm,
  choose: (before: Path, choices: readonly Path[]) => Path = (_, [first]) => first as Path,
): Path[] {
  const cell = Math.max(tolerance, 1e-9) * 4;
  const byStart = new Map<string, Path[]>();
  const key = (x: number, y: number) => `${x} ${y}`;
  const place = (p: Point) => [Math.floor(p.x / cell), Math.floor(p.y / cell)] as const;
  for (const run of runs) {
    const k = key(...place(run.start));
    byStart.set(k, [...(byStart.get(k) ?? []), run]);
  }
  const free = new Set(runs);
  const startingAt = (p: Point): Path[] => {
    const [x, y] = place(p);
    const near: Path[] = [];
    for (const i of [x - 1, x, x + 1])
      for (const j of [y - 1, y, y + 1])
        for (const run of byStart.get(key(i, j)) ?? []) if (free.has(run) && distance(run.start, p) <= tolerance) near.push(run);
    return near;
  };
  const hasBefore = new Set<Path>();
  for (const run of runs) for (const next of startingAt(endOf(run))) if (next !== run) hasBefore.add(next);
  const made: Path[] = [];
  // Those that nothing leads to first, so that open chains come out whole.
  for (const first of [...runs.filter((r) => !hasBefore.has(r)), ...runs]) {
    if (!free.has(first)) continue;
    free.delete(first);
    if (first.closed) {
      made.push(first);
      continue;
    }
    const list = [first];
    for (let last = first; distance(endOf(last), first.start) > tolerance || list.length === 0; ) {
      const choices = startingAt(endOf(last));
      if (choices.length === 0) break;
      const next = choices.length === 1 ? (choices[0] as Path) : choose(last, choices);
      free.delete(next);
      list.push(next);
      last = next;
    }
    const isClosed = distance(endOf(list.at(-1) as Path), first.start) <= tolerance;
    made.push(isClosed ? closedExactly(concatenated(list, true)) : concatenated(list, false));
  }
  return made;
}

/** A closed path whose last segment ends on its start to the last digit. */
export function closedExactly(path: Path): Path {
  const last = path.segments.at(-1);
  if (!last) return path;
  if (last.to.x === path.start.x && last.to.y === path.start.y) return path.closed ? path : { ...path, closed: true };
  return { start: path.start, segments: [...path.segments.slice(0, -1), endedAt(last, path.start)], closed: true };
}

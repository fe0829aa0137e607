/**
 * In: the runs of a quilting line. Out: what sews badly: places that are passed too often, where thread piles up, and turns that are too
 * sharp; each with its place.
 */
import { directionOn, distance, type Path, type Point, pathLength, pointOn, segmentLength, stepsOf, turnBetween } from '../plane/index.ts';
import type { LineRun } from './continuous-line.ts';

export interface LineFinding {
  readonly count: number;
  /** The first of them. */
  readonly at: Point | null;
}

/** The line is looked at in steps as long as this, mm. */
const stepMm = 0.5;
/** Threads nearer than this lie on one another, mm. */
const threadMm = 0.4;
/** A line that comes back to a place within so much of itself has not left it, mm. */
const sameVisitMm = 4;
/** Crowded places nearer than this are one, mm. */
const onePlaceMm = 3;
/** No more steps than this are looked at: beyond, they are longer. */
const mostSteps = 400_000;

/** Places that are passed more often than `mostLayers`. */
export function crowdedPlaces(paths: readonly Path[], mostLayers: number): LineFinding {
  const step = Math.max(stepMm, paths.reduce((sum, path) => sum + pathLength(path), 0) / mostSteps);
  const visits = new Visits(threadMm + step - stepMm);
  const crowded: Point[] = [];
  let along = 0;
  for (const path of paths) {
    // Where one run ends and the next begins is no way back.
    along += sameVisitMm + step;
    for (const { from, segment } of stepsOf(path)) {
      const length = segmentLength(from, segment);
      const count = Math.max(1, Math.ceil(length / step));
      for (let k = 0; k < count; k++) {
        const p = pointOn(from, segment, k / count);
        if (visits.add(p, along + (k / count) * length) > mostLayers && !crowded.some((q) => distance(q, p) < onePlaceMm)) crowded.push(p);
      }
      along += length;
    }
  }
  return { count: crowded.length, at: crowded[0] ?? null };
}

/** Where a line has been, in cells, and how far along it that was. */
class Visits {
  private readonly cells = new Map<number, { p: Point; along: number }[]>();

  constructor(private readonly within: number) {}

  /** How often the line has now been at a place: once for each time that it came back. */
  add(p: Point, along: number): number {
    const [x, y] = [Math.floor(p.x / this.within), Math.floor(p.y / this.within)];
    const before: number[] = [];
    for (const i of [x - 1, x, x + 1])
      for (const j of [y - 1, y, y + 1])
        for (const other of this.cells.get(cellKey(i, j)) ?? []) {
          const isNew = along - other.along > sameVisitMm && distance(other.p, p) < this.within;
          if (isNew && before.every((at) => Math.abs(at - other.along) > sameVisitMm)) before.push(other.along);
        }
    const own = this.cells.get(cellKey(x, y));
    if (own) own.push({ p, along });
    else this.cells.set(cellKey(x, y), [{ p, along }]);
    return before.length + 1;
  }
}

const cellKey = (x: number, y: number): number => x * 0x4000000 + y;

/** Corners at which the line turns by more than an angle, degrees: 180 is right back. Where it turns to sew a line again it is meant to. */
export function sharpTurns(runs: readonly LineRun[], sharpestDegrees: number): LineFinding {
  const found = runs.flatMap(({ path, kinds }) => {
    const steps = stepsOf(path);
    return steps.slice(1).flatMap(({ from, segment }, k) => {
      const before = steps[k] as (typeof steps)[0];
      const turn = Math.abs(turnBetween(directionOn(before.from, before.segment, 1), directionOn(from, segment, 0)));
      return (turn * 180) / Math.PI > sharpestDegrees && kinds[k + 1] !== 'again' ? [from] : [];
    });
  });
  return { count: found.length, at: found[0] ?? null };
}

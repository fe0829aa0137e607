/**
 * In: a border, and a pattern's repeat. Out: the pattern once round it as one closed line: whole repeats along each side, and one that
 * turns about each corner. Its foot lies at the inside.
 * At a corner the repeat is bent about the corner of what lies within: its length becomes a quarter turn, its height the distance.
 */
import {
  add,
  directionOn,
  heightOf,
  type Path,
  type Point,
  pointOn,
  type Segment,
  type Step,
  stepsOf,
  transformedPath,
  turnBetween,
  widthOf,
} from '../plane/index.ts';
import { type DrawnPoint, pathThrough } from '../shape/index.ts';
import type { Ring } from './pieced-border.ts';
import { type RowPatternName, repeatOf } from './row-patterns.ts';

export interface BorderLine {
  readonly path: Path;
  /** How much longer repeats are than asked for along the sides, as the share that is farthest from 0. */
  readonly stretchX: number;
}

/** A bent repeat goes through so many places of each of its segments. */
const placesEach = 8;
/** The line turns sharply by more than this, radians. */
const sharp = 0.15;

export function borderLine({ inner, outer }: Ring, pattern: RowPatternName, repeatMm: number): BorderLine {
  const w = inner.minX - outer.minX;
  const { minX, minY, maxX, maxY } = inner;
  // Clockwise: out of the quilt is to the left.
  const sides = [
    { start: { x: minX, y: maxY }, along: { x: 1, y: 0 }, out: { x: 0, y: 1 }, length: widthOf(inner) },
    { start: { x: maxX, y: maxY }, along: { x: 0, y: -1 }, out: { x: 1, y: 0 }, length: heightOf(inner) },
    { start: { x: maxX, y: minY }, along: { x: -1, y: 0 }, out: { x: 0, y: -1 }, length: widthOf(inner) },
    { start: { x: minX, y: minY }, along: { x: 0, y: 1 }, out: { x: -1, y: 0 }, length: heightOf(inner) },
  ];
  const unit = repeatOf(pattern, 1, 1);
  const bends = bendPlaces(unit);
  const made: Path[] = [];
  let stretchX = 0;
  for (const { start, along, out, length } of sides) {
    const count = Math.max(1, Math.round(length / repeatMm));
    const step = length / count;
    if (Math.abs(step / repeatMm - 1) > Math.abs(stretchX)) stretchX = step / repeatMm - 1;
    for (let k = 0; k < count; k++) {
      const from = { x: start.x + along.x * k * step, y: start.y + along.y * k * step };
      made.push(transformedPath(unit, { a: along.x * step, b: along.y * step, c: out.x * w, d: out.y * w, e: from.x, f: from.y }));
    }
    const corner = { x: start.x + along.x * length, y: start.y + along.y * length };
    const bent = bends.map(({ at: { x, y }, corner: isSharp }): DrawnPoint => {
      const [c, s] = [Math.cos((x * Math.PI) / 2) * y * w, Math.sin((x * Math.PI) / 2) * y * w];
      return { at: add(corner, { x: out.x * c + along.x * s, y: out.y * c + along.y * s }), corner: isSharp };
    });
    made.push(pathThrough(bent, false) as Path);
  }
  const [first] = made as [Path, ...Path[]];
  const segments = made.flatMap((path) => path.segments);
  // Back to the very place that it started at.
  segments[segments.length - 1] = { ...(segments.at(-1) as Segment), to: first.start };
  return { path: { start: first.start, segments, closed: true }, stretchX };
}

/** Places along a repeat, dense enough to be bent, and where it turns sharply. */
function bendPlaces(unit: Path): { at: Point; corner: boolean }[] {
  const steps = stepsOf(unit);
  const turnsInto = (k: number): boolean => {
    const [before, after] = [steps[k - 1], steps[k]] as [Step | undefined, Step | undefined];
    if (!before || !after) return false;
    return Math.abs(turnBetween(directionOn(before.from, before.segment, 1), directionOn(after.from, after.segment, 0))) > sharp;
  };
  const places = steps.flatMap(({ from, segment }, k) =>
    Array.from({ length: placesEach }, (_, n) => ({ at: pointOn(from, segment, n / placesEach), corner: n === 0 && turnsInto(k) })),
  );
  return [...places, { at: (steps.at(-1) as Step).segment.to, corner: false }];
}

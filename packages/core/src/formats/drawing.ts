/**
 * In: outlines as a drawing file holds them, in mm. Out: pieces: ends that meet joined, closed outlines nested.
 */
import Flatbush from 'flatbush';
import type { Piece, Purpose } from '../job/schema.ts';
import { type Box, boxAroundBoxes } from '../plane/box.ts';
import { isInside, type Path, pathArea, pathBox, reversedPath, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { shift } from '../plane/transform.ts';

/** An outline of a drawing file. */
export interface DrawnOutline {
  readonly path: Path;
  readonly purpose: Purpose;
}

/** What a drawing file holds. */
export interface DrawingRead {
  readonly outlines: readonly DrawnOutline[];
  readonly mmPerUnit: number;
  readonly unitIsStated: boolean;
  /** What was left aside, in plain words. */
  readonly notes: readonly string[];
}

export class DrawingError extends Error {
  constructor(
    readonly code: 'not-readable' | 'nothing-drawn' | 'too-many',
    message: string,
  ) {
    super(message);
  }
}

/** Ends nearer than this are one, mm. */
const joinMm = 0.02;
const mostPieces = 20_000;
const mostHoles = 20_000;
const mostSegments = 100_000;
/** More closed outlines than pieces and their holes could be. */
const mostLoops = 100_000;
/** Outlines worked on between two looks at whether to go on. */
const outlinesAStep = 2000;

/**
 * The pieces of a drawing, its lower left corner at the sheet's origin; yields the share done.
 * @throws DrawingError where there is nothing, or more than a job can hold
 */
export function* piecesOfDrawing(read: DrawingRead, id: string): Generator<number, Piece[]> {
  if (read.outlines.length === 0) throw new DrawingError('nothing-drawn', 'There are no lines or curves in this file that Nuvet can use.');
  const joined = yield* joinedOutlines(read.outlines);
  const box = boxAroundBoxes(joined.map((o) => pathBox(o.path))) as Box;
  const home = shift(-box.minX, -box.minY);
  const placed = joined.map((o) => ({ ...o, path: transformedPath(o.path, home) }));
  return yield* nested(placed, id);
}

/** Outlines with ends that meet made into one; those that come back to their start are closed. */
function* joinedOutlines(outlines: readonly DrawnOutline[]): Generator<number, DrawnOutline[]> {
  const joined = outlines.filter((o) => o.path.closed);
  const open = outlines.filter((o) => !o.path.closed);
  const ends = new EndGrid(open);
  let used = 0;
  const near = (place: Point, purpose: Purpose): Path | null => {
    const found = ends.takeNear(place, purpose);
    if (found) used++;
    return found && startingAt(found.path, place);
  };
  for (let k = 0; k < open.length; k++) {
    if (k % outlinesAStep === 0) yield 0.5 * (used / open.length);
    const first = ends.take(k);
    if (!first) continue;
    used++;
    const { purpose } = first;
    const after = [first.path];
    for (let next = near(endOf(first.path), purpose); next; next = near(endOf(next), purpose)) {
      after.push(next);
      if (used % outlinesAStep === 0) yield 0.5 * (used / open.length);
    }
    const before: Path[] = [];
    for (let next = near(first.path.start, purpose); next; next = near(endOf(next), purpose)) before.push(next);
    const path = chained([...before.reverse().map(reversedPath), ...after]);
    if (path.segments.length > mostSegments) {
      throw new DrawingError(
        'too-many',
        `One outline of this file has ${path.segments.length} segments; Nuvet takes up to ${mostSegments}.`,
      );
    }
    joined.push({ purpose, path });
  }
  return joined;
}

/** The path, turned so that it starts at a place where one of its ends lies. */
const startingAt = (path: Path, place: Point): Path => (distance(path.start, place) <= joinMm ? path : reversedPath(path));

const endOf = (path: Path): Point => path.segments.at(-1)?.to ?? path.start;

/** Paths one after the other as one, each moved onto the end before it. */
function chained(run: readonly Path[]): Path {
  const start = (run[0] as Path).start;
  const segments = run.flatMap((p) => p.segments);
  const last = segments.at(-1);
  const isClosed = segments.length > 1 && last !== undefined && distance(last.to, start) <= joinMm;
  return { start, segments: isClosed ? [...segments.slice(0, -1), { ...last, to: start }] : segments, closed: isClosed };
}

/** The ends of open outlines by where they lie; each outline can be taken once. */
class EndGrid {
  private readonly cells = new Map<string, number[]>();
  private readonly taken = new Set<number>();

  constructor(private readonly outlines: readonly DrawnOutline[]) {
    outlines.forEach(({ path }, k) => {
      for (const p of [path.start, endOf(path)]) {
        const key = keyOf(cellOf(p.x), cellOf(p.y));
        const cell = this.cells.get(key);
        if (cell) cell.push(k);
        else this.cells.set(key, [k]);
      }
    });
  }

  take(k: number): DrawnOutline | null {
    if (this.taken.has(k)) return null;
    this.taken.add(k);
    return this.outlines[k] ?? null;
  }

  /** An outline of a purpose with an end at a place, if one is left. */
  takeNear(p: Point, purpose: Purpose): DrawnOutline | null {
    for (const cell of this.around(p)) {
      // What has been taken is dropped from the end of the list, so that no list is walked again and again.
      while (cell.length > 0 && this.taken.has(cell.at(-1) as number)) cell.pop();
      for (let j = cell.length - 1; j >= 0; j--) {
        const k = cell[j] as number;
        const { path, purpose: its } = this.outlines[k] as DrawnOutline;
        if (this.taken.has(k) || its !== purpose) continue;
        if (distance(path.start, p) <= joinMm || distance(endOf(path), p) <= joinMm) return this.take(k);
      }
    }
    return null;
  }

  private around({ x, y }: Point): number[][] {
    const steps = [-1, 0, 1];
    return steps.flatMap((dx) => steps.flatMap((dy) => [this.cells.get(keyOf(cellOf(x) + dx, cellOf(y) + dy)) ?? []]));
  }
}

const cellOf = (v: number): number => Math.floor(v / (2 * joinMm));
const keyOf = (x: number, y: number): string => `${x} ${y}`;

/** Closed outlines to be cut become pieces with their holes; all else is a piece of its own. */
function* nested(outlines: readonly DrawnOutline[], id: string): Generator<number, Piece[]> {
  const loops = outlines
    .filter((o) => o.path.closed && o.purpose === 'cut')
    .map((o) => ({ ...o, box: pathBox(o.path), area: Math.abs(pathArea(o.path)) }))
    .sort((a, b) => b.area - a.area);
  const rest = outlines.filter((o) => !(o.path.closed && o.purpose === 'cut'));
  if (rest.length > mostPieces) throw tooMany(rest.length);
  if (loops.length > mostLoops) throw tooMany(loops.length);
  const depth = new Int32Array(loops.length);
  const around = new Int32Array(loops.length).fill(-1);
  const boxes = loops.length > 0 ? new Flatbush(loops.length) : null;
  for (const { box } of loops) boxes?.add(box.minX, box.minY, box.maxX, box.maxY);
  boxes?.finish();
  for (let k = 0; k < loops.length; k++) {
    const place = insidePoint((loops[k] as (typeof loops)[0]).path);
    // Of all larger ones round the place the smallest, which stands last, is just around.
    const larger = (boxes?.search(place.x, place.y, place.x, place.y) ?? []).filter((j) => j < k).sort((a, b) => b - a);
    const found = larger.find((j) => isInside((loops[j] as (typeof loops)[0]).path, place));
    if (found !== undefined) {
      depth[k] = (depth[found] as number) + 1;
      around[k] = found;
    }
    if (k % 200 === 0) yield 0.5 + 0.5 * (k / loops.length);
  }
  const holes = new Map<number, Path[]>();
  loops.forEach(({ path }, k) => {
    if ((depth[k] as number) % 2 === 0) return;
    const list = holes.get(around[k] as number) ?? [];
    list.push(turnedTo(path, -1));
    holes.set(around[k] as number, list);
  });
  const pieces = [
    ...loops.flatMap(({ path, purpose }, k) =>
      (depth[k] as number) % 2 === 0 ? [{ purpose, outer: turnedTo(path, 1), holes: holes.get(k) ?? [] }] : [],
    ),
    ...rest.map(({ path, purpose }) => ({ purpose, outer: path, holes: [] as Path[] })),
  ];
  if (pieces.length > mostPieces || pieces.some((p) => p.holes.length > mostHoles)) throw tooMany(pieces.length);
  return pieces.map((piece, k) => ({
    id: `${id}-${k + 1}`,
    name: `${piece.outer.closed ? 'Outline' : 'Line'} ${k + 1}`,
    leftOut: false,
    runsOff: false,
    ...piece,
  }));
}

const tooMany = (count: number): DrawingError =>
  new DrawingError('too-many', `This file holds ${count} separate outlines; Nuvet takes up to ${mostPieces}. Bring in a part of it.`);

const insidePoint = (path: Path): Point => {
  const { start, segments } = path;
  const to = segments[0]?.to ?? start;
  return { x: (start.x + to.x) / 2, y: (start.y + to.y) / 2 };
};

/** Outer outlines counter-clockwise, holes clockwise. */
const turnedTo = (path: Path, sign: 1 | -1): Path => (Math.sign(pathArea(path)) === sign ? path : reversedPath(path));

/** What a layer's or an element's name says it is for. */
export function purposeNamed(name: string): Purpose | null {
  const words: readonly (readonly [RegExp, Purpose])[] = [
    [/perf|tear/i, 'perforate'],
    [/score|crease|fold|bend/i, 'score'],
    [/engrav|etch/i, 'engrave'],
    [/pocket/i, 'pocket'],
    [/stitch|sew|quilt/i, 'stitch'],
    [/guide|construction|help/i, 'guide'],
    [/cut|outline|profile/i, 'cut'],
  ];
  return words.find(([pattern]) => pattern.test(name))?.[1] ?? null;
}

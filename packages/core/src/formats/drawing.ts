/**
 * In: outlines as a drawing file holds them, in mm. Out: pieces: ends that meet joined, closed outlines nested.
 */
import { makeOf, type Purpose } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { english, type Message, SaidError, say } from '../messages/index.ts';
import { type Box, boxAroundBoxes } from '../plane/box.ts';
import { endOf, type Path, pathArea, pathBox, reversedPath, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { apply, shift } from '../plane/transform.ts';
import { nestedRegions } from '../shape/nesting.ts';
import type { EndKind } from '../shape/stroke-outline.ts';

/** The line that an outline is drawn with, where the line is what is seen of it. */
export interface DrawnStroke {
  readonly widthMm: number;
  readonly ends: EndKind;
  readonly corners: 'mitre' | 'round' | 'bevel';
  /** Lengths drawn and left out in turn; none where the line is whole. */
  readonly dashesMm: readonly number[];
}

/** An outline of a drawing file. */
export interface DrawnOutline {
  readonly path: Path;
  readonly purpose: Purpose;
  readonly stroke?: DrawnStroke;
}

/** What was left aside, how often, and where the first of it lies, mm as outlines do. */
export interface Aside {
  readonly what: string;
  readonly count: number;
  readonly at: Point | null;
  /** Whether a person who looks at the drawing sees it. */
  readonly isSeen: boolean;
}

/** What a reader leaves aside, kind by kind. */
export class Asides {
  private readonly found = new Map<string, Aside>();

  leave(what: string, { at = null, isSeen = true }: { readonly at?: Point | null; readonly isSeen?: boolean } = {}): void {
    const before = this.found.get(what);
    this.found.set(what, { what, count: (before?.count ?? 0) + 1, at: before?.at ?? at, isSeen: isSeen || before?.isSeen === true });
  }

  list(): Aside[] {
    return [...this.found.values()];
  }
}

/** What a drawing file holds. */
export interface DrawingRead {
  readonly outlines: readonly DrawnOutline[];
  readonly mmPerUnit: number;
  readonly unitIsStated: boolean;
  readonly asides: readonly Aside[];
}

export class DrawingError extends SaidError {
  constructor(
    readonly code: 'not-readable' | 'nothing-drawn' | 'too-many' | 'too-large',
    message: Message,
  ) {
    super(message);
  }
}

/** Ends nearer than this are one, mm. */
const joinMm = 0.02;
const maxPieces = 20_000;
const maxHoles = 20_000;
const maxSegments = 100_000;
/** More closed outlines than pieces and their holes could be. */
const maxLoops = 100_000;
/** Outlines worked on between two looks at whether to go on. */
const outlinesAStep = 2000;
/** No sheet is larger, mm; see the job's schema. */
const widestMm = 1e6;

/**
 * Counts what a reader makes of a file, so that a few bytes that stand for millions of outlines are refused before they are made.
 */
export class ReadingBudget {
  private outlines = 0;
  private segments = 0;

  /** @throws DrawingError where the file stands for more than a job can hold */
  take(outlines: number, segments: number): void {
    this.outlines += outlines;
    this.segments += segments;
    if (this.outlines > maxLoops || this.segments > maxSegments * 3)
      throw new DrawingError('too-many', say.files.standsForTooMany(maxLoops.toLocaleString('en'), (maxSegments * 3).toLocaleString('en')));
  }
}

export interface DrawingPieces {
  readonly pieces: Piece[];
  /** What was left aside and what was mended, in plain words. */
  readonly notes: string[];
  /** Whether something that is seen in the drawing was left aside. */
  readonly hasLost: boolean;
}

/**
 * The pieces of a drawing, its lower left corner at the sheet's origin, and what was mended or left aside on the way; yields the
 * share done.
 * @throws DrawingError where there is nothing, or more than a job can hold
 */
export function* piecesOfDrawing(read: DrawingRead, id: string): Generator<number, DrawingPieces> {
  const notes: string[] = [];
  const sound = read.outlines.filter(({ path }) => isFinitePath(path));
  const odd = read.outlines.length - sound.length;
  if (odd > 0) notes.push(english.files.oddNumbers(odd));
  if (sound.length === 0) {
    const aside = [...read.asides.map(({ what }) => what), ...(odd > 0 ? [english.files.outOfRange] : [])];
    throw new DrawingError('nothing-drawn', say.files.nothingDrawn(aside.length, aside.slice(0, 5).join(', ')));
  }
  const joins = { closed: 0, widestMm: 0, joined: 0 };
  const joined = yield* joinedOutlines(sound, joins);
  if (joins.joined + joins.closed > 0) notes.push(english.files.endsJoined(joins.widestMm.toFixed(3), joins.joined + joins.closed));
  const box = boxAroundBoxes(joined.map((o) => pathBox(o.path))) as Box;
  if (Math.max(box.maxX - box.minX, box.maxY - box.minY) > widestMm)
    throw new DrawingError(
      'too-large',
      say.files.tooLarge(((box.maxX - box.minX) / 1000).toFixed(0), ((box.maxY - box.minY) / 1000).toFixed(0)),
    );
  const home = shift(-box.minX, -box.minY);
  const placed = joined.map((o) => ({ ...o, path: transformedPath(o.path, home) }));
  const aside = read.asides.map(({ what, count, at }) => english.files.leftAside(what, count, at && apply(home, at)));
  return {
    pieces: yield* nestedPieces(placed, id),
    notes: [...aside, ...notes],
    hasLost: odd > 0 || read.asides.some(({ isSeen }) => isSeen),
  };
}

const isFinitePath = ({ start, segments }: Path): boolean => isFinitePlain(start) && segments.every(isFinitePlain);

/** Whether every number of a plain value is finite, and of a size that sums of squares can be taken of. */
const isFinitePlain = (value: object): boolean =>
  Object.values(value).every((v) =>
    typeof v === 'number' ? Math.abs(v) < 1e15 : typeof v === 'object' && v !== null ? isFinitePlain(v) : true,
  );

/** What joining has bridged: gaps of more than a rounding. */
interface Joins {
  joined: number;
  closed: number;
  widestMm: number;
}

/** Nearer than this, ends are one place written with fewer digits, mm. */
const roundingMm = 1e-3;

/** Outlines with ends that meet made into one; those that come back to their start are closed. */
function* joinedOutlines(outlines: readonly DrawnOutline[], joins: Joins): Generator<number, DrawnOutline[]> {
  const joined = outlines.filter((o) => o.path.closed);
  const open = outlines.filter((o) => !o.path.closed);
  const ends = new EndGrid(open);
  let used = 0;
  const near = (place: Point, purpose: Purpose, own: Path, run: DrawnOutline[]): Path | null => {
    const found = ends.takeNear(place, purpose, own);
    if (found) {
      used++;
      run.push(found);
    }
    return found && startingAt(found.path, place);
  };
  for (let k = 0; k < open.length; k++) {
    if (k % outlinesAStep === 0) yield 0.5 * (used / open.length);
    const first = ends.take(k);
    if (!first) continue;
    used++;
    const { purpose } = first;
    const after = [first.path];
    const run = [first];
    for (let next = near(endOf(first.path), purpose, first.path, run); next; next = near(endOf(next), purpose, next, run)) {
      after.push(next);
      if (used % outlinesAStep === 0) yield 0.5 * (used / open.length);
    }
    const before: Path[] = [];
    for (let next = near(first.path.start, purpose, first.path, run); next; next = near(endOf(next), purpose, next, run)) before.push(next);
    const path = chained([...before.reverse().map(reversedPath), ...after], joins);
    if (path.segments.length > maxSegments) {
      throw new DrawingError('too-many', say.files.outlineTooLong(path.segments.length, maxSegments));
    }
    const strokes = run.map(({ stroke }) => stroke);
    joined.push({ purpose, path, ...(isOneStroke(strokes) && { stroke: first.stroke as DrawnStroke }) });
  }
  return joined;
}

/** Whether all lines of a run are drawn alike, so that they are one line. */
const isOneStroke = (strokes: readonly (DrawnStroke | undefined)[]): boolean => {
  const [first] = strokes;
  return first !== undefined && strokes.every((stroke) => stroke !== undefined && Math.abs(stroke.widthMm - first.widthMm) < 1e-6 && stroke.ends === first.ends); // biome-ignore format: one line
};

/** The path, turned so that it starts at a place where one of its ends lies. */
const startingAt = (path: Path, place: Point): Path => (distance(path.start, place) <= joinMm ? path : reversedPath(path));

/** Paths one after the other as one, each moved onto the end before it. */
function chained(run: readonly Path[], joins: Joins): Path {
  const start = (run[0] as Path).start;
  const segments = run.flatMap((p) => p.segments);
  for (const [k, path] of run.slice(1).entries()) count(joins, 'joined', distance(endOf(run[k] as Path), path.start));
  const last = segments.at(-1);
  const isClosed = segments.length > 1 && last !== undefined && distance(last.to, start) <= joinMm;
  if (isClosed && last) count(joins, 'closed', distance(last.to, start));
  return { start, segments: isClosed ? [...segments.slice(0, -1), { ...last, to: start }] : segments, closed: isClosed };
}

function count(joins: Joins, what: 'joined' | 'closed', gapMm: number): void {
  if (gapMm <= roundingMm) return;
  joins[what]++;
  joins.widestMm = Math.max(joins.widestMm, gapMm);
}

/** Whether two lines lie on one another: doubled they are, and no area. */
function isTwin(a: Path, b: Path): boolean {
  if (a.segments.length !== b.segments.length || ![...a.segments, ...b.segments].every(({ kind }) => kind === 'line')) return false;
  const [p, q] = [cornersOf(a), cornersOf(b)];
  const isAlike = (others: readonly Point[]) => p.every((at, k) => distance(at, others[k] as Point) <= joinMm);
  return isAlike(q) || isAlike(q.reverse());
}

const cornersOf = ({ start, segments }: Path): Point[] => [start, ...segments.map(({ to }) => to)];

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

  /** An outline of a purpose with an end at a place, if one is left; none that only doubles `own`. */
  takeNear(p: Point, purpose: Purpose, own: Path): DrawnOutline | null {
    for (const cell of this.around(p)) {
      // What has been taken is dropped from the end of the list, so that no list is walked again and again.
      while (cell.length > 0 && this.taken.has(cell.at(-1) as number)) cell.pop();
      for (let j = cell.length - 1; j >= 0; j--) {
        const k = cell[j] as number;
        const { path, purpose: its } = this.outlines[k] as DrawnOutline;
        if (this.taken.has(k) || its !== purpose) continue;
        const isNear = distance(path.start, p) <= joinMm || distance(endOf(path), p) <= joinMm;
        if (isNear && !isTwin(path, own)) return this.take(k);
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

/** Drawn wider than this a line may be meant as wide as it is, mm. */
const wideMm = 1;
const isWide = ({ stroke }: Pick<DrawnOutline, 'stroke'>): boolean => stroke !== undefined && stroke.widthMm >= wideMm;

/** Closed outlines to be cut become pieces with their holes; all else is a piece of its own. */
function* nestedPieces(outlines: readonly DrawnOutline[], id: string): Generator<number, Piece[]> {
  // A ring drawn as a wide line is a line by itself, and no hole of another.
  const isLoop = (outline: DrawnOutline): boolean => outline.path.closed && makeOf(outline) === 'part' && !isWide(outline);
  const loops = outlines.filter(isLoop).map(({ path }) => path);
  const rest = outlines.filter((o) => !isLoop(o));
  if (rest.length > maxPieces) throw tooMany(rest.length);
  if (loops.length > maxLoops) throw tooMany(loops.length);
  const steps = nestedRegions(loops);
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield 0.5 + 0.5 * step.value;
  const pieces = [
    ...step.value.map(({ outer, holes }) => ({
      purpose: 'cut' as const,
      outer: turnedTo(loops[outer] as Path, 1),
      holes: holes.map((k) => turnedTo(loops[k] as Path, -1)),
    })),
    ...rest.map(({ path, purpose, stroke }) => ({
      purpose,
      outer: path.closed && isWide({ stroke }) ? turnedTo(path, 1) : path,
      holes: [] as Path[],
      ...(stroke &&
        isWide({ stroke }) && {
          strokeMm: stroke.widthMm,
          strokeShape: { ends: stroke.ends, corners: stroke.corners, dashesMm: stroke.dashesMm },
        }),
    })),
  ];
  if (pieces.length > maxPieces || pieces.some((p) => p.holes.length > maxHoles)) throw tooMany(pieces.length);
  return pieces.map((piece, k) => ({
    id: `${id}-${k + 1}`,
    name: `${piece.outer.closed ? 'Outline' : 'Line'} ${k + 1}`,
    leftOut: false,
    runsOff: false,
    ...piece,
  }));
}

const tooMany = (count: number): DrawingError => new DrawingError('too-many', say.files.tooManyOutlines(count, maxPieces));

/** Outer outlines counter-clockwise, holes clockwise. */
const turnedTo = (path: Path, sign: 1 | -1): Path => (Math.sign(pathArea(path)) === sign ? path : reversedPath(path));

/**
 * In: a grey picture and a level between two greys. Out: closed contours round all that is darker, sub-pixel,
 * with their nesting. Pixel x right, y down, a pixel's centre at +0.5.
 * Rests on: marching squares with linear interpolation along the grid edges; a cell with two dark corners across
 * is decided by the mean of the four; nesting by the last contour met on the row (Suzuki & Abe 1985).
 */
import { evenUpTo, wordsOf } from './four-pixels.ts';
import type { GreyPicture } from './grey.ts';

export interface Contour {
  /** x and y in turn; the start is not repeated. Seen on screen, the dark side is on the left. */
  readonly points: Float64Array;
  /** True for the border of a light area inside a dark one. */
  readonly isHole: boolean;
  /** The index of the contour just around this one, or -1. */
  readonly parent: number;
  /** The enclosed area in pixels, positive. */
  readonly area: number;
}

export interface Contours {
  readonly contours: Contour[];
  /** Mean change of grey from one pixel to the next across the borders: tells how soft the edges are. */
  readonly meanStep: number;
  /** How many contours were left out for their area. */
  readonly dropped: number;
}

/** What the tracer remembers of a contour until nesting is known. */
interface Loop {
  points: Float64Array;
  signedArea: number;
  startX: number;
  startY: number;
}

/**
 * Borders of more pixels than this, in all, are those of noise or of a screen print, and no outlines; they would fill the memory. The
 * borders of a sheet of A4 at 600 dpi with 3,000 shapes have half a million.
 */
const maxBorderPoints = 6_000_000;

/** A border longer than may be, or all that are kept together. */
class TooMuchBorder extends Error {}

/** A number list that grows without boxing. */
class Growing<T extends Float64Array | Int32Array> {
  length = 0;
  constructor(
    public data: T,
    private readonly make: (size: number) => T,
  ) {}

  /** @throws TooMuchBorder where it would hold more than `limit` */
  reserve(extra: number, limit: number): void {
    if (this.length + extra <= this.data.length) return;
    if (this.length > limit) throw new TooMuchBorder();
    const next = this.make(Math.max(this.data.length * 2, this.length + extra));
    next.set(this.data as never);
    this.data = next;
  }
}

/**
 * Contours of all pixels darker than `level`.
 * @param level between two whole greys, such as 127.5, so that no pixel lies on it
 * @param smallestArea contours that enclose less, in square pixels, are left out
 * @returns no contours at all, every one dropped, where they would have more than six million points
 */
export function contoursAt(picture: GreyPicture, level: number, smallestArea = 0): Contours {
  if (Number.isInteger(level)) throw new RangeError('the level must lie between two greys, such as 127.5');
  const tracer = new Tracer(picture, level, smallestArea);
  try {
    tracer.scan();
  } catch (error) {
    if (!(error instanceof TooMuchBorder)) throw error;
    return { contours: [], meanStep: 0, dropped: tracer.loopCount };
  }
  return tracer.result();
}

class Tracer {
  /** A bit for every pixel whose left border has been walked down. */
  private readonly walked: Uint8Array;
  private readonly run = new Growing(new Float64Array(1 << 14), (n) => new Float64Array(n));
  /** Where kept contours cross pixel rows: row, column, contour and way (1 into the dark, going right). */
  private readonly crossings = new Growing(new Int32Array(1 << 14), (n) => new Int32Array(n));
  private readonly loops: Loop[] = [];
  private dropped = 0;
  private stepSum = 0;
  private stepCount = 0;

  constructor(
    private readonly picture: GreyPicture,
    private readonly level: number,
    private readonly smallestArea: number,
  ) {
    this.walked = new Uint8Array((picture.data.length >> 3) + 1);
  }

  /** Passes over the rows, paper and ink four pixels at a time, and walks every border where it is first met. */
  scan(): void {
    const { level } = this;
    const { width, height, data } = this.picture;
    const words = wordsOf(data);
    for (let y = 0; y < height; y++) {
      const [start, end] = [y * width, (y + 1) * width];
      let wasDark = false;
      for (let p = start; p < end; ) {
        if (words && (p & 3) === 0) p = 4 * evenUpTo(words, level, p >> 2, end >> 2, wasDark);
        // The four pixels of an uneven word, or what comes before the first or after the last.
        const stop = Math.min(end, words ? (p | 3) + 1 : end);
        for (; p < stop; p++) {
          const isDark = (data[p] as number) < level;
          if (isDark && !wasDark && !this.isWalked(p)) this.walk(p - start, y);
          wasDark = isDark;
        }
      }
    }
  }

  private isWalked(p: number): boolean {
    return ((this.walked[p >> 3] as number) & (1 << (p & 7))) !== 0;
  }

  /** The grey of a pixel; outside the picture there is paper, so that every contour closes. */
  private greyAt(x: number, y: number): number {
    const { width, height, data } = this.picture;
    return x >= 0 && x < width && y >= 0 && y < height ? (data[y * width + x] as number) : 255;
  }

  /** Walks the border that leads down the left side of the dark pixel (x, y) back to itself. */
  private walk(startX: number, startY: number): void {
    const { walked, level, run } = this;
    const { width } = this.picture;
    const aheadX = [0, 1, 0, -1];
    const aheadY = [1, 0, -1, 0];
    const firstCrossing = this.crossings.length;
    const id = this.loops.length;
    let [x, y, heading] = [startX, startY, 0];
    let dark = this.greyAt(x, y);
    let light = this.greyAt(x - 1, y);
    let steps = 0;
    run.length = 0;
    do {
      const step = light - dark;
      const share = (level - dark) / step;
      this.stepSum += step;
      run.reserve(2, 2 * maxBorderPoints);
      // The light pixel lies to the right of the direction of travel: one quarter turn on from ahead.
      const side = (heading + 3) & 3;
      const [onX, onY] = [aheadX[heading] as number, aheadY[heading] as number];
      const [sideX, sideY] = [aheadX[side] as number, aheadY[side] as number];
      run.data[run.length++] = x + 0.5 + share * sideX;
      run.data[run.length++] = y + 0.5 + share * sideY;
      steps++;
      if (heading === 0) {
        const p = y * width + x;
        walked[p >> 3] = (walked[p >> 3] as number) | (1 << (p & 7));
        this.recordCrossing(y, x, id, 1);
      } else if (heading === 2) this.recordCrossing(y, x, id, 0);

      const darkAhead = this.greyAt(x + onX, y + onY);
      const lightAhead = this.greyAt(x + onX + sideX, y + onY + sideY);
      const [isDarkAhead, isLightAhead] = [darkAhead < level, lightAhead >= level];
      if (isDarkAhead && isLightAhead) {
        [dark, light] = [darkAhead, lightAhead];
        x += onX;
        y += onY;
      } else if (isDarkAhead || (!isLightAhead && dark + light + darkAhead + lightAhead < 4 * level)) {
        // Round the light corner: the dark pixel ahead on the other side is next.
        dark = lightAhead;
        x += onX + sideX;
        y += onY + sideY;
        heading = side;
      } else {
        light = darkAhead;
        heading = (heading + 1) & 3;
      }
    } while (x !== startX || y !== startY || heading !== 0);

    this.stepCount += steps;
    const signedArea = areaOf(run.data, run.length);
    if (Math.abs(signedArea) < this.smallestArea) {
      this.dropped++;
      this.crossings.length = firstCrossing;
      return;
    }
    this.loops.push({ points: run.data.slice(0, run.length), signedArea, startX, startY });
  }

  private recordCrossing(row: number, column: number, loop: number, into: number): void {
    const list = this.crossings;
    list.reserve(4, 4 * maxBorderPoints);
    const { data } = list;
    data[list.length++] = row;
    data[list.length++] = column;
    data[list.length++] = loop;
    data[list.length++] = into;
  }

  get loopCount(): number {
    return this.loops.length + this.dropped;
  }

  result(): Contours {
    const byRow = this.crossingsByRow();
    const parents: number[] = [];
    const contours = this.loops.map((loop, id): Contour => {
      const isHole = loop.signedArea < 0;
      const parent = this.parentOf(id, isHole, byRow.get(loop.startY) ?? [], parents);
      parents.push(parent);
      return { points: loop.points, isHole, parent, area: Math.abs(loop.signedArea) };
    });
    return { contours, dropped: this.dropped, meanStep: this.stepCount > 0 ? this.stepSum / this.stepCount : 0 };
  }

  /** Crossings of the rows where contours start, each row from left to right. */
  private crossingsByRow(): Map<number, Crossing[]> {
    const byRow = new Map<number, Crossing[]>(this.loops.map((loop) => [loop.startY, []]));
    const { data, length } = this.crossings;
    for (let k = 0; k < length; k += 4) {
      // A border to the left of a pixel and one to the right of it sort as they lie.
      const into = data[k + 3] === 1;
      const column = (data[k + 1] as number) * 2 + (into ? 0 : 1);
      byRow.get(data[k] as number)?.push({ column, loop: data[k + 2] as number, into });
    }
    for (const row of byRow.values()) row.sort((a, b) => a.column - b.column);
    return byRow;
  }

  /** The contour just around contour `id`: the next one to the left of where it starts. */
  private parentOf(id: number, isHole: boolean, row: Crossing[], parents: number[]): number {
    const loop = this.loops[id] as Loop;
    let k = lastBefore(row, loop.startX * 2);
    if (isHole) {
      // The row ran out of the dark into this hole; what counts is where it had entered the dark.
      while (k >= 0 && !(row[k] as Crossing).into) k--;
    }
    const before = row[k];
    if (!before || before.loop === id) return -1;
    const isBeforeHole = (this.loops[before.loop] as Loop).signedArea < 0;
    return isBeforeHole === isHole ? (parents[before.loop] ?? -1) : before.loop;
  }
}

interface Crossing {
  column: number;
  loop: number;
  into: boolean;
}

/** The index of the last crossing left of a column, or -1. */
function lastBefore(row: Crossing[], column: number): number {
  let [low, high] = [0, row.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((row[middle] as Crossing).column < column) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** The signed area of a polygon, positive where the inside is on the left as seen on screen. */
function areaOf(points: Float64Array, length: number): number {
  let sum = 0;
  let [x, y] = [points[length - 2] as number, points[length - 1] as number];
  for (let k = 0; k < length; k += 2) {
    const [nextX, nextY] = [points[k] as number, points[k + 1] as number];
    sum += nextX * y - x * nextY;
    x = nextX;
    y = nextY;
  }
  return sum / 2;
}

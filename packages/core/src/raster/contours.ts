/**
 * In: a grey picture and a level between two greys. Out: closed contours round all that is darker, sub-pixel,
 * with their nesting. Pixel x right, y down, a pixel's centre at +0.5.
 * Rests on: marching squares with linear interpolation along the grid edges; a cell with two dark corners across
 * is decided by the mean of the four; nesting by the last contour met on the row (Suzuki & Abe 1985).
 */
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

/** A number list that grows without boxing. */
class Growing<T extends Float64Array | Int32Array> {
  length = 0;
  constructor(
    public data: T,
    private readonly make: (size: number) => T,
  ) {}

  reserve(extra: number): void {
    if (this.length + extra <= this.data.length) return;
    const next = this.make(Math.max(this.data.length * 2, this.length + extra));
    next.set(this.data as never);
    this.data = next;
  }
}

/**
 * Contours of all pixels darker than `level`.
 * @param level between two whole greys, such as 127.5, so that no pixel lies on it
 * @param smallestArea contours that enclose less, in square pixels, are left out
 */
export function contoursAt(picture: GreyPicture, level: number, smallestArea = 0): Contours {
  if (Number.isInteger(level)) throw new RangeError('the level must lie between two greys, such as 127.5');
  const tracer = new Tracer(picture, level, smallestArea);
  tracer.scan();
  return tracer.result();
}

/** The highest bit of each of four bytes. */
const highBits = 0x80808080 | 0;

class Tracer {
  private readonly stride: number;
  private readonly rows: number;
  /** The picture with a border of paper, so that every contour closes and no step needs a bounds check. */
  private readonly grey: Uint8Array;
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
    picture: GreyPicture,
    private readonly level: number,
    private readonly smallestArea: number,
  ) {
    const { width, height, data } = picture;
    // Whole words of four pixels, so that paper and ink can be passed over a word at a time.
    this.stride = (width + 5) & ~3;
    this.rows = height + 2;
    this.grey = new Uint8Array(this.stride * this.rows).fill(255);
    for (let y = 0; y < height; y++) {
      this.grey.set(data.subarray(y * width, (y + 1) * width), (y + 1) * this.stride + 1);
    }
    this.walked = new Uint8Array((this.grey.length >> 3) + 1);
  }

  scan(): void {
    const { grey, walked, stride, rows, level } = this;
    const words = new Int32Array(grey.buffer);
    const least = Math.ceil(level);
    // Of four bytes at once: the high bit of each that is at least the level (Warren 2013, 6-1).
    const isHigh = least > 128;
    const lift = (0x80 - (isHigh ? least - 128 : least)) * 0x01010101;
    const paperBits = (word: number): number => {
      const low = (word & 0x7f7f7f7f) + lift;
      return (isHigh ? word & low : word | low) & highBits;
    };
    for (let y = 1; y < rows - 1; y++) {
      const start = y * stride;
      let wasDark = false;
      for (let w = start >> 2, last = (start + stride) >> 2; w < last; w++) {
        if (paperBits(words[w] as number) === (wasDark ? 0 : highBits)) continue;
        for (let p = 4 * w; p < 4 * w + 4; p++) {
          const isDark = (grey[p] as number) < level;
          if (isDark && !wasDark && ((walked[p >> 3] as number) & (1 << (p & 7))) === 0) this.walk(p - start, y);
          wasDark = isDark;
        }
      }
    }
  }

  /** Walks the border that leads down the left side of the dark pixel (x, y) back to itself. */
  private walk(startX: number, startY: number): void {
    const { grey, walked, stride, level, run } = this;
    const ahead = [stride, 1, -stride, -1];
    const aheadX = [0, 1, 0, -1];
    const aheadY = [1, 0, -1, 0];
    const firstCrossing = this.crossings.length;
    const id = this.loops.length;
    let [x, y, way] = [startX, startY, 0];
    let [dark, light] = [startY * stride + startX, startY * stride + startX - 1];
    const start = dark;
    let steps = 0;
    run.length = 0;
    do {
      const darkGrey = grey[dark] as number;
      const step = (grey[light] as number) - darkGrey;
      const share = (level - darkGrey) / step;
      this.stepSum += step;
      run.reserve(2);
      // The light pixel lies to the right of the direction of travel: one quarter turn on from ahead.
      const side = (way + 3) & 3;
      run.data[run.length++] = x - 0.5 + share * (aheadX[side] as number);
      run.data[run.length++] = y - 0.5 + share * (aheadY[side] as number);
      steps++;
      if (way === 0) {
        walked[dark >> 3] = (walked[dark >> 3] as number) | (1 << (dark & 7));
        this.recordCrossing(y, x, id, 1);
      } else if (way === 2) this.recordCrossing(y, x, id, 0);

      const step2 = ahead[way] as number;
      const darkAhead = dark + step2;
      const lightAhead = light + step2;
      const isDarkAhead = (grey[darkAhead] as number) < level;
      const isLightAhead = (grey[lightAhead] as number) >= level;
      if (isDarkAhead && isLightAhead) {
        dark = darkAhead;
        light = lightAhead;
        x += aheadX[way] as number;
        y += aheadY[way] as number;
      } else if (isDarkAhead || (!isLightAhead && this.isMeanDark(dark, light, darkAhead, lightAhead))) {
        // Round the light corner: the dark pixel ahead on the other side is next.
        dark = lightAhead;
        x += (aheadX[way] as number) + (aheadX[side] as number);
        y += (aheadY[way] as number) + (aheadY[side] as number);
        way = side;
      } else {
        light = darkAhead;
        way = (way + 1) & 3;
      }
    } while (dark !== start || way !== 0);

    this.stepCount += steps;
    const signedArea = areaOf(run.data, run.length);
    if (Math.abs(signedArea) < this.smallestArea) {
      this.dropped++;
      this.crossings.length = firstCrossing;
      return;
    }
    this.loops.push({ points: run.data.slice(0, run.length), signedArea, startX, startY });
  }

  private isMeanDark(a: number, b: number, c: number, d: number): boolean {
    const { grey } = this;
    return (grey[a] as number) + (grey[b] as number) + (grey[c] as number) + (grey[d] as number) < 4 * this.level;
  }

  private recordCrossing(row: number, column: number, loop: number, into: number): void {
    const list = this.crossings;
    list.reserve(4);
    const { data } = list;
    data[list.length++] = row;
    data[list.length++] = column;
    data[list.length++] = loop;
    data[list.length++] = into;
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

  /** The contour just around contour `id`, told by what lies to the left of where it starts. */
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

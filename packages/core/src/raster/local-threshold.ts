/**
 * In: a grey picture under uneven light. Out: the same with its own local threshold brought to 127.5 everywhere, so that
 * one level serves and borders stay between pixels.
 * Rests on: the paper's brightness near by taken out first, so that a shadow is no ink; then ink is parted from paper by
 * Otsu's threshold of the whole or by Sauvola & Pietikaeinen 2000, T = m (1 + k (s / R - 1)) with mean and deviation over
 * a window (sums over cells: Shafait, Keysers & Breuel 2008), whichever is higher: Sauvola's finds faint lines, but not as
 * faint as a ruled paper's, and falls below the ink inside wide areas. Borders lie half way between the ink and the paper of the window.
 */
import { type GreyPicture, greyPicture } from './grey.ts';
import { histogram, otsuThreshold } from './threshold.ts';

const cellPx = 8;
const k = 0.2;
/** The dynamic range of the deviation, grey levels. */
const range = 128;
/** Paper is never taken for darker than this share of the brightest: what is, is a large inked area. */
const darkestPaper = 0.55;
/** Lines fainter than this share of the ink's darkness are ruling or stain, not drawing. */
const faintestShare = 0.38;
/** A window with fewer pixels of either kind, or kinds nearer than this, says nothing of its own. */
const minPixels = 24;
const minContrast = 24;
/** Of all that the paper's brightness changes by, light that falls off changes it by no more than this share from a cell to the next. */
const steepestStep = 0.3;
/** With less between ink and paper, once the light is taken out, there is no ink. */
const minInk = 40;

interface Grid {
  readonly columns: number;
  readonly rows: number;
  readonly values: Float64Array;
}

/** @param windowPx side of the window, several times the width of the lines to be traced */
export function normalizedIllumination(picture: GreyPicture, windowPx: number): GreyPicture {
  const windowCells = Math.max(3, Math.round(windowPx / cellPx));
  const paper = paperOf(brightestOf(picture, windowCells), windowCells);
  const even = mapped(picture, paper, whitened);
  const found = otsuThreshold(histogram(even));
  // What the paper's own unevenness leaves is no ink.
  if (!found || found.paper - found.ink < minInk) return greyPicture(new Uint8Array(even.data.length).fill(255), even.width, even.height);
  const whole = found.value;
  const faintest = Math.max(whole, found.paper - faintestShare * (found.paper - found.ink));
  const limits = midway(even, windowCells, whole, sauvola(even, windowCells, whole, faintest));
  return mapped(even, limits, levelled);
}

/**
 * The picture with bare paper equally bright everywhere: 240; null where the paper's brightness changes by steps, as at the edge of a
 * grey area, and not by light that falls off.
 */
export function paperEvened(picture: GreyPicture, windowPx: number): GreyPicture | null {
  const windowCells = Math.max(3, Math.round(windowPx / cellPx));
  const brightest = brightestOf(picture, windowCells);
  const { columns, rows, values } = brightest;
  const [min, max] = [values.reduce((a, b) => Math.min(a, b), 255), values.reduce((a, b) => Math.max(a, b), 0)];
  const steepest = steepestStep * (max - min);
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i < columns; i++) {
      const here = values[j * columns + i] as number;
      if (i + 1 < columns && Math.abs(here - (values[j * columns + i + 1] as number)) > steepest) return null;
      if (j + 1 < rows && Math.abs(here - (values[(j + 1) * columns + i] as number)) > steepest) return null;
    }
  }
  return mapped(picture, paperOf(brightest, windowCells), whitened);
}

/**
 * The picture with the border between what is darker than one level and what is lighter at 127.5: half way between the two in every
 * window.
 */
export function borderLevelled(picture: GreyPicture, windowPx: number, level: number): GreyPicture {
  const windowCells = Math.max(3, Math.round(windowPx / cellPx));
  const [columns, rows] = [Math.ceil(picture.width / cellPx), Math.ceil(picture.height / cellPx)];
  const one = { columns, rows, values: new Float64Array(columns * rows).fill(level) };
  return mapped(picture, midway(picture, windowCells, level, one), levelled);
}

/** A row of pixels, from `start` on, into another picture's, by the grid's value beside each. */
type ChangeRow = (from: Uint8Array, to: Uint8Array, start: number, beside: Float64Array) => void;

/** Paper of the value that is beside becomes 240. */
const whitened: ChangeRow = (from, to, start, beside) => {
  for (let x = 0, p = start; x < beside.length; x++, p++) {
    const value = ((from[p] as number) * 240) / (beside[x] as number);
    to[p] = value > 255 ? 255 : (value + 0.5) | 0;
  }
};

/** The value that is beside becomes 127.5. */
const levelled: ChangeRow = (from, to, start, beside) => {
  for (let x = 0, p = start; x < beside.length; x++, p++) {
    const value = (from[p] as number) - (beside[x] as number) + 127.5;
    to[p] = value < 0 ? 0 : value > 255 ? 255 : (value + 0.5) | 0;
  }
};

/** Every row changed by the grid's values beside its pixels, straight between the cells' middles. */
function mapped({ width, height, data }: GreyPicture, { columns, rows, values }: Grid, change: ChangeRow): GreyPicture {
  const out = new Uint8Array(data.length);
  const row = new Float64Array(columns + 1);
  const beside = new Float64Array(width);
  const along = Float64Array.from({ length: width }, (_, x) => Math.max(0, Math.min(columns - 1, (x + 0.5) / cellPx - 0.5)));
  for (let y = 0; y < height; y++) {
    const v = Math.max(0, Math.min(rows - 1, (y + 0.5) / cellPx - 0.5));
    const above = Math.floor(v) * columns;
    const below = Math.min(rows - 1, Math.floor(v) + 1) * columns;
    const low = v - Math.floor(v);
    for (let i = 0; i < columns; i++) row[i] = (values[above + i] as number) * (1 - low) + (values[below + i] as number) * low;
    row[columns] = row[columns - 1] as number;
    for (let x = 0; x < width; x++) {
      const u = along[x] as number;
      const column = u | 0;
      const here = row[column] as number;
      beside[x] = here + (u - column) * ((row[column + 1] as number) - here);
    }
    change(data, out, y * width, beside);
  }
  return greyPicture(out, width, height);
}

/** The brightest cell within reach, both ways. */
function brightestOf(picture: GreyPicture, windowCells: number): Grid {
  const { columns, rows, sums, counts } = cellSums(picture);
  return { columns, rows, values: paperNear(columns, rows, sums, counts, paperReach(windowCells)) };
}

const paperReach = (windowCells: number): number => Math.max(4, 2 * windowCells);

/** What bare paper has near by: the brightest cell within reach, smoothed over the same reach. */
function paperOf({ columns, rows, values: brightest }: Grid, windowCells: number): Grid {
  const max = brightest.reduce((a, b) => Math.max(a, b), 1);
  const held = brightest.map((v) => Math.max(v, darkestPaper * max));
  const window = windowSums(columns, rows, paperReach(windowCells));
  const [sum, count] = [window(held), window(held.map(() => 1))];
  return { columns, rows, values: sum.map((v, q) => v / (count[q] as number)) };
}

function sauvola(picture: GreyPicture, windowCells: number, whole: number, faintest: number): Grid {
  const { columns, rows, sums, squares, counts } = cellSums(picture);
  const window = windowSums(columns, rows, windowCells >> 1);
  const [sum, square, count] = [window(sums), window(squares), window(counts)];
  const values = sum.map((total, q) => {
    const n = count[q] as number;
    const mean = total / n;
    const deviation = Math.sqrt(Math.max(0, (square[q] as number) / n - mean * mean));
    return Math.min(faintest, Math.max(whole, mean * (1 + k * (deviation / range - 1))));
  });
  return { columns, rows, values };
}

/** Half way between what a first threshold calls ink and paper in every window. */
function midway({ width, height, data }: GreyPicture, windowCells: number, whole: number, { columns, rows, values }: Grid): Grid {
  const [ink, inkCount, paper, paperCount] = [0, 1, 2, 3].map(() => new Float64Array(columns * rows)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / cellPx) * columns;
    for (let i = 0; i < columns; i++) {
      const q = row + i;
      const level = values[q] as number;
      const from = y * width + i * cellPx;
      const to = Math.min(from + cellPx, (y + 1) * width);
      let [dark, darkCount, all] = [0, 0, 0];
      for (let p = from; p < to; p++) {
        const v = data[p] as number;
        all += v;
        if (v < level) {
          dark += v;
          darkCount++;
        }
      }
      ink[q] = (ink[q] as number) + dark;
      inkCount[q] = (inkCount[q] as number) + darkCount;
      paper[q] = (paper[q] as number) + all - dark;
      paperCount[q] = (paperCount[q] as number) + to - from - darkCount;
    }
  }
  const window = windowSums(columns, rows, windowCells);
  const [inks, inkCounts, papers, paperCounts] = [window(ink), window(inkCount), window(paper), window(paperCount)];
  return {
    columns,
    rows,
    values: inks.map((sum, q) => {
      const [n, m] = [inkCounts[q] as number, paperCounts[q] as number];
      const [dark, light] = [sum / n, (papers[q] as number) / m];
      return n >= minPixels && m >= minPixels && light - dark >= minContrast ? (dark + light) / 2 : whole;
    }),
  };
}

/** Sums over the cells within reach of each. */
function windowSums(columns: number, rows: number, reach: number): (values: Float64Array) => Float64Array {
  return (values) => {
    const sums = integral(values, columns, rows);
    const out = new Float64Array(values.length);
    for (let j = 0; j < rows; j++) {
      const [y0, y1] = [Math.max(0, j - reach), Math.min(rows, j + reach + 1)];
      for (let i = 0; i < columns; i++) {
        out[j * columns + i] = within(sums, columns, Math.max(0, i - reach), y0, Math.min(columns, i + reach + 1), y1);
      }
    }
    return out;
  };
}

function cellSums({ width, height, data }: GreyPicture) {
  const [columns, rows] = [Math.ceil(width / cellPx), Math.ceil(height / cellPx)];
  const [sums, squares, counts] = [new Float64Array(columns * rows), new Float64Array(columns * rows), new Float64Array(columns * rows)];
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / cellPx) * columns;
    for (let i = 0; i < columns; i++) {
      let [sum, square] = [0, 0];
      const from = y * width + i * cellPx;
      const to = Math.min(from + cellPx, (y + 1) * width);
      for (let p = from; p < to; p++) {
        const v = data[p] as number;
        sum += v;
        square += v * v;
      }
      const q = row + i;
      sums[q] = (sums[q] as number) + sum;
      squares[q] = (squares[q] as number) + square;
      counts[q] = (counts[q] as number) + to - from;
    }
  }
  return { columns, rows, sums, squares, counts };
}

/** The brightest cell's mean within reach, both ways: what bare paper has there. */
function paperNear(columns: number, rows: number, sums: Float64Array, counts: Float64Array, reach: number): Float64Array {
  const means = sums.map((sum, q) => sum / (counts[q] as number));
  const across = new Float64Array(means.length);
  for (let j = 0; j < rows; j++) slidingMost(means, across, j * columns, 1, columns, reach);
  const both = new Float64Array(means.length);
  for (let i = 0; i < columns; i++) slidingMost(across, both, i, columns, rows, reach);
  return both;
}

/** The largest of the values within reach of each, along a row or a column (a queue of falling values). */
function slidingMost(from: Float64Array, to: Float64Array, start: number, step: number, count: number, reach: number): void {
  const queue: number[] = [];
  let head = 0;
  for (let k = 0; k < count + reach; k++) {
    if (k < count) {
      while (queue.length > head && (from[start + (queue.at(-1) as number) * step] as number) <= (from[start + k * step] as number))
        queue.pop();
      queue.push(k);
    }
    const middle = k - reach;
    if (middle < 0) continue;
    while ((queue[head] as number) < middle - reach) head++;
    to[start + middle * step] = from[start + (queue[head] as number) * step] as number;
  }
}

/** Sums over all cells above and to the left, with a row and a column of zeros before them. */
function integral(values: Float64Array, columns: number, rows: number): Float64Array {
  const sums = new Float64Array((columns + 1) * (rows + 1));
  for (let j = 0; j < rows; j++) {
    let row = 0;
    for (let i = 0; i < columns; i++) {
      row += values[j * columns + i] as number;
      sums[(j + 1) * (columns + 1) + i + 1] = (sums[j * (columns + 1) + i + 1] as number) + row;
    }
  }
  return sums;
}

function within(sums: Float64Array, columns: number, x0: number, y0: number, x1: number, y1: number): number {
  const n = columns + 1;
  return (sums[y1 * n + x1] as number) - (sums[y0 * n + x1] as number) - (sums[y1 * n + x0] as number) + (sums[y0 * n + x0] as number);
}

/**
 * In: a photograph. Out: the square markers in it: which, and where their corners are, sub-pixel.
 * Rests on: Garrido-Jurado et al. 2014, "Automatic generation and detection of highly reliable fiducial markers under
 * occlusion", and the open dictionary before it (Munoz-Salinas 2012): 5 x 5 cells in a black border, each row one of
 * four words that carry two bits of a number from 0 to 1023.
 */
import { crossing, distance, type Point } from '../plane/point.ts';
import { type FourPoints, project, projectionOfFour } from '../plane/projection.ts';
import { contoursAt } from './contours.ts';
import { convexHull, simplerHull } from './convex-hull.ts';
import { downsample } from './downsample.ts';
import { edgeLine } from './edge-line.ts';
import { type GreyPicture, greyPicture } from './grey.ts';

export interface SquareMarker {
  readonly id: number;
  /** Upper left, upper right, lower right, lower left of the marker as printed. */
  readonly corners: FourPoints;
}

/** White cells of a row for the two bits that it carries, left to right. */
const words: readonly number[] = [0b10000, 0b10111, 0b01001, 0b01110];
const cells = 5;

/** The cells of a marker, row by row, true for white. Refuses a number outside 0 to 1023. */
export function markerCells(id: number): boolean[][] {
  if (!(Number.isInteger(id) && id >= 0 && id < 1024)) throw new RangeError(`no marker has the number ${id}`);
  return Array.from({ length: cells }, (_, row) => {
    const word = words[(id >> (2 * (cells - 1 - row))) & 3] as number;
    return Array.from({ length: cells }, (_, column) => ((word >> (cells - 1 - column)) & 1) === 1);
  });
}

const searchPx = 1700;
const smallestSidePx = 14;

/** All markers that can be read, one of each number. */
export function findSquareMarkers(picture: GreyPicture): SquareMarker[] {
  const { picture: small, factor: scale } = downsample(picture, searchPx);
  const found = new Map<number, SquareMarker>();
  for (const { isHole, points, area } of contoursAt(againstSurroundings(small), 118.5, smallestSidePx ** 2).contours) {
    if (isHole) continue;
    const quad = quadOf(points, area);
    const read = quad && readCells(small, quad);
    if (!read || found.has(read.id)) continue;
    const turned = [0, 1, 2, 3].map((k) => quad[(k + read.turns) % 4] as Point);
    const corners = refined(picture, turned.map((p) => ({ x: p.x * scale, y: p.y * scale })) as unknown as FourPoints, scale);
    found.set(read.id, { id: read.id, corners });
  }
  return [...found.values()];
}

/** Each pixel against the mean of its surroundings, about 128, so that shadows do not matter. */
function againstSurroundings({ width, height, data }: GreyPicture): GreyPicture {
  const reach = Math.max(12, Math.round(Math.max(width, height) / 28));
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += data[y * width + x] as number;
      sums[(y + 1) * (width + 1) + x + 1] = (sums[y * (width + 1) + x + 1] as number) + row;
    }
  }
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const y0 = Math.max(0, y - reach);
    const y1 = Math.min(height, y + reach + 1);
    for (let x = 0; x < width; x++) {
      const x0 = Math.max(0, x - reach);
      const x1 = Math.min(width, x + reach + 1);
      const sum =
        (sums[y1 * (width + 1) + x1] as number) -
        (sums[y0 * (width + 1) + x1] as number) -
        (sums[y1 * (width + 1) + x0] as number) +
        (sums[y0 * (width + 1) + x0] as number);
      const off = 128 + (data[y * width + x] as number) - sum / ((x1 - x0) * (y1 - y0));
      out[y * width + x] = off < 0 ? 0 : Math.min(off, 255);
    }
  }
  return greyPicture(out, width, height);
}

/** A contour's four corners, seen on screen clockwise; null where it is no square seen by a camera. */
function quadOf(points: Float64Array, area: number): Point[] | null {
  const list = Array.from({ length: points.length / 2 }, (_, k) => ({ x: points[2 * k] as number, y: points[2 * k + 1] as number }));
  const quad = simplerHull(convexHull(list), 4);
  if (quad.length !== 4) return null;
  const signed = quad.reduce((sum, p, k) => sum + p.x * (quad[(k + 1) % 4] as Point).y - p.y * (quad[(k + 1) % 4] as Point).x, 0) / 2;
  if (Math.abs(signed) > 1.25 * area || Math.abs(signed) < 0.85 * area) return null;
  const sides = quad.map((p, k) => distance(p, quad[(k + 1) % 4] as Point));
  if (Math.min(...sides) < smallestSidePx || Math.max(...sides) > 4 * Math.min(...sides)) return null;
  // With y down, clockwise on the screen is positive.
  return signed > 0 ? quad : quad.toReversed();
}

/** The marker in a quadrilateral: its number, and which corner is its upper left. */
function readCells(picture: GreyPicture, quad: readonly Point[]): { id: number; turns: number } | null {
  const whole = cells + 2;
  const frame = [
    { x: 0, y: 0 },
    { x: whole, y: 0 },
    { x: whole, y: whole },
    { x: 0, y: whole },
  ] as const;
  const map = projectionOfFour(frame, quad as unknown as FourPoints);
  if (!map) return null;
  const grey = Array.from({ length: whole }, (_, row) =>
    Array.from({ length: whole }, (_, column) => {
      let sum = 0;
      for (const dx of [0.3, 0.5, 0.7]) {
        for (const dy of [0.3, 0.5, 0.7]) {
          const p = project(map, { x: column + dx, y: row + dy });
          const [x, y] = [
            Math.min(picture.width - 1, Math.max(0, Math.floor(p.x))),
            Math.min(picture.height - 1, Math.max(0, Math.floor(p.y))),
          ];
          sum += picture.data[y * picture.width + x] as number;
        }
      }
      return sum / 9;
    }),
  );
  const flat = grey.flat();
  const [low, high] = [Math.min(...flat), Math.max(...flat)];
  if (high - low < 40) return null;
  const isWhite = (row: number, column: number) => (grey[row]?.[column] as number) > (low + high) / 2;
  for (let k = 0; k < whole; k++) {
    if (isWhite(0, k) || isWhite(whole - 1, k) || isWhite(k, 0) || isWhite(k, whole - 1)) return null;
  }
  for (let turns = 0; turns < 4; turns++) {
    const id = numberOf((row, column) => {
      const [r, c] = (
        [
          [row, column],
          [column, cells - 1 - row],
          [cells - 1 - row, cells - 1 - column],
          [cells - 1 - column, row],
        ] as const
      )[turns] as readonly [number, number];
      return isWhite(r + 1, c + 1);
    });
    if (id !== null) return { id, turns };
  }
  return null;
}

function numberOf(isWhite: (row: number, column: number) => boolean): number | null {
  let id = 0;
  for (let row = 0; row < cells; row++) {
    let word = 0;
    for (let column = 0; column < cells; column++) word = word * 2 + (isWhite(row, column) ? 1 : 0);
    const bits = words.indexOf(word);
    if (bits < 0) return null;
    id = id * 4 + bits;
  }
  return id;
}

/** Corners where the lines through the four edges cross. */
function refined(picture: GreyPicture, corners: FourPoints, scale: number): FourPoints {
  const sides = corners.map((p, k) => {
    const q = corners[(k + 1) % 4] as Point;
    return edgeLine(picture, p, q, Math.max(3, Math.min(3 * scale + 3, (0.45 * distance(p, q)) / (cells + 2))));
  });
  return corners.map((p, k) => {
    const [before, after] = [sides.at(k - 1), sides[k]];
    const met = before && after ? crossing(before.at, before.along, after.at, after.along) : null;
    return met && distance(met, p) < 4 * scale + 4 ? met : p;
  }) as unknown as FourPoints;
}

/**
 * In: the ink of a picture as one threshold finds it. Out: whether it is strokes that the grain of pencil, chalk, crayon or worn ink
 * breaks up; and a picture of the whole strokes.
 * Rests on: borders as rough as no edge is, among many specks; what is left of their length once that is smoothed; smoothing along the
 * strokes (raster/coherence.ts) as far as they are wide, and half way between ink and paper near by. Gaps along a stroke that was drawn
 * over again, and specks, are filled.
 */
import { median } from '../numeric/median.ts';
import { smoothedAlongStrokes } from '../raster/coherence.ts';
import { type Contour, contoursAt } from '../raster/contours.ts';
import { gaussianSmoothed } from '../raster/gaussian.ts';
import { type GreyPicture, greyPicture } from '../raster/grey.ts';
import { normalizeIllumination } from '../raster/illumination.ts';
import { histogram, otsuThreshold } from '../raster/threshold.ts';
import { parameters } from './parameters.ts';
import { SampledContour } from './sampled-contour.ts';

/** So many of the longest contours are measured. */
const measured = 20;

export interface BrokenStrokes {
  /** Whole strokes: their border at 127.5, no speck or gap among them. */
  readonly grey: GreyPicture;
  /** About how wide they are, px. */
  readonly widthPx: number;
}

/**
 * @param level what is darker is ink
 * @param contours of ink of some size
 * @param dropped how many smaller ones there are
 * @param smallestArea of what is no speck, square pixels
 * @returns null where the ink is no broken strokes
 */
export function brokenStrokes(
  picture: GreyPicture,
  { level, contours, dropped }: { level: number; contours: readonly Contour[]; dropped: number },
  smallestArea: number,
): BrokenStrokes | null {
  if (dropped < parameters.grainSpecks) return null;
  // Light strokes may be nothing but specks.
  const raw = contours.length > 0 ? contours : contoursAt(picture, level).contours;
  if (raw.length === 0 || medianNoise(raw) < parameters.grainNoise) return null;
  const even = gaussianSmoothed(picture, parameters.grainSmoothing);
  const found = otsuThreshold(histogram(even));
  if (!found) return null;
  const bands = contoursAt(even, strokeLevel(found), smallestArea / 4).contours;
  const [rough, smooth] = [contoursAt(picture, level).contours, bands].map(borderLength) as [number, number];
  const widthPx = bandWidth(bands);
  if (rough < parameters.grainRoughness * smooth || !(widthPx < parameters.grainWidestStroke)) return null;
  const strokes = smoothedAlongStrokes(picture, {
    all: parameters.grainAcross * widthPx,
    along: parameters.grainAlong * widthPx,
    around: parameters.grainAround * widthPx,
    paper: found.paper - parameters.grainFaintest * (found.paper - found.ink),
  });
  const again = otsuThreshold(histogram(strokes));
  if (!again) return null;
  const value = Math.floor(strokeLevel(again));
  const grey = normalizeIllumination(strokes, parameters.grainWindow * widthPx, { ...again, value });
  return { grey: mended(grey, widthPx, smallestArea), widthPx };
}

/** Where pressure is light a stroke is only so much darker than the paper. */
const strokeLevel = ({ ink, paper }: { ink: number; paper: number }): number =>
  Math.floor(paper - parameters.grainLevel * (paper - ink)) + 0.5;

function medianNoise(contours: readonly Contour[]): number {
  const longest = contours.toSorted((a, b) => b.points.length - a.points.length).slice(0, measured);
  return median(longest.map(({ points }) => new SampledContour(points).noise()));
}

function perimeter({ points }: Contour): number {
  let sum = 0;
  for (let k = 0; k < points.length; k += 2) {
    const next = (k + 2) % points.length;
    sum += Math.hypot((points[next] as number) - (points[k] as number), (points[next + 1] as number) - (points[k + 1] as number));
  }
  return sum;
}

const borderLength = (contours: readonly Contour[]): number => contours.reduce((sum, one) => sum + perimeter(one), 0);

/** How wide bands are, all told: twice their area by their borders. */
function bandWidth(contours: readonly Contour[]): number {
  const area = contours.reduce((sum, one) => sum + (one.isHole ? -Math.abs(one.area) : Math.abs(one.area)), 0);
  return (2 * area) / borderLength(contours);
}

/** Specks made paper, and gaps within a stroke, or between the lines of one that was drawn again, made ink. */
function mended(picture: GreyPicture, widthPx: number, smallestArea: number): GreyPicture {
  const data = new Uint8Array(picture.data);
  const { contours } = contoursAt(picture, level);
  for (const one of contours) {
    const area = Math.abs(one.area);
    const isThin = (2 * area) / perimeter(one) < parameters.grainGap * widthPx;
    if (one.isHole ? area < smallestArea || isThin : area < smallestArea) fill(data, picture.width, one.points, one.isHole ? 0 : 255);
  }
  return greyPicture(data, picture.width, picture.height);
}

const level = 127.5;

/** Every pixel whose centre lies in a closed contour. */
function fill(data: Uint8Array, width: number, points: Float64Array, value: number): void {
  const count = points.length / 2;
  const rows = new Map<number, number[]>();
  for (let k = 0; k < count; k++) {
    const next = (k + 1) % count;
    const [x0, y0, x1, y1] = [points[2 * k], points[2 * k + 1], points[2 * next], points[2 * next + 1]] as [number, number, number, number];
    const [low, high] = [Math.ceil(Math.min(y0, y1) - 0.5), Math.ceil(Math.max(y0, y1) - 0.5)];
    for (let y = low; y < high; y++) {
      const row = rows.get(y) ?? [];
      row.push(x0 + ((y + 0.5 - y0) / (y1 - y0)) * (x1 - x0));
      rows.set(y, row);
    }
  }
  for (const [y, crossings] of rows) {
    crossings.sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const [from, to] = [Math.ceil((crossings[k] as number) - 0.5), Math.ceil((crossings[k + 1] as number) - 0.5)];
      data.fill(value, y * width + Math.max(0, from), y * width + Math.min(width, to));
    }
  }
}

/**
 * In: a grey picture and what is asked for in mm. Out: pieces with their holes, as paths in the picture's pixels.
 * Rests on: Otsu's threshold, marching squares, and the outline fit of this folder.
 */

import type { Path } from '../plane/path.ts';
import { type Contour, contoursAt } from '../raster/contours.ts';
import type { GreyPicture } from '../raster/grey.ts';
import { classMeans, histogram, isBilevel, otsuThreshold, type Threshold } from '../raster/threshold.ts';
import { outlineAlong } from './outline.ts';

export interface TraceSettings {
  /** Values up to and with this one are ink; `auto` finds it. */
  readonly threshold: 'auto' | number;
  /** Largest distance of an outline from the picture's edge, mm of the finished piece. */
  readonly toleranceMm: number;
  /** Specks and pinholes smaller than a square of this side are left out, mm. */
  readonly smallestMm: number;
}

export interface TracedPiece {
  readonly outer: Path;
  readonly holes: readonly Path[];
  /** Whether ink runs over the picture's edge, so that the outline is cut off there. */
  readonly runsOff: boolean;
}

export interface Trace {
  readonly pieces: TracedPiece[];
  /** The threshold used. */
  readonly threshold: number;
  /** How many specks and pinholes were left out. */
  readonly dropped: number;
}

/** A one-bit scan's stairs leave the true course by up to half a pixel. */
const stairsPx = 0.3;
/** Classes nearer than this may be noise, grey levels. */
const leastContrast = 24;
/** Numbers of contour coordinates between two looks at whether to go on: some 20 ms. */
const pointsAStep = 40_000;

/** The borders of all ink, before anything is fitted to them. */
export interface InkBorders {
  readonly contours: readonly Contour[];
  /** The threshold used. */
  readonly threshold: number;
  readonly dropped: number;
  /** Deviation of the Gaussian that softens the picture's edges, px. */
  readonly softness: number;
  /** What the kind of picture alone brings, px. */
  readonly leastRoughness: number;
}

const noInk: InkBorders = { contours: [], threshold: 127, dropped: 0, softness: 1, leastRoughness: 0 };

/** Finds the borders of ink; they serve every tolerance. */
export function findInkBorders(picture: GreyPicture, mmPerPx: number, settings: Omit<TraceSettings, 'toleranceMm'>): InkBorders {
  const counts = histogram(picture);
  const found = settings.threshold === 'auto' ? inkThreshold(counts) : classMeans(counts, settings.threshold);
  if (!found) return noInk;
  const smallestPx = settings.smallestMm / mmPerPx;
  const { contours, meanStep, dropped } = contoursAt(picture, Math.min(254, found.value) + 0.5, smallestPx ** 2);
  // A Gaussian edge of deviation s rises by contrast / (s sqrt(2 pi)) a pixel at its middle.
  const contrast = Math.max(1, found.paper - found.ink);
  const softness = Math.min(4, Math.max(0.3, (0.4 * contrast) / Math.max(1, meanStep)));
  return { contours, threshold: found.value, dropped, softness, leastRoughness: isBilevel(counts) ? stairsPx : 0.03 };
}

/**
 * Fits outlines to borders in steps, so that a caller can show progress and stop between them. Yields the share done,
 * 0 to 1.
 * @param size of the picture, px
 * @param mmPerPx the picture's true scale
 */
export function* fitOutlines(
  borders: InkBorders,
  size: { width: number; height: number },
  mmPerPx: number,
  toleranceMm: number,
): Generator<number, Trace> {
  const { contours, softness, leastRoughness, threshold, dropped } = borders;
  const outlines: Path[] = [];
  let sinceYield = 0;
  for (const contour of contours) {
    outlines.push(outlineAlong(contour.points, softness, leastRoughness, toleranceMm / mmPerPx));
    sinceYield += contour.points.length;
    if (sinceYield > pointsAStep) {
      sinceYield = 0;
      yield outlines.length / contours.length;
    }
  }
  return { pieces: piecesOf(size, contours, outlines), threshold, dropped };
}

/**
 * Otsu's threshold where there is ink at all. Noise alone, cut in two, gives classes a few greys apart that hold 2/pi
 * of its variance (of a normal distribution); faint ink holds more.
 */
function inkThreshold(counts: Uint32Array): Threshold | null {
  const found = otsuThreshold(counts);
  return found && (found.paper - found.ink >= leastContrast || found.parted > 0.75) ? found : null;
}

/** Traces in one go. */
export function tracePicture(picture: GreyPicture, mmPerPx: number, settings: TraceSettings): Trace {
  const steps = fitOutlines(findInkBorders(picture, mmPerPx, settings), picture, mmPerPx, settings.toleranceMm);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** Outer outlines with the holes just inside them, largest first. */
function piecesOf(size: { width: number; height: number }, contours: readonly Contour[], outlines: Path[]): TracedPiece[] {
  const holes = new Map<number, Path[]>();
  contours.forEach((contour, k) => {
    if (contour.isHole) holes.set(contour.parent, [...(holes.get(contour.parent) ?? []), outlines[k] as Path]);
  });
  return contours
    .map((contour, k) => ({ contour, k }))
    .filter(({ contour }) => !contour.isHole)
    .sort((a, b) => b.contour.area - a.contour.area)
    .map(({ contour, k }) => ({
      outer: outlines[k] as Path,
      holes: holes.get(k) ?? [],
      runsOff: touchesEdge(contour.points, size),
    }));
}

function touchesEdge(points: Float64Array, { width, height }: { width: number; height: number }): boolean {
  for (let k = 0; k < points.length; k += 2) {
    const [x, y] = [points[k] as number, points[k + 1] as number];
    if (x < 0.5 || y < 0.5 || x > width - 0.5 || y > height - 0.5) return true;
  }
  return false;
}

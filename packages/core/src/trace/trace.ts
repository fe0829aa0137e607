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

/**
 * Traces in steps, so that a caller can show progress and stop between them. Yields the share done, 0 to 1.
 * @param mmPerPx the picture's true scale
 */
export function* traceSteps(picture: GreyPicture, mmPerPx: number, settings: TraceSettings): Generator<number, Trace> {
  const counts = histogram(picture);
  const found = settings.threshold === 'auto' ? inkThreshold(counts) : classMeans(counts, settings.threshold);
  if (!found) return { pieces: [], threshold: 127, dropped: 0 };
  yield 0.1;
  const smallestPx = settings.smallestMm / mmPerPx;
  const { contours, meanStep, dropped } = contoursAt(picture, Math.min(254, found.value) + 0.5, smallestPx ** 2);
  yield 0.5;
  // A Gaussian edge of deviation s rises by contrast / (s sqrt(2 pi)) a pixel at its middle.
  const contrast = Math.max(1, found.paper - found.ink);
  const softness = Math.min(4, Math.max(0.3, (0.4 * contrast) / Math.max(1, meanStep)));
  const leastRoughness = isBilevel(counts) ? stairsPx : 0.03;
  const tolerancePx = settings.toleranceMm / mmPerPx;
  const outlines: Path[] = [];
  let sinceYield = 0;
  for (const contour of contours) {
    outlines.push(outlineAlong(contour.points, softness, leastRoughness, tolerancePx));
    sinceYield += contour.points.length;
    if (sinceYield > 40_000) {
      sinceYield = 0;
      yield 0.5 + 0.5 * (outlines.length / contours.length);
    }
  }
  return { pieces: piecesOf(picture, contours, outlines), threshold: found.value, dropped };
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
  const steps = traceSteps(picture, mmPerPx, settings);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** Outer outlines with the holes just inside them, largest first. */
function piecesOf(picture: GreyPicture, contours: Contour[], outlines: Path[]): TracedPiece[] {
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
      runsOff: touchesEdge(contour.points, picture),
    }));
}

function touchesEdge(points: Float64Array, { width, height }: GreyPicture): boolean {
  for (let k = 0; k < points.length; k += 2) {
    const [x, y] = [points[k] as number, points[k + 1] as number];
    if (x < 0.5 || y < 0.5 || x > width - 0.5 || y > height - 0.5) return true;
  }
  return false;
}

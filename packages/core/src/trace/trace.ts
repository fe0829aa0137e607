/**
 * In: a grey picture and what is asked for in mm. Out: pieces with their holes, and lines, as paths in the picture's pixels.
 * Rests on: the picture's ink (ink.ts), the outline fit of this folder, and the network of middles (network.ts).
 */
import { isInside, type Path, pathArea, pathBox, reversedPath } from '../plane/path.ts';
import type { Contour } from '../raster/contours.ts';
import type { GreyPicture } from '../raster/grey.ts';
import { findInk, type Ink, type InkSettings } from './ink.ts';
import { type MiddleLine, networkOf } from './network.ts';
import { outlineAlong } from './outline.ts';

/**
 * What of the ink is meant: the borders of inked areas, which of a drawn line are both its edges; of closed drawn lines
 * the outer edge, the inner one or the middle; or all lines' middles as a network.
 */
export const takes = ['shape', 'line-outer', 'line-inner', 'line-middle', 'network'] as const;
export type Take = (typeof takes)[number];

export interface TraceSettings extends InkSettings {
  readonly take: Take;
  /** Largest distance of an outline from the picture's edge, mm of the finished piece. */
  readonly toleranceMm: number;
}

export interface TracedPiece {
  /** Open where it is a line. */
  readonly outer: Path;
  readonly holes: readonly Path[];
  /** Whether ink runs over the picture's edge, so that the outline is cut off there. */
  readonly runsOff: boolean;
  /** A dashed line stands for a crease. */
  readonly isDashed: boolean;
  /** How wide the drawn line is, px; null for areas. */
  readonly strokePx: number | null;
}

export interface Trace {
  readonly pieces: TracedPiece[];
  /** The threshold used. */
  readonly threshold: number;
  /** How many specks and pinholes were left out. */
  readonly dropped: number;
}

/** Dark areas of a picture as it comes, a tenth of a millimetre close. */
export const plainTraceSettings: TraceSettings = { take: 'shape', inverted: false, threshold: 'auto', toleranceMm: 0.1, smallestMm: 1 };

/** Numbers of contour coordinates between two looks at whether to go on: some 20 ms. */
const pointsAStep = 40_000;

/**
 * Fits paths to ink in steps, so that a caller can show progress and stop between them. Yields the share done, 0 to 1.
 * @param mmPerPx the picture's true scale
 */
export function* fitInk(ink: Ink, mmPerPx: number, settings: Omit<TraceSettings, 'threshold' | 'inverted'>): Generator<number, Trace> {
  const { threshold, dropped } = ink;
  const { take, toleranceMm } = settings;
  if (take === 'line-middle' || take === 'network') {
    const tolerancePx = toleranceMm / mmPerPx;
    const lines = yield* networkOf(ink.grey, { ...ink, tolerancePx, smallestPx: settings.smallestMm / mmPerPx });
    return { pieces: take === 'network' ? lines.map(linePiece) : closedFirst(lines), threshold, dropped };
  }
  const wanted = ink.contours.map((contour) => take === 'shape' || isWanted(contour, ink.contours, take));
  const outlines: (Path | null)[] = [];
  let sinceYield = 0;
  for (const [k, contour] of ink.contours.entries()) {
    outlines.push(wanted[k] ? outlineAlong(contour.points, ink.softness, ink.leastRoughness, toleranceMm / mmPerPx) : null);
    sinceYield += contour.points.length;
    if (sinceYield > pointsAStep) {
      sinceYield = 0;
      yield outlines.length / ink.contours.length;
    }
  }
  const pieces = take === 'shape' ? areaPieces(ink, outlines as Path[]) : nested(linesAsAreas(ink, outlines));
  return { pieces, threshold, dropped };
}

/** Traces in one go. */
export function tracePicture(picture: GreyPicture, mmPerPx: number, settings: TraceSettings): Trace {
  const steps = fitInk(findInk(picture, mmPerPx, settings), mmPerPx, settings);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** Outer outlines with the holes just inside them, largest first. */
function areaPieces({ contours, grey }: Ink, outlines: readonly Path[]): TracedPiece[] {
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
      runsOff: touchesEdge(contour.points, grey),
      isDashed: false,
      strokePx: null,
    }));
}

/** Of a drawn line the edge that was asked for; what is inked through and through has only an outer one. */
function isWanted({ isHole, parent }: Contour, contours: readonly Contour[], take: 'line-outer' | 'line-inner'): boolean {
  if (take === 'line-outer') return !isHole;
  return isHole && parent >= 0 && !(contours[parent] as Contour).isHole;
}

interface Area {
  readonly path: Path;
  readonly runsOff: boolean;
  readonly strokePx: number | null;
}

function linesAsAreas({ contours, grey }: Ink, outlines: readonly (Path | null)[]): Area[] {
  return contours.flatMap((contour, k) => {
    const path = outlines[k];
    return path ? [{ path, runsOff: touchesEdge(contour.points, grey), strokePx: null }] : [];
  });
}

/** Closed lines as areas inside one another; open ones after them. */
function closedFirst(lines: readonly MiddleLine[]): TracedPiece[] {
  const closed = lines.filter(({ path }) => path.closed).map(({ path, widthPx }): Area => ({ path, runsOff: false, strokePx: widthPx }));
  return [...nested(closed), ...lines.filter(({ path }) => !path.closed).map(linePiece)];
}

const linePiece = ({ path, widthPx, isDashed }: MiddleLine): TracedPiece => ({
  outer: path,
  holes: [],
  runsOff: false,
  isDashed,
  strokePx: widthPx,
});

/** Closed paths made pieces: one inside another is its hole, one inside that a piece again. Largest first. */
function nested(areas: readonly Area[]): TracedPiece[] {
  const sorted = areas
    .map((area) => ({ ...area, size: Math.abs(pathArea(area.path)), box: pathBox(area.path), depth: 0, parent: -1 }))
    .sort((a, b) => b.size - a.size);
  sorted.forEach((inner, k) => {
    const { x, y } = inner.path.start;
    for (let j = k - 1; j >= 0; j--) {
      const outer = sorted[j] as (typeof sorted)[0];
      const { minX, maxX, minY, maxY } = outer.box;
      if (x < minX || x > maxX || y < minY || y > maxY || !isInside(outer.path, inner.path.start, 0.1)) continue;
      [inner.parent, inner.depth] = [j, outer.depth + 1];
      break;
    }
  });
  // Outer outlines and holes run as those of inked areas do: y is down here.
  const turned = (path: Path, isOuter: boolean) => (pathArea(path) < 0 === isOuter ? path : reversedPath(path));
  return sorted.flatMap((area, k): TracedPiece[] => {
    if (area.depth % 2 === 1) return [];
    const holes = sorted.filter((other) => other.parent === k).map(({ path }) => turned(path, false));
    return [{ outer: turned(area.path, true), holes, runsOff: area.runsOff, isDashed: false, strokePx: area.strokePx }];
  });
}

function touchesEdge(points: Float64Array, { width, height }: { width: number; height: number }): boolean {
  for (let k = 0; k < points.length; k += 2) {
    const [x, y] = [points[k] as number, points[k + 1] as number];
    if (x < 0.5 || y < 0.5 || x > width - 0.5 || y > height - 0.5) return true;
  }
  return false;
}

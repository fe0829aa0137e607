/**
 * In: a grey picture and what is asked for in mm. Out: pieces with their holes, and lines, as paths in the picture's pixels.
 * Rests on: the picture's ink (ink.ts), the outline fit of this folder, and the network of middles (network.ts).
 */

import { type Path, pathArea, polygonOf, reversedPath } from '../plane/path.ts';
import { between, distance, type Point } from '../plane/point.ts';
import { rgbOfHex } from '../raster/cielab.ts';
import type { Contour } from '../raster/contours.ts';
import type { GreyPicture } from '../raster/grey.ts';
import type { ColourPicture } from '../raster/palette.ts';
import { nestedRegions } from '../shape/nesting.ts';
import { finished } from '../steps.ts';
import { smoothedForBlade } from './blade-smoothing.ts';
import { bleedLinesAmong } from './bleed-lines.ts';
import { type ColourInk, type ColourMap, colourInk, colourMap, colourPieces, meantInGrey } from './colour-map.ts';
import { chordsAlong } from './douglas-peucker.ts';
import { findInk, type Ink, type InkSettings } from './ink.ts';
import { type MiddleLine, mostOften, networkOf } from './network.ts';
import { outlineAlong } from './outline.ts';
import { outlinesOfLines } from './outlines-of-lines.ts';
import { isScanBorder, touchesEdge } from './picture-edge.ts';
import { walkedFrom } from './stroke.ts';
import { wallsOf } from './walls.ts';

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
  /** The colours to trace, as #rrggbb, at most 12; where there are any, the picture is traced by colour instead of by ink. */
  readonly colours: readonly { readonly hex: string }[];
  /** Of a network: how thick walls along its lines are made, mm; null leaves it lines. */
  readonly wallMm: number | null;
  /** Whether curves join with one curvature, too, as a blade likes it. */
  readonly forBlade: boolean;
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
  /** Whether it shows only how far print reaches beyond a cut. */
  readonly isBleed?: boolean;
  /** Whether it is the dark border that the ground about the paper leaves in a scan. */
  readonly isScanBorder?: boolean;
  /** Which of the traced colours it has; null where it was traced as ink. */
  readonly colour: number | null;
}

export interface Trace {
  readonly pieces: TracedPiece[];
  /** The threshold used. */
  readonly threshold: number;
  /** Whether the light falls off over the picture, so that every place got a threshold of its own unasked. */
  readonly isUneven?: boolean;
  /** How far apart the dots lie that were smoothed to even greys, px; null where there were none. */
  readonly dotPitch?: number | null;
  /** Whether strokes that grain breaks up were joined along themselves. */
  readonly isGrainy?: boolean;
  /** How many specks and pinholes were left out. */
  readonly dropped: number;
}

/** Dark areas of a picture as it comes, a tenth of a millimetre close. */
export const plainTraceSettings: TraceSettings = {
  take: 'shape',
  inverted: false,
  threshold: 'auto',
  toleranceMm: 0.1,
  smallestMm: 1,
  colours: [],
  wallMm: null,
  forBlade: false,
  keepsTexture: false,
};

/** What of the settings the fit goes by; the rest has gone into the ink. */
export type FitSettings = Pick<TraceSettings, 'take' | 'toleranceMm' | 'smallestMm' | 'wallMm' | 'forBlade'>;

/** Numbers of contour coordinates between two looks at whether to go on: some 20 ms. */
const pointsAStep = 40_000;

/**
 * Fits paths to ink in steps, so that a caller can show progress and stop between them. Yields the share done, 0 to 1.
 * @param mmPerPx the picture's true scale
 */
export function* fitInk(ink: Ink, mmPerPx: number, settings: FitSettings): Generator<number, Trace> {
  const fitted = yield* fittedInk(ink, mmPerPx, settings);
  const trace = { ...fitted, ...foundIn(ink) };
  return settings.forBlade ? smoothed(trace, settings.toleranceMm / mmPerPx) : trace;
}

/** What a person is told of the picture. */
const foundIn = ({ isUneven, dotPitch, isGrainy }: Ink) => ({ isUneven, dotPitch, isGrainy });

/** Half the tolerance is left for it. */
function smoothed(trace: Trace, tolerancePx: number): Trace {
  const even = (path: Path) => smoothedForBlade(path, tolerancePx / 2);
  return { ...trace, pieces: trace.pieces.map((piece) => ({ ...piece, outer: even(piece.outer), holes: piece.holes.map(even) })) };
}

function* fittedInk(ink: Ink, mmPerPx: number, settings: FitSettings): Generator<number, Trace> {
  const { threshold, dropped } = ink;
  const { take, toleranceMm } = settings;
  if (take === 'line-middle' || take === 'network') {
    const tolerancePx = toleranceMm / mmPerPx;
    const lines = yield* networkOf(ink.grey, { ...ink, tolerancePx, smallestPx: settings.smallestMm / mmPerPx });
    const wallPx = settings.wallMm === null ? null : settings.wallMm / mmPerPx;
    const pieces =
      take === 'line-middle'
        ? closedFirst(lines, mmPerPx)
        : wallPx === null
          ? largestFirst(lines).map(linePiece)
          : walled(lines, wallPx, tolerancePx);
    return { pieces, threshold, dropped };
  }
  const wanted = ink.contours.map((contour) => take === 'shape' || isWanted(contour, ink.contours, take));
  const outlines: (Path | null)[] = [];
  let sinceYield = 0;
  for (const [k, contour] of ink.contours.entries()) {
    outlines.push(wanted[k] ? outlineAlong(contour.points, ink.blur, ink.minNoise, toleranceMm / mmPerPx) : null);
    sinceYield += contour.points.length;
    if (sinceYield > pointsAStep) {
      sinceYield = 0;
      yield outlines.length / ink.contours.length;
    }
  }
  const pieces = take === 'shape' ? areaPieces(ink, outlines as Path[]) : nested(linesAsAreas(ink, outlines));
  return { pieces, threshold, dropped };
}

/** The areas of ink with chords for outlines: quick enough to be seen while a slider moves. */
export function firstLook(ink: Ink, mmPerPx: number, { toleranceMm }: Pick<TraceSettings, 'toleranceMm'>): Trace {
  const tolerancePx = Math.max(minChordPx, toleranceMm / mmPerPx);
  const pieces = areaPieces(ink, ink.contours.map(({ points }) => chordsAlong(points, tolerancePx))); // biome-ignore format: one line
  return { pieces, threshold: ink.threshold, dropped: ink.dropped, ...foundIn(ink) };
}

/** Chords closer to a contour would only show its pixels. */
const minChordPx = 0.35;

/** A picture's borders, found once for every tolerance. */
export interface Borders {
  /** Fits paths to them in steps; yields the share done, 0 to 1. */
  fit(settings: FitSettings): Generator<number, Trace>;
  /** x and y in turn, px, closed. */
  readonly contours: readonly Float64Array[];
  /** Deviation of the Gaussian that softens the picture's edges, px. */
  readonly blur: number;
}

/** @param mmPerPx the picture's true scale */
export function inkBorders(ink: Ink, mmPerPx: number): Borders {
  return { fit: (settings) => fitInk(ink, mmPerPx, settings), contours: ink.contours.map(({ points }) => points), blur: ink.blur };
}

/**
 * The borders of what has the meant colours. Yields the share done, 0 to 1.
 * @throws RangeError where a colour is not written as #rrggbb
 */
export function* colourBorders(picture: ColourPicture, mmPerPx: number, settings: TraceSettings): Generator<number, Borders> {
  const meant = settings.colours.map(({ hex }) => {
    const rgb = rgbOfHex(hex);
    if (!rgb) throw new RangeError(`${hex} is no colour`);
    return rgb;
  });
  const ink = yield* colourInk(picture, meant, settings.smallestMm / mmPerPx);
  if (settings.take !== 'shape') {
    // Lines of the meant colours are read as ink on paper; a line runs on in its own colour only, and has it.
    const grey = findInk(meantInGrey(ink), mmPerPx, {
      threshold: 127,
      inverted: false,
      smallestMm: settings.smallestMm,
      keepsTexture: true,
    });
    const borders = inkBorders({ ...grey, kinds: ink.labels }, mmPerPx);
    return { ...borders, fit: (options) => colouredLines(borders.fit(options), ink) };
  }
  const map = colourMap(ink);
  return { fit: (options) => fitColours(ink, map, mmPerPx, options), contours: map.borders.map(bothDirections), blur: map.blur };
}

function* colouredLines(steps: Generator<number, Trace>, { labels, picture }: ColourInk): Generator<number, Trace> {
  const trace = yield* steps;
  const colourOf = ({ outer }: TracedPiece): number | null => {
    const places = Float64Array.from(polygonOf(outer, 1).flatMap((p, k, all) => {
      const q = all[k + 1] ?? (outer.closed ? (all[0] as Point) : p);
      // Every other pixel along the chord; a drawn line's colour is surest along its middle.
      const steps = Math.max(1, Math.ceil(distance(p, q) / 2));
      return Array.from({ length: steps }, (_, i) => between(p, q, i / steps)).flatMap(({ x, y }) => [x, y]);
    })); // biome-ignore format: one place after another
    const kind = mostOften(labels, picture.width, places);
    return kind > 0 ? kind - 1 : null;
  };
  return { ...trace, pieces: trace.pieces.map((piece) => ({ ...piece, colour: colourOf(piece) })) };
}

/** A border as a closed contour: there and back, where it does not run round. */
function bothDirections({ chain, points }: ColourMap['borders'][0]): Float64Array {
  if (chain.start < 0) return points;
  return Float64Array.of(...points, ...walkedFrom(points, 1));
}

function* fitColours(ink: ColourInk, map: ColourMap, mmPerPx: number, { toleranceMm, forBlade }: FitSettings): Generator<number, Trace> {
  const found = yield* colourPieces(map, toleranceMm / mmPerPx, forBlade);
  return { pieces: found.map((piece) => ({ ...piece, isDashed: false, strokePx: null })), threshold: 127, dropped: ink.dropped };
}

/** Traces in one go, by darkness. */
export const tracePicture = (picture: GreyPicture, mmPerPx: number, settings: TraceSettings): Trace =>
  finished(fitInk(findInk(picture, mmPerPx, settings), mmPerPx, settings));

/** Traces in one go, by the meant colours. */
export const traceColours = (picture: ColourPicture, mmPerPx: number, settings: TraceSettings): Trace =>
  finished(finished(colourBorders(picture, mmPerPx, settings)).fit(settings));

/** Outer outlines with the holes just inside them, largest first. */
function areaPieces({ contours, grey }: Ink, outlines: readonly Path[]): TracedPiece[] {
  const holes = new Map<number, Path[]>();
  const inked = contours.map(({ area }) => Math.abs(area));
  contours.forEach(({ isHole, parent, area }, k) => {
    if (!isHole) return;
    holes.set(parent, [...(holes.get(parent) ?? []), outlines[k] as Path]);
    inked[parent] = (inked[parent] ?? 0) - Math.abs(area);
  });
  const borders = new Set(
    contours.flatMap(({ isHole, points }, k) => (!isHole && isScanBorder(points, inked[k] as number, grey) ? [k] : [])),
  );
  // Where there is nothing else it is what was meant.
  const isAlone = borders.size === contours.filter(({ isHole }) => !isHole).length;
  return contours
    .map((contour, k) => ({ contour, k }))
    .filter(({ contour }) => !contour.isHole)
    .sort((a, b) => b.contour.area - a.contour.area)
    .map(({ contour, k }) => ({
      outer: outlines[k] as Path,
      holes: holes.get(k) ?? [],
      runsOff: touchesEdge(contour.points, grey),
      isDashed: false,
      ...(borders.has(k) && !isAlone ? { isScanBorder: true } : {}),
      strokePx: null,
      colour: null,
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

/** Closed lines as areas inside one another, and those that open lines close together; then what is left open. */
function closedFirst(lines: readonly MiddleLine[], mmPerPx: number): TracedPiece[] {
  const solid = lines.filter(({ path, isDashed }) => path.closed || !isDashed);
  const creases = lines.flatMap(({ path, isDashed }) => (isDashed ? [path] : []));
  // An outline and its holes are drawn with one ink.
  const byInk = [...new Set(solid.map(({ kind }) => kind))].map((kind) =>
    closedOfOneInk(
      solid.filter((line) => line.kind === kind),
      creases,
      mmPerPx,
    ),
  );
  return [
    ...byInk.flatMap(({ pieces }) => pieces),
    ...byInk.flatMap(({ rest }) => rest),
    ...lines.filter(({ path, isDashed }) => !path.closed && isDashed).map(linePiece),
  ];
}

const ofBleed = { holes: [], runsOff: false, isDashed: false, isBleed: true, colour: null } as const;

function closedOfOneInk(
  lines: readonly MiddleLine[],
  creases: readonly Path[],
  mmPerPx: number,
): { pieces: TracedPiece[]; rest: TracedPiece[] } {
  const closed = lines.filter(({ path }) => path.closed).map(({ path, widthPx }): Area => ({ path, runsOff: false, strokePx: widthPx }));
  const open = lines.filter(({ path }) => !path.closed);
  const widthPx = open.reduce((sum, line) => sum + line.widthPx / open.length, 0);
  const { outlines, rest } = outlinesOfLines(open.map(({ path }) => path));
  const areas = [...closed, ...outlines.map((path): Area => ({ path, runsOff: false, strokePx: widthPx }))];
  const bleeds = bleedLinesAmong(areas.map(({ path }) => path), creases, mmPerPx); // biome-ignore format: one line
  const widthOf = (path: Path): number => open.find((line) => line.path === path)?.widthPx ?? widthPx;
  return {
    pieces: [
      ...nested(areas.filter((_, k) => !bleeds.has(k))),
      ...areas.filter((_, k) => bleeds.has(k)).map((area): TracedPiece => ({ ...ofBleed, outer: area.path, strokePx: area.strokePx })),
    ],
    rest: rest.map((path) => linePiece({ path, widthPx: widthOf(path), isDashed: false, kind: 0 })),
  };
}

/** Closed lines from the largest on, then open ones as they were found. */
function largestFirst(lines: readonly MiddleLine[]): MiddleLine[] {
  const size = ({ path }: MiddleLine) => (path.closed ? Math.abs(pathArea(path)) : -1);
  return lines.toSorted((a, b) => size(b) - size(a));
}

/** Lines made walls; dashes, which stand for creases, stay lines. */
function walled(lines: readonly MiddleLine[], wallPx: number, tolerancePx: number): TracedPiece[] {
  const middles = lines.filter(({ isDashed }) => !isDashed).map(({ path }) => path);
  const walls = wallsOf(middles, wallPx, tolerancePx).map((path): Area => ({ path, runsOff: false, strokePx: null }));
  return [...nested(walls), ...lines.filter(({ isDashed }) => isDashed).map(linePiece)];
}

const linePiece = ({ path, widthPx, isDashed }: MiddleLine): TracedPiece => ({
  outer: path,
  holes: [],
  runsOff: false,
  isDashed,
  strokePx: widthPx,
  colour: null,
});

/** Closed paths made pieces: one inside another is its hole, one inside that a piece again. Largest first. */
function nested(areas: readonly Area[]): TracedPiece[] {
  // Outer outlines and holes run as those of inked areas do: y is down here.
  const turned = (k: number, isOuter: boolean): Path => {
    const { path } = areas[k] as Area;
    return pathArea(path) < 0 === isOuter ? path : reversedPath(path);
  };
  return finished(nestedRegions(areas.map(({ path }) => path))).map(({ outer, holes }): TracedPiece => {
    const { runsOff, strokePx } = areas[outer] as Area;
    return { outer: turned(outer, true), holes: holes.map((k) => turned(k, false)), runsOff, isDashed: false, strokePx, colour: null };
  });
}

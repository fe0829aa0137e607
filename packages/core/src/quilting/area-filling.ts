/**
 * In: an area, and what it is quilted with. Out: lines that fill it: rows of a pattern, a filling, or a motif that is fitted to it.
 * A rectangle is filled from left to right, a strip along its length; a motif for a block is fitted to a rectangle, or to the square in the largest
 * circle within another shape; one for a triangle to its corners; one for corners to each corner that is neither sharp nor blunt.
 */
import { hatchLines } from '../make/hatch.ts';
import { fittedMotif } from '../motif/index.ts';
import {
  add,
  between,
  boxAroundBoxes,
  chain,
  cross,
  distance,
  dot,
  endOf,
  heightOf,
  isInside,
  type Path,
  type Point,
  pathBox,
  pointOn,
  shift,
  stepsOf,
  stretch,
  subtract,
  type Transform,
  transformedPath,
  widthOf,
} from '../plane/index.ts';
import { merged, offsetPiece, pathCrossings, splitAtPlaces } from '../shape/index.ts';
import { borderLine } from './border-line.ts';
import { edgeToEdge } from './edge-to-edge.ts';
import { awayFrom, largestEmptyCircle } from './empty-circle.ts';
import { type LineMotifName, lineMotifPath, lineMotifs } from './line-motifs.ts';
import { cornerSteps } from './outline-sides.ts';
import type { QuiltedArea } from './quilted-areas.ts';
import { type RowPatternName, rowPatterns } from './row-patterns.ts';
import type { LinePattern, LineSettings } from './settings.ts';
import { stippled } from './stippling.ts';

export interface AreaFilling {
  readonly lines: readonly Path[];
  /** By how much repeats were stretched to fill the area, as shares; null where nothing repeats. */
  readonly stretched: { readonly x: number; readonly y: number } | null;
}

type Area = Pick<QuiltedArea, 'outline' | 'hole'>;

export const isRowPattern = (pattern: LinePattern): pattern is RowPatternName => pattern in rowPatterns;
export const isLineMotif = (pattern: LinePattern): pattern is LineMotifName => pattern in lineMotifs;

/** @param own the motif that is drawn in the job, where one of those is asked for */
export function areaFilling(area: Area, settings: LineSettings, own: readonly Path[]): AreaFilling {
  const filled = withinEdge(area, settings.insetMm).map((one) => fillingOf(one, settings, own));
  return { lines: filled.flatMap(({ lines }) => lines), stretched: filled.find(({ stretched }) => stretched)?.stretched ?? null };
}

/** The area without a rim along its edge. */
function withinEdge({ outline, hole }: Area, insetMm: number): Area[] {
  if (insetMm <= 0) return [{ outline, hole }];
  return offsetPiece({ outer: outline, holes: hole ? [hole] : [] }, -insetMm).map(({ outer, holes }) => ({ outline: outer, hole: holes[0] ?? null })); // biome-ignore format: one line
}

function fillingOf(area: Area, settings: LineSettings, own: readonly Path[]): AreaFilling {
  const { pattern, spacingMm } = settings;
  const border = [area.outline, ...(area.hole ? [area.hole] : [])];
  const plain = (lines: readonly Path[]): AreaFilling => ({ lines, stretched: null });
  if (isRowPattern(pattern)) return rowsIn(area, { ...settings, pattern });
  if (isLineMotif(pattern)) return plain(motifIn(area, pattern, settings.repeatMm));
  if (pattern === 'own motif') return plain(ownMotifIn(area, own));
  if (pattern === 'stippling') return plain(stippled(border, { spacingMm, seed: settings.seed }));
  if (pattern === 'echo') return plain(echoes(area, spacingMm));
  const angle = (settings.angle * Math.PI) / 180;
  return plain([angle, angle + Math.PI / 2].flatMap((one) => joinedAtEnds(hatchLines(border, one, spacingMm), area, spacingMm)));
}

/** A rectangle's own plane: from its lower left corner along its foot. */
interface Rectangle {
  readonly place: Transform;
  readonly width: number;
  readonly height: number;
}

function cornersOf(outline: Path): Point[] {
  const path = merged(outline);
  const steps = stepsOf(path);
  return cornerSteps(path).map((step) => (steps[step] as (typeof steps)[0]).from);
}

const isStraight = (outline: Path): boolean => outline.segments.every(({ kind }) => kind === 'line');

/** A rectangle this much longer than wide is a strip: rows run along it. */
const stripRatio = 2;

function rectangleOf(outline: Path, isStripAlong: boolean): Rectangle | null {
  const corners = cornersOf(outline);
  if (corners.length !== 4 || !isStraight(outline)) return null;
  const sides = corners.map((p, k) => subtract(corners[(k + 1) % 4] as Point, p));
  const isSquare = sides.every((side, k) => Math.abs(dot(side, sides[(k + 1) % 4] as Point)) < 1e-6 * dot(side, side));
  if (!isSquare) return null;
  // The side that runs most to the right is its foot; of a strip the long one.
  const rightmost = sides.reduce((best, side, k) => (side.x / Math.hypot(side.x, side.y) > (sides[best] as Point).x / Math.hypot((sides[best] as Point).x, (sides[best] as Point).y) + 1e-9 ? k : best), 0); // biome-ignore format: one line
  const [a, b] = [sides[rightmost], sides[(rightmost + 1) % 4]] as [Point, Point];
  const foot = isStripAlong && Math.hypot(b.x, b.y) >= stripRatio * Math.hypot(a.x, a.y) ? (rightmost + 1) % 4 : rightmost;
  const [corner, along, up] = [corners[foot], sides[foot], sides[(foot + 1) % 4]] as [Point, Point, Point];
  const [width, height] = [Math.hypot(along.x, along.y), Math.hypot(up.x, up.y)];
  return { place: { a: along.x / width, b: along.y / width, c: up.x / height, d: up.y / height, e: corner.x, f: corner.y }, width, height };
}

function rowsIn(area: Area, settings: LineSettings & { readonly pattern: RowPatternName }): AreaFilling {
  const { outline, hole } = area;
  if (hole) {
    const { path, stretchX } = borderLine({ outer: pathBox(outline), inner: pathBox(hole) }, settings.pattern, settings.repeatMm);
    const { minX } = pathBox(outline);
    return { lines: [path], stretched: { x: stretchX, y: (pathBox(hole).minX - minX) / settings.rowMm - 1 } };
  }
  const rectangle = rectangleOf(outline, true);
  if (rectangle) {
    const { place, width, height } = rectangle;
    const { path, stretchX, stretchY } = edgeToEdge({ minX: 0, minY: 0, maxX: width, maxY: height }, settings);
    return { lines: [transformedPath(path, place)], stretched: { x: stretchX, y: stretchY } };
  }
  const { path, stretchX, stretchY } = edgeToEdge(pathBox(outline), settings);
  return { lines: inside(path, outline), stretched: { x: stretchX, y: stretchY } };
}

/** What of a line lies inside an outline. */
function inside(path: Path, outline: Path): Path[] {
  const { onA } = pathCrossings([path], [outline]);
  return splitAtPlaces(path, onA).filter(({ start, segments: [first] }) => first && isInside(outline, pointOn(start, first, 0.5)));
}

/** From three places in a plane, the first at 0, 0, the others one along each axis. */
const spannedBy = (at: Point, x: Point, y: Point): Transform => ({ a: x.x - at.x, b: x.y - at.y, c: y.x - at.x, d: y.y - at.y, e: at.x, f: at.y }); // biome-ignore format: one line

/** A motif for corners fits angles between these, degrees. */
const cornerAngles = [50, 130] as const;
/** It reaches along a side no farther than this share. */
const cornerReach = 0.48;

function motifIn(area: Area, name: LineMotifName, sizeMm: number): Path[] {
  const motif = lineMotifPath(name);
  const { fills } = lineMotifs[name];
  const corners = cornersOf(area.outline);
  if (fills === 'block') return blockPlaces(area).map((place) => transformedPath(motif, place));
  if (fills === 'corner')
    return corners.flatMap((p, k): Path[] => {
      const [before, after] = [corners.at(k - 1) as Point, corners[(k + 1) % corners.length] as Point];
      const [u, v] = [subtract(after, p), subtract(before, p)];
      const [along, across] = [Math.hypot(u.x, u.y), Math.hypot(v.x, v.y)];
      const degrees = (Math.atan2(cross(u, v), dot(u, v)) * 180) / Math.PI;
      if (degrees < cornerAngles[0] || degrees > cornerAngles[1]) return [];
      const size = Math.min(sizeMm, cornerReach * along, cornerReach * across);
      return [transformedPath(motif, spannedBy(p, add(p, scaled(u, size / along)), add(p, scaled(v, size / across))))];
    });
  const [a, b, c] = corners as [Point, Point, Point];
  if (corners.length !== 3) return [];
  // From the corner opposite to the longest side.
  const widest = [a, b, c].reduce((best, _, k) => { const opposite = (at: number) => distance(corners[(at + 1) % 3] as Point, corners[(at + 2) % 3] as Point); return opposite(k) > opposite(best) + 1e-9 ? k : best; }, 0); // biome-ignore format: one line
  return [
    transformedPath(motif, spannedBy(corners[widest] as Point, corners[(widest + 1) % 3] as Point, corners[(widest + 2) % 3] as Point)),
  ];
}

const scaled = ({ x, y }: Point, by: number): Point => ({ x: x * by, y: y * by });

/** Where motifs for blocks lie in an area: from the unit square to there. */
function blockPlaces({ outline, hole }: Area): Transform[] {
  if (hole) return squaresRound(outline, hole);
  const rectangle = rectangleOf(outline, false);
  if (rectangle) return [chain(rectangle.place, stretch(rectangle.width, rectangle.height))];
  const { at, radiusMm } = largestEmptyCircle({ outline, hole }, awayFrom([outline]));
  const side = radiusMm * Math.SQRT2;
  return [chain(shift(at.x - side / 2, at.y - side / 2), stretch(side))];
}

/** Squares along a border, whole ones between its corners. */
function squaresRound(outline: Path, hole: Path): Transform[] {
  const [outer, inner] = [pathBox(outline), pathBox(hole)];
  const w = inner.minX - outer.minX;
  const [across, up] = [Math.max(1, Math.round(widthOf(inner) / w)), Math.max(1, Math.round(heightOf(inner) / w))];
  const [stepX, stepY] = [widthOf(inner) / across, heightOf(inner) / up];
  const at = (x: number, y: number, width: number, height: number): Transform => chain(shift(x, y), stretch(width, height));
  const along = <T>(count: number, make: (k: number) => T): T[] => Array.from({ length: count }, (_, k) => make(k));
  // Once round, clockwise from the upper left corner.
  return [
    at(outer.minX, inner.maxY, w, w),
    ...along(across, (k) => at(inner.minX + k * stepX, inner.maxY, stepX, w)),
    at(inner.maxX, inner.maxY, w, w),
    ...along(up, (k) => at(inner.maxX, inner.maxY - (k + 1) * stepY, w, stepY)),
    at(inner.maxX, outer.minY, w, w),
    ...along(across, (k) => at(inner.maxX - (k + 1) * stepX, outer.minY, stepX, w)),
    at(outer.minX, outer.minY, w, w),
    ...along(up, (k) => at(outer.minX, inner.minY + k * stepY, w, stepY)),
  ];
}

/** A motif of one's own keeps its proportions: as large as there is room for, in the middle. */
function ownMotifIn(area: Area, paths: readonly Path[]): Path[] {
  const box = boxAroundBoxes(paths.map(pathBox));
  if (!box || !(box.maxX > box.minX)) return [];
  return blockPlaces(area).flatMap((place) => {
    const [width, height] = [Math.hypot(place.a, place.b), Math.hypot(place.c, place.d)];
    const upright = chain(place, stretch(1 / width, 1 / height));
    return fittedMotif(paths, { kind: 'box', a: { x: 0, y: 0 }, b: { x: width, y: height } }).map((path) => transformedPath(path, upright));
  });
}

/** Lines to and fro, each joined to the next where the way from one to the other is short and stays in the area. */
function joinedAtEnds(lines: readonly Path[], { outline, hole }: Area, spacingMm: number): Path[] {
  const made: Path[] = [];
  for (const line of lines) {
    const last = made.at(-1);
    const [to] = line.segments.slice(-1);
    if (last && to && distance(endOf(last), line.start) < longestStep * spacingMm) {
      // Both ends lie on the edge, and the way may run along it: a place a hair off it, along the line, tells whether that is inside.
      const d = subtract(to.to, line.start);
      const p = add(between(endOf(last), line.start, 0.5), scaled(d, edgeMm / Math.hypot(d.x, d.y)));
      if (isInside(outline, p) && !(hole && isInside(hole, p))) {
        made[made.length - 1] = { ...last, segments: [...last.segments, { kind: 'line', to: line.start }, ...line.segments] };
        continue;
      }
    }
    made.push(line);
  }
  return made;
}
const longestStep = 4;
const edgeMm = 1e-3;

/** Rings within an area, each as far from the last as that is from its edge. */
function echoes({ outline, hole }: Area, spacingMm: number): Path[] {
  const made: Path[] = [];
  for (let k = 1; k <= mostEchoes; k++) {
    const rings = offsetPiece({ outer: outline, holes: hole ? [hole] : [] }, -k * spacingMm);
    if (rings.length === 0) break;
    made.push(...rings.flatMap(({ outer, holes }) => [outer, ...holes]));
  }
  return made;
}
const mostEchoes = 200;

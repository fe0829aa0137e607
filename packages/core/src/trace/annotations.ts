/**
 * In: the pieces of a trace, mm. Out: those that look like lettering, like the dimension lines that carry figures, like tables of line kinds, and
 * like axes drawn too long.
 * Rests on: size, nearness and rows of connected parts, as text is told from graphics (Fletcher & Kasturi 1988): letters are
 * small, of like height, near one another in a row, and not all the same; a dimension line is thin, straight and has a
 * figure beside it.
 */

import {
  type Box,
  boxAroundBoxes,
  centreOf,
  endOf,
  heightOf,
  isInside,
  nearestOnPath,
  type Path,
  type Point,
  pathArea,
  pathBox,
  pathLength,
  pointOn,
  segmentLength,
  stepsOf,
  widthOf,
} from '../plane/index.ts';
import { boxIndex } from '../shape/box-index.ts';

export interface Annotated {
  readonly id: string;
  readonly outer: Path;
}

/** Letters are between these high, mm: smaller ones cannot be read, larger ones are part of the work. Common practice. */
const letterMm = { min: 0.7, max: 15 };
/** And no higher than this share of all that is drawn. */
const maxShare = 1 / 8;
/** Heights of one row differ by no more than this factor: capitals beside small letters. */
const likeHeights = 1.8;
/** Letters of a row lie no farther apart than this many heights. */
const maxGap = 0.8;
/** What differs by less in width, height and area is one shape again and again: holes in a row, beads. */
const sameShare = 0.04;
/** Drawn lines are no thicker than this, mm, and at least so many times as long. */
const lineMm = 1.2;
const slenderness = 12;
/** Of their length they reach at least so far from end to end; the rest is lines that they end on. */
const straightShare = 0.75;
/** A figure stands within so many of its heights beside its line; lines that meet lie within this, mm. */
const besideHeights = 1.5;
const meetMm = 1.5;
/** A line ends on an outline that is this near, mm. */
const touchMm = 0.1;

interface Part {
  readonly id: string;
  readonly path: Path;
  readonly box: Box;
  readonly size: number;
  readonly area: number;
}

/** Ids of the pieces, in their order. */
export function annotationsOf(pieces: readonly Annotated[]): string[] {
  const parts = pieces.map(({ id, outer }): Part => {
    const box = pathBox(outer);
    return { id, path: outer, box, size: Math.max(widthOf(box), heightOf(box)), area: outer.closed ? Math.abs(pathArea(outer)) : 0 };
  });
  const all = boxAroundBoxes(parts.map(({ box }) => box));
  if (!all || parts.length < 3) return [];
  const max = Math.min(letterMm.max, maxShare * Math.hypot(widthOf(all), heightOf(all)));
  const letters = parts.filter((part) => part.size >= letterMm.min && part.size <= max && !isLine(part));
  const rows = rowsOf(letters).filter((row) => row.length > 1 && !areAllAlike(row));
  const found = new Set(rows.flat());
  const lines = parts.filter(isLine);
  const figures = nearby(rows.flat());
  const carrying = lines.filter(({ box }) =>
    figures(box, besideHeights * max).some((letter) => gap(letter.box, box) <= besideHeights * letter.size),
  );
  for (const line of carrying) found.add(line);
  // Lines that end on a dimension line belong to it.
  const dimensions = nearby(carrying);
  for (const line of lines) if (dimensions(line.box, meetMm).some(({ box }) => gap(box, line.box) <= meetMm)) found.add(line);
  for (const stub of stubsOf(parts, lines)) found.add(stub);
  for (const frame of framesOf(parts, found)) found.add(frame);
  // What is left is what was drawn: where nothing is, all of it is.
  return found.size === parts.length ? [] : parts.filter((part) => found.has(part)).map(({ id }) => id);
}

/** So much lettering a table needs within its frame: letters, and rows of it. */
const minLettersFramed = 4;

/** Frames that hold nothing but lettering and the samples beside it: the table that tells what kinds of line mean. */
function framesOf(parts: readonly Part[], found: ReadonlySet<Part>): Part[] {
  const about = nearby(parts);
  return parts.filter((frame) => {
    const { path, box } = frame;
    if (!path.closed || found.has(frame) || path.segments.length > 8) return false;
    const within = about(box, 0).filter((part) => part !== frame && isInside(path, centreOf(part.box)));
    const letters = within.filter((part) => found.has(part) && !isLine(part));
    return letters.length >= minLettersFramed && within.every((part) => found.has(part) || isLine(part));
  });
}

/** Lines that run on outward from a closed outline and end there: an axis or a construction line that was drawn too long. */
function stubsOf(parts: readonly Part[], lines: readonly Part[]): Part[] {
  const closed = nearby(parts.filter(({ path }) => path.closed && path.segments.length > 0 && !lines.some((line) => line.path === path)));
  const others = nearby(parts);
  return lines.filter((line) => {
    const { path, box } = line;
    if (path.closed) return false;
    const ends = [path.start, endOf(path)];
    const touches = (part: Part, end: Point) => part !== line && nearestOnPath(part.path, end).distance <= touchMm;
    const outlines = closed(box, touchMm);
    const resting = ends.filter((end) => outlines.some((part) => touches(part, end)));
    const isFree = ends.filter((end) => !others(box, touchMm).some((part) => touches(part, end))).length === 1;
    if (resting.length !== 1 || !isFree) return false;
    const half = pathMiddle(path);
    return outlines.every((part) => !isInside(part.path, half));
  });
}

/** The place half way along. */
function pathMiddle(path: Path): Point {
  let left = pathLength(path) / 2;
  for (const { from, segment } of stepsOf(path)) {
    const length = segmentLength(from, segment);
    if (length >= left) return pointOn(from, segment, left / length);
    left -= length;
  }
  return endOf(path);
}

/** Thin and straight, as an outline round it or as a line along its middle. */
function isLine({ path, box, area }: Part): boolean {
  const reach = Math.hypot(widthOf(box), heightOf(box));
  const length = path.closed ? pathLength(path) / 2 : pathLength(path);
  const thickness = path.closed ? area / length : 0;
  return thickness <= lineMm && length >= slenderness * Math.max(thickness, letterMm.min / 2) && reach >= straightShare * length;
}

/** How far boxes lie apart; 0 where they overlap. */
function gap(a: Box, b: Box): number {
  const x = Math.max(0, a.minX - b.maxX, b.minX - a.maxX);
  const y = Math.max(0, a.minY - b.maxY, b.minY - a.maxY);
  return Math.hypot(x, y);
}

/** Answers which of the parts lie about a box, within a reach to all sides. */
function nearby(parts: readonly Part[]): (box: Box, reach: number) => Part[] {
  const index = boxIndex(parts.map(({ box }) => box));
  return ({ minX, minY, maxX, maxY }, reach) =>
    index?.search(minX - reach, minY - reach, maxX + reach, maxY + reach).map((k) => parts[k] as Part) ?? [];
}

/** Letters that stand in rows, across or upward. */
function rowsOf(letters: readonly Part[]): Part[][] {
  const rows: Part[][] = [];
  const left = new Set(letters);
  const about = nearby(letters);
  for (const first of letters) {
    if (!left.delete(first)) continue;
    const row = [first];
    for (const one of row) {
      for (const other of about(one.box, maxGap * likeHeights * one.size)) {
        if (!left.has(other) || !areNeighbours(one, other)) continue;
        left.delete(other);
        row.push(other);
      }
    }
    rows.push(row);
  }
  return rows;
}

function areNeighbours(a: Part, b: Part): boolean {
  const [large, small] = [Math.max(a.size, b.size), Math.min(a.size, b.size)];
  if (large > likeHeights * small || gap(a.box, b.box) > maxGap * large) return false;
  const [p, q] = [centreOf(a.box), centreOf(b.box)];
  return Math.min(Math.abs(p.x - q.x), Math.abs(p.y - q.y)) <= large / 2;
}

function areAllAlike([first, ...others]: readonly Part[]): boolean {
  const isAlike = (a: number, b: number): boolean => Math.abs(a - b) <= sameShare * Math.max(a, b);
  return others.every(
    ({ box, area }) =>
      isAlike(widthOf(box), widthOf((first as Part).box)) &&
      isAlike(heightOf(box), heightOf((first as Part).box)) &&
      isAlike(area, (first as Part).area),
  );
}

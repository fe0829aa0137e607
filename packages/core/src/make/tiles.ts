/**
 * In: outlines, and the paper that they are printed on. Out: the pages that carry lines, where each lies on the sheet, and
 * where the pages need to lie to be fewest. Each page has a cell of its own and prints half the overlap beyond it all round.
 */

import { SaidError, say } from '../messages/index.ts';
import { type Box, boxAroundBoxes, type Path, type Point, pathBox, polygonOf } from '../plane/index.ts';
import type { Printing } from './printing.ts';

/** Upright, mm. ISO 216:2007; ANSI/ASME Y14.1 and common practice for the American ones. */
export const papers: Readonly<Record<string, readonly [number, number]>> = {
  A5: [148, 210], A4: [210, 297], A3: [297, 420], A2: [420, 594], A1: [594, 841], A0: [841, 1189],
  B4: [250, 353], B3: [353, 500],
  Letter: [215.9, 279.4], Legal: [215.9, 355.6], Tabloid: [279.4, 431.8],
}; // biome-ignore format: by family

export const ownPaper = 'own size';

export interface PaperSize {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** As it lies in the printer. */
export function paperSize({ paper, widthMm, heightMm, landscape }: Printing): PaperSize {
  const [w, h] = papers[paper] ?? [widthMm, heightMm];
  return landscape ? { widthMm: h, heightMm: w } : { widthMm: w, heightMm: h };
}

export interface Page {
  /** From the top, 0 is A; from the left, 0 is 1. */
  readonly row: number;
  readonly column: number;
  readonly name: string;
  /** What is its own, and what it prints, on the sheet. */
  readonly cell: Box;
  readonly window: Box;
}

export interface Tiling {
  readonly paper: PaperSize;
  readonly marginMm: number;
  readonly pages: readonly Page[];
  readonly rows: number;
  readonly columns: number;
  /** The lower left corner of the lowest and leftmost cell, on the sheet. */
  readonly place: Point;
  readonly cellWidthMm: number;
  readonly cellHeightMm: number;
}

export class PaperError extends SaidError {
  readonly code = 'paper-too-small';
}

/** Chords leave the outlines by at most this, mm. */
const chordMm = 0.02;

/** @throws PaperError where margins and overlap leave nothing to print on */
export function tiled(paths: readonly Path[], printing: Printing): Tiling {
  const paper = paperSize(printing);
  const { marginMm, overlapMm } = printing;
  const [width, height] = [paper.widthMm - 2 * marginMm - overlapMm, paper.heightMm - 2 * marginMm - overlapMm];
  if (!(width > 5) || !(height > 5)) throw new PaperError(say.make.noRoomOnPaper());
  const chords = chordsAlong(paths);
  const box = boxAroundBoxes(paths.map(pathBox));
  if (!box) return { paper, marginMm, pages: [], rows: 0, columns: 0, place: { x: 0, y: 0 }, cellWidthMm: width, cellHeightMm: height };
  const place = printing.place ?? fewest(chords, box, width, height);
  return { paper, marginMm, ...pagesAt(chords, place, width, height, overlapMm), cellWidthMm: width, cellHeightMm: height };
}

type Chord = readonly [Point, Point];

const chordsAlong = (paths: readonly Path[]): Chord[] =>
  paths.flatMap((path) => {
    const points = polygonOf(path, chordMm);
    if (path.closed && points[0]) points.push(points[0]);
    return points.slice(1).map((q, k): Chord => [points[k] as Point, q]);
  });

/** A line that lies just on a cell's border needs no second page, mm. */
const edgeSlackMm = 0.01;

/** The cells of a lattice that chords pass through, as columns and rows. */
function cellsAt(chords: readonly Chord[], place: Point, width: number, height: number): Map<string, [number, number]> {
  const cells = new Map<string, [number, number]>();
  const index = (t: number, size: number): number => {
    const k = Math.floor(t);
    return t - k < edgeSlackMm / size && k > 0 ? k - 1 : k;
  };
  let [lastK, lastL] = [NaN, NaN];
  const take = (u: number, v: number): void => {
    const [k, l] = [index(u, width), index(v, height)];
    if (k === lastK && l === lastL) return;
    [lastK, lastL] = [k, l];
    const key = `${k} ${l}`;
    if (!cells.has(key)) cells.set(key, [k, l]);
  };
  for (const [p, q] of chords) {
    const [u, v] = [(p.x - place.x) / width, (p.y - place.y) / height];
    const [du, dv] = [(q.x - p.x) / width, (q.y - p.y) / height];
    // Between two crossings with the lattice a chord lies in one cell: in that of its middle there.
    if (Math.floor(u) === Math.floor(u + du) && Math.floor(v) === Math.floor(v + dv)) {
      take(u + du / 2, v + dv / 2);
      continue;
    }
    const cuts = [0, ...cutsOf(u, du), ...cutsOf(v, dv), 1];
    if (cuts.length > 2) cuts.sort((a, b) => a - b);
    for (let k = 1; k < cuts.length; k++) {
      const t = ((cuts[k - 1] as number) + (cuts[k] as number)) / 2;
      take(u + t * du, v + t * dv);
    }
  }
  return cells;
}

/** Where on its way from `u` over `du` a value is whole, as shares of the way. */
function cutsOf(u: number, du: number): number[] {
  const [low, high] = [Math.min(u, u + du), Math.max(u, u + du)];
  const cuts: number[] = [];
  for (let k = Math.ceil(low); k <= high; k++) if (k > low && k < high) cuts.push((k - u) / du);
  return cuts;
}

/** Tries a lattice of places and takes that of the fewest pages; of equal ones the work in the middle of the pages. */
function fewest(chords: readonly Chord[], box: Box, width: number, height: number): Point {
  const steps = 12;
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const centred = (size: number, cell: number): number => (Math.ceil(size / cell - 1e-9) * cell - size) / 2;
  const start = { x: box.minX - centred(w, width), y: box.minY - centred(h, height) };
  let best = { place: start, count: cellsAt(chords, start, width, height).size };
  for (let i = 0; i < steps; i++)
    for (let j = 0; j < steps; j++) {
      const place = { x: box.minX - (width * i) / steps, y: box.minY - (height * j) / steps };
      const count = cellsAt(chords, place, width, height).size;
      if (count < best.count) best = { place, count };
    }
  return best.place;
}

function pagesAt(chords: readonly Chord[], place: Point, width: number, height: number, overlap: number) {
  const cells = [...cellsAt(chords, place, width, height).values()];
  const [k0, l0] = [Math.min(...cells.map(([k]) => k)), Math.min(...cells.map(([, l]) => l))];
  const [k1, l1] = [Math.max(...cells.map(([k]) => k)), Math.max(...cells.map(([, l]) => l))];
  const corner = { x: place.x + k0 * width, y: place.y + l0 * height };
  const pages = cells
    .map(([k, l]): Page => {
      const [column, row] = [k - k0, l1 - l];
      const [minX, minY] = [place.x + k * width, place.y + l * height];
      const cell = { minX, minY, maxX: minX + width, maxY: minY + height };
      const half = overlap / 2;
      const window = { minX: minX - half, minY: minY - half, maxX: cell.maxX + half, maxY: cell.maxY + half };
      return { row, column, name: `${rowName(row)}${column + 1}`, cell, window };
    })
    .sort((a, b) => a.row - b.row || a.column - b.column);
  return { pages, rows: l1 - l0 + 1, columns: k1 - k0 + 1, place: corner };
}

/** A to Z, then AA. */
const rowName = (row: number): string => (row < 26 ? '' : rowName(Math.floor(row / 26) - 1)) + String.fromCharCode(65 + (row % 26));

/** Where pages that meet carry the same mark: at the corners of the cells and at two places of each of their sides. */
export function marksOf({ cell }: Page): Point[] {
  const { minX, minY, maxX, maxY } = cell;
  const along = (a: number, b: number): number[] => [0, 0.25, 0.75, 1].map((t) => a + t * (b - a));
  const all = [
    ...along(minX, maxX).flatMap((x) => [{ x, y: minY }, { x, y: maxY }]), // biome-ignore format: below and above
    ...along(minY, maxY).flatMap((y) => [{ x: minX, y }, { x: maxX, y }]), // biome-ignore format: left and right
  ];
  return all.filter((p, k) => all.findIndex((q) => q.x === p.x && q.y === p.y) === k);
}

/**
 * In: pieces. Out: what a person reads off them, in mm.
 */
import { type Box, boxAround, boxAroundBoxes, heightOf, widthOf } from '../plane/box.ts';
import { pathArea, pathBox, pathLength } from '../plane/path.ts';
import { project } from '../plane/projection.ts';
import { drawnPieces } from './drawn.ts';
import type { Job, Picture, Piece } from './schema.ts';
import { fitOf } from './sizing.ts';

export interface PieceMeasures {
  readonly box: Box;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Less its holes, square mm; 0 for an open line. */
  readonly areaMm2: number;
  /** Of the outer outline and all holes. */
  readonly perimeterMm: number;
  readonly holes: number;
  readonly segments: number;
}

const known = new WeakMap<Piece['outer'], { readonly holes: Piece['holes']; readonly measures: PieceMeasures }>();

export function measuresOf({ outer, holes }: Pick<Piece, 'outer' | 'holes'>): PieceMeasures {
  const kept = known.get(outer);
  // The same outline may come with other holes: one filled, or a slot drawn into it.
  if (kept && kept.holes.length === holes.length && kept.holes.every((hole, k) => hole === holes[k])) return kept.measures;
  const box = pathBox(outer);
  const paths = [outer, ...holes];
  const measures = {
    box,
    widthMm: widthOf(box),
    heightMm: heightOf(box),
    areaMm2: (outer.closed ? Math.abs(pathArea(outer)) : 0) - holes.reduce((sum, hole) => sum + Math.abs(pathArea(hole)), 0),
    perimeterMm: paths.reduce((sum, path) => sum + pathLength(path), 0),
    holes: holes.length,
    segments: paths.reduce((sum, path) => sum + path.segments.length, 0),
  };
  known.set(outer, { holes, measures });
  return measures;
}

/** The box round all pieces; null where there are none. */
export const overallBox = (pieces: readonly Piece[]): Box | null => boxAroundBoxes(pieces.map((p) => measuresOf(p).box));

const emptySheet: Box = { minX: 0, minY: 0, maxX: 200, maxY: 150 };

/** What is shown of a picture, on the sheet: its crop, or all of it. */
export function shownBoxOf(picture: Picture): Box {
  const { projection, sheetBox } = fitOf(picture);
  return boxAround((picture.crop ?? []).map((p) => project(projection, p))) ?? sheetBox;
}

/** The box of the pictures and drawings that lie on the sheet and are shown; without any a sheet of common size. */
export function sheetBoxOf(job: Pick<Job, 'pictures' | 'drawings'>): Box {
  const shown = job.pictures.filter((p) => !p.hidden);
  const boxes = (shown.length > 0 ? shown : job.pictures).map(shownBoxOf);
  for (const { hidden, pieces } of job.drawings) {
    const box = hidden ? null : overallBox(pieces);
    if (box) boxes.push(box);
  }
  return boxAroundBoxes(boxes) ?? emptySheet;
}

/** The same with what is drawn by hand, which may reach beyond. */
export function workBoxOf(job: Pick<Job, 'pictures' | 'drawings' | 'drawn' | 'making'>): Box {
  const drawn = overallBox(drawnPieces(job));
  const isEmpty = job.pictures.length === 0 && job.drawings.length === 0;
  if (!drawn) return sheetBoxOf(job);
  return isEmpty ? drawn : (boxAroundBoxes([drawn, sheetBoxOf(job)]) as Box);
}

/**
 * In: pieces. Out: what a person reads off them, in mm.
 */
import { type Box, boxAroundBoxes, heightOf, widthOf } from '../plane/box.ts';
import { pathArea, pathBox, pathLength } from '../plane/path.ts';
import type { Piece } from './schema.ts';

export interface PieceMeasures {
  readonly box: Box;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Less its holes, square mm. */
  readonly areaMm2: number;
  /** Of the outer outline and all holes. */
  readonly perimeterMm: number;
  readonly holes: number;
  readonly segments: number;
}

const known = new WeakMap<Piece['outer'], PieceMeasures>();

export function measuresOf({ outer, holes }: Pick<Piece, 'outer' | 'holes'>): PieceMeasures {
  let found = known.get(outer);
  if (!found) {
    const box = pathBox(outer);
    const paths = [outer, ...holes];
    found = {
      box,
      widthMm: widthOf(box),
      heightMm: heightOf(box),
      areaMm2: Math.abs(pathArea(outer)) - holes.reduce((sum, hole) => sum + Math.abs(pathArea(hole)), 0),
      perimeterMm: paths.reduce((sum, path) => sum + pathLength(path), 0),
      holes: holes.length,
      segments: paths.reduce((sum, path) => sum + path.segments.length, 0),
    };
    known.set(outer, found);
  }
  return found;
}

/** The box round all pieces; null where there are none. */
export const overallBox = (pieces: readonly Piece[]): Box | null => boxAroundBoxes(pieces.map((p) => measuresOf(p).box));

/**
 * What lies under a point of the sheet: pieces, their holes, pictures.
 */
import { type Job, measuresOf, type Picture, type Piece, piecesOf, sheetBoxOf } from '@nuvet/core/job';
import { isInBox, isInside, nearestOnPath, type Point } from '@nuvet/core/plane';

/** The smallest piece under a point of the sheet, left out ones too. */
export function pieceAt(job: Job, p: Point, reachMm: number): Piece | null {
  const isUnder = (piece: Piece): boolean => (piece.outer.closed ? isInside(piece.outer, p, 0.05) : isNearLine(piece, p, reachMm));
  // Most pieces are told apart by their boxes alone.
  return piecesOf(job).findLast((piece) => isInBox(measuresOf(piece).box, p, reachMm) && isUnder(piece)) ?? null;
}

const isNearLine = ({ outer }: Piece, p: Point, reachMm: number): boolean => nearestOnPath(outer, p).distance <= reachMm;

/** The traced piece under a point, or the piece and which of its holes the point lies in. */
export function underPoint(job: Job, p: Point, reachMm: number): { readonly piece: Piece; readonly hole: number | null } | null {
  const pieces = job.traces.flatMap((t) => t.pieces);
  // Largest first in the trace: the last one found is the innermost.
  const piece = pieces.findLast(({ outer }) => outer.closed && isInside(outer, p, 0.05));
  const line = pieces.find((one) => !one.outer.closed && isNearLine(one, p, reachMm));
  if (line) return { piece: line, hole: null };
  if (!piece) return null;
  const hole = piece.holes.findIndex((path) => isInside(path, p, 0.05));
  return { piece, hole: hole < 0 ? null : hole };
}

/** The topmost picture under a point of the sheet that is shown and not locked. */
export function pictureAt(job: Job, p: Point): Picture | null {
  return job.pictures.findLast((picture) => !picture.hidden && !picture.locked && isInsideBox(picture, p)) ?? null;
}

const isInsideBox = (picture: Picture, p: Point): boolean => isInBox(sheetBoxOf({ pictures: [picture], drawings: [] }), p);

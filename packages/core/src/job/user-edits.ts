/**
 * In: a new trace and the one before it. Out: the new trace with what a person had chosen and changed of the same pieces.
 * A piece is the same where its middle lies within a millimetre of the old one's and its area is about the same.
 */
import { centreOf } from '../plane/box.ts';
import { type Path, pathArea, pathBox, pathLength, transformedPath } from '../plane/path.ts';
import { distance } from '../plane/point.ts';
import { apply, chain, inverse, type Transform } from '../plane/transform.ts';
import type { JobTrace, JobTraceSettings, Piece } from './schema.ts';

const sameWithinMm = 1;
const sameAreaShare = 0.3;

export function mergeUserEdits(trace: JobTrace, before: JobTrace | null): JobTrace {
  const own = (piece: Piece): boolean => before !== null && isPurposeChosen(piece, before.settings);
  const isChosen = (piece: Piece): boolean =>
    piece.leftOut || piece.isScanBorder === true || own(piece) || piece.edited === true || piece.byHand === true;
  if (!before || before.pictureId !== trace.pictureId || !before.pieces.some(isChosen)) return trace;
  const move = chain(trace.toSheet, inverse(before.toSheet));
  const grow = Math.abs(move.a * move.d - move.b * move.c);
  const byHand = before.pieces.filter((piece) => piece.byHand).map((piece) => ({ ...piece, ...outlinesMoved(piece, move) }));
  const old = before.pieces
    .filter((piece) => isChosen(piece) && !piece.byHand)
    .map((piece) => ({
      piece,
      centre: apply(move, centreOf(pathBox(piece.outer))),
      area: sizeOf(piece.outer) * (piece.outer.closed ? grow : Math.sqrt(grow)),
    }));
  return {
    ...trace,
    pieces: [
      ...trace.pieces.map((piece) => {
        const centre = centreOf(pathBox(piece.outer));
        const area = sizeOf(piece.outer);
        const same = old.find((o) => distance(o.centre, centre) < sameWithinMm && Math.abs(o.area - area) < sameAreaShare * o.area);
        if (!same) return piece;
        const kept = { ...piece, leftOut: same.piece.leftOut, purpose: own(same.piece) ? same.piece.purpose : piece.purpose };
        // A piece that comes edited has what the hand changed in it already.
        if (!same.piece.edited || piece.edited) return kept;
        const { touched } = same.piece;
        return { ...kept, edited: true, ...(touched ? { touched } : {}), ...outlinesMoved(same.piece, move) };
      }),
      ...byHand,
    ],
  };
}

/** The area, or of an open line the length. */
const sizeOf = (path: Path): number => (path.closed ? Math.abs(pathArea(path)) : pathLength(path));

/** Whether a piece has another purpose than its colour alone gives it. */
const isPurposeChosen = ({ colour, purpose }: Piece, { colours }: JobTraceSettings): boolean =>
  purpose !== (colours.find(({ hex }) => hex === colour)?.purpose ?? 'cut');

const outlinesMoved = ({ outer, holes }: Piece, move: Transform): Pick<Piece, 'outer' | 'holes'> => ({
  outer: transformedPath(outer, move),
  holes: holes.map((hole) => transformedPath(hole, move)),
});

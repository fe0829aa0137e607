/** Edits of the outlines that came with drawing files. */
import { z } from 'zod';
import { english, say } from '../../messages/index.ts';
import { transformedPath } from '../../plane/path.ts';
import { chain, shift, stretch } from '../../plane/transform.ts';
import { overallBox, sheetBoxOf } from '../measures.ts';
import { movedPiece } from '../piece-paths.ts';
import { type Drawing, drawingSchema, type Job, type Piece } from '../schema.ts';
import { text } from '../schema-parts.ts';
import { bandCount, mostBands, strokeOutlined } from '../stroke-outlines.ts';
import { CommandError, command } from './command-kind.ts';
import { gapMm } from './picture-commands.ts';

const drawingId = text(64);

export const drawingCommands = {
  'bring-in-drawing': command({ drawing: drawingSchema }, english.job.theOutlines, (job, { drawing }) => ({
    ...job,
    drawings: [...job.drawings, drawingBeside(job, drawing)],
  })),
  'take-out-drawing': command({ drawingId }, english.job.removingOutlines, (job, { drawingId: id }) => {
    drawingOf(job, id);
    return { ...job, drawings: job.drawings.filter((d) => d.id !== id) };
  }),
  'hide-drawing': command({ drawingId, hidden: z.boolean() }, english.job.showingOutlines, (job, { drawingId: id, hidden }) =>
    withDrawing(job, id, (drawing) => ({ ...drawing, hidden })),
  ),
  'take-line-outlines': command(
    /** Of these pieces; of all of the drawing where it names none. */
    { drawingId, pieceIds: z.array(text(64)).max(20_000).nullable() },
    english.job.theOutlinesOfLines,
    (job, { drawingId: id, pieceIds }) =>
      withDrawing(job, id, (drawing) => ({ ...drawing, pieces: outlinedStrokes(drawing.pieces, pieceIds) })),
  ),
  'set-drawing-unit': command(
    { drawingId, mmPerUnit: drawingSchema.shape.mmPerUnit },
    english.job.theUnitOfTheOutlines,
    (job, { drawingId: id, mmPerUnit }) =>
      withDrawing(job, id, (drawing) => {
        const { minX, minY } = overallBox(drawing.pieces) ?? { minX: 0, minY: 0 };
        const grow = chain(shift(minX, minY), chain(stretch(mmPerUnit / drawing.mmPerUnit), shift(-minX, -minY)));
        const scale = mmPerUnit / drawing.mmPerUnit;
        const resized = (piece: Piece): Piece => movedPiece(withStroke(piece, scale), (p) => transformedPath(p, grow));
        return { ...drawing, mmPerUnit, pieces: drawing.pieces.map(resized) };
      }),
  ),
};

function withStroke(piece: Piece, scale: number): Piece {
  const { strokeMm, strokeShape } = piece;
  if (!strokeMm || !strokeShape) return piece;
  return { ...piece, strokeMm: strokeMm * scale, strokeShape: { ...strokeShape, dashesMm: strokeShape.dashesMm.map((mm) => mm * scale) } };
}

function outlinedStrokes(pieces: readonly Piece[], pieceIds: readonly string[] | null): Piece[] {
  const wanted = new Set(pieceIds ?? pieces.map(({ id }) => id));
  const bands = pieces.reduce((sum, piece) => sum + (wanted.has(piece.id) ? bandCount(piece) : 0), 0);
  if (bands > mostBands) throw new CommandError('too-many', say.job.tooManyBands(mostBands));
  return pieces.flatMap((piece) => (wanted.has(piece.id) ? strokeOutlined(piece) : [piece]));
}

/** A further drawing comes to lie to the right of what is there. */
function drawingBeside(job: Job, drawing: Drawing): Drawing {
  if (job.pictures.length === 0 && job.drawings.length === 0) return drawing;
  const home = shift(sheetBoxOf(job).maxX + gapMm - (overallBox(drawing.pieces)?.minX ?? 0), 0);
  return { ...drawing, pieces: drawing.pieces.map((piece) => movedPiece(piece, (p) => transformedPath(p, home))) };
}

function drawingOf(job: Job, id: string): Drawing {
  const drawing = job.drawings.find((d) => d.id === id);
  if (!drawing) throw new CommandError('no-drawing', say.job.outlinesGone());
  return drawing;
}

function withDrawing(job: Job, id: string, change: (drawing: Drawing) => Drawing): Job {
  const before = drawingOf(job, id);
  return { ...job, drawings: job.drawings.map((d) => (d === before ? change(d) : d)) };
}

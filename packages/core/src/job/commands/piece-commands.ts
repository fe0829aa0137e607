/** Edits of traced pieces, and of what pieces are for. */
import { z } from 'zod';
import { english, say } from '../../messages/index.ts';
import type { Drawn } from '../drawn.ts';
import { purposes } from '../purposes.ts';
import { type Job, type Piece, pieceSchema, traceSchema } from '../schema.ts';
import { text } from '../schema-parts.ts';
import { touchedBy } from '../touched.ts';
import { amongOtherTraces, piecesOf, traceOf, withTraceOf } from '../tracing.ts';
import { mergeUserEdits } from '../user-edits.ts';
import { CommandError, command } from './command-kind.ts';
import { pictureId, pictureInJob } from './picture-commands.ts';

/** What a new trace is called in undo and redo. */
export const traceLabel = english.job.theTrace;

const pieceId = text(64);
const pieceIds = z.array(pieceId).min(1).max(20_000);
const outlines = { pieceId, outer: pieceSchema.shape.outer, holes: pieceSchema.shape.holes };

export const pieceCommands = {
  'set-trace': command({ trace: traceSchema }, traceLabel, (job, { trace }) => {
    pictureInJob(job, trace.pictureId);
    const before = traceOf(job, trace.pictureId);
    return withTraceOf(job, mergeUserEdits(amongOtherTraces(trace, job), before));
  }),
  'leave-out': command(
    { pieceIds, leftOut: z.boolean() },
    ({ leftOut }) => (leftOut ? english.job.excludingPieces : english.job.includingPieces),
    (job, { pieceIds: ids, leftOut }) => withPieces(job, ids, { leftOut }),
  ),
  'keep-only': command({ pieceIds }, english.job.keepingOnePiece, (job, { pieceIds: ids }) => {
    const wanted = new Set(ids);
    const trace = job.traces.find((t) => t.pieces.some((p) => wanted.has(p.id)));
    if (!trace) throw new CommandError('no-piece', say.job.piecesGone());
    return withTraceOf(job, { ...trace, pieces: trace.pieces.map((p) => ({ ...p, leftOut: !wanted.has(p.id) })) });
  }),
  'fill-hole': command({ pieceId, hole: z.int().min(0).max(20_000) }, english.job.fillingAHole, (job, { pieceId: id, hole }) =>
    withTracedPiece(job, id, (piece) => {
      if (hole >= piece.holes.length) throw new CommandError('no-piece', say.job.holeGone());
      return { ...piece, holes: piece.holes.filter((_, k) => k !== hole) };
    }),
  ),
  reshape: command(outlines, english.job.makingAPieceSymmetric, (job, { pieceId: id, outer, holes }) =>
    withTracedPiece(job, id, (piece) => ({ ...piece, outer, holes })),
  ),
  relate: command({ pieces: z.array(z.strictObject(outlines)).min(1).max(20_000) }, english.job.makingRelationsExact, (job, { pieces }) =>
    pieces.reduce((all, { pieceId: id, outer, holes }) => withTracedPiece(all, id, (piece) => ({ ...piece, outer, holes })), job),
  ),
  'add-piece': command({ pictureId, piece: pieceSchema }, english.job.aPieceAlongAnEdge, (job, { pictureId: id, piece }) => {
    const trace = traceOf(job, id);
    if (!trace) throw new CommandError('no-piece', say.job.traceFirst());
    if (piecesOf(job).some((p) => p.id === piece.id)) throw new CommandError('no-piece', say.job.pieceThereAlready());
    return withTraceOf(job, { ...trace, pieces: [...trace.pieces, { ...piece, byHand: true }] });
  }),
  'set-purpose': command({ pieceIds, purpose: z.enum(purposes) }, english.job.aPurpose, (job, { pieceIds: ids, purpose }) =>
    withPieces(job, ids, { purpose }),
  ),
};

function withTracedPiece(job: Job, id: string, change: (piece: Piece) => Piece): Job {
  const trace = job.traces.find((t) => t.pieces.some((p) => p.id === id));
  const piece = trace?.pieces.find((p) => p.id === id);
  if (!trace || !piece) throw new CommandError('no-piece', say.job.pieceGone());
  const after = change(piece);
  const changed = { ...after, edited: true, touched: touchedBy(piece, after) };
  return withTraceOf(job, { ...trace, pieces: trace.pieces.map((p) => (p === piece ? changed : p)) });
}

/** Pieces are named by their id wherever they lie: in the trace, in a drawing, or drawn by hand. */
export function withPieces(job: Job, ids: readonly string[], change: Partial<Pick<Piece, 'leftOut' | 'purpose'>>): Job {
  const wanted = new Set(ids);
  // All that follows from one drawn thing is of one kind.
  const own = new Set(ids.map((id) => id.split('/')[0] as string));
  const isThere = piecesOf(job).some((p) => wanted.has(p.id)) || job.drawn.some((d) => own.has(d.id));
  if (!isThere) throw new CommandError('no-piece', say.job.piecesGone());
  const changed = (pieces: readonly Piece[]) => pieces.map((p) => (wanted.has(p.id) ? { ...p, ...change } : p));
  return {
    ...job,
    traces: job.traces.map((t) => (t.pieces.some((p) => wanted.has(p.id)) ? { ...t, pieces: changed(t.pieces) } : t)),
    drawings: job.drawings.map((d) => (d.pieces.some((p) => wanted.has(p.id)) ? { ...d, pieces: changed(d.pieces) } : d)),
    drawn: job.drawn.some((d) => own.has(d.id)) ? job.drawn.map((d) => (own.has(d.id) ? withOnePurpose(d, change) : d)) : job.drawn,
  };
}

/** A purpose for the whole ends those of its single outlines. */
function withOnePurpose({ purposes, ...drawn }: Drawn, change: Partial<Pick<Piece, 'leftOut' | 'purpose'>>): Drawn {
  return { ...drawn, ...change, ...(purposes && !change.purpose ? { purposes } : {}) };
}

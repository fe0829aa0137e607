/**
 * Every edit of a job: plain data in, a new job out. Refused edits throw `CommandError` and change nothing.
 */
import { type Message, SaidError, say } from '../messages/index.ts';
import { type Path, transformedPath } from '../plane/path.ts';
import { distance } from '../plane/point.ts';
import { asProjection, chainProjections, inverseProjection, type Projection, projectedPath } from '../plane/projection.ts';
import { chain, inverse, shift, stretch, type Transform } from '../plane/transform.ts';
import { refuseUseless, TrueUpError } from '../trueup/index.ts';
import { withChoicesKept } from './choices.ts';
import type { Command } from './command-schema.ts';
import { type Drawn, isFollowable, redrawn } from './drawn.ts';
import { overallBox, sheetBoxOf, shownBoxOf } from './measures.ts';
import type { Drawing, Job, JobTrace, Picture, Piece } from './schema.ts';
import type { ProofWishes, Setup } from './setup.ts';
import { fitOf } from './sizing.ts';
import { touchedBy } from './touched.ts';
import { amongOtherTraces, piecesOf, traceOf, withTraceOf } from './tracing.ts';

export class CommandError extends SaidError {
  constructor(
    readonly code: 'no-picture' | 'no-mark' | 'no-piece' | 'no-drawing' | 'marks-coincide' | 'in-one-line' | 'locked' | 'too-many',
    message: Message,
  ) {
    super(message);
  }
}

/** The job after an edit. */
export function applyCommand(job: Job, command: Command): Job {
  switch (command.do) {
    case 'rename':
      return { ...job, name: command.name };
    case 'set-unit':
      return withMachine({ ...job, unit: command.unit }, job.setup.machine.unit === job.unit ? { unit: command.unit } : {});
    case 'set-making':
      return { ...job, making: command.making };
    case 'set-plan-scale':
      return { ...job, planScale: command.planScale };
    case 'bring-in':
      return { ...job, pictures: [...job.pictures, besideTheRest(job, command.picture)] };
    case 'take-out': {
      const picture = pictureOf(job, command.pictureId);
      const traces = job.traces.some((t) => t.pictureId === picture.id) ? job.traces.filter((t) => t.pictureId !== picture.id) : job.traces;
      return { ...job, pictures: job.pictures.filter((p) => p !== picture), traces };
    }
    case 'order-picture': {
      const moved = pictureOf(job, command.pictureId);
      const rest = job.pictures.filter((p) => p !== moved);
      return { ...job, pictures: [...rest.slice(0, command.to), moved, ...rest.slice(command.to)] };
    }
    case 'change-picture': {
      const changed = withPicture(job, command.pictureId, (picture) => {
        const isMoved = command.change.place !== undefined && !samePlain(command.change.place, picture.place);
        if (isMoved && picture.locked) throw new CommandError('locked', say.job.lockedToMove());
        return { ...picture, ...(command.change as Partial<Picture>) };
      });
      return command.change.datum === undefined ? changed : withDatumOfMachine(changed, command.change.datum !== null);
    }
    case 'add-mark':
      return withPicture(job, command.pictureId, (picture) => {
        if (picture.locked) throw new CommandError('locked', say.job.lockedToMark());
        return { ...picture, marks: [...picture.marks, command.mark] };
      });
    case 'move-mark':
      return withMark(job, command, (mark) => {
        if (mark.points.length !== command.points.length) throw new CommandError('no-mark', say.job.wrongNumberOfPoints());
        return { ...mark, points: command.points };
      });
    case 'state':
      return withMark(job, command, (mark) => {
        if (command.index >= mark.stated.length) throw new CommandError('no-mark', say.job.noSuchDimension());
        return { ...mark, stated: mark.stated.map((s, k) => (k === command.index ? { text: command.text, value: command.value } : s)) };
      });
    case 'set-way':
      return withMark(job, command, (mark) => ({ ...mark, way: command.way }));
    case 'remove-mark':
      return withMark(job, command, () => null);
    case 'bring-in-drawing':
      return { ...job, drawings: [...job.drawings, drawingBeside(job, command.drawing)] };
    case 'take-out-drawing':
      drawingOf(job, command.drawingId);
      return { ...job, drawings: job.drawings.filter((d) => d.id !== command.drawingId) };
    case 'hide-drawing':
      return withDrawing(job, command.drawingId, (drawing) => ({ ...drawing, hidden: command.hidden }));
    case 'set-drawing-unit':
      return withDrawing(job, command.drawingId, (drawing) => {
        const { minX, minY } = overallBox(drawing.pieces) ?? { minX: 0, minY: 0 };
        const grow = chain(shift(minX, minY), chain(stretch(command.mmPerUnit / drawing.mmPerUnit), shift(-minX, -minY)));
        return {
          ...drawing,
          mmPerUnit: command.mmPerUnit,
          pieces: drawing.pieces.map((piece) => movedPiece(piece, (p) => transformedPath(p, grow))),
        };
      });
    case 'set-trace': {
      pictureOf(job, command.trace.pictureId);
      const before = traceOf(job, command.trace.pictureId);
      return withTraceOf(job, withChoicesKept(amongOtherTraces(command.trace, job), before));
    }
    case 'leave-out':
      return withPieces(job, command.pieceIds, { leftOut: command.leftOut });
    case 'keep-only': {
      const wanted = new Set(command.pieceIds);
      const trace = job.traces.find((t) => t.pieces.some((p) => wanted.has(p.id)));
      if (!trace) throw new CommandError('no-piece', say.job.piecesGone());
      return withTraceOf(job, { ...trace, pieces: trace.pieces.map((p) => ({ ...p, leftOut: !wanted.has(p.id) })) });
    }
    case 'fill-hole':
      return withTracedPiece(job, command.pieceId, (piece) => {
        if (command.hole >= piece.holes.length) throw new CommandError('no-piece', say.job.holeGone());
        return { ...piece, holes: piece.holes.filter((_, k) => k !== command.hole) };
      });
    case 'reshape':
      return withTracedPiece(job, command.pieceId, (piece) => ({ ...piece, outer: command.outer, holes: command.holes }));
    case 'relate':
      return command.pieces.reduce(
        (all, { pieceId, outer, holes }) => withTracedPiece(all, pieceId, (piece) => ({ ...piece, outer, holes })),
        job,
      );
    case 'add-piece': {
      const trace = traceOf(job, command.pictureId);
      if (!trace) throw new CommandError('no-piece', say.job.traceFirst());
      if (piecesOf(job).some((p) => p.id === command.piece.id)) throw new CommandError('no-piece', say.job.pieceThereAlready());
      return withTraceOf(job, { ...trace, pieces: [...trace.pieces, { ...command.piece, byHand: true }] });
    }
    case 'draw':
      if (job.drawn.some((d) => d.id === command.drawn.id)) throw new CommandError('no-piece', say.job.drawnAlready());
      return followable({ ...job, drawn: [...job.drawn, command.drawn] });
    case 'redraw':
      return followable(withDrawn(job, command.drawnId, (drawn) => redrawn(drawn, command.source, job.making.thicknessMm)));
    case 'change-drawn':
      return followable(withDrawn(job, command.drawnId, (drawn) => ({ ...drawn, ...(command.change as Partial<Drawn>) })));
    case 'replace-drawn':
      return followable(withReplaced(job, command.ids, command.by));
    case 'set-purpose':
      return withPieces(job, command.pieceIds, { purpose: command.purpose });
    case 'prove-by':
      return { ...job, proof: { ...job.proof, ...(command.change as Partial<ProofWishes>) } };
    case 'set-up':
      return { ...job, setup: { ...job.setup, ...(command.change as Partial<Setup>) } };
  }
}

const withMachine = (job: Job, change: Partial<Job['setup']['machine']>): Job =>
  Object.keys(change).length === 0 ? job : { ...job, setup: { ...job.setup, machine: { ...job.setup.machine, ...change } } };

/** A datum that is set holds for files, too, unless another origin was chosen for them; taken off again, so is that. */
function withDatumOfMachine(job: Job, isSet: boolean): Job {
  const { origin } = job.setup.machine;
  if (isSet) return origin === 'lower-left' ? withMachine(job, { origin: 'sheet' }) : job;
  return origin === 'sheet' && job.pictures.every(({ datum }) => datum === null) ? withMachine(job, { origin: 'lower-left' }) : job;
}

/** @throws CommandError where more would follow than a job can hold */
function followable(job: Job): Job {
  if (!isFollowable(job.drawn)) throw new CommandError('too-many', say.job.tooManyFollow());
  return job;
}

/** Room between pictures that are laid side by side, mm. */
const gapMm = 10;

/** A further picture comes to lie to the right of those that are there. */
function besideTheRest(job: Job, picture: Picture): Picture {
  if (job.pictures.length === 0) return picture;
  const right = Math.max(...job.pictures.map((p) => shownBoxOf(p).maxX));
  return { ...picture, place: { x: right + gapMm, y: 0 } };
}

/** So does a drawing. */
function drawingBeside(job: Job, drawing: Drawing): Drawing {
  if (job.pictures.length === 0 && job.drawings.length === 0) return drawing;
  const home = shift(sheetBoxOf(job).maxX + gapMm - (overallBox(drawing.pieces)?.minX ?? 0), 0);
  return { ...drawing, pieces: drawing.pieces.map((piece) => movedPiece(piece, (p) => transformedPath(p, home))) };
}

function pictureOf(job: Job, id: string): Picture {
  const picture = job.pictures.find((p) => p.id === id);
  if (!picture) throw new CommandError('no-picture', say.job.pictureGone());
  return picture;
}

/** A picture changed; pieces traced from it move with its fit, so that they stay on their ink. */
function withPicture(job: Job, id: string, change: (picture: Picture) => Picture): Job {
  const before = pictureOf(job, id);
  const after = change(before);
  const changed = { ...job, pictures: job.pictures.map((p) => (p === before ? after : p)) };
  const trace = traceOf(job, id);
  const fit = checkedFit(after);
  if (!trace) return changed;
  const projection = fit.model === 'perspective' ? fit.projection : null;
  if (samePlain(trace.toSheet, fit.toSheet) && samePlain(trace.projection, projection)) return changed;
  const move = mover(trace, fit.toSheet, projection);
  return withTraceOf(changed, { ...trace, toSheet: fit.toSheet, projection, pieces: trace.pieces.map((piece) => movedPiece(piece, move)) });
}

/** From where a trace's paths lie to where the new fit puts them. */
function mover(trace: JobTrace, toSheet: Transform, projection: Projection | null): (path: Path) => Path {
  if (!projection && !trace.projection) {
    const move = chain(toSheet, inverse(trace.toSheet));
    return (path) => transformedPath(path, move);
  }
  const back = inverseProjection(trace.projection ?? asProjection(trace.toSheet));
  const move = chainProjections(projection ?? asProjection(toSheet), back);
  return (path) => projectedPath(path, move);
}

const movedPiece = (piece: Piece, move: (path: Path) => Path): Piece => ({
  ...piece,
  outer: move(piece.outer),
  holes: piece.holes.map(move),
});

/** The fit of a changed picture; marks that no fit can take are refused here, before they are in the job. */
function checkedFit(picture: Picture) {
  for (const { points, kind } of picture.marks) {
    const pairs = kind === 'box' ? [] : points.flatMap((p, k) => points.slice(k + 1).map((q) => [p, q] as const));
    if (pairs.some(([p, q]) => distance(p, q) < 1)) {
      throw new CommandError('marks-coincide', points.length === 2 ? say.job.endsCoincide() : say.job.marksCoincide());
    }
  }
  try {
    // Also those that still wait for what they state.
    picture.marks.forEach(refuseUseless);
    return fitOf(picture);
  } catch (error) {
    if (error instanceof TrueUpError) throw new CommandError(error.code, error);
    throw error;
  }
}

const samePlain = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

function withMark(
  job: Job,
  ids: { pictureId: string; markId: string },
  change: (mark: Picture['marks'][number]) => Picture['marks'][number] | null,
): Job {
  return withPicture(job, ids.pictureId, (picture) => {
    if (!picture.marks.some((m) => m.id === ids.markId)) throw new CommandError('no-mark', say.job.markGone());
    return { ...picture, marks: picture.marks.flatMap((m) => (m.id === ids.markId ? (change(m) ?? []) : m)) };
  });
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

function withTracedPiece(job: Job, id: string, change: (piece: Piece) => Piece): Job {
  const trace = job.traces.find((t) => t.pieces.some((p) => p.id === id));
  const piece = trace?.pieces.find((p) => p.id === id);
  if (!trace || !piece) throw new CommandError('no-piece', say.job.pieceGone());
  const after = change(piece);
  const changed = { ...after, edited: true, touched: touchedBy(piece, after) };
  return withTraceOf(job, { ...trace, pieces: trace.pieces.map((p) => (p === piece ? changed : p)) });
}

function withDrawn(job: Job, id: string, change: (drawn: Drawn) => Drawn): Job {
  const before = job.drawn.find((d) => d.id === id);
  if (!before) throw new CommandError('no-piece', say.job.drawingGone());
  return { ...job, drawn: job.drawn.map((d) => (d === before ? change(d) : d)) };
}

/** Drawn things give way, traced pieces and those of drawing files are left out; what is made of them comes where the first of them was. */
function withReplaced(job: Job, ids: readonly string[], by: readonly Drawn[]): Job {
  const gone = new Set(ids);
  const at = job.drawn.findIndex((d) => gone.has(d.id));
  const kept = job.drawn.filter((d) => !gone.has(d.id));
  const before = at < 0 ? kept.length : job.drawn.slice(0, at).filter((d) => !gone.has(d.id)).length;
  const others = piecesOf({ ...job, drawn: [] })
    .filter((p) => gone.has(p.id))
    .map((p) => p.id);
  if (at < 0 && others.length === 0 && ids.length > 0) throw new CommandError('no-piece', say.job.piecesGone());
  const rest = others.length > 0 ? withPieces(job, others, { leftOut: true }) : job;
  return { ...rest, drawn: [...kept.slice(0, before), ...by, ...kept.slice(before)] };
}

/** Pieces are named by their id wherever they lie: in the trace, in a drawing, or drawn by hand. */
function withPieces(job: Job, ids: readonly string[], change: Partial<Pick<Piece, 'leftOut' | 'purpose'>>): Job {
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

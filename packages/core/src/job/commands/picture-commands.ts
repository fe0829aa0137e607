/** Edits of pictures. Pieces traced from a picture move with its fit, so that they stay on their ink. */
import { z } from 'zod';
import { english, say } from '../../messages/index.ts';
import type { Path } from '../../plane/path.ts';
import { transformedPath } from '../../plane/path.ts';
import { distance } from '../../plane/point.ts';
import { asProjection, chainProjections, inverseProjection, type Projection, projectedPath } from '../../plane/projection.ts';
import { chain, inverse, type Transform } from '../../plane/transform.ts';
import { markKinds, refuseUseless, TrueUpError } from '../../trueup/index.ts';
import { shownBoxOf } from '../measures.ts';
import { movedPiece } from '../piece-paths.ts';
import { type Job, type JobTrace, type Picture, pictureSchema } from '../schema.ts';
import { fitOf } from '../sizing.ts';
import { traceOf, withTraceOf } from '../tracing.ts';
import { CommandError, command } from './command-kind.ts';
import { withMachines } from './job-commands.ts';

const changeWords: Partial<Record<keyof Picture, string>> = {
  name: english.job.thePicturesName,
  opacity: english.job.theOpacity,
  hidden: english.job.showingAPicture,
  locked: english.job.lockingAPicture,
  tone: english.job.theTone,
  quarterTurns: english.job.aQuarterTurn,
  flipped: english.job.aFlip,
  crop: english.job.theCrop,
  pinned: english.job.theModel,
  datum: english.job.theDatum,
  place: english.job.movingAPicture,
  resolution: english.job.theResolution,
};

export const pictureId = z.uuid();
const shape = pictureSchema.shape;

export const pictureCommands = {
  'bring-in': command({ picture: pictureSchema }, english.job.thePicture, (job, { picture }) => ({
    ...job,
    pictures: [...job.pictures, besideTheRest(job, picture)],
  })),
  'take-out': command({ pictureId }, english.job.removingAPicture, (job, { pictureId: id }) => {
    const picture = pictureInJob(job, id);
    const traces = job.traces.some((t) => t.pictureId === picture.id) ? job.traces.filter((t) => t.pictureId !== picture.id) : job.traces;
    return { ...job, pictures: job.pictures.filter((p) => p !== picture), traces };
  }),
  'order-picture': command({ pictureId, to: z.int().min(0).max(49) }, english.job.thePicturesOrder, (job, { pictureId: id, to }) => {
    const moved = pictureInJob(job, id);
    const rest = job.pictures.filter((p) => p !== moved);
    return { ...job, pictures: [...rest.slice(0, to), moved, ...rest.slice(to)] };
  }),
  'change-picture': command(
    {
      pictureId,
      change: z
        .strictObject({
          name: shape.name,
          opacity: shape.opacity,
          hidden: shape.hidden.unwrap(),
          locked: shape.locked.unwrap(),
          tone: shape.tone.unwrap(),
          quarterTurns: shape.quarterTurns.unwrap(),
          flipped: shape.flipped.unwrap(),
          crop: shape.crop.unwrap(),
          pinned: shape.pinned.unwrap(),
          datum: shape.datum.unwrap(),
          place: shape.place.unwrap(),
          resolution: shape.resolution,
        })
        .partial(),
    },
    ({ change }) => changeWords[Object.keys(change)[0] as keyof Picture] ?? english.job.thePicture,
    (job, { pictureId: id, change }) => {
      const changed = withPicture(job, id, (picture) => {
        const isMoved = change.place !== undefined && !samePlain(change.place, picture.place);
        if (isMoved && picture.locked) throw new CommandError('locked', say.job.lockedToMove());
        return { ...picture, ...(change as Partial<Picture>) };
      });
      return change.datum === undefined ? changed : withDatumOfMachines(changed, change.datum !== null);
    },
  ),
};

/** A datum that is set holds for files, too, unless another origin was chosen for them; taken off again, so is that. */
function withDatumOfMachines(job: Job, isSet: boolean): Job {
  const hasNone = job.pictures.every(({ datum }) => datum === null);
  return withMachines(job, ({ origin }) =>
    isSet ? (origin === 'lower-left' ? { origin: 'sheet' } : {}) : origin === 'sheet' && hasNone ? { origin: 'lower-left' } : {},
  );
}

/** Room between things that are laid side by side, mm. */
export const gapMm = 10;

/** A further picture comes to lie to the right of those that are there. */
function besideTheRest(job: Job, picture: Picture): Picture {
  if (job.pictures.length === 0) return picture;
  const right = Math.max(...job.pictures.map((p) => shownBoxOf(p).maxX));
  return { ...picture, place: { x: right + gapMm, y: 0 } };
}

export function pictureInJob(job: Job, id: string): Picture {
  const picture = job.pictures.find((p) => p.id === id);
  if (!picture) throw new CommandError('no-picture', say.job.pictureGone());
  return picture;
}

/** A picture changed; pieces traced from it move with its fit, so that they stay on their ink. */
export function withPicture(job: Job, id: string, change: (picture: Picture) => Picture): Job {
  const before = pictureInJob(job, id);
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

/** The fit of a changed picture; marks that no fit can take are refused here, before they are in the job. */
function checkedFit(picture: Picture) {
  for (const { points, kind } of picture.marks) {
    const pairs = markKinds[kind].mayCoincide ? [] : points.flatMap((p, k) => points.slice(k + 1).map((q) => [p, q] as const));
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

/** Edits of what is drawn by hand. */
import { z } from 'zod';
import { english, say } from '../../messages/index.ts';
import { type Drawn, drawnFields, drawnSchema, isFollowable, redrawn } from '../drawn.ts';
import type { Job } from '../schema.ts';
import { text } from '../schema-parts.ts';
import { piecesOf } from '../tracing.ts';
import { CommandError, command } from './command-kind.ts';
import { withPieces } from './piece-commands.ts';

const drawnId = text(64);
const fields = drawnFields.shape;

export const drawnCommands = {
  draw: command(
    { drawn: drawnSchema },
    ({ drawn }) => english.job.drawing(drawn.name),
    (job, { drawn }) => {
      if (job.drawn.some((d) => d.id === drawn.id)) throw new CommandError('no-piece', say.job.drawnAlready());
      return followable({ ...job, drawn: [...job.drawn, drawn] });
    },
  ),
  redraw: command({ drawnId, source: fields.source }, english.job.aChangeOfWhatIsDrawn, (job, { drawnId: id, source }) =>
    followable(withDrawn(job, id, (drawn) => redrawn(drawn, source, job.making.stock.thicknessMm))),
  ),
  'change-drawn': command(
    {
      drawnId,
      change: z
        .strictObject({
          name: fields.name,
          purpose: fields.purpose,
          purposes: fields.purposes.unwrap(),
          live: fields.live.unwrap(),
          held: fields.held.unwrap(),
        })
        .partial(),
    },
    ({ change }) => (change.live ? english.job.aLiveStep : change.held ? english.job.aLockedDimension : english.job.aNameOrPurpose),
    (job, { drawnId: id, change }) => followable(withDrawn(job, id, (drawn) => ({ ...drawn, ...(change as Partial<Drawn>) }))),
  ),
  /** Drawn things, and traced pieces, give way to others that were made of them; `word` is what undo calls it. */
  'replace-drawn': command(
    { word: text(140), ids: z.array(drawnId).max(5000), by: z.array(drawnSchema).max(5000) },
    ({ word }) => word,
    (job, { ids, by }) => followable(withReplaced(job, ids, by)),
  ),
};

/** @throws CommandError where more would follow than a job can hold */
function followable(job: Job): Job {
  if (!isFollowable(job.drawn)) throw new CommandError('too-many', say.job.tooManyFollow());
  return job;
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

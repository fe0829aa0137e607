/**
 * Every edit of a job: plain data in, a new job out. Refused edits throw `CommandError` and change nothing.
 */
import { z } from 'zod';
import { transformedPath } from '../plane/path.ts';
import { distance } from '../plane/point.ts';
import { chain, inverse } from '../plane/transform.ts';
import { withChoicesKept } from './choices.ts';
import { type Job, jobSchema, markSchema, type Picture, pictureSchema, pointSchema, purposes, traceSchema } from './schema.ts';
import { fitOf } from './sizing.ts';

const pictureId = z.uuid();
const markId = z.string().min(1).max(64);
const pieceIds = z.array(z.string().min(1).max(64)).min(1).max(20_000);

export const commandSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('rename'), name: jobSchema.shape.name }),
  z.strictObject({ do: z.literal('set-unit'), unit: jobSchema.shape.unit }),
  z.strictObject({ do: z.literal('set-making'), making: jobSchema.shape.making }),
  z.strictObject({ do: z.literal('bring-in'), picture: pictureSchema }),
  z.strictObject({ do: z.literal('set-opacity'), pictureId, opacity: pictureSchema.shape.opacity }),
  z.strictObject({ do: z.literal('add-mark'), pictureId, mark: markSchema }),
  z.strictObject({ do: z.literal('move-mark'), pictureId, markId, a: pointSchema, b: pointSchema }),
  z.strictObject({ do: z.literal('set-length'), pictureId, markId, text: z.string().max(200), mm: z.number().positive() }),
  z.strictObject({ do: z.literal('remove-mark'), pictureId, markId }),
  z.strictObject({ do: z.literal('set-trace'), trace: traceSchema }),
  z.strictObject({ do: z.literal('leave-out'), pieceIds, leftOut: z.boolean() }),
  z.strictObject({ do: z.literal('set-purpose'), pieceIds, purpose: z.enum(purposes) }),
]);
export type Command = z.infer<typeof commandSchema>;

export class CommandError extends Error {
  constructor(
    readonly code: 'no-picture' | 'no-mark' | 'no-piece' | 'marks-coincide',
    message: string,
  ) {
    super(message);
  }
}

/** What a new trace is called in undo and redo. */
export const traceLabel = 'the trace';

/** What an edit is called in undo and redo. */
export function labelOf(command: Command): string {
  switch (command.do) {
    case 'rename': return 'the name';
    case 'set-unit': return 'the unit';
    case 'set-making': return 'the way of making';
    case 'bring-in': return 'the picture';
    case 'set-opacity': return 'the opacity';
    case 'add-mark': return command.mark.kind === 'known-length' ? 'a known length' : command.mark.kind === 'check' ? 'a check measurement' : `a ${command.mark.kind} line`;
    case 'move-mark': return 'moving a mark';
    case 'set-length': return 'a typed length';
    case 'remove-mark': return 'taking a mark away';
    case 'set-trace': return traceLabel;
    case 'leave-out': return command.leftOut ? 'leaving out pieces' : 'taking pieces back in';
    case 'set-purpose': return 'a purpose';
  } // biome-ignore format: a command a line
}

/** The job after an edit. */
export function applyCommand(job: Job, command: Command): Job {
  switch (command.do) {
    case 'rename':
      return { ...job, name: command.name };
    case 'set-unit':
      return { ...job, unit: command.unit };
    case 'set-making':
      return { ...job, making: command.making };
    case 'bring-in':
      return { ...job, pictures: [command.picture], trace: null };
    case 'set-opacity':
      return withPicture(job, command.pictureId, (picture) => ({ ...picture, opacity: command.opacity }));
    case 'add-mark':
      refuseShort(command.mark);
      return withPicture(job, command.pictureId, (picture) => ({ ...picture, marks: [...picture.marks, command.mark] }));
    case 'move-mark':
      refuseShort(command);
      return withMark(job, command, (mark) => ({ ...mark, a: command.a, b: command.b }));
    case 'set-length':
      return withMark(job, command, (mark) => {
        if (mark.kind !== 'known-length') throw new CommandError('no-mark', 'Only a known length has a length to type.');
        return { ...mark, text: command.text, mm: command.mm };
      });
    case 'remove-mark':
      return withMark(job, command, () => null);
    case 'set-trace': {
      pictureOf(job, command.trace.pictureId);
      return { ...job, trace: withChoicesKept(command.trace, job.trace) };
    }
    case 'leave-out':
      return withPieces(job, command.pieceIds, { leftOut: command.leftOut });
    case 'set-purpose':
      return withPieces(job, command.pieceIds, { purpose: command.purpose });
  }
}

function refuseShort({ a, b }: { a: { x: number; y: number }; b: { x: number; y: number } }): void {
  if (distance(a, b) < 1) throw new CommandError('marks-coincide', 'The two ends lie on the same place. Put them farther apart.');
}

function pictureOf(job: Job, id: string): Picture {
  const picture = job.pictures.find((p) => p.id === id);
  if (!picture) throw new CommandError('no-picture', 'This picture is no longer in the job.');
  return picture;
}

/** A picture changed; pieces traced from it move with its fit, so that they stay on their ink. */
function withPicture(job: Job, id: string, change: (picture: Picture) => Picture): Job {
  const before = pictureOf(job, id);
  const after = change(before);
  const changed = { ...job, pictures: job.pictures.map((p) => (p === before ? after : p)) };
  const { trace } = job;
  const { toSheet } = fitOf(after);
  if (!trace || trace.pictureId !== id || sameTransform(trace.toSheet, toSheet)) return changed;
  const move = chain(toSheet, inverse(trace.toSheet));
  const pieces = trace.pieces.map((piece) => ({
    ...piece,
    outer: transformedPath(piece.outer, move),
    holes: piece.holes.map((hole) => transformedPath(hole, move)),
  }));
  return { ...changed, trace: { ...trace, toSheet, pieces } };
}

const sameTransform = (a: object, b: object): boolean => JSON.stringify(a) === JSON.stringify(b);

function withMark(
  job: Job,
  ids: { pictureId: string; markId: string },
  change: (mark: Picture['marks'][number]) => Picture['marks'][number] | null,
): Job {
  return withPicture(job, ids.pictureId, (picture) => {
    if (!picture.marks.some((m) => m.id === ids.markId)) throw new CommandError('no-mark', 'This mark is no longer there.');
    return { ...picture, marks: picture.marks.flatMap((m) => (m.id === ids.markId ? (change(m) ?? []) : m)) };
  });
}

function withPieces(job: Job, ids: readonly string[], change: Partial<NonNullable<Job['trace']>['pieces'][number]>): Job {
  const { trace } = job;
  const wanted = new Set(ids);
  if (!trace?.pieces.some((p) => wanted.has(p.id))) throw new CommandError('no-piece', 'These pieces are no longer there.');
  return { ...job, trace: { ...trace, pieces: trace.pieces.map((p) => (wanted.has(p.id) ? { ...p, ...change } : p)) } };
}

/**
 * In: a job. Out: its document, as it is kept, sent and downloaded: plain data in which pieces and drawn things stand by their
 * ids; and back. What has not changed since keeps its identity both ways, so that comparing two documents costs what differs.
 */
import { z } from 'zod';
import { english } from '../messages/index.ts';
import { drawnSchema, isFollowable, tooManyFollow } from './drawn.ts';
import { type Keyed, keyedBy, listOf } from './keyed.ts';
import { type Drawing, drawingSchema, type Job, type JobTrace, jobFields, type Piece, pieceSchema, traceSchema } from './schema.ts';

type WithPieceIds<T extends { pieces: readonly Piece[] }> = Omit<T, 'pieces'> & { readonly pieces: Keyed<Piece> };
export type JobDocument = Omit<Job, 'drawn' | 'traces' | 'drawings'> & {
  readonly drawn: Keyed<Job['drawn'][number]>;
  readonly traces: Keyed<WithPieceIds<JobTrace>>;
  readonly drawings: Keyed<WithPieceIds<Drawing>>;
};

const idOf = ({ id }: { readonly id: string }): string => id;

const withIds = new WeakMap<object, object>();
const withLists = new WeakMap<object, object>();

function byIds<T extends { readonly pieces: readonly Piece[] }>(one: T): WithPieceIds<T> {
  let made = withIds.get(one) as WithPieceIds<T> | undefined;
  if (!made) {
    made = { ...one, pieces: keyedBy(one.pieces, idOf) } as WithPieceIds<T>;
    withIds.set(one, made);
    withLists.set(made, one);
  }
  return made;
}

function inLists<T extends { readonly pieces: readonly Piece[] }>(one: WithPieceIds<T>): T {
  let made = withLists.get(one) as T | undefined;
  if (!made) {
    made = { ...one, pieces: listOf(one.pieces) } as unknown as T;
    withLists.set(one, made);
    withIds.set(made, one);
  }
  return made;
}

const documents = new WeakMap<Job, JobDocument>();
const jobs = new WeakMap<JobDocument, Job>();
const keyedParts = new WeakMap<readonly unknown[], Keyed<unknown>>();
const listedParts = new WeakMap<Keyed<unknown>, readonly unknown[]>();

/** Keeps both ways which list of parts stands for which keyed one. */
function partsById<A extends { readonly pieces: readonly Piece[] }>(
  list: readonly A[],
  partId: (one: A) => string,
): Keyed<WithPieceIds<A>> {
  let keyed = keyedParts.get(list) as Keyed<WithPieceIds<A>> | undefined;
  if (!keyed) {
    const ids = new Map(list.map((one) => [byIds(one) as unknown, partId(one)]));
    keyed = keyedBy(list.map(byIds), (one) => ids.get(one) as string);
    keyedParts.set(list, keyed);
    listedParts.set(keyed, list);
  }
  return keyed;
}

function partsInList<A extends { readonly pieces: readonly Piece[] }>(keyed: Keyed<WithPieceIds<A>>): A[] {
  let list = listedParts.get(keyed) as A[] | undefined;
  if (!list) {
    list = listOf(keyed).map((one) => inLists<A>(one));
    listedParts.set(keyed, list);
    keyedParts.set(list, keyed);
  }
  return list;
}

export function documentOf(job: Job): JobDocument {
  let made = documents.get(job);
  if (!made) {
    made = {
      ...job,
      drawn: keyedBy(job.drawn, idOf),
      traces: partsById(job.traces, (trace) => trace.pictureId),
      drawings: partsById(job.drawings, idOf),
    };
    documents.set(job, made);
    jobs.set(made, job);
  }
  return made;
}

/** The job of a document that this module made, or that was made of such a one by patches. */
export function jobOfDocument(document: JobDocument): Job {
  let job = jobs.get(document);
  if (!job) {
    job = {
      ...document,
      drawn: listOf(document.drawn) as Job['drawn'],
      traces: partsInList<JobTrace>(document.traces),
      drawings: partsInList<Drawing>(document.drawings),
    };
    jobs.set(document, job);
    documents.set(job, document);
  }
  return job;
}

const isBound = ({ traces, drawings, drawn, pictures }: Job): boolean =>
  pictures.length <= 50 &&
  traces.length <= 50 &&
  drawings.length <= 20 &&
  drawn.length <= 5000 &&
  [...traces, ...drawings].every(({ pieces }) => pieces.length <= 20_000);

/**
 * Checks what differs between a valid job and one made of it, and nothing else.
 * @throws ZodError where the outcome is no valid job
 */
export function checkChange(before: Job, after: Job): void {
  if (before === after) return;
  for (const key of Object.keys(jobFields.shape) as (keyof Job)[]) {
    if (before[key] === after[key]) continue;
    if (key === 'drawn') {
      for (const one of changedOf(before.drawn, after.drawn)) drawnSchema.parse(one);
    } else if (key === 'traces') checkParts(before.traces, after.traces, traceSchema);
    else if (key === 'drawings') checkParts(before.drawings, after.drawings, drawingSchema);
    else jobFields.shape[key].parse(after[key]);
  }
  if (!isFollowable(after.drawn)) throw new z.ZodError([{ code: 'custom', path: ['drawn'], message: tooManyFollow, input: null }]);
  if (!isBound(after)) throw new z.ZodError([{ code: 'custom', path: [], message: english.job.jobTooLarge, input: null }]);
}

function changedOf<T>(before: readonly T[], after: readonly T[]): T[] {
  const known = new Set(before);
  return after.filter((one) => !known.has(one));
}

function checkParts<T extends { readonly pieces: readonly Piece[] }>(before: readonly T[], after: readonly T[], schema: z.ZodType): void {
  const known = new Set(before.flatMap(({ pieces }) => pieces));
  for (const part of changedOf(before, after)) {
    schema.parse({ ...part, pieces: [] });
    for (const piece of part.pieces) if (!known.has(piece)) pieceSchema.parse(piece);
  }
}

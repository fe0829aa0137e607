/**
 * The work that would block the server's one thread, each with what goes in and what comes out. It runs in a thread of its own.
 */
import { type JobDocument, jobSchema } from '@nuvet/core/job';
import { decodePicture } from '@nuvet/pictures';
import { jobDrawing } from '../job-drawing.ts';

export const tasks = {
  /** A picture's file, or its bytes, to its pixels. */
  bmp: async ({ source, name, channels }: { source: string | Uint8Array; name: string; channels: 3 | 4 }) =>
    decodePicture(typeof source === 'string' ? source : Buffer.from(source), 'bmp', name, 0, channels),
  /** A job's document to the small drawing in the list of jobs. */
  drawing: async (document: JobDocument) => jobDrawing(jobSchema.parse(document)),
} as const;

export type Task = keyof typeof tasks;
export type TaskInput<T extends Task> = Parameters<(typeof tasks)[T]>[0];
export type TaskOutput<T extends Task> = Awaited<ReturnType<(typeof tasks)[T]>>;

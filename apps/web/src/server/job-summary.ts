/**
 * In: a job. Out: what the list of jobs shows of it, kept beside the job so that the list need not read documents.
 */
import type { Job } from '@nuvet/core/job';
import type { Summary } from './models.ts';

export function summaryOf(job: Job): Summary {
  const { name, making, pictures, traces, drawn, drawings } = job;
  return {
    name,
    making,
    pictureId: pictures[0]?.id ?? null,
    pieces: traces.reduce((sum, { pieces }) => sum + pieces.length, 0) + drawn.length,
    hasOutlines: drawn.length > 0 || drawings.length > 0 || traces.length > 0,
  };
}

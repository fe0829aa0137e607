/**
 * In: a job. Out: what the list of jobs shows of it, kept beside the job so that the list need not read documents.
 */
import type { Job } from '@nuvet/core/job';
import type { Summary } from './models.ts';

export function summaryOf(job: Job): Summary {
  const { name, making, pictures, traces, drawn, drawings } = job;
  const copies = [making.stock.shelf, ...making.processes.map(({ machine }) => machine.shelf)];
  return {
    name,
    stock: making.stock.name,
    processes: making.processes.map(({ process }) => process),
    uses: [...new Set(copies.flatMap((copy) => copy?.id ?? []))],
    pictureId: pictures[0]?.id ?? null,
    pieces: traces.reduce((sum, { pieces }) => sum + pieces.length, 0) + drawn.length,
    hasOutlines: drawn.length > 0 || drawings.length > 0 || traces.length > 0,
  };
}

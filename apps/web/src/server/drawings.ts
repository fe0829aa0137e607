/**
 * The small drawings in the list of jobs: made once a revision, in a thread that is ended when it takes too long, and kept.
 */
import { documentOf } from '@nuvet/core/job';
import pLimit from 'p-limit';
import { owned, type Person } from './access.ts';
import { jobAt } from './job-saves.ts';
import { log } from './log.ts';
import { models } from './models.ts';
import { inThread } from './threads/threads.ts';

/** A drawing that takes longer is left blank. */
const deadlineMs = 5000;
const blank = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 320 240"></svg>';
const oneAtATime = pLimit(1);

/** @returns an SVG drawing @throws Problem 404 */
export async function drawingOf(person: Person, id: string): Promise<string> {
  const { JobRow, JobDrawingRow } = models();
  const row = owned(person, await JobRow.findByPk(id, { attributes: { exclude: ['document'] } }), 'job');
  const kept = await JobDrawingRow.findByPk(id);
  if (kept?.revision === row.revision) return kept.svg;
  const { job } = await jobAt(row);
  const svg = await oneAtATime(() => inThread('drawing', documentOf(job), deadlineMs)).catch((error: Error) => {
    log.warn({ job: id, message: error.message }, 'a drawing for the list was not made');
    return blank;
  });
  await JobDrawingRow.upsert({ jobId: id, revision: row.revision, svg });
  return svg;
}

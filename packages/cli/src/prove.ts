/**
 * In: a request. Out: a line for each finding and each note, or all as JSON; the exit code says whether there were findings.
 */
import { piecesToProve } from '@nuvet/core/job';
import { provedSizes } from '@nuvet/core/proof';
import type { Io, Outcome } from './io.ts';
import type { JobFile, JobFileRequest, readJobFile } from './job-file.ts';
import type { ProveRequest } from './making-arguments.ts';
import { proveSummary, reportText } from './report-schemas.ts';
import { inThread } from './task-thread.ts';

/** A job and its findings, read in a thread of its own. @throws UsageError */
export const jobFileIn = (io: Io, request: JobFileRequest, limitS: number | null): Promise<JobFile> =>
  inThread<typeof readJobFile>(
    io.bundle,
    'job',
    request,
    limitS,
    `${request.file}: holds more than can be read in ${limitS} s and 320 MB; --time-limit gives it longer`,
  );

export async function prove({ file, stock, thinnestMm, strokes, json, anyway, limitS }: ProveRequest, io: Io): Promise<Outcome> {
  const { job, findings, notes, hasLost } = await jobFileIn(io, { file, stock, thinnestMm, strokes }, limitS);
  const pieces = piecesToProve(job);
  const code = findings.length > 0 || (hasLost && !anyway) ? 1 : 0;
  if (json) {
    const sizes = provedSizes(pieces, job.proof.pinned).map(({ pinned, isMm, holds }) => ({
      name: pinned.name,
      mustBeMm: pinned.mm,
      toleranceMm: pinned.toleranceMm,
      isMm,
      holds,
    }));
    const told = findings.map(({ code, weight, message, pieceIds, places }) => ({ code, weight, message, pieceIds, places }));
    return { code, lines: [reportText(proveSummary, { job: job.name, pieces: pieces.length, findings: told, sizes, notes }).trimEnd()] };
  }
  const lines = findings.map(
    ({ weight, message, places: [at] }) => `${weight}: ${message}${at ? ` (at ${at.x.toFixed(1)}, ${at.y.toFixed(1)} mm)` : ''}`,
  );
  const good = `${file}: no problems, ${pieces.length} ${pieces.length === 1 ? 'piece' : 'pieces'}`;
  return { code, lines: [...(lines.length > 0 ? lines : [good]), ...notes.map((n) => `note: ${n}`)] };
}

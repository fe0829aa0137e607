/**
 * In: a request. Out: a line for each finding, or all as JSON; the command's exit code says whether there were any.
 */
import type { Job } from '@nuvet/core/job';
import { piecesToProve } from '@nuvet/core/make';
import { type Finding, faultsOf, findingsOf, limitsOf, provedSizes } from '@nuvet/core/proof';
import { jobOf } from './job-file.ts';
import type { ProveRequest } from './making-arguments.ts';

export const findingsIn = (job: Job): Finding[] => findingsOf(job, faultsOf(piecesToProve(job), limitsOf(job)));

export async function prove({ file, stock, thinnestMm, json }: ProveRequest): Promise<string[]> {
  const said = await jobOf(file, stock);
  const job: Job = thinnestMm === null ? said : { ...said, proof: { ...said.proof, thinnestMm } };
  const findings = findingsIn(job);
  if (findings.length > 0) process.exitCode = 1;
  if (json) {
    const sizes = provedSizes(piecesToProve(job), job.proof.pinned).map(({ pinned, isMm, holds }) => ({
      name: pinned.name,
      mustBeMm: pinned.mm,
      toleranceMm: pinned.toleranceMm,
      isMm,
      holds,
    }));
    return [JSON.stringify({ job: job.name, pieces: piecesToProve(job).length, findings: findings.map(({ code, weight, message, pieceIds, places }) => ({ code, weight, message, pieceIds, places })), sizes }, null, 2)]; // biome-ignore format: one line
  }
  if (findings.length === 0) return [`${file}: nothing to mend, ${piecesToProve(job).length} pieces`];
  return findings.map(
    ({ weight, message, places: [at] }) => `${weight}: ${message}${at ? ` (at ${at.x.toFixed(1)}, ${at.y.toFixed(1)} mm)` : ''}`,
  );
}

'use client';
/**
 * The proof sheet: gathers what it says and hands the page over.
 */
import { proofRows } from '@nuvet/core/formats';
import { measuresOf } from '@nuvet/core/job';
import { printMm } from '@nuvet/core/length';
import { fileName, piecesToProve } from '@nuvet/core/make';
import { type Finding, provedSizes } from '@nuvet/core/proof';
import { handOver } from '@/ui/hand-over';
import { words } from '@/words';
import { told } from '@/words/told';
import { maker } from '@/workers/making';
import { useJob } from '../job-store';
import { today } from '../make-ready/FilesPanel';
import { underlayFor } from '../make-ready/underlay';
import { waysOfMaking } from '../ways';

export function useProofSheet(findings: readonly Finding[], onMessage: (text: string) => void): () => Promise<void> {
  const job = useJob((s) => s.job);
  const revision = useJob((s) => s.revision);
  return async () => {
    const pieces = piecesToProve(job);
    const { stock, thicknessMm, way } = job.making;
    const date = today();
    try {
      const rows = proofRows(pieces.map((p) => ({ ...measuresOf(p), name: p.name, purpose: p.purpose })));
      const facts = {
        job: job.name,
        revision: revision(),
        date,
        material: [waysOfMaking[way], stock ?? words.prove.stockNotNamed, thicknessMm ? words.prove.millimetres(thicknessMm) : '']
          .filter(Boolean)
          .join(', '),
        rows,
        findings: findings.map((f) => told(f.said)),
        sizes: provedSizes(pieces, job.proof.pinned).map(({ pinned, isMm, holds }) => ({
          name: pinned.name,
          text: words.prove.sizeForSheet(
            isMm === null ? words.prove.gone : printMm(isMm),
            pinned.mm.toFixed(2),
            pinned.toleranceMm.toFixed(2),
          ),
          holds,
        })),
      };
      const bytes = await maker().proofSheet(pieces, facts, underlayFor(job));
      handOver(
        bytes,
        fileName(job.setup.fileNames, { job: job.name, what: 'proof', date, revision: revision() }, 'pdf'),
        'application/pdf',
      );
    } catch (error) {
      onMessage(words.prove.theProofSheetCouldNotBe((error as Error).message));
    }
  };
}

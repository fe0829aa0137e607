'use client';
/**
 * The proof sheet: gathers what it says and hands the page over.
 */
import { proofRows } from '@nuvet/core/formats';
import { measuresOf, piecesToProve } from '@nuvet/core/job';
import { printMm } from '@nuvet/core/length';
import { processesOf } from '@nuvet/core/processes';
import { type Finding, provedSizes } from '@nuvet/core/proof';
import { underlayFor } from '@/processes/underlay';
import { downloadFile } from '@/ui/download';
import { words } from '@/words';
import { told } from '@/words/told';
import { maker } from '@/workers/maker.client';
import { useJob } from '../../job/job-store';
import { nameFor, today } from '../make-ready/use-files';

export function useProofSheet(findings: readonly Finding[], onMessage: (text: string) => void): () => Promise<void> {
  const job = useJob((s) => s.job);
  const revision = useJob((s) => s.revision);
  return async () => {
    const pieces = piecesToProve(job);
    const { name, thicknessMm } = job.making.stock;
    const processes = processesOf(job).map(({ kind }) => kind.word);
    const date = today();
    try {
      const rows = proofRows(pieces.map((p) => ({ ...measuresOf(p), name: p.name, purpose: p.purpose })));
      const facts = {
        job: job.name,
        revision: revision(),
        date,
        material: [...processes, name ?? words.prove.stockNotNamed, thicknessMm ? words.prove.millimetres(thicknessMm) : '']
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
      downloadFile(bytes, nameFor(job, null, 'proof', revision(), 'pdf'), 'application/pdf');
    } catch (error) {
      onMessage(words.prove.theProofSheetCouldNotBe((error as Error).message));
    }
  };
}

/**
 * In: a job. Out: what should be looked at before it is made, in plain words.
 * Further checks (crossings, webs, slots against a tool) will be findings of the same shape.
 */
import { fitOf, type Job, keptPieces, type Piece } from '../job/index.ts';
import { distance } from '../plane/index.ts';
import { worstLeftOver } from '../trueup/index.ts';

export interface Finding {
  readonly code: 'no-picture' | 'size-unknown' | 'size-from-file' | 'marks-disagree' | 'no-pieces' | 'all-left-out' | 'open' | 'runs-off';
  /** `stops`: no file should be made; `look`: a person should look once. */
  readonly weight: 'stops' | 'look';
  readonly message: string;
  readonly pieceIds: readonly string[];
}

/** Marks that disagree by more than this are worth a look: a share of the length, common practice for hand marking. */
const disagreeShare = 0.005;

export function findingsOf(job: Job): Finding[] {
  const picture = job.pictures[0];
  if (!picture) return [found('no-picture', 'stops', 'There is no picture yet. Bring one in first.')];
  return [...sizeFindings(job), ...pieceFindings(job)];
}

const found = (code: Finding['code'], weight: Finding['weight'], message: string, pieces: readonly Piece[] = []): Finding => ({
  code,
  weight,
  message,
  pieceIds: pieces.map((p) => p.id),
});

function sizeFindings(job: Job): Finding[] {
  const fit = fitOf(job.pictures[0] as Job['pictures'][number]);
  if (fit.model === 'unsized')
    return [found('size-unknown', 'stops', 'The true size is not known. Mark a length that you know, under True up.')];
  const findings: Finding[] = [];
  if (fit.model === 'resolution') {
    findings.push(found('size-from-file', 'look', 'The size rests on the resolution in the file alone. Mark one known length to be sure.'));
  }
  const disagreeing = fit.leftOvers.filter((l) => l.kind === 'known-length' && Math.abs(l.offMm) > disagreeShare * l.statedMm);
  if (disagreeing.length > 0) {
    findings.push(
      found(
        'marks-disagree',
        'look',
        `The known lengths disagree by up to ${worstLeftOver(fit).toFixed(2)} mm. Check what was typed, under True up.`,
      ),
    );
  }
  return findings;
}

const isClosed = (path: Piece['outer']): boolean => path.closed && distance(path.segments.at(-1)?.to ?? path.start, path.start) < 1e-6;

function pieceFindings(job: Job): Finding[] {
  const all = job.trace?.pieces ?? [];
  const kept = keptPieces(job.trace);
  if (all.length === 0) return [found('no-pieces', 'stops', 'Nothing is traced yet. The Trace stage finds the outlines.')];
  if (kept.length === 0) return [found('all-left-out', 'stops', 'Every piece is left out. Take at least one back in, under Trace.')];
  const open = kept.filter(({ outer, holes }) => ![outer, ...holes].every(isClosed));
  const offEdge = kept.filter((p) => p.runsOff);
  return [
    ...(open.length > 0 ? [found('open', 'stops', `${named(open)} not closed.`, open)] : []),
    ...(offEdge.length > 0
      ? [found('runs-off', 'look', `${named(offEdge)} cut off by the picture's edge. Leave out what is only the rim of the scan.`, offEdge)]
      : []),
  ];
}

const named = (pieces: readonly Piece[]): string =>
  pieces.length === 1
    ? `${pieces[0]?.name} is`
    : `${pieces.length} pieces (${pieces
        .slice(0, 3)
        .map((p) => p.name)
        .join(', ')}${pieces.length > 3 ? ', …' : ''}) are`;

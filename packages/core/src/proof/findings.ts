/**
 * In: a job. Out: what should be looked at before it is made, in plain words.
 * Further checks (crossings, webs, slots against a tool) will be findings of the same shape.
 */
import { fitOf, type Job, keptPieces, type Piece, piecesOf } from '../job/index.ts';
import { distance } from '../plane/index.ts';
import type { TrueUpFit } from '../trueup/index.ts';

export interface Finding {
  readonly code:
    | 'no-picture'
    | 'size-unknown'
    | 'size-from-file'
    | 'marks-disagree'
    | 'unit-unknown'
    | 'no-pieces'
    | 'all-left-out'
    | 'open'
    | 'runs-off';
  /** `stops`: no file should be made; `look`: a person should look once. */
  readonly weight: 'stops' | 'look';
  readonly message: string;
  readonly pieceIds: readonly string[];
}

/** Marks that disagree by more than this are worth a look: a share of the length, common practice for hand marking. */
const disagreeShare = 0.005;

export function findingsOf(job: Job): Finding[] {
  if (job.pictures.length === 0 && job.drawings.length === 0 && job.drawn.length === 0)
    return [found('no-picture', 'stops', 'There is no picture yet. Bring one in first.')];
  const traced = job.pictures.find((p) => p.id === job.trace?.pictureId) ?? job.pictures[0];
  return [...(traced ? sizeFindings(fitOf(traced)) : []), ...drawingFindings(job), ...pieceFindings(job)];
}

const found = (code: Finding['code'], weight: Finding['weight'], message: string, pieces: readonly Piece[] = []): Finding => ({
  code,
  weight,
  message,
  pieceIds: pieces.map((p) => p.id),
});

function sizeFindings(fit: TrueUpFit): Finding[] {
  if (fit.model === 'unsized')
    return [found('size-unknown', 'stops', 'The true size is not known. Mark a length that you know, under True up.')];
  const findings: Finding[] = [];
  if (fit.model === 'resolution') {
    findings.push(found('size-from-file', 'look', 'The size rests on the resolution in the file alone. Mark one known length to be sure.'));
  }
  const disagreeing = fit.leftOvers.some((l) => l.isSetAside || l.parts.some((p) => Math.abs(p.offMm) > disagreeShare * p.statedMm));
  if (disagreeing || fit.suspects.length > 0) {
    const worst = Math.max(...fit.leftOvers.map((l) => Math.abs(l.offMm)));
    findings.push(
      found('marks-disagree', 'look', `The marks disagree by up to ${worst.toFixed(2)} mm. Check what was typed, under True up.`),
    );
  }
  return findings;
}

function drawingFindings(job: Job): Finding[] {
  return job.drawings
    .filter((d) => !d.hidden && !d.unitIsStated)
    .map((d) => found('unit-unknown', 'look', `“${d.name}” does not state its unit. Check its size under Bring in.`, d.pieces));
}

const mustClose: readonly Piece['purpose'][] = ['cut', 'pocket'];
const isClosed = (path: Piece['outer']): boolean => path.closed && distance(path.segments.at(-1)?.to ?? path.start, path.start) < 1e-6;

function pieceFindings(job: Job): Finding[] {
  const all = piecesOf(job);
  const kept = keptPieces(job);
  if (all.length === 0) return [found('no-pieces', 'stops', 'Nothing is traced yet. The Trace stage finds the outlines.')];
  if (kept.length === 0) return [found('all-left-out', 'stops', 'Every piece is left out. Take at least one back in, under Trace.')];
  // Lines to fold, stitch or draw along may well be open.
  const open = kept.filter(({ outer, holes, purpose }) => mustClose.includes(purpose) && ![outer, ...holes].every(isClosed));
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

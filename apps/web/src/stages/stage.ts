/**
 * The five stages, and what each says of itself in a few words.
 */
import { fitOf, type Job, keptPieces, type Piece } from '@nuvet/core/job';
import { processesOf } from '@nuvet/core/processes';
import { type Fault, findingsOf } from '@nuvet/core/proof';
import { type TrueUpFit, worstResidual } from '@nuvet/core/trueup';
import { words } from '@/words';

export const stages = ['bring-in', 'true-up', 'trace', 'prove', 'make-ready'] as const;
export type StageName = (typeof stages)[number];

export const stageWords: Record<StageName, string> = {
  'bring-in': words.job.bringIn,
  'true-up': words.job.trueUp,
  trace: words.job.trace,
  prove: words.job.prove,
  'make-ready': words.job.makeReady,
};

export type StageState = { readonly text: string; readonly status: 'open' | 'good' | 'look' };

/** @param activeId the picture that is worked on; @param isProving whether the outlines as they are now are still being checked */
export function stageStates(
  job: Job,
  activeId: string | null,
  faults: readonly Fault[] | null,
  isProving: boolean,
): Record<StageName, StageState> {
  const picture = job.pictures.find((p) => p.id === activeId) ?? job.pictures[0];
  const open = (text: string): StageState => ({ text, status: 'open' });
  if (!picture && job.drawings.length === 0 && job.drawn.length === 0)
    return { 'bring-in': open(words.job.noPictureYet), 'true-up': open(''), trace: open(''), prove: open(''), 'make-ready': open('') };
  const kept = keptPieces(job);
  const findings = findingsOf(job, faults ?? []);
  const stops = findings.some((f) => f.weight === 'stops');
  const pieces = `${kept.length} ${kept.length === 1 ? 'piece' : 'pieces'}`;
  return {
    'bring-in': picture || job.drawings.length > 0 ? { text: broughtIn(job), status: 'good' } : open(words.job.noPicture),
    'true-up': picture ? trueUpState(fitOf(picture)) : open(words.job.noPicture),
    trace: kept.length > 0 ? traceState(kept, pieces) : open(words.job.notTracedYet),
    prove: kept.length === 0 && stops ? open(words.job.notReady) : proveState(findings, isProving),
    'make-ready': stops || isProving ? open(words.job.waitingForChecks) : { text: processesInSentence(job), status: 'good' },
  };
}

/** The processes as they stand within a sentence: abbreviations keep their capitals. */
function processesInSentence(job: Job): string {
  const said = processesOf(job).map(({ kind: { word } }) => (/[A-Z]{2}|\d/.test(word) ? word : word.toLowerCase()));
  return said.join(', ') || words.job.noProcess;
}

/** What stands in the way first, then what should be looked at. */
function proveState(findings: readonly { weight: 'stops' | 'look' }[], isLooking: boolean): StageState {
  const stops = findings.filter((f) => f.weight === 'stops').length;
  const looks = findings.length - stops;
  const said = [stops > 0 ? words.job.toMend(stops) : '', looks > 0 ? words.job.toLookAt(looks) : ''].filter(Boolean).join(', ');
  if (isLooking) return { text: words.job.checking, status: 'open' };
  return said ? { text: said, status: 'look' } : { text: words.job.noProblems, status: 'good' };
}

function broughtIn({ pictures, drawings }: Job): string {
  const [only] = pictures;
  if (only && pictures.length === 1 && drawings.length === 0) return words.job.pixels(only.widthPx, only.heightPx);
  const parts = [
    pictures.length > 0 ? `${pictures.length} ${pictures.length === 1 ? 'picture' : 'pictures'}` : '',
    drawings.length > 0 ? `${drawings.length} ${drawings.length === 1 ? 'drawing' : 'drawings'}` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

function traceState(kept: readonly Piece[], pieces: string): StageState {
  const open = kept.filter((p) => !p.outer.closed).length;
  return { text: open > 0 ? words.job.piecesOpen(pieces, open) : words.job.piecesClosed(pieces), status: 'good' };
}

function trueUpState(fit: TrueUpFit): StageState {
  const scale = words.job.mmPerPx(fit.mmPerPx.toFixed(4));
  if (fit.model === 'unsized')
    return fit.unitMistakes.length > 0
      ? { text: words.job.marksDisagree, status: 'look' }
      : { text: words.job.sizeNotKnownYet, status: 'open' };
  if (fit.model === 'resolution') return { text: words.job.scaleFromFile(scale), status: 'look' };
  if (fit.unitMistakes.length > 0 || fit.outliers.length > 0) return { text: words.job.scaleMarksDisagree(scale), status: 'look' };
  // One length alone has nothing that it could disagree with.
  const lengths = fit.residuals.reduce((n, l) => n + l.parts.length, 0);
  return {
    text: lengths === 1 ? words.job.scaleByOneLength(scale) : words.job.scaleOffBy(scale, worstResidual(fit).toFixed(2)),
    status: 'good',
  };
}

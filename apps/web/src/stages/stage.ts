/**
 * The five stages, and what each says of itself in a few words.
 */
import { fitOf, type Job, keptPieces, type Piece } from '@nuvet/core/job';
import { type Fault, findingsOf } from '@nuvet/core/proof';
import { type TrueUpFit, worstLeftOver } from '@nuvet/core/trueup';

import { waysOfMaking } from './ways';

export const stages = ['bring-in', 'true-up', 'trace', 'prove', 'make-ready'] as const;
export type StageName = (typeof stages)[number];

export const stageWords: Record<StageName, string> = {
  'bring-in': 'Bring in',
  'true-up': 'True up',
  trace: 'Trace',
  prove: 'Prove',
  'make-ready': 'Make ready',
};

export type StageState = { readonly text: string; readonly mood: 'open' | 'good' | 'look' };

/** @param activeId the picture that is worked on; @param isProving whether the outlines as they are now are still being checked */
export function stageStates(
  job: Job,
  activeId: string | null,
  faults: readonly Fault[] | null,
  isProving: boolean,
): Record<StageName, StageState> {
  const picture = job.pictures.find((p) => p.id === activeId) ?? job.pictures[0];
  const open = (text: string): StageState => ({ text, mood: 'open' });
  if (!picture && job.drawings.length === 0 && job.drawn.length === 0)
    return { 'bring-in': open('no picture yet'), 'true-up': open(''), trace: open(''), prove: open(''), 'make-ready': open('') };
  const kept = keptPieces(job);
  const findings = findingsOf(job, faults ?? []);
  const stops = findings.some((f) => f.weight === 'stops');
  const pieces = `${kept.length} ${kept.length === 1 ? 'piece' : 'pieces'}`;
  return {
    'bring-in': picture || job.drawings.length > 0 ? { text: broughtIn(job), mood: 'good' } : open('no picture'),
    'true-up': picture ? trueUpState(fitOf(picture)) : open('no picture'),
    trace: kept.length > 0 ? traceState(kept, pieces) : open('not traced yet'),
    prove: kept.length === 0 && stops ? open('not ready') : proveState(findings, isProving),
    'make-ready': stops || isProving ? open('waiting for checks') : { text: wayInSentence(job), mood: 'good' },
  };
}

/** The process as it stands within a sentence: abbreviations keep their capitals. */
function wayInSentence({ making }: Job): string {
  const word = waysOfMaking[making.way];
  return /[A-Z]{2}|\d/.test(word) ? word : word.toLowerCase();
}

/** What stands in the way first, then what should be looked at. */
function proveState(findings: readonly { weight: 'stops' | 'look' }[], isLooking: boolean): StageState {
  const stops = findings.filter((f) => f.weight === 'stops').length;
  const looks = findings.length - stops;
  const said = [stops > 0 ? `${stops} to mend` : '', looks > 0 ? `${looks} to look at` : ''].filter(Boolean).join(', ');
  if (isLooking) return { text: 'checking', mood: 'open' };
  return said ? { text: said, mood: 'look' } : { text: 'no problems', mood: 'good' };
}

function broughtIn({ pictures, drawings }: Job): string {
  const [only] = pictures;
  if (only && pictures.length === 1 && drawings.length === 0) return `${only.widthPx} x ${only.heightPx} px`;
  const parts = [
    pictures.length > 0 ? `${pictures.length} ${pictures.length === 1 ? 'picture' : 'pictures'}` : '',
    drawings.length > 0 ? `${drawings.length} ${drawings.length === 1 ? 'drawing' : 'drawings'}` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

function traceState(kept: readonly Piece[], pieces: string): StageState {
  const open = kept.filter((p) => !p.outer.closed).length;
  return { text: open > 0 ? `${pieces}, ${open} open` : `${pieces}, all closed`, mood: 'good' };
}

function trueUpState(fit: TrueUpFit): StageState {
  const scale = `${fit.mmPerPx.toFixed(4)} mm per px`;
  if (fit.model === 'unsized')
    return fit.slips.length > 0 ? { text: 'marks disagree', mood: 'look' } : { text: 'size not known yet', mood: 'open' };
  if (fit.model === 'resolution') return { text: `${scale}, from the file`, mood: 'look' };
  if (fit.slips.length > 0 || fit.suspects.length > 0) return { text: `${scale}, marks disagree`, mood: 'look' };
  // One length alone has nothing that it could disagree with.
  const lengths = fit.leftOvers.reduce((n, l) => n + l.parts.length, 0);
  return { text: lengths === 1 ? `${scale}, by one length` : `${scale}, off by ${worstLeftOver(fit).toFixed(2)} mm at most`, mood: 'good' };
}

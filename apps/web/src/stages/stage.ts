/**
 * The five stages, and what each says of itself in a few words.
 */
import { fitOf, type Job, keptPieces } from '@nuvet/core/job';
import { findingsOf } from '@nuvet/core/proof';
import { type TrueUpFit, worstLeftOver } from '@nuvet/core/trueup';

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

export function stageStates(job: Job): Record<StageName, StageState> {
  const picture = job.pictures[0];
  const open = (text: string): StageState => ({ text, mood: 'open' });
  if (!picture)
    return { 'bring-in': open('no picture yet'), 'true-up': open(''), trace: open(''), prove: open(''), 'make-ready': open('') };
  const fit = fitOf(picture);
  const kept = keptPieces(job.trace);
  const findings = findingsOf(job);
  const stops = findings.some((f) => f.weight === 'stops');
  const pieces = `${kept.length} ${kept.length === 1 ? 'piece' : 'pieces'}`;
  return {
    'bring-in': { text: `${picture.widthPx} x ${picture.heightPx} px`, mood: 'good' },
    'true-up': trueUpState(fit),
    trace: kept.length > 0 ? { text: `${pieces}, all closed`, mood: 'good' } : open('not traced yet'),
    prove: stops
      ? open('not ready')
      : findings.length > 0
        ? { text: `${findings.length} to look at`, mood: 'look' }
        : { text: 'nothing to mend', mood: 'good' },
    'make-ready': stops ? open('waits for the proof') : { text: 'SVG and DXF', mood: 'good' },
  };
}

function trueUpState(fit: TrueUpFit): StageState {
  const scale = `${fit.mmPerPx.toFixed(4)} mm per px`;
  if (fit.model === 'unsized') return { text: 'size not known yet', mood: 'open' };
  if (fit.model === 'resolution') return { text: `${scale}, from the file`, mood: 'look' };
  // One length alone has nothing that it could disagree with.
  const lengths = fit.leftOvers.filter((l) => l.kind === 'known-length').length;
  return { text: lengths === 1 ? `${scale}, by one length` : `${scale}, off by ${worstLeftOver(fit).toFixed(2)} mm at most`, mood: 'good' };
}

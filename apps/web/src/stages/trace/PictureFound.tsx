'use client';
/**
 * What tracing found out about the picture and acted on unasked: light that falls off, dots of a print, the grain of pencil. Each is
 * told, and taken back in one click.
 */
import type { Job, JobTrace, JobTraceSettings } from '@nuvet/core/job';
import { printDecimalInches } from '@nuvet/core/length';
import { words } from '@/words';
import { Told } from './Told';

interface Props {
  readonly trace: JobTrace | null;
  readonly settings: JobTraceSettings;
  readonly unit: Job['unit'];
  readonly onChange: (settings: JobTraceSettings) => void;
}

export function PictureFound({ trace, settings, unit, onChange }: Props) {
  if (!trace || settings.colours.length > 0) return null;
  const { isUneven, dotPitchMm, isGrainy, threshold } = trace;
  return (
    <>
      {isUneven && settings.threshold === 'auto' && (
        <Told
          text={words.trace.lightFallsOff}
          action={words.trace.useOneThreshold}
          onClick={() => onChange({ ...settings, threshold: Math.round(threshold) })}
        />
      )}
      {dotPitchMm !== undefined && !settings.keepsTexture && (
        <Told
          text={words.trace.printedInDots(unit === 'mm' ? `${dotPitchMm.toFixed(2)} mm` : printDecimalInches(dotPitchMm))}
          action={words.trace.keepDots}
          onClick={() => onChange({ ...settings, keepsTexture: true })}
        />
      )}
      {isGrainy && !settings.keepsTexture && (
        <Told
          text={words.trace.grainSmoothed}
          action={words.trace.keepGrain}
          onClick={() => onChange({ ...settings, keepsTexture: true })}
        />
      )}
      {settings.keepsTexture && (
        <Told
          text={words.trace.textureIsTraced}
          action={words.trace.smoothTexture}
          onClick={() => onChange({ ...settings, keepsTexture: false })}
        />
      )}
    </>
  );
}

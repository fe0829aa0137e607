'use client';
/**
 * What tracing found out about the picture and acted on unasked: light that falls off, dots of a print, the grain of pencil. Each is told, and taken back in
 * one click.
 */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import type { Job, JobTrace, JobTraceSettings } from '@nuvet/core/job';
import { printDecimalInches } from '@nuvet/core/length';
import { words } from '@/words';

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
          action={words.trace.traceEveryDot}
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
          action={words.trace.smoothDots}
          onClick={() => onChange({ ...settings, keepsTexture: false })}
        />
      )}
    </>
  );
}

function Told({ text, action, onClick }: { text: string; action: string; onClick: () => void }) {
  return (
    <Alert
      severity="info"
      variant="outlined"
      action={
        <Button size="small" color="inherit" sx={{ whiteSpace: 'nowrap' }} onClick={onClick}>
          {action}
        </Button>
      }
    >
      {text}
    </Alert>
  );
}

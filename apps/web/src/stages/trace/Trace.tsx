'use client';
import RefreshOutlined from '@mui/icons-material/RefreshOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { defaultTraceSettings, fitOf, type Job, type JobTraceSettings, type Picture } from '@nuvet/core/job';
import { useCallback, useState } from 'react';
import { useTable } from '@/table/table-store';
import { useSurface } from '@/table/working-copies';
import { LengthField } from '@/ui/LengthField';
import { Docket, Section, ToolCard } from '../Docket';
import { useJob } from '../job-store';
import type { StageName } from '../stage';
import { PieceList } from './PieceList';
import { useAutomaticTrace } from './use-automatic-trace';

export function Trace({ picture, onStage }: { picture: Picture; onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [moving, setMoving] = useState<JobTraceSettings | null>(null);
  const settings = moving ?? job.trace?.settings ?? defaultTraceSettings;
  const surface = useSurface(picture);
  const { progress, message, stop, again } = useAutomaticTrace(picture, surface, settings, moving !== null, () => setMoving(null));
  const preview = useTable((s) => s.preview);
  const shown = preview ?? job.trace;
  const pieces = shown?.pieces ?? [];
  const kept = pieces.filter((p) => !p.leftOut);
  const leaveOut = useCallback((pieceIds: string[], leftOut: boolean) => run({ do: 'leave-out', pieceIds, leftOut }), [run]);
  const isEmpty = shown !== null && pieces.length === 0 && !progress;
  const isSized = fitOf(picture).model !== 'unsized';
  return (
    <Docket
      tray={
        <>
          <ToolCard icon={<RefreshOutlined />} word="Find again" explanation="Trace the picture anew with these settings" onClick={again} />
          <ToolCard
            icon={<VisibilityOutlined />}
            word="Take all in"
            explanation="Take back in what was left out"
            disabled={kept.length === pieces.length}
            onClick={() =>
              leaveOut(
                pieces.filter((p) => p.leftOut).map((p) => p.id),
                false,
              )
            }
          />
        </>
      }
      next={{ word: 'Next: prove', onClick: () => onStage('prove'), disabled: kept.length === 0 }}
    >
      {!isSized && (
        <Alert severity="warning" variant="outlined">
          The true size is not known yet, so that tolerance and sizes are only a guess.
        </Alert>
      )}
      <Settings settings={settings} found={shown?.threshold ?? null} unit={job.unit} onMove={setMoving} />
      {message || isEmpty ? (
        <Alert severity="warning">{message ?? 'No shape was found. Move the threshold, or lower the smallest size.'}</Alert>
      ) : progress ? (
        <Box role="status">
          <Typography variant="body2">{progress.word === 'reading' ? 'Reading the picture' : 'Finding outlines'} …</Typography>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
            <LinearProgress variant="determinate" value={progress.share * 100} sx={{ flex: 1 }} />
            <Button size="small" onClick={stop}>
              Stop
            </Button>
          </Box>
        </Box>
      ) : null}
      <PieceList job={job} pieces={pieces} dropped={shown?.dropped ?? 0} onLeaveOut={leaveOut} />
    </Docket>
  );
}

interface SettingsProps {
  readonly settings: JobTraceSettings;
  readonly found: number | null;
  readonly unit: Job['unit'];
  readonly onMove: (settings: JobTraceSettings) => void;
}

/** Sliders run evenly in the logarithm, so that fine settings have as much room as coarse ones. */
const toSlider = (mm: number) => Math.round(Math.log10(Math.max(0.01, mm)) * 100);
const fromSlider = (value: number) => Number((10 ** (value / 100)).toPrecision(2));

function Settings({ settings, found, unit, onMove }: SettingsProps) {
  const threshold = settings.threshold === 'auto' ? (found ?? 128) : settings.threshold;
  const lengths = [
    { key: 'toleranceMm', label: 'Tolerance', hint: 'closer … smoother', min: 0.01, max: 2 },
    { key: 'smallestMm', label: 'Smallest', hint: 'specks under this are left out', min: 0.1, max: 20 },
  ] as const;
  return (
    <Section title="What counts as ink">
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography variant="body2" color="textSecondary">
          Threshold {Math.round(threshold)}
        </Typography>
        <FormControlLabel
          label="automatic"
          labelPlacement="start"
          control={
            <Switch
              size="small"
              checked={settings.threshold === 'auto'}
              onChange={(_, on) => onMove({ ...settings, threshold: on ? 'auto' : Math.round(threshold) })}
            />
          }
        />
      </Box>
      <Slider
        aria-label="Threshold"
        size="small"
        min={1}
        max={254}
        value={threshold}
        onChange={(_, value) => onMove({ ...settings, threshold: value as number })}
      />
      {lengths.map(({ key, label, hint, min, max }) => (
        <Box key={key} sx={{ display: 'grid', gridTemplateColumns: '1fr 128px', columnGap: 2, alignItems: 'start', mt: 1 }}>
          <Box>
            <Typography variant="caption" color="textSecondary">
              {hint}
            </Typography>
            <Slider
              aria-label={label}
              size="small"
              min={toSlider(min)}
              max={toSlider(max)}
              value={toSlider(settings[key])}
              onChange={(_, value) => onMove({ ...settings, [key]: fromSlider(value as number) })}
            />
          </Box>
          <LengthField
            label={label}
            text={`${settings[key]} mm`}
            unit={unit}
            hint=" "
            onLength={(mm) => onMove({ ...settings, [key]: Math.min(10, Math.max(min, mm)) })}
          />
        </Box>
      ))}
    </Section>
  );
}

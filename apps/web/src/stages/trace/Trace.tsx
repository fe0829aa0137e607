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
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { defaultTraceSettings, fitOf, type Job, type JobTraceSettings, type Picture } from '@nuvet/core/job';
import type { Take } from '@nuvet/core/trace';
import { useCallback, useState } from 'react';
import { takeTool, useTable } from '@/table/table-store';
import { useSurface } from '@/table/working-copies';
import { LengthField } from '@/ui/LengthField';
import { Docket, Section, ToolCard } from '../Docket';
import { useJob } from '../job-store';
import type { StageName } from '../stage';
import { Closeness } from './Closeness';
import { PieceList, SelectedPiece } from './PieceList';
import { DrawnLineIcon, FilledShapeIcon, MiddlesIcon, ThisOneIcon } from './TakeIcons';
import { useAutomaticTrace } from './use-automatic-trace';

export function Trace({ picture, onStage }: { picture: Picture; onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [moving, setMoving] = useState<JobTraceSettings | null>(null);
  const settings = moving ?? job.trace?.settings ?? defaultTraceSettings;
  const surface = useSurface(picture);
  const { progress, message, stop, again } = useAutomaticTrace(picture, surface, settings, moving !== null, () => setMoving(null));
  const tool = useTable((s) => s.tool);
  const take = (what: Take) => setMoving({ ...settings, take: what });
  const preview = useTable((s) => s.preview);
  const shown = preview ?? job.trace;
  const pieces = shown?.pieces ?? [];
  const kept = pieces.filter((p) => !p.leftOut);
  const selectedId = useTable((s) => s.selectedPiece);
  const selected = pieces.find((p) => p.id === selectedId);
  const leaveOut = useCallback((pieceIds: string[], leftOut: boolean) => run({ do: 'leave-out', pieceIds, leftOut }), [run]);
  const isEmpty = shown !== null && pieces.length === 0 && !progress;
  const isSized = fitOf(picture).model !== 'unsized';
  return (
    <Docket
      tray={
        <>
          <ToolCard
            icon={<FilledShapeIcon isInHand={settings.take === 'shape'} />}
            word="Filled shape"
            explanation="The borders of inked areas; of a drawn line both its edges"
            isInHand={settings.take === 'shape'}
            onClick={() => take('shape')}
          />
          <ToolCard
            icon={<DrawnLineIcon isInHand={isDrawnLine(settings.take)} />}
            word="Drawn line"
            explanation="A closed pen line becomes one outline: along its outer edge, its middle, or its inner edge"
            isInHand={isDrawnLine(settings.take)}
            onClick={() => take('line-outer')}
          />
          <ToolCard
            icon={<MiddlesIcon isInHand={settings.take === 'network'} />}
            word="Middle of lines"
            explanation="Every line of a drawing becomes a path along its middle; dashes become creases"
            isInHand={settings.take === 'network'}
            onClick={() => take('network')}
          />
          <ToolCard
            icon={<ThisOneIcon isInHand={tool === 'this-one'} />}
            word="This one"
            explanation="Click what you want: the first click keeps that piece alone, further ones add; a click in a hole fills it"
            isInHand={tool === 'this-one'}
            onClick={() => takeTool(tool === 'this-one' ? null : 'this-one')}
          />
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
      {selected && <SelectedPiece piece={selected} unit={job.unit} />}
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
      {job.trace?.pictureId === picture.id && (
        <Closeness
          picture={picture}
          trace={job.trace}
          surface={surface}
          settings={settings}
          unit={job.unit}
          onTolerance={(toleranceMm) => setMoving({ ...settings, toleranceMm })}
        />
      )}
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
  const threshold = typeof settings.threshold === 'number' ? settings.threshold : (found ?? 128);
  const lengths = [
    { key: 'toleranceMm', label: 'Tolerance', hint: 'closer … smoother', min: 0.01, max: 2 },
    { key: 'smallestMm', label: 'Smallest', hint: 'specks under this are left out', min: 0.1, max: 20 },
  ] as const;
  return (
    <>
      {isDrawnLine(settings.take) && (
        <Section title="Which edge of the line">
          <Choice
            label="Which edge of the line"
            value={settings.take}
            of={[
              ['line-outer', 'Outer edge'],
              ['line-middle', 'Middle'],
              ['line-inner', 'Inner edge'],
            ]}
            onChoice={(take) => onMove({ ...settings, take })}
          />
        </Section>
      )}
      <Section title="What counts as ink">
        <Choice
          label="How ink is told"
          value={typeof settings.threshold === 'number' ? 'hand' : settings.threshold}
          of={[
            ['auto', 'Automatic'],
            ['local', 'Uneven light'],
            ['hand', 'By hand'],
          ]}
          onChoice={(way) => onMove({ ...settings, threshold: way === 'hand' ? Math.round(threshold) : way })}
        />
        {settings.threshold !== 'local' && (
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 128px', columnGap: 2, alignItems: 'center', mt: 1 }}>
            <Slider
              aria-label="Threshold"
              size="small"
              min={1}
              max={254}
              value={threshold}
              onChange={(_, value) => onMove({ ...settings, threshold: value as number })}
            />
            <Typography variant="body2" color="textSecondary">
              Threshold {Math.round(threshold)}
            </Typography>
          </Box>
        )}
        <FormControlLabel
          label="Light parts are meant"
          sx={{ ml: 0 }}
          control={<Switch size="small" checked={settings.inverted} onChange={(_, inverted) => onMove({ ...settings, inverted })} />}
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
    </>
  );
}

const isDrawnLine = (take: Take): boolean => take !== 'shape' && take !== 'network';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly of: readonly (readonly [T, string])[];
  readonly onChoice: (value: T) => void;
}

/** One of a few, side by side. */
function Choice<T extends string>({ label, value, of, onChoice }: ChoiceProps<T>) {
  return (
    <ToggleButtonGroup
      exclusive
      fullWidth
      size="small"
      aria-label={label}
      value={value}
      onChange={(_, chosen: T | null) => chosen && onChoice(chosen)}
    >
      {of.map(([key, word]) => (
        <ToggleButton key={key} value={key} sx={{ textTransform: 'none', lineHeight: 1.3 }}>
          {word}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}

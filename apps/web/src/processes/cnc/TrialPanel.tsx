'use client';
/** The trial run's controls, and what was measured: gouges, what stands, what the tools would run into. */
import PauseOutlined from '@mui/icons-material/PauseOutlined';
import PlayArrowOutlined from '@mui/icons-material/PlayArrowOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import type { MillingSettings, MillPlan } from '@nuvet/core/milling';
import { useJob } from '@/job/job-store';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { told } from '@/words/told';
import { inTime } from '../cut/cut-sections';
import type { PanelProps } from '../process-view';
import { TrialFindings } from './TrialFindings';
import { setTrial, useTrial } from './trial-store';
import { useTrialOf } from './use-trial';

const say = words.cnc;

/** How much faster than the machine it plays. */
const speeds = { 1: '1 x', 10: '10 x', 60: '60 x' } as const;

export function TrialPanel({ open }: PanelProps<MillingSettings, MillPlan>) {
  const { plan, notes, entry } = open;
  useTrialOf(plan, entry.machine);
  const { measured, measuring, whole } = useTrial();
  const failed = notes.filter(({ isFailure }) => isFailure);
  return (
    <>
      {failed.map(({ message, said }) => (
        <Alert key={message} severity="error" variant="outlined">
          {told(said)}
        </Alert>
      ))}
      {whole !== null && <Play whole={whole} />}
      <Section title={say.measured}>
        {measuring !== null && (
          <>
            <Typography variant="caption" color="textSecondary">
              {say.milling}
            </Typography>
            <LinearProgress variant="determinate" value={100 * measuring} aria-label={say.milling} />
          </>
        )}
        {measured && <TrialFindings {...measured} />}
      </Section>
    </>
  );
}

function Play({ whole }: { whole: number }) {
  const { seconds, isPlaying, speed, colourBy, sectionMm } = useTrial();
  const unit = useJob((s) => s.job.unit);
  const toggle = (): void => setTrial({ isPlaying: !isPlaying, ...(seconds >= whole && !isPlaying && { seconds: 0 }) });
  return (
    <Section title={say.time}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
        <IconButton aria-label={isPlaying ? say.pause : say.play} onClick={toggle} color="primary">
          {isPlaying ? <PauseOutlined /> : <PlayArrowOutlined />}
        </IconButton>
        <Slider
          aria-label={say.time}
          min={0}
          max={whole}
          step={whole / 500}
          value={Math.min(seconds, whole)}
          onChange={(_, value) => setTrial({ seconds: value as number, isPlaying: false })}
        />
      </Box>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        {say.timeOf(inTime(seconds), inTime(whole))}
      </Typography>
      <Box sx={{ display: 'grid', gap: 1.25 }}>
        <Row>
          <Pick
            label={say.playSpeed}
            value={String(speed)}
            words={speeds as Record<string, string>}
            onPick={(v) => setTrial({ speed: Number(v) })}
          />
          <Pick label={say.colourBy} value={colourBy} words={say.colourWords} onPick={(v) => setTrial({ colourBy: v })} />
        </Row>
        <Measure
          label={say.section}
          mm={sectionMm}
          unit={unit}
          placeholder={say.noSection}
          onMm={(mm) => setTrial({ sectionMm: mm })}
          onEmpty={() => setTrial({ sectionMm: null })}
        />
      </Box>
    </Section>
  );
}

'use client';
/**
 * The cutter: the program is sent to it, the sheet burns on the table, and the cut piece is measured against its outline.
 */
import PauseOutlined from '@mui/icons-material/PauseOutlined';
import PlayArrowOutlined from '@mui/icons-material/PlayArrowOutlined';
import StopOutlined from '@mui/icons-material/StopOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import type { Piece } from '@nuvet/core/job';
import type { CutMeasured } from '@nuvet/core/make';
import { strFromU8 } from 'fflate';
import { useEffect, useState } from 'react';
import { words } from '@/words';
import { maker } from '@/workers/making';
import { Reading, Section } from '../Docket';
import { useJob } from '../job-store';
import { Pick } from '../trace/hand/Rows';
import { inTime } from './CutPanel';
import { useCutter } from './use-cutter';
import { usePlanned } from './use-plan';

const moodWords = {
  away: words.makeReady.notConnected,
  idle: words.makeReady.waiting,
  running: words.makeReady.cutting,
  pausing: words.makeReady.slowingDown,
  paused: words.makeReady.paused,
  alarm: words.makeReady.standsWithAnAlarm,
  done: words.makeReady.done,
  stopped: words.makeReady.stopped,
} as const;

const factors = {
  1: words.makeReady.asSlowAsARealOne,
  10: words.makeReady.n10TimesAsFast,
  100: words.makeReady.n100TimesAsFast,
  1000: words.makeReady.n1000TimesAsFast,
} as const;

export function CutterPanel({
  pieces,
  jobId,
  hasCutter,
  isStopped,
}: {
  pieces: readonly Piece[];
  jobId: string;
  hasCutter: boolean;
  isStopped: boolean;
}) {
  const job = useJob((s) => s.job);
  const { plan } = usePlanned();
  const { seen, message, isBusy, stretches, start, pause, resume, stop } = useCutter(jobId, job.setup.machine, plan);
  const [factor, setFactor] = useState<keyof typeof factors>(100);
  const [measured, setMeasured] = useState<CutMeasured | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const mood = seen?.mood ?? 'idle';
  const isUnderWay = ['running', 'pausing', 'paused'].includes(mood);
  const isCut = mood === 'done' && seen?.isWhole === true;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once the program has ended, what was burnt is complete
  useEffect(() => {
    setMeasured(null);
    if (!isCut || !plan) return;
    let isWanted = true;
    void maker()
      .measured(pieces, job.setup, plan, stretches)
      .then((found) => isWanted && setMeasured(found));
    return () => {
      isWanted = false;
    };
  }, [isCut, plan]);
  const send = async () => {
    if (!plan) return;
    setFault(null);
    try {
      const { bytes } = await maker().file('gcode', pieces, job.setup, plan, job.name, 600);
      await start(strFromU8(bytes), factor);
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  if (!hasCutter)
    return (
      <Alert severity="info" variant="outlined">
        {words.makeReady.noCutterIsConnectedToThis}
      </Alert>
    );
  return (
    <>
      <Section title={words.makeReady.theCutter}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.25 }}>
          {words.makeReady.aStandInThatCutsA}
        </Typography>
        <Pick
          label={words.makeReady.runs}
          value={String(factor) as `${keyof typeof factors}`}
          words={factors}
          onPick={(value) => setFactor(Number(value) as keyof typeof factors)}
        />
        {plan && (
          <Box sx={{ mt: 1 }}>
            <Reading name={words.makeReady.aRealOneWouldTakeAbout}>
              {inTime(plan.travelSeconds + plan.purposes.reduce((sum, p) => sum + p.seconds, 0))}
            </Reading>
          </Box>
        )}
        <Box sx={{ display: 'grid', gap: 1, mt: 1 }}>
          {!isUnderWay ? (
            <Button
              variant="contained"
              size="large"
              startIcon={<PlayArrowOutlined />}
              disabled={isStopped || !plan || plan.runs.length === 0}
              onClick={() => void send()}
            >
              {words.makeReady.cutIt}
            </Button>
          ) : (
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
              {mood === 'paused' || mood === 'pausing' ? (
                <Button variant="contained" startIcon={<PlayArrowOutlined />} onClick={() => void resume()}>
                  {words.makeReady.resume}
                </Button>
              ) : (
                <Button variant="outlined" startIcon={<PauseOutlined />} onClick={() => void pause()}>
                  {words.makeReady.pause}
                </Button>
              )}
              <Button variant="outlined" color="error" startIcon={<StopOutlined />} onClick={() => void stop()}>
                {words.makeReady.stop}
              </Button>
            </Box>
          )}
        </Box>
      </Section>
      {seen && (
        <Section title={words.makeReady.onTheSheet}>
          <Box role="status" aria-label={words.makeReady.theCutter}>
            <Reading name={moodWords[mood]}>{words.makeReady.lineOf(seen.line, seen.lines)}</Reading>
          </Box>
          <LinearProgress
            variant="determinate"
            value={mood === 'done' ? 100 : (100 * seen.line) / Math.max(1, seen.lines)}
            aria-label={words.makeReady.shareCut}
            sx={{ my: 0.75 }}
          />
          {seen.message && (
            <Alert severity={mood === 'stopped' ? 'info' : 'error'} variant="outlined">
              {seen.message}
            </Alert>
          )}
        </Section>
      )}
      {measured && (
        <Section title={words.makeReady.theCutPieceMeasured}>
          <Reading name={words.makeReady.largestDeviation}>{words.makeReady.deviation(measured.largestMm.toFixed(3))}</Reading>
          <Typography variant="caption" color="textSecondary">
            {words.makeReady.measuredFromPath((100 * measured.share).toFixed(0))}
          </Typography>
        </Section>
      )}
      {(message ?? fault) && (
        <Alert
          severity="error"
          variant="outlined"
          action={
            isBusy && (
              <Button color="error" size="small" onClick={() => void stop()}>
                {words.makeReady.stopTheCutter}
              </Button>
            )
          }
        >
          {message ?? fault}
        </Alert>
      )}
    </>
  );
}

'use client';
/**
 * A machine at work: how fast it runs, beginning, pausing and stopping, and where it is. What it cuts is drawn on the table.
 */
import PauseOutlined from '@mui/icons-material/PauseOutlined';
import PlayArrowOutlined from '@mui/icons-material/PlayArrowOutlined';
import StopOutlined from '@mui/icons-material/StopOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import type { StandInJob } from '@nuvet/core/processes';
import { type ReactNode, useState } from 'react';
import type { MachineStatus } from '@/shared/machine-seen';
import { Pick } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { inTime } from '../cut/cut-sections';
import type { useCutter } from './use-cutter';

const statusWords: Readonly<Record<MachineStatus, string>> = {
  away: words.makeReady.notConnected,
  idle: words.makeReady.waiting,
  running: words.makeReady.cutting,
  pausing: words.makeReady.slowingDown,
  paused: words.makeReady.paused,
  waiting: words.makeReady.waitsForYou,
  alarm: words.makeReady.standsWithAnAlarm,
  done: words.makeReady.done,
  stopped: words.makeReady.stopped,
};

const factors = {
  1: words.makeReady.asSlowAsARealOne,
  10: words.makeReady.n10TimesAsFast,
  100: words.makeReady.n100TimesAsFast,
  1000: words.makeReady.n1000TimesAsFast,
} as const;

interface Props {
  readonly title: string;
  readonly about: string;
  readonly begin: string;
  /** What it does while it runs, where it does not cut. */
  readonly atWork?: string;
  /** What it works on, as a heading. */
  readonly onWhat: string;
  readonly seconds: number | null;
  readonly canBegin: boolean;
  readonly cutter: ReturnType<typeof useCutter>;
  /** What is sent to it. @throws Error with why there is nothing to send */
  readonly job: () => Promise<StandInJob>;
  /** What is set before it begins, and told once it has. */
  readonly onBegun?: () => void;
  /** What can be set while it runs. */
  readonly children?: ReactNode;
}

export function MachineRun({ title, about, begin, atWork, onWhat, seconds, canBegin, cutter, job, onBegun, children }: Props) {
  const { seen, message, isBusy, start, stop } = cutter;
  const [factor, setFactor] = useState<keyof typeof factors>(100);
  const [fault, setFault] = useState<string | null>(null);
  const [isMaking, setIsMaking] = useState(false);
  const status = seen?.status ?? 'idle';
  const isUnderWay = ['running', 'pausing', 'paused', 'waiting'].includes(status);
  const send = async () => {
    setFault(null);
    setIsMaking(true);
    try {
      if (await start(await job(), factor)) onBegun?.();
    } catch (error) {
      setFault((error as Error).message);
    }
    setIsMaking(false);
  };
  return (
    <>
      <Section title={title}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.25 }}>
          {about}
        </Typography>
        <Pick
          label={words.makeReady.runs}
          value={String(factor) as `${keyof typeof factors}`}
          words={factors}
          onPick={(value) => setFactor(Number(value) as keyof typeof factors)}
        />
        {seconds !== null && (
          <Box sx={{ mt: 1 }}>
            <Reading name={words.makeReady.aRealOneWouldTakeAbout}>{inTime(seconds)}</Reading>
          </Box>
        )}
        {children}
        <Box sx={{ display: 'grid', gap: 1, mt: 1 }}>
          {isUnderWay ? (
            <UnderWay status={status} cutter={cutter} />
          ) : (
            <Button
              variant="contained"
              size="large"
              startIcon={<PlayArrowOutlined />}
              disabled={!canBegin || isMaking}
              onClick={() => void send()}
            >
              {begin}
            </Button>
          )}
        </Box>
      </Section>
      {seen && <Seen title={title} onWhat={onWhat} atWork={atWork} seen={seen} />}
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

function UnderWay({
  status,
  cutter: { pause, resume, stop, acknowledge, isAnswered },
}: {
  status: MachineStatus;
  cutter: Props['cutter'];
}) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
      {status === 'waiting' ? (
        <Button variant="contained" startIcon={<PlayArrowOutlined />} disabled={isAnswered} onClick={() => void acknowledge()}>
          {words.makeReady.itIsIn}
        </Button>
      ) : status === 'paused' || status === 'pausing' ? (
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
  );
}

function Seen({
  title,
  onWhat,
  atWork,
  seen,
}: Pick<Props, 'title' | 'onWhat' | 'atWork'> & { seen: NonNullable<Props['cutter']['seen']> }) {
  const { status, line, lines, program, programs, tool, spindleRpm, z: height, message } = seen;
  return (
    <Section title={onWhat}>
      <Box role="status" aria-label={title}>
        <Reading name={(status === 'running' && atWork) || statusWords[status]}>{words.makeReady.lineOf(line, lines)}</Reading>
        {programs > 1 && <Reading name={words.makeReady.program}>{words.makeReady.programOf(program + 1, programs)}</Reading>}
        {tool && <Reading name={words.makeReady.toolThatIsIn}>{tool}</Reading>}
        {height !== null && (
          <Reading name={words.makeReady.spindleAndHeight}>{words.makeReady.turnsAndHeight(spindleRpm, height.toFixed(2))}</Reading>
        )}
      </Box>
      <LinearProgress
        variant="determinate"
        value={status === 'done' ? 100 : (100 * (program + line / Math.max(1, lines))) / Math.max(1, programs)}
        aria-label={words.makeReady.shareCut}
        sx={{ my: 0.75 }}
      />
      {message && (
        <Alert severity={status === 'stopped' || status === 'waiting' ? 'info' : 'error'} variant="outlined">
          {message}
        </Alert>
      )}
    </Section>
  );
}

'use client';
/** Of a CNC process what its trial run finds, in Prove; a click on a place opens the trial there. */
import Alert from '@mui/material/Alert';
import LinearProgress from '@mui/material/LinearProgress';
import { workOf } from '@nuvet/core/processes';
import { proxy } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { useJob } from '@/job/job-store';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { told, toldError } from '@/words/told';
import { maker } from '@/workers/maker.client';
import type { TrialOfPlan } from '@/workers/maker.worker';
import type { ProofProps } from '../process-view';
import { TrialFindings } from './TrialFindings';

const say = words.cnc;

export function TrialProof({ process, pieces, onShow }: ProofProps) {
  const { entry, kind } = process;
  const { name, making, pictures, traces, planScale } = useJob((s) => s.job);
  const work = useMemo(
    () => workOf(process, { name, making, pictures, traces, planScale }, pieces),
    [process, name, making, pictures, traces, planScale, pieces],
  );
  const [found, setFound] = useState<TrialOfPlan | null>(null);
  const [share, setShare] = useState<number | null>(0);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    let isWanted = true;
    setShare(0);
    setFault(null);
    const timer = setTimeout(() => {
      void maker()
        .trialOf(
          entry.id,
          entry.process,
          work,
          proxy((done: number) => isWanted && setShare(done)),
        )
        .then((made) => {
          if (!isWanted || !made) return;
          setFound(made);
          setShare(null);
        })
        .catch((error) => {
          if (!isWanted) return;
          setFault(toldError(error));
          setShare(null);
        });
    }, pauseMs);
    return () => {
      isWanted = false;
      clearTimeout(timer);
      void maker().stopTrialOf(entry.id);
    };
  }, [entry.id, entry.process, work]);
  return (
    <Section title={say.trialOf(kind.word)}>
      {share !== null && <LinearProgress variant="determinate" value={100 * share} aria-label={say.milling} sx={{ my: 1 }} />}
      {fault && (
        <Alert severity="error" variant="outlined">
          {fault}
        </Alert>
      )}
      {share === null &&
        found?.failures.map(({ message, said }) => (
          <Alert key={message} severity="error" variant="outlined" sx={{ my: 0.5 }}>
            {told(said)}
          </Alert>
        ))}
      {share === null && found?.measured && <TrialFindings {...found.measured} onShow={() => onShow('trial')} />}
    </Section>
  );
}

/** Edits that follow one another closely are tried once. */
const pauseMs = 400;

'use client';
/**
 * The job's other pictures: each keeps a trace of its own; all of them can be traced with the settings of this one.
 */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { fitOf, type JobTraceSettings, type Picture, traceOf } from '@nuvet/core/job';
import { useState } from 'react';
import { rasterNow } from '@/table/rectified-images';
import { setTable } from '@/table/table-store';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { heard, tracer } from '@/workers/tracer.client';
import { useJob } from '../../job/job-store';

export function OtherPictures({ picture, settings }: { picture: Picture; settings: JobTraceSettings }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [share, setShare] = useState<number | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const others = job.pictures.filter((p) => p.id !== picture.id && !p.hidden);
  if (others.length === 0) return null;
  const traceAll = async () => {
    const left: string[] = [];
    setMessage(null);
    for (const [k, other] of others.entries()) {
      setShare(k / others.length);
      const raster = rasterNow(other, false);
      // Under perspective the picture is rectified first, which opening it does.
      if (fitOf(other).model === 'perspective' && !raster.toOriginal) {
        left.push(other.name);
        continue;
      }
      const found = await tracer()
        .trace(
          other,
          raster,
          { ...settings, within: null },
          heard(() => {}),
        )
        .catch(() => null);
      if (found) run({ do: 'set-trace', trace: found });
      else left.push(other.name);
    }
    setShare(null);
    if (left.length > 0) setMessage(words.trace.notTraced(left.join(', ')));
  };
  return (
    <Section title={words.trace.otherPictures}>
      {others.map((other) => (
        <Reading key={other.id} name={other.name}>
          <Button size="small" onClick={() => setTable({ activeId: other.id })}>
            {piecesOf(traceOf(job, other.id)?.pieces.length)}
          </Button>
        </Reading>
      ))}
      {share === null ? (
        <Button size="small" variant="outlined" fullWidth onClick={() => void traceAll()}>
          {words.trace.traceAllPicturesWithTheseSettings}
        </Button>
      ) : (
        <>
          <Typography variant="body2" role="status">
            {words.trace.tracingTheOtherPictures}
          </Typography>
          <LinearProgress aria-label={words.trace.shareOfPicturesTraced} variant="determinate" value={100 * share} />
        </>
      )}
      {message && (
        <Alert severity="warning" variant="outlined" sx={{ mt: 1 }}>
          {message}
        </Alert>
      )}
    </Section>
  );
}

const piecesOf = (count: number | undefined): string =>
  count === undefined ? words.trace.traceIt : `${count} ${count === 1 ? 'piece' : 'pieces'}`;

'use client';
/**
 * How far the chosen outlines, or all of them, lie from the picture's edge: coloured on the table, the largest named.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { defaultTraceSettings, type Picture, piecesOf } from '@nuvet/core/job';
import { useEffect, useMemo, useState } from 'react';
import { useHand } from '@/table/hand-store';
import { rasterNow } from '@/table/rectified-images';
import { setTable, useTable } from '@/table/table-store';
import { boxInView } from '@/table/view';
import { words } from '@/words';
import { tracer } from '@/workers/tracer.client';
import type { DeviationSeen } from '@/workers/tracer.worker';
import { useJob } from '../../../job/job-store';

/** Outlines that change are measured once they have rested, ms. */
const restMs = 250;
/** What is shown about the worst place, mm to each side. */
const aboutMm = 6;

export function EdgeDistance({ picture }: { picture: Picture }) {
  const job = useJob((s) => s.job);
  const chosen = useHand((s) => s.chosen);
  const [isShown, setShown] = useState(false);
  const [seen, setSeen] = useState<DeviationSeen | 'none' | null>(null);
  const pieces = useMemo(() => {
    const all = piecesOf(job).filter(({ leftOut }) => !leftOut);
    const meant = all.filter(({ id }) => chosen.includes(id.split('/')[0] as string));
    return meant.length > 0 ? meant : all;
  }, [job, chosen]);
  const settings = job.traces[0]?.settings ?? defaultTraceSettings;
  useEffect(() => {
    if (!isShown) return;
    let isWanted = true;
    const timer = setTimeout(async () => {
      const found = await tracer()
        .deviation(picture, rasterNow(picture, false), settings, pieces, true)
        .catch(() => null);
      if (!isWanted) return;
      setTable({ deviation: found });
      setSeen(found ?? 'none');
    }, restMs);
    return () => {
      isWanted = false;
      clearTimeout(timer);
      setTable({ deviation: null });
    };
  }, [isShown, picture, settings, pieces]);
  const show = (on: boolean) => {
    setShown(on);
    setSeen(null);
  };
  const worst = seen === null || seen === 'none' ? null : seen.worst;
  const lookThere = () => {
    if (!worst) return;
    const { x, y } = worst.at;
    setTable({
      view: boxInView({ minX: x - aboutMm, minY: y - aboutMm, maxX: x + aboutMm, maxY: y + aboutMm }, useTable.getState().screen),
    });
  };
  return (
    <Box>
      <FormControlLabel
        label={words.byHand.colourByDistanceFromThePictures}
        sx={{ ml: 0 }}
        slotProps={{ typography: { variant: 'body2' } }}
        control={<Switch size="small" checked={isShown} onChange={(_, on) => show(on)} />}
      />
      {isShown && seen === 'none' && (
        <Typography variant="caption" color="warning.main">
          {words.byHand.noEdgeToMeasure}
        </Typography>
      )}
      {isShown && worst && (
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
          <Typography variant="body2">{words.byHand.atMostMm(worst.mm.toFixed(3))}</Typography>
          <Button size="small" onClick={lookThere}>
            {words.byHand.showTheLargestError}
          </Button>
        </Box>
      )}
    </Box>
  );
}

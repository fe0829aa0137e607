'use client';
/**
 * Leading a way along an edge or a line: what is followed, what has been held, how it is ended.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Picture, RasterSource } from '@nuvet/core/job';
import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { finishPath, undoSegment } from '@/table/live-wire';
import { emptyLiveWire, setTable, takeTool, useTable } from '@/table/table-store';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { finder } from '@/workers/finder.client';
import { useJob } from '../../job/job-store';
import { Choice } from './InkSettings';

export function AlongEdge({ picture, raster }: { picture: Picture; raster: RasterSource }) {
  const liveWire = useTable((s) => s.liveWire);
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [message, setMessage] = useState<string | null>(null);
  const count = liveWire.held.length;
  useEffect(() => {
    // What fails here fails again, with a word, at the first click.
    finder()
      .wireReady(raster)
      .catch(() => {});
  }, [raster]);
  useHotkeys('escape', () => {
    // What has been held is kept as an open outline.
    if (count > 0) void finishPath(run, job, picture, raster, false).then(setMessage);
    else takeTool(null);
  });
  return (
    <Section title={words.trace.alongTheEdge}>
      <Choice
        label={words.trace.follow}
        value={liveWire.follow}
        of={[
          ['edge', words.trace.theEdgeOfAnArea],
          ['line', words.trace.theMiddleOfALine],
        ]}
        onChoice={(follow) => setTable({ liveWire: { ...emptyLiveWire, follow } })}
      />
      <Typography variant="body2" color="textSecondary" sx={{ my: 0.75 }}>
        {!liveWire.start
          ? words.trace.clickWhereTheOutlineBegins
          : count === 0
            ? words.trace.moveAlongTheEdgeAndClick
            : words.trace.alongEdgeHeld(count)}
      </Typography>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          size="small"
          variant="outlined"
          disabled={count === 0}
          onClick={() => void finishPath(run, job, picture, raster, false).then(setMessage)}
        >
          {words.trace.finishOpen}
        </Button>
        <Button size="small" disabled={!liveWire.start} onClick={() => void undoSegment(raster)}>
          {words.trace.undoLastSegment}
        </Button>
      </Box>
      {message && (
        <Typography variant="body2" color="error" role="alert">
          {message}
        </Typography>
      )}
    </Section>
  );
}

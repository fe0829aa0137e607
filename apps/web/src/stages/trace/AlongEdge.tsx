'use client';
/**
 * Leading a way along an edge or a line: what is followed, what has been held, how it is ended.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Picture, Surface } from '@nuvet/core/job';
import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { emptyWay, setTable, takeTool, useTable } from '@/table/table-store';
import { endWay, takeWayBack } from '@/table/way-leading';
import { words } from '@/words';
import { finder } from '@/workers/finding';
import { Section } from '../Docket';
import { useJob } from '../job-store';
import { Choice } from './InkSettings';

export function AlongEdge({ picture, surface }: { picture: Picture; surface: Surface }) {
  const way = useTable((s) => s.way);
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [message, setMessage] = useState<string | null>(null);
  const count = way.held.length;
  useEffect(() => {
    // What fails here fails again, with a word, at the first click.
    finder()
      .wireReady(surface)
      .catch(() => {});
  }, [surface]);
  useHotkeys('escape', () => {
    // What has been held is kept as an open outline.
    if (count > 0) void endWay(run, job, picture, surface, false).then(setMessage);
    else takeTool(null);
  });
  return (
    <Section title={words.trace.alongTheEdge}>
      <Choice
        label={words.trace.follow}
        value={way.follow}
        of={[
          ['edge', words.trace.theEdgeOfAnArea],
          ['line', words.trace.theMiddleOfALine],
        ]}
        onChoice={(follow) => setTable({ way: { ...emptyWay, follow } })}
      />
      <Typography variant="body2" color="textSecondary" sx={{ my: 0.75 }}>
        {!way.start
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
          onClick={() => void endWay(run, job, picture, surface, false).then(setMessage)}
        >
          {words.trace.finishOpen}
        </Button>
        <Button size="small" disabled={!way.start} onClick={() => void takeWayBack(surface)}>
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

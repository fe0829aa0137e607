'use client';
/**
 * What has been drawn, as a list: a click chooses, further ones with Shift add.
 */
import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import { drawnPieces } from '@nuvet/core/job';
import { memo } from 'react';
import { setHand, useHand } from '@/table/hand-store';
import { setTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../../job/job-store';

export function DrawnList() {
  const job = useJob((s) => s.job);
  const chosen = useHand((s) => s.chosen);
  if (job.drawn.length === 0) return null;
  // What comes of each: nothing while it is a point or cut out of others, else open or closed lines.
  const openOf = new Map<string, boolean>();
  for (const { id, outer } of drawnPieces(job)) {
    const own = id.split('/')[0] as string;
    openOf.set(own, openOf.get(own) === true || !outer.closed);
  }
  return (
    <Section title={words.byHand.drawn(job.drawn.length)}>
      <Box component="ul" aria-label={words.byHand.drawnThings} sx={{ listStyle: 'none', m: 0, p: 0, fontSize: 13 }}>
        {job.drawn.map(({ id, name, live, source, leftOut }) => {
          const isOpen = openOf.get(id) === true;
          const state = !openOf.has(id)
            ? source.kind === 'points'
              ? words.byHand.onePoint
              : words.byHand.cutOut
            : isOpen
              ? words.byHand.isOpen
              : words.byHand.isClosed;
          return (
            <DrawnRow
              key={id}
              id={id}
              name={name}
              live={live.length}
              state={state}
              isOpen={isOpen}
              leftOut={leftOut}
              isChosen={chosen.includes(id)}
            />
          );
        })}
      </Box>
    </Section>
  );
}

function choose(id: string, isAdded: boolean): void {
  const { chosen } = useHand.getState();
  const added = chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id];
  setHand({ chosen: isAdded ? added : [id], points: null, segment: null });
}

/** Rendered again only where what it says has changed: a list of hundreds stands beside every drag. */
const DrawnRow = memo(function DrawnRow({
  id,
  name,
  live,
  state,
  isOpen,
  leftOut,
  isChosen,
}: {
  id: string;
  name: string;
  live: number;
  state: string;
  isOpen: boolean;
  leftOut: boolean;
  isChosen: boolean;
}) {
  return (
    <Box
      component="li"
      onPointerEnter={() => setTable({ hoveredPiece: id })}
      onPointerLeave={() => setTable({ hoveredPiece: null })}
      sx={{ borderBottom: `1px solid ${colours.line}` }}
    >
      <Box
        component="button"
        type="button"
        aria-pressed={isChosen}
        onClick={(event) => choose(id, event.shiftKey)}
        sx={{
          all: 'unset',
          boxSizing: 'border-box',
          width: '100%',
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          py: 0.6,
          px: 0.5,
          cursor: 'pointer',
          bgcolor: isChosen ? 'rgba(30, 123, 107, 0.1)' : undefined,
          '&:focus-visible': { outline: `2px solid ${colours.verdigris}` },
        }}
      >
        <Box component="span" sx={{ flex: 1, textDecoration: leftOut ? 'line-through' : undefined }}>
          {name}
        </Box>
        {live > 0 && <Chip size="small" variant="outlined" label={words.byHand.liveStepCount(live)} sx={{ height: 20 }} />}
        <Box component="span" sx={{ color: isOpen ? 'error.main' : 'text.secondary' }}>
          {state}
        </Box>
      </Box>
    </Box>
  );
});

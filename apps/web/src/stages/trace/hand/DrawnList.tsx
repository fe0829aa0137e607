'use client';
/**
 * What has been drawn, as a list: a click chooses, further ones with Shift add.
 */
import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import { drawnPieces } from '@nuvet/core/job';
import { setHand, useHand } from '@/table/hand-store';
import { setTable } from '@/table/table-store';
import { colours } from '@/ui/theme';
import { Section } from '../../Docket';
import { useJob } from '../../job-store';

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
    <Section title={`${job.drawn.length} drawn`}>
      <Box component="ul" aria-label="Drawn" sx={{ listStyle: 'none', m: 0, p: 0, fontSize: 13 }}>
        {job.drawn.map(({ id, name, live, source, leftOut }) => {
          const isOpen = openOf.get(id) === true;
          const state = !openOf.has(id) ? (source.kind === 'points' ? 'one point' : 'cut out') : isOpen ? 'open' : 'closed';
          return (
            <Box
              component="li"
              key={id}
              onPointerEnter={() => setTable({ hoveredPiece: id })}
              onPointerLeave={() => setTable({ hoveredPiece: null })}
              sx={{ borderBottom: `1px solid ${colours.line}` }}
            >
              <Box
                component="button"
                type="button"
                aria-pressed={chosen.includes(id)}
                onClick={(event) =>
                  setHand({
                    chosen: event.shiftKey ? (chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]) : [id],
                    points: null,
                    segment: null,
                  })
                }
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
                  bgcolor: chosen.includes(id) ? 'rgba(30, 123, 107, 0.1)' : undefined,
                  '&:focus-visible': { outline: `2px solid ${colours.verdigris}` },
                }}
              >
                <Box component="span" sx={{ flex: 1, textDecoration: leftOut ? 'line-through' : undefined }}>
                  {name}
                </Box>
                {live.length > 0 && <Chip size="small" variant="outlined" label={`${live.length} live`} sx={{ height: 20 }} />}
                <Box component="span" sx={{ color: isOpen ? 'error.main' : 'text.secondary' }}>
                  {state}
                </Box>
              </Box>
            </Box>
          );
        })}
      </Box>
    </Section>
  );
}

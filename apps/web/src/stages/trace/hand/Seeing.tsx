'use client';
/**
 * What the table shows while something is drawn: picture, outlines, both, or split at the pointer; the comb of curvature.
 */
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useShallow } from 'zustand/react/shallow';
import { setHand, useHand } from '@/table/hand-store';
import { Pick } from './Rows';

export function Seeing() {
  const { shows, hasComb } = useHand(useShallow((s) => ({ shows: s.shows, hasComb: s.hasComb })));
  return (
    <>
      <Pick
        label="On the table"
        value={shows}
        words={{ both: 'picture and outlines', outlines: 'outlines only', picture: 'picture only', split: 'split at the pointer' }}
        onPick={(next) => setHand({ shows: next })}
      />
      <FormControlLabel
        control={<Checkbox size="small" checked={hasComb} onChange={(_, on) => setHand({ hasComb: on })} />}
        label="How the chosen line bends, as a comb"
        slotProps={{ typography: { variant: 'body2' } }}
      />
    </>
  );
}

'use client';
/**
 * What the table shows while something is drawn: picture, outlines, both, or split at the pointer; the comb of curvature.
 */
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useShallow } from 'zustand/react/shallow';
import { setHand, useHand } from '@/table/hand-store';
import { useTable } from '@/table/table-store';
import { Pick } from '@/ui/Rows';
import { words } from '@/words';
import { useJob } from '../../../job/job-store';
import { EdgeDistance } from './EdgeDistance';

export function Seeing() {
  const { shows, hasComb } = useHand(useShallow((s) => ({ shows: s.shows, hasComb: s.hasComb })));
  const activeId = useTable((s) => s.activeId);
  const pictures = useJob((s) => s.job.pictures);
  const picture = pictures.find((p) => p.id === activeId) ?? pictures[0];
  return (
    <>
      <Pick
        label={words.byHand.onTheTable}
        value={shows}
        words={{
          both: words.byHand.pictureAndOutlines,
          outlines: words.byHand.outlinesOnly,
          picture: words.byHand.pictureOnly,
          split: words.byHand.splitAtThePointer,
        }}
        onPick={(next) => setHand({ shows: next })}
      />
      {picture && <EdgeDistance picture={picture} />}
      <FormControlLabel
        control={<Checkbox size="small" checked={hasComb} onChange={(_, on) => setHand({ hasComb: on })} />}
        label={words.byHand.curvatureCombOnTheSelectedLine}
        slotProps={{ typography: { variant: 'body2' } }}
      />
    </>
  );
}

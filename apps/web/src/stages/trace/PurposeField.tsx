'use client';
/**
 * What pieces are for, to be chosen.
 */
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { type Piece, type Purpose, purposes } from '@nuvet/core/job';
import { words } from '@/words';
import { purposeWords } from '@/words/purposes';
import { useJob } from '../../job/job-store';

/** @param pieces all get the purpose chosen; the first one's is shown */
export function PurposeField({ pieces }: { pieces: readonly [Piece, ...Piece[]] }) {
  const run = useJob((s) => s.run);
  return (
    <TextField
      select
      fullWidth
      label={words.trace.purpose}
      value={pieces[0].purpose}
      onChange={(event) => run({ do: 'set-purpose', pieceIds: pieces.map(({ id }) => id), purpose: event.target.value as Purpose })}
    >
      {purposes.map((purpose) => (
        <MenuItem key={purpose} value={purpose}>
          {purposeWords[purpose]}
        </MenuItem>
      ))}
    </TextField>
  );
}

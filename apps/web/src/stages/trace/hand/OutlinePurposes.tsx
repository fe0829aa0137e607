'use client';
/**
 * What each outline of a chosen thing is for: one may be engraved while the next is cut.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { outlinesFrom, type Purpose, purposes } from '@nuvet/core/job';
import { type Path, pathBox } from '@nuvet/core/plane';
import { useState } from 'react';
import { words } from '@/words';
import { purposeWords } from '@/words/purposes';
import { useChosen } from './use-chosen';

/** So many are shown at first; of more than the most none are. */
const atFirst = 6;
const maxOutlines = 60;

export function OutlinePurposes() {
  const { job, target, targets, remade } = useChosen();
  const [isOpen, setOpen] = useState(false);
  if (!target || targets.length !== 1) return null;
  const { drawn, piece } = target;
  const paths = drawn ? outlinesFrom(drawn, job).paths : target.paths;
  if (paths.length < 2 || paths.length > maxOutlines) return null;
  const whole = drawn?.purpose ?? piece?.purpose ?? 'cut';
  const own = drawn?.purposes ?? {};
  const set = (k: number, purpose: Purpose) => {
    const { [k]: _, ...others } = own;
    remade(words.byHand.purposeOfAnOutline, (one) => ({ ...one, purposes: purpose === whole ? others : { ...others, [k]: purpose } }));
  };
  return (
    <Box role="group" aria-label={words.byHand.purposeOfEachOutline} sx={{ display: 'grid', gap: 0.75 }}>
      <Typography variant="body2" color="textSecondary">
        {words.byHand.purposeOfEachOutline}
      </Typography>
      {paths.slice(0, isOpen ? maxOutlines : atFirst).map((path, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: an outline's number is what names it
        <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '1fr 128px', alignItems: 'center', gap: 1 }}>
          <Typography variant="body2" sx={{ fontVariantNumeric: 'tabular-nums' }}>
            {words.byHand.outlineOfSize(k + 1, sizeOf(path, job.unit))}
          </Typography>
          <TextField
            select
            size="small"
            value={own[k] ?? whole}
            slotProps={{ htmlInput: { 'aria-label': words.byHand.purposeOfOutline(k + 1) } }}
            onChange={(event) => set(k, event.target.value as Purpose)}
          >
            {purposes.map((purpose) => (
              <MenuItem key={purpose} value={purpose}>
                {purposeWords[purpose]}
              </MenuItem>
            ))}
          </TextField>
        </Box>
      ))}
      {!isOpen && paths.length > atFirst && (
        <Button size="small" onClick={() => setOpen(true)}>
          {words.byHand.showAllOutlines(paths.length)}
        </Button>
      )}
    </Box>
  );
}

/** How wide and high, in the job's unit. */
export function sizeOf(path: Path, unit: 'mm' | 'in'): string {
  const { minX, minY, maxX, maxY } = pathBox(path);
  const [w, h] = [maxX - minX, maxY - minY].map((mm) => (unit === 'mm' ? mm.toFixed(2) : (mm / 25.4).toFixed(3)));
  return `${w} x ${h} ${unit}`;
}

'use client';
/**
 * Pictures of one scanner, or taken from one distance, have one scale: a picture without a size takes that of another.
 */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { fitOf, type Picture } from '@nuvet/core/job';
import type { TrueUpFit } from '@nuvet/core/trueup';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { Small } from './DatumSection';

const mmPerInch = 25.4;

export function SameScale({ picture, fit }: { picture: Picture; fit: TrueUpFit }) {
  const pictures = useJob((s) => s.job.pictures);
  const run = useJob((s) => s.run);
  if (fit.model !== 'unsized' && picture.resolution?.source !== 'stated') return null;
  const sized = pictures.filter((p) => p.id !== picture.id && ['resolution', 'uniform', 'stretch'].includes(fitOf(p).model));
  if (sized.length === 0) return null;
  const take = (from: Picture) =>
    run({
      do: 'change-picture',
      pictureId: picture.id,
      change: { resolution: { dpi: mmPerInch / fitOf(from).mmPerPx, source: 'stated', trusted: true } },
    });
  return (
    <Section title={words.trueUp.sameScaleAs}>
      <Typography variant="caption" color="textSecondary" component="p" sx={{ mb: 0.75 }}>
        {words.trueUp.forPicturesFromOneScannerAt}
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
        {sized.map((other) => (
          <Small key={other.id} onClick={() => take(other)} isOn={Math.abs(fitOf(other).mmPerPx / fit.mmPerPx - 1) < 1e-9}>
            {other.name}
          </Small>
        ))}
      </Box>
    </Section>
  );
}

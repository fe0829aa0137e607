'use client';
/**
 * A length that another picture shows, too: what it measures there sizes this picture.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { fitOf, type Job, type Mark, measuredBy, type Picture } from '@nuvet/core/job';
import { printInches, printMm } from '@nuvet/core/length';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { markViews } from '../../job/mark-views';

/** More would hide the field. */
const maxOffered = 4;

interface Known {
  readonly markId: string;
  readonly of: string;
  readonly mm: number;
}

export function CommonLength({ picture, onLength }: { picture: Picture; onLength: (mm: number, text: string) => void }) {
  const job = useJob((s) => s.job);
  const known = lengthsElsewhere(job, picture);
  if (known.length === 0) return null;
  return (
    <Box role="group" aria-label={words.trueUp.commonLength} sx={{ mt: 0.75 }}>
      <Typography variant="caption" color="textSecondary">
        {words.trueUp.commonLength}
      </Typography>
      {known.slice(0, maxOffered).map(({ markId, of, mm }) => (
        <Button key={markId} size="small" sx={{ display: 'block', textAlign: 'left' }} onClick={() => onLength(mm, printMm(mm, 3))}>
          {words.trueUp.asIn(job.unit === 'mm' ? printMm(mm) : printInches(mm), of)}
        </Button>
      ))}
    </Box>
  );
}

/** What was marked or measured as a length in the job's other pictures of known size. */
function lengthsElsewhere({ pictures }: Job, picture: Picture): Known[] {
  return pictures.flatMap((other): Known[] => {
    const fit = fitOf(other);
    if (other.id === picture.id || fit.model === 'unsized') return [];
    return other.marks.filter(isLength).flatMap((mark): Known[] => {
      const measured = measuredBy(mark, fit);
      return measured ? [{ markId: mark.id, of: words.trueUp.markOf(markViews[mark.kind].word, other.name), mm: measured.value }] : [];
    });
  });
}

const isLength = ({ kind }: Mark): boolean => kind === 'known-length' || kind === 'check';

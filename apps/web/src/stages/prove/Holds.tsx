'use client';
/**
 * Bridges that hold what would drop out: how wide, and each with a way to take it away.
 */
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import { distance } from '@nuvet/core/plane';
import { Section } from '../Docket';
import { useJob } from '../job-store';
import { Measure } from '../trace/hand/Rows';

export function Holds() {
  const { holds } = useJob((s) => s.job.proof);
  const unit = useJob((s) => s.job.unit);
  const run = useJob((s) => s.run);
  const [first] = holds;
  if (!first) return null;
  const set = (next: typeof holds) => run({ do: 'prove-by', change: { holds: next } });
  return (
    <Section title="Bridges">
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        Drag their ends along the outlines.
      </Typography>
      <Measure label="Width of all bridges" mm={first.widthMm} unit={unit} onMm={(widthMm) => set(holds.map((h) => ({ ...h, widthMm })))} />
      {holds.map((hold, k) => (
        <Box key={hold.id} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            Bridge {k + 1}, {printBoth(distance(hold.from, hold.to), unit)} long
          </Typography>
          <IconButton size="small" aria-label={`Take bridge ${k + 1} away`} onClick={() => set(holds.filter((h) => h.id !== hold.id))}>
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Box>
      ))}
    </Section>
  );
}

'use client';
/**
 * Bridges that hold what would drop out: their width, and a button to remove each.
 */
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import { distance } from '@nuvet/core/plane';
import { words } from '@/words';
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
    <Section title={words.prove.bridges}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        {words.prove.dragTheirEndsAlongTheOutlines}
      </Typography>
      <Measure
        label={words.prove.widthOfAllBridges}
        mm={first.widthMm}
        unit={unit}
        onMm={(widthMm) => set(holds.map((h) => ({ ...h, widthMm })))}
      />
      {holds.map((hold, k) => (
        <Box key={hold.id} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            {words.prove.bridgeLong(k + 1, printBoth(distance(hold.from, hold.to), unit))}
          </Typography>
          <IconButton size="small" aria-label={words.prove.removeBridge(k + 1)} onClick={() => set(holds.filter((h) => h.id !== hold.id))}>
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Box>
      ))}
    </Section>
  );
}

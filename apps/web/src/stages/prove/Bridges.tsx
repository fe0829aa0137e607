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
import { Measure } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

export function Bridges() {
  const { bridges } = useJob((s) => s.job.proof);
  const unit = useJob((s) => s.job.unit);
  const run = useJob((s) => s.run);
  const [first] = bridges;
  if (!first) return null;
  const set = (next: typeof bridges) => run({ do: 'prove-by', change: { bridges: next } });
  return (
    <Section title={words.prove.bridges}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        {words.prove.dragTheirEndsAlongTheOutlines}
      </Typography>
      <Measure
        label={words.prove.widthOfAllBridges}
        mm={first.widthMm}
        unit={unit}
        onMm={(widthMm) => set(bridges.map((h) => ({ ...h, widthMm })))}
      />
      {bridges.map((bridge, k) => (
        <Box key={bridge.id} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            {words.prove.bridgeLong(k + 1, printBoth(distance(bridge.from, bridge.to), unit))}
          </Typography>
          <IconButton
            size="small"
            aria-label={words.prove.removeBridge(k + 1)}
            onClick={() => set(bridges.filter((h) => h.id !== bridge.id))}
          >
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Box>
      ))}
    </Section>
  );
}

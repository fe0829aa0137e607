'use client';
/** The order in which appliqué shapes lie: each can be laid higher or lower. */
import ArrowDownwardOutlined from '@mui/icons-material/ArrowDownwardOutlined';
import ArrowUpwardOutlined from '@mui/icons-material/ArrowUpwardOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import type { QuiltingSettings, QuiltPlan } from '@nuvet/core/quilting';
import { Section } from '@/ui/Section';
import { words } from '@/words';

const say = words.quilting;
/** More shapes than this are no list to read. */
const mostListed = 60;

interface Props {
  readonly plan: QuiltPlan;
  readonly set: (change: Partial<QuiltingSettings>) => void;
}

export function LayerOrder({ plan: { block, shapes }, set }: Props) {
  const { layers } = block;
  if (layers.length < 2 || layers.length > mostListed) return null;
  const nameOf = new Map(shapes.flatMap(({ name, patches }) => patches.map(({ face }) => [face, name] as const)));
  const swapped = (k: number, by: number): string[] => {
    const order = [...layers];
    [order[k], order[k + by]] = [order[k + by] as string, order[k] as string];
    return order;
  };
  return (
    <Section title={say.layers}>
      <Typography variant="caption" color="textSecondary">
        {say.layersAbout}
      </Typography>
      <Box component="ol" reversed sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {layers
          .map((id, k) => (
            <Box component="li" key={id} sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
              <Typography variant="body2" sx={{ flex: 1 }}>
                {say.layer(k + 1, nameOf.get(k + 1) ?? '')}
              </Typography>
              <IconButton
                size="small"
                aria-label={say.layHigher(k + 1)}
                disabled={k === layers.length - 1}
                onClick={() => set({ order: swapped(k, 1) })}
              >
                <ArrowUpwardOutlined fontSize="small" />
              </IconButton>
              <IconButton size="small" aria-label={say.layLower(k + 1)} disabled={k === 0} onClick={() => set({ order: swapped(k, -1) })}>
                <ArrowDownwardOutlined fontSize="small" />
              </IconButton>
            </Box>
          ))
          .reverse()}
      </Box>
    </Section>
  );
}

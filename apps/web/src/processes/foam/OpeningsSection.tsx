'use client';
/** Openings that are drawn in the side view: a cockpit, a window. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { type FoamPlan, type FoamSettings, mostCutouts } from '@nuvet/core/foam';
import type { Piece } from '@nuvet/core/job';
import { Measure, Pick } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import type { OpenProcess } from '../process-view';

const say = words.foam;
/** More outlines than this are no list to choose from. */
const mostListed = 60;

interface Props {
  readonly open: OpenProcess<FoamSettings, FoamPlan>;
  readonly unit: 'mm' | 'in';
  readonly pieces: readonly Piece[];
}

export function OpeningsSection({ open: { settings, set, plan }, unit, pieces }: Props) {
  const { cutouts } = settings;
  const others = pieces.filter(({ id, outer }) => outer.closed && id !== plan?.sideId && id !== plan?.aboveId).slice(0, mostListed);
  const free = others.find(({ id }) => !cutouts.some(({ pieceId }) => pieceId === id));
  const change = (k: number, by: Partial<(typeof cutouts)[0]>) =>
    set({ cutouts: cutouts.map((one, n) => (n === k ? { ...one, ...by } : one)) });
  if (!free && cutouts.length === 0) return null;
  return (
    <Section title={say.openings}>
      <Box sx={{ display: 'grid', gap: 1 }}>
        {cutouts.map(({ pieceId, widthMm }, k) => {
          const named = Object.fromEntries(others.map(({ id, name }) => [id, name]));
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: openings are told apart by their place in the list
            <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr auto', gap: 1, alignItems: 'start' }}>
              <Pick
                label={say.openingOutline(k + 1)}
                value={pieceId}
                words={pieceId in named ? named : { [pieceId]: say.notYet, ...named }}
                onPick={(id) => change(k, { pieceId: id })}
              />
              <Measure
                label={say.openingWide}
                mm={widthMm}
                unit={unit}
                placeholder={say.rightThrough}
                onEmpty={() => change(k, { widthMm: null })}
                onMm={(mm) => change(k, { widthMm: Math.max(1, Math.min(20_000, mm)) })}
              />
              <IconButton
                aria-label={say.removeOpening(k + 1)}
                size="small"
                onClick={() => set({ cutouts: cutouts.filter((_, n) => n !== k) })}
              >
                <DeleteOutlined fontSize="small" />
              </IconButton>
            </Box>
          );
        })}
      </Box>
      {free && cutouts.length < mostCutouts && (
        <Button
          size="small"
          startIcon={<AddOutlined />}
          onClick={() => set({ cutouts: [...cutouts, { pieceId: free.id, widthMm: null }] })}
          sx={{ mt: 0.75 }}
        >
          {say.addOpening}
        </Button>
      )}
    </Section>
  );
}

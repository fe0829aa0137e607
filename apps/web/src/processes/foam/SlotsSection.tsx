'use client';
/** Slots through all formers: where they open, how wide and deep they are. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { type FoamPlan, type FoamSettings, mostSlots } from '@nuvet/core/foam';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import type { OpenProcess } from '../process-view';

const say = words.foam;
type Slot = FoamSettings['slots'][0];

interface Props {
  readonly open: OpenProcess<FoamSettings, FoamPlan>;
  readonly unit: 'mm' | 'in';
}

export function SlotsSection({ open: { settings, set, plan }, unit }: Props) {
  const { slots } = settings;
  const change = (k: number, by: Partial<Slot>) => set({ slots: slots.map((slot, n) => (n === k ? { ...slot, ...by } : slot)) });
  const added: Slot = { side: 'below', at: 0, widthMm: 6, depthMm: Math.round((plan?.heightMm ?? 100) / 4), isStraight: true };
  return (
    <Section title={say.slots}>
      <Box sx={{ display: 'grid', gap: 1.5 }}>
        {slots.map((slot, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: slots are told apart by their place in the list
          <Box key={k} sx={{ display: 'grid', gap: 1 }}>
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1, alignItems: 'center' }}>
              <Pick
                label={say.slot(k + 1)}
                value={slot.side}
                words={say.slotSides}
                onPick={(side) => change(k, { side, at: side === 'sides' ? (plan?.heightMm ?? 100) / 2 : 0 })}
              />
              <IconButton aria-label={say.removeSlot(k + 1)} size="small" onClick={() => set({ slots: slots.filter((_, n) => n !== k) })}>
                <DeleteOutlined fontSize="small" />
              </IconButton>
            </Box>
            <Row>
              <Measure
                label={say.slotAt[slot.side]}
                mm={slot.at}
                unit={unit}
                range={slot.side === 'sides' ? 'from zero' : 'any'}
                onMm={(at) => change(k, { at })}
              />
              <Measure
                label={say.slotWide}
                mm={slot.widthMm}
                unit={unit}
                onMm={(mm) => change(k, { widthMm: Math.max(0.2, Math.min(500, mm)) })}
              />
              <Measure
                label={say.slotDeep}
                mm={slot.depthMm}
                unit={unit}
                onMm={(mm) => change(k, { depthMm: Math.max(0.2, Math.min(5000, mm)) })}
              />
            </Row>
            <Pick
              label={say.slotDeep}
              value={slot.isStraight ? 'straight' : 'skin'}
              words={say.slotKinds}
              onPick={(kind) => change(k, { isStraight: kind === 'straight' })}
            />
          </Box>
        ))}
      </Box>
      {slots.length < mostSlots && (
        <Button size="small" startIcon={<AddOutlined />} onClick={() => set({ slots: [...slots, added] })} sx={{ mt: 0.75 }}>
          {say.addSlot}
        </Button>
      )}
    </Section>
  );
}

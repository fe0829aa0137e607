'use client';
/** Slots through all formers: where they open, how wide and deep they are. */
import Box from '@mui/material/Box';
import { type FoamPlan, type FoamSettings, mostSlots } from '@nuvet/core/foam';
import { FieldRows } from '@/ui/FieldRows';
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
  const added: Slot = { side: 'below', at: 0, widthMm: 6, depthMm: Math.round((plan?.heightMm ?? 100) / 4), isStraight: true };
  return (
    <Section title={say.slots}>
      <FieldRows
        list={slots}
        most={mostSlots}
        fields={1}
        onList={(to) => set({ slots: to })}
        onAdd={() => set({ slots: [...slots, added] })}
        addWord={say.addSlot}
        removeWord={say.removeSlot}
      >
        {(slot, onChange, k) => (
          <>
            <Pick
              label={say.slot(k + 1)}
              value={slot.side}
              words={say.slotSides}
              onPick={(side) => onChange({ ...slot, side, at: side === 'sides' ? (plan?.heightMm ?? 100) / 2 : 0 })}
            />
            <Box sx={{ display: 'grid', gap: 1, gridColumn: '1 / -1' }}>
              <Row>
                <Measure
                  label={say.slotAt[slot.side]}
                  mm={slot.at}
                  unit={unit}
                  range={slot.side === 'sides' ? 'from zero' : 'any'}
                  onMm={(at) => onChange({ ...slot, at })}
                />
                <Measure
                  label={say.slotWide}
                  mm={slot.widthMm}
                  unit={unit}
                  least={0.2}
                  most={500}
                  onMm={(mm) => onChange({ ...slot, widthMm: mm })}
                />
                <Measure
                  label={say.slotDeep}
                  mm={slot.depthMm}
                  unit={unit}
                  least={0.2}
                  most={5000}
                  onMm={(mm) => onChange({ ...slot, depthMm: mm })}
                />
              </Row>
              <Pick
                label={say.slotDeep}
                value={slot.isStraight ? 'straight' : 'skin'}
                words={say.slotKinds}
                onPick={(kind) => onChange({ ...slot, isStraight: kind === 'straight' })}
              />
            </Box>
          </>
        )}
      </FieldRows>
    </Section>
  );
}

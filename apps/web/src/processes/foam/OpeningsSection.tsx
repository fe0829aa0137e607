'use client';
/** Openings that are drawn in the side view: a cockpit, a window. */
import { type FoamPlan, type FoamSettings, mostCutouts } from '@nuvet/core/foam';
import type { Piece } from '@nuvet/core/job';
import { FieldRows } from '@/ui/FieldRows';
import { Measure } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { OutlinePick } from '../OutlinePick';
import type { OpenProcess } from '../process-view';

const say = words.foam;

interface Props {
  readonly open: OpenProcess<FoamSettings, FoamPlan>;
  readonly unit: 'mm' | 'in';
  readonly pieces: readonly Piece[];
}

export function OpeningsSection({ open: { settings, set, plan }, unit, pieces }: Props) {
  const { cutouts } = settings;
  const others = pieces.filter(({ id, outer }) => outer.closed && id !== plan?.sideId && id !== plan?.aboveId);
  const free = others.find(({ id }) => !cutouts.some(({ pieceId }) => pieceId === id));
  if (!free && cutouts.length === 0) return null;
  return (
    <Section title={say.openings}>
      <FieldRows
        list={cutouts}
        most={mostCutouts}
        fields={2}
        onList={(to) => set({ cutouts: to })}
        onAdd={free ? () => set({ cutouts: [...cutouts, { pieceId: free.id, widthMm: null }] }) : null}
        addWord={say.addOpening}
        removeWord={say.removeOpening}
      >
        {(one, onChange, k) => (
          <>
            <OutlinePick
              label={say.openingOutline(k + 1)}
              pieces={others}
              value={one.pieceId}
              onPick={(pieceId) => onChange({ ...one, pieceId })}
            />
            <Measure
              label={say.openingWide}
              mm={one.widthMm}
              unit={unit}
              placeholder={say.rightThrough}
              onEmpty={() => onChange({ ...one, widthMm: null })}
              least={1}
              most={20_000}
              onMm={(mm) => onChange({ ...one, widthMm: mm })}
            />
          </>
        )}
      </FieldRows>
    </Section>
  );
}

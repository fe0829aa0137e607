'use client';
/** Openings that are drawn in the side view: a cockpit, a window. */
import { type FoamPlan, type FoamSettings, mostCutouts } from '@nuvet/core/foam';
import type { Piece } from '@nuvet/core/job';
import { FieldRows } from '@/ui/FieldRows';
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
  const named = Object.fromEntries(others.map(({ id, name }) => [id, name]));
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
            <Pick
              label={say.openingOutline(k + 1)}
              value={one.pieceId}
              words={one.pieceId in named ? named : { [one.pieceId]: say.notYet, ...named }}
              onPick={(id) => onChange({ ...one, pieceId: id })}
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

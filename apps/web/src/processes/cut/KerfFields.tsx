'use client';
/**
 * What the tool takes away, and how outer corners are gone round.
 */
import type { Cutting } from '@nuvet/core/make';
import { useJob } from '@/job/job-store';
import { Measure, Pick as PickOne, Row } from '@/ui/Rows';
import { words } from '@/words';

interface Props {
  readonly word: string;
  readonly settings: Pick<Cutting, 'kerfMm' | 'corners'>;
  readonly onSettings: (change: Partial<Pick<Cutting, 'kerfMm' | 'corners'>>) => void;
}

export function KerfFields({ word, settings: { kerfMm, corners }, onSettings }: Props) {
  const unit = useJob((s) => s.job.unit);
  return (
    <Row>
      <Measure label={word} mm={kerfMm} unit={unit} range="from zero" onMm={(mm) => onSettings({ kerfMm: mm })} />
      <PickOne
        label={words.makeReady.corners}
        value={corners}
        words={{ round: words.makeReady.round, mitre: words.makeReady.mitred }}
        onPick={(next) => onSettings({ corners: next })}
      />
    </Row>
  );
}

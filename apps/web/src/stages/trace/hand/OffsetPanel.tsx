'use client';
/**
 * Outlines at a distance, live: once or as rings, about closed outlines and, as bands, about open lines.
 */
import Button from '@mui/material/Button';
import type { CornerKind, EndKind } from '@nuvet/core/shape';
import { useState } from 'react';
import { NumberField } from '@/ui/NumberField';
import { words } from '@/words';
import { LiveSteps } from './LiveSteps';
import { Measure, Pick, Row } from './Rows';
import { cornerWords, endWords } from './tool-words';
import { useChosen } from './use-chosen';

export function OffsetPanel() {
  const { job, targets, withStep } = useChosen();
  const [by, setBy] = useState(3);
  const [count, setCount] = useState(1);
  const [side, setSide] = useState<'out' | 'in'>('out');
  const [corners, setCorners] = useState<CornerKind>('round');
  const [keeps, setKeeps] = useState<'with' | 'instead'>('with');
  const [ends, setEnds] = useState<EndKind>('round');
  const isOpen = targets.some(({ paths }) => paths.some((path) => !path.closed));
  const isClosed = targets.some(({ paths }) => paths.some((path) => path.closed));
  return (
    <>
      <Row>
        <Measure label={isOpen && !isClosed ? words.byHand.totalWidth : words.byHand.distance} mm={by} unit={job.unit} onMm={setBy} />
        {!(isOpen && !isClosed) && (
          <NumberField
            label={words.byHand.rings}
            value={count}
            digits={0}
            unit={words.byHand.oneOrMore}
            onNumber={(n) => setCount(Math.max(1, Math.min(100, Math.round(n))))}
          />
        )}
      </Row>
      {isOpen && !isClosed ? (
        <Row>
          <Pick label={words.byHand.ends} value={ends} words={endWords} onPick={setEnds} />
          <Pick label={words.byHand.corners} value={corners} words={cornerWords} onPick={setCorners} />
        </Row>
      ) : (
        <>
          <Row>
            <Pick label={words.byHand.side} value={side} words={{ out: words.byHand.outside, in: words.byHand.inside }} onPick={setSide} />
            <Pick label={words.byHand.corners} value={corners} words={cornerWords} onPick={setCorners} />
          </Row>
          <Pick
            label={words.byHand.originalOutline}
            value={keeps}
            words={{ with: words.byHand.keep, instead: words.byHand.replace }}
            onPick={setKeeps}
          />
        </>
      )}
      {isOpen && !isClosed ? (
        <Button
          variant="contained"
          disabled={targets.length === 0}
          onClick={() => withStep(words.byHand.aBand, { kind: 'band', width: by, ends, corners })}
        >
          {words.byHand.thickenTheLineStaysLive}
        </Button>
      ) : (
        <Button
          variant="contained"
          disabled={targets.length === 0}
          onClick={() =>
            withStep(words.byHand.anOffset, { kind: 'offset', by: side === 'out' ? by : -by, count, corners, keeps: keeps === 'with' })
          }
        >
          {count > 1 ? words.byHand.ringsLive(count) : words.byHand.setOffLive}
        </Button>
      )}
      <LiveSteps kinds={['offset', 'band']} />
    </>
  );
}

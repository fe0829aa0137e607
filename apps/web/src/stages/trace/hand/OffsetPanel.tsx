'use client';
/**
 * Outlines at a distance, live: once or as rings, about closed outlines and, as bands, about open lines.
 */
import Button from '@mui/material/Button';
import type { CornerKind, EndKind } from '@nuvet/core/shape';
import { useState } from 'react';
import { NumberField } from '@/ui/NumberField';
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
        <Measure label={isOpen && !isClosed ? 'Total width' : 'Distance'} mm={by} unit={job.unit} onMm={setBy} />
        {!(isOpen && !isClosed) && (
          <NumberField
            label="Rings"
            value={count}
            digits={0}
            unit="1 up"
            onNumber={(n) => setCount(Math.max(1, Math.min(100, Math.round(n))))}
          />
        )}
      </Row>
      {isOpen && !isClosed ? (
        <Row>
          <Pick label="Ends" value={ends} words={endWords} onPick={setEnds} />
          <Pick label="Corners" value={corners} words={cornerWords} onPick={setCorners} />
        </Row>
      ) : (
        <>
          <Row>
            <Pick label="Side" value={side} words={{ out: 'outside', in: 'inside' }} onPick={setSide} />
            <Pick label="Corners" value={corners} words={cornerWords} onPick={setCorners} />
          </Row>
          <Pick label="Original outline" value={keeps} words={{ with: 'keep', instead: 'replace' }} onPick={setKeeps} />
        </>
      )}
      {isOpen && !isClosed ? (
        <Button
          variant="contained"
          disabled={targets.length === 0}
          onClick={() => withStep('a band', { kind: 'band', width: by, ends, corners })}
        >
          Thicken the line (stays live)
        </Button>
      ) : (
        <Button
          variant="contained"
          disabled={targets.length === 0}
          onClick={() => withStep('an offset', { kind: 'offset', by: side === 'out' ? by : -by, count, corners, keeps: keeps === 'with' })}
        >
          {count > 1 ? `${count} rings, live` : 'Set off, live'}
        </Button>
      )}
      <LiveSteps kinds={['offset', 'band']} />
    </>
  );
}

'use client';
/**
 * Outlines at a distance, live: once or as rings, about closed outlines and, as bands, about open lines.
 */
import Button from '@mui/material/Button';
import type { CornerKind, EndKind } from '@nuvet/core/shape';
import { useState } from 'react';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { words } from '@/words';
import { LiveSteps } from './LiveSteps';
import { sizeOf } from './OutlinePurposes';
import { cornerWords, endWords } from './tool-words';
import { useChosen } from './use-chosen';

/** Outlines of a thing are named one by one where they are no more than this. */
const maxToName = 24;

const numberIn = (key: string): number => Number(key.slice('outline '.length));

export function OffsetPanel() {
  const { job, targets, withStep } = useChosen();
  const [by, setBy] = useState(3);
  const [count, setCount] = useState(1);
  const [side, setSide] = useState<'out' | 'in'>('out');
  const [corners, setCorners] = useState<CornerKind>('round');
  const [keeps, setKeeps] = useState<'with' | 'instead'>('with');
  const [only, setOnly] = useState('all');
  const [ends, setEnds] = useState<EndKind>('round');
  const isOpen = targets.some(({ paths }) => paths.some((path) => !path.closed));
  const isClosed = targets.some(({ paths }) => paths.some((path) => path.closed));
  const [target] = targets;
  const outlines = targets.length === 1 && target && target.paths.length > 1 && target.paths.length <= maxToName ? target.paths : [];
  const isOne = only !== 'all' && outlines[numberIn(only)]?.closed === true;
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
            least={1}
            most={100}
            onNumber={(n) => setCount(Math.round(n))}
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
          {outlines.length > 0 && (
            <Pick
              label={words.byHand.whichOutline}
              value={isOne ? only : 'all'}
              words={{
                all: words.byHand.allOutlines,
                ...Object.fromEntries(
                  outlines.flatMap((path, k) =>
                    path.closed ? [[`outline ${k}`, words.byHand.outlineOfSize(k + 1, sizeOf(path, job.unit))]] : [],
                  ),
                ),
              }}
              onPick={setOnly}
            />
          )}
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
            withStep(words.byHand.anOffset, {
              kind: 'offset',
              by: side === 'out' ? by : -by,
              count,
              corners,
              keeps: keeps === 'with',
              ...(isOne ? { only: numberIn(only) } : {}),
            })
          }
        >
          {count > 1 ? words.byHand.ringsLive(count) : words.byHand.setOffLive}
        </Button>
      )}
      <LiveSteps kinds={['offset', 'band']} />
    </>
  );
}

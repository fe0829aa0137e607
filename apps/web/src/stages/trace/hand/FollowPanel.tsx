'use client';
/**
 * Live steps live from what is drawn: a mirror image, turned copies, cut-outs, and a bent line laid flat.
 */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { knownAxes } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { useEffect, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { setHand, useHand } from '@/table/hand-store';
import { NumberField } from '@/ui/NumberField';
import { axisWords } from '../axis-words';
import { LayFlat, Strip } from './LayFlat';
import { LiveSteps } from './LiveSteps';
import { Pick, Row } from './Rows';
import { useChosen } from './use-chosen';

/** Ends that stop so short of the axis, or run so far past it, are led on to it, mm; changed beside the mirror. */
const usualReachMm = 2;
const mostAxes = 4;

export function FollowPanel() {
  const { job, targets, withStep, run, drawn } = useChosen();
  const { asking, places } = useHand(useShallow((s) => ({ asking: s.asking, places: s.places })));
  const [count, setCount] = useState(6);
  const [mirrored, setMirrored] = useState<'plain' | 'mirrored'>('plain');
  const axes = knownAxes(job);
  const mirrorAbout = (a: Point, b: Point) => withStep('a mirror', { kind: 'mirror', a, b, reach: usualReachMm });
  useEffect(() => {
    const [a, b] = places as [Point?, Point?];
    if (asking === 'axis' && a && b) {
      setHand({ asking: null, places: [] });
      mirrorAbout(a, b);
    }
    if (asking === 'centre' && a) {
      setHand({ asking: null, places: [] });
      withStep('turned copies', { kind: 'turn', centre: a, count, mirrored: mirrored === 'mirrored', axis: 0 });
    }
  });
  if (targets.length === 0) return <Typography variant="body2">Choose what you drew first.</Typography>;
  const ask = (what: 'axis' | 'centre') => setHand({ asking: asking === what ? null : what, places: [] });
  const others = targets.slice(1).flatMap((t) => (t.drawn ? [t.drawn.id] : []));
  const first = targets[0]?.drawn;
  return (
    <>
      {axes.slice(0, mostAxes).map((axis) => (
        <Button key={axis.id} variant="outlined" onClick={() => mirrorAbout(axis.a, axis.b)}>
          Mirror about {axisWords(axis, job.pictures.length > 1)}
        </Button>
      ))}
      <Button variant={asking === 'axis' ? 'contained' : 'outlined'} onClick={() => ask('axis')}>
        {asking === 'axis' ? 'Click two places of the axis' : axes.length > 0 ? 'Mirror about another axis' : 'Mirror about an axis'}
      </Button>
      <Row>
        <NumberField
          label="How many"
          value={count}
          digits={0}
          unit="2 to 60"
          onNumber={(n) => setCount(Math.max(2, Math.min(60, Math.round(n))))}
        />
        <Pick label="Each copy" value={mirrored} words={{ plain: 'as drawn', mirrored: 'with its mirror image' }} onPick={setMirrored} />
      </Row>
      <Button variant={asking === 'centre' ? 'contained' : 'outlined'} onClick={() => ask('centre')}>
        {asking === 'centre' ? 'Click the centre' : 'Turned copies about a centre'}
      </Button>
      {targets.length > 1 && first && others.length > 0 && (
        <Button
          variant="outlined"
          onClick={() =>
            run({
              do: 'change-drawn',
              drawnId: first.id,
              change: { live: [...first.live.filter((s) => s.kind !== 'cut-out'), { kind: 'cut-out', ids: others }] },
            })
          }
        >
          Take the others out of {first.name}, live
        </Button>
      )}
      {drawn && <LiveSteps />}
      {first?.source.kind === 'strip' ? <Strip drawn={first} source={first.source} /> : <LayFlat />}
    </>
  );
}

'use client';
/**
 * Live steps live from what is drawn: a mirror image, turned copies, cut-outs, and a bent line laid flat.
 */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { knownAxes } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { useState } from 'react';
import { setHand, useHand } from '@/table/hand-store';
import { NumberField } from '@/ui/NumberField';
import { Pick, Row } from '@/ui/Rows';
import { words } from '@/words';
import { axisWords } from '../axis-words';
import { LayFlat, Strip } from './LayFlat';
import { LiveSteps } from './LiveSteps';
import { useChosen } from './use-chosen';
import { usePlaces } from './use-places';

/** Ends that stop so short of the axis, or run so far past it, are led on to it, mm; changed beside the mirror. */
const usualReachMm = 2;
const maxAxes = 4;

export function FollowPanel() {
  const { job, targets, withStep, run, drawn } = useChosen();
  const asking = useHand((s) => s.asking);
  const [count, setCount] = useState(6);
  const [mirrored, setMirrored] = useState<'plain' | 'mirrored'>('plain');
  const axes = knownAxes(job);
  const mirrorAbout = (a: Point, b: Point) => withStep(words.byHand.aMirror, { kind: 'mirror', a, b, reach: usualReachMm });
  usePlaces('axis', 2, mirrorAbout);
  usePlaces('centre', 1, (centre) =>
    withStep(words.byHand.turnedCopies, { kind: 'turn', centre, count, mirrored: mirrored === 'mirrored', axis: 0 }),
  );
  if (targets.length === 0) return <Typography variant="body2">{words.byHand.chooseWhatYouDrewFirst}</Typography>;
  const ask = (what: 'axis' | 'centre') => setHand({ asking: asking === what ? null : what, places: [] });
  const others = targets.slice(1).flatMap((t) => (t.drawn ? [t.drawn.id] : []));
  const first = targets[0]?.drawn;
  return (
    <>
      {axes.slice(0, maxAxes).map((axis) => (
        <Button key={axis.id} variant="outlined" onClick={() => mirrorAbout(axis.a, axis.b)}>
          {words.byHand.mirrorAbout(axisWords(axis, job.pictures.length > 1))}
        </Button>
      ))}
      <Button variant={asking === 'axis' ? 'contained' : 'outlined'} onClick={() => ask('axis')}>
        {asking === 'axis'
          ? words.byHand.clickTwoPlacesOfTheAxis
          : axes.length > 0
            ? words.byHand.mirrorAboutAnotherAxis
            : words.byHand.mirrorAboutAnAxis}
      </Button>
      <Row>
        <NumberField
          label={words.byHand.howMany}
          value={count}
          digits={0}
          unit={words.byHand.copiesRange}
          least={2}
          most={60}
          onNumber={(n) => setCount(Math.round(n))}
        />
        <Pick
          label={words.byHand.eachCopy}
          value={mirrored}
          words={{ plain: words.byHand.asDrawn, mirrored: words.byHand.withItsMirrorImage }}
          onPick={setMirrored}
        />
      </Row>
      <Button variant={asking === 'centre' ? 'contained' : 'outlined'} onClick={() => ask('centre')}>
        {asking === 'centre' ? words.byHand.clickTheCentre : words.byHand.turnedCopiesAboutACentre}
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
          {words.byHand.takeTheOthersOutOfLive(first.name)}
        </Button>
      )}
      {drawn && <LiveSteps />}
      {first?.source.kind === 'strip' ? <Strip drawn={first} source={first.source} /> : <LayFlat />}
    </>
  );
}

'use client';
/**
 * What follows live from what is drawn: a mirror image, turned copies, cut-outs; and a bent line laid flat.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { outlinesFrom } from '@nuvet/core/job';
import { centreOf, type Path, type Point, pathBox, shift, transformedPath } from '@nuvet/core/plane';
import { carriedToStrip, layFlat, stationOf } from '@nuvet/core/shape';
import { useEffect, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { setHand, useHand } from '@/table/hand-store';
import { newDrawn } from '@/table/hand-target';
import { NumberField } from '@/ui/NumberField';
import { Section } from '../../Docket';
import { LiveSteps } from './LiveSteps';
import { Measure, Pick, Row } from './Rows';
import { useChosen } from './use-chosen';

export function FollowPanel() {
  const { targets, withStep, run, drawn } = useChosen();
  const { asking, places } = useHand(useShallow((s) => ({ asking: s.asking, places: s.places })));
  const [count, setCount] = useState(6);
  const [mirrored, setMirrored] = useState<'plain' | 'mirrored'>('plain');
  useEffect(() => {
    const [a, b] = places as [Point?, Point?];
    if (asking === 'axis' && a && b) {
      setHand({ asking: null, places: [] });
      withStep('a mirror', { kind: 'mirror', a, b });
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
      <Button variant={asking === 'axis' ? 'contained' : 'outlined'} onClick={() => ask('axis')}>
        {asking === 'axis' ? 'Click two places of the axis' : 'Mirror about an axis'}
      </Button>
      <Row>
        <NumberField
          label="How many"
          value={count}
          digits={0}
          unit="2 to 60"
          onNumber={(n) => setCount(Math.max(2, Math.min(60, Math.round(n))))}
        />
        <Pick label="Each" value={mirrored} words={{ plain: 'as drawn', mirrored: 'with its mirror image' }} onPick={setMirrored} />
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
      <LayFlat />
    </>
  );
}

/** Whether something is drawn on a curve: the curve runs through the middle third of its box. */
function liesOn(curve: Path, path: Path): boolean {
  const box = pathBox(path);
  const size = Math.max(1, Math.min(box.maxX - box.minX, box.maxY - box.minY) / 3);
  return stationOf(curve, centreOf(box)).off < size / 2;
}

/** A bent line as the straight strip that bends into it, holes, outlines and marks drawn on it carried along. */
function LayFlat() {
  const { job, run, target } = useChosen();
  const [k, setK] = useState(0.5);
  const [width, setWidth] = useState(25);
  const [side, setSide] = useState<'left' | 'right'>('right');
  const curve = target?.paths[0];
  if (!curve) return null;
  const thicknessMm = job.making.thicknessMm ?? 0;
  const flat = layFlat(curve, { thicknessMm, k, side, widthMm: width });
  const lay = () => {
    const marks = job.drawn.flatMap((d): readonly Path[] => {
      if (d.id === target?.drawn?.id || d.leftOut) return [];
      return outlinesFrom(d, job).paths.filter((path) => liesOn(curve, path));
    });
    const { minX, minY } = pathBox(curve);
    const place = (path: Path): Path => transformedPath(path, shift(minX, minY - width - 20));
    const holes = carriedToStrip(curve, flat, marks, width / 2);
    const made = newDrawn(job, 'Strip', { kind: 'paths', paths: [place(flat.strip), ...holes.map(place)] });
    run({ do: 'draw', drawn: made });
    setHand({ chosen: [made.id] });
  };
  return (
    <Section title="Lay flat">
      <Box sx={{ display: 'grid', gap: 1.25, pt: 0.75 }}>
        <Row>
          <NumberField label="k factor" value={k} digits={3} unit="0 to 1" onNumber={(n) => setK(Math.min(1, Math.max(0, n)))} />
          <Measure label="Strip’s width" mm={width} unit={job.unit} onMm={setWidth} />
        </Row>
        <Pick
          label="The stock lies"
          value={side}
          words={{ right: 'to the right of the line', left: 'to the left of the line' }}
          onPick={setSide}
        />
        <Typography variant="body2">
          {flat.lengthMm.toFixed(2)} mm long at {thicknessMm.toFixed(2)} mm stock.
        </Typography>
        <Button fullWidth variant="outlined" onClick={lay}>
          Lay it flat, with what is drawn on it
        </Button>
      </Box>
    </Section>
  );
}

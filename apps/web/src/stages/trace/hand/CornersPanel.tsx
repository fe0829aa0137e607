'use client';
/**
 * Corners rounded, bevelled or relieved, live: one radius for all, inner or outer ones; and the largest that fits.
 */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type CornerCut, cornersOf, largestCut, withCornersCut } from '@nuvet/core/shape';
import { useMemo, useState } from 'react';
import { useHand } from '@/table/hand-store';
import { shapeCommand } from '@/table/hand-target';
import { LiveSteps } from './LiveSteps';
import { Measure, Pick } from './Rows';
import { useChosen } from './use-chosen';

export function CornersPanel() {
  const { job, run, target, targets, withStep } = useChosen();
  const points = useHand((s) => s.points);
  const [size, setSize] = useState(2);
  const [which, setWhich] = useState<'all' | 'inner' | 'outer'>('all');
  const [how, setHow] = useState<CornerCut>('round');
  const meant = which === 'all' ? null : which === 'outer';
  const most = useMemo(() => {
    if (!target) return null;
    return Math.min(
      ...target.paths.map((path) => {
        const corners = cornersOf(path).filter(({ isOuter }) => meant === null || isOuter === meant);
        return corners.length === 0 ? Infinity : largestCut(path, corners.map(({ index }) => index), how); // biome-ignore format: one line
      }),
    );
  }, [target, meant, how]);
  const word = { round: 'Round', bevel: 'Bevel', 'dog-bone': 'Relieve', tee: 'Relieve' }[how];
  const chosenPoint = points?.indices.length === 1 ? points : null;
  return (
    <>
      <Pick
        label="Corner style"
        value={how}
        words={{
          round: 'round',
          bevel: 'bevelled',
          'dog-bone': 'dog-bone relief, on the bisector',
          tee: 'room for a tool, along one side',
        }}
        onPick={setHow}
      />
      <Pick label="Which" value={which} words={{ all: 'all', outer: 'outer ones', inner: 'inner ones' }} onPick={setWhich} />
      <Measure
        label={how === 'bevel' ? 'Setback' : how === 'round' ? 'Radius' : 'Tool’s radius'}
        mm={size}
        unit={job.unit}
        onMm={setSize}
      />
      {most !== null && Number.isFinite(most) && (
        <Typography variant="caption" color={size > most ? 'warning.main' : 'textSecondary'}>
          The largest that fits all of them is {most.toFixed(2)} mm.
        </Typography>
      )}
      <Button variant="contained" disabled={targets.length === 0} onClick={() => withStep('corners', { kind: 'round', size, which, how })}>
        {word} {targets.length > 1 ? 'all chosen' : 'its corners'}, live
      </Button>
      {target && chosenPoint && (
        <Button
          variant="outlined"
          onClick={() =>
            run(
              shapeCommand(
                target,
                target.paths.map((path, k) => {
                  const index = ((chosenPoint.indices[0] as number) - 1 + path.segments.length) % path.segments.length;
                  return k === chosenPoint.path ? withCornersCut(path, [index], size, how).path : path;
                }),
              ),
            )
          }
        >
          {word} the chosen corner only
        </Button>
      )}
      <LiveSteps kinds={['round']} />
    </>
  );
}

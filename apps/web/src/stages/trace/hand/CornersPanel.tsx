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
import { Measure, Pick } from '@/ui/Rows';
import { words } from '@/words';
import { LiveSteps } from './LiveSteps';
import { useChosen } from './use-chosen';

export function CornersPanel() {
  const { job, run, target, targets, withStep } = useChosen();
  const points = useHand((s) => s.points);
  const [size, setSize] = useState(2);
  const [which, setWhich] = useState<'all' | 'inner' | 'outer'>('all');
  const [how, setHow] = useState<CornerCut>('round');
  const meant = which === 'all' ? null : which === 'outer';
  const largest = useMemo(() => {
    if (!target) return null;
    return Math.min(
      ...target.paths.map((path) => {
        const corners = cornersOf(path).filter(({ isOuter }) => meant === null || isOuter === meant);
        return corners.length === 0 ? Infinity : largestCut(path, corners.map(({ index }) => index), how); // biome-ignore format: one line
      }),
    );
  }, [target, meant, how]);
  const word = { round: words.byHand.roundVerb, bevel: words.byHand.bevel, 'dog-bone': words.byHand.relieve, tee: words.byHand.relieve }[
    how
  ];
  const chosenPoint = points?.indices.length === 1 ? points : null;
  return (
    <>
      <Pick
        label={words.byHand.cornerStyle}
        value={how}
        words={{
          round: words.byHand.round,
          bevel: words.byHand.bevelled,
          'dog-bone': words.byHand.dogBoneReliefOnTheBisector,
          tee: words.byHand.roomForAToolAlongOne,
        }}
        onPick={setHow}
      />
      <Pick
        label={words.byHand.which}
        value={which}
        words={{ all: words.byHand.all, outer: words.byHand.outerOnes, inner: words.byHand.innerOnes }}
        onPick={setWhich}
      />
      <Measure
        label={how === 'bevel' ? words.byHand.setback : how === 'round' ? words.byHand.radius : words.byHand.toolsRadius}
        mm={size}
        unit={job.unit}
        onMm={setSize}
      />
      {largest !== null && Number.isFinite(largest) && (
        <Typography variant="caption" color={size > largest ? 'warning.main' : 'textSecondary'}>
          {words.byHand.largestThatFits(largest.toFixed(2))}
        </Typography>
      )}
      <Button
        variant="contained"
        disabled={targets.length === 0}
        onClick={() => withStep(words.byHand.roundingCorners, { kind: 'round', size, which, how })}
      >
        {words.byHand.cornersLive(word, targets.length)}
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
          {words.byHand.theChosenCornerOnly(word)}
        </Button>
      )}
      <LiveSteps kinds={['round']} />
    </>
  );
}

'use client';
/**
 * The chosen points, or the chosen segment, of what is corrected: typed places, kinds, and what can be done to them.
 */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { defaultTraceSettings, traceWith } from '@nuvet/core/job';
import { circleOf, distance, type Path, type Point, reversedPath, segmentLength, stepsOf, withPoint } from '@nuvet/core/plane';
import {
  brokenAt,
  isSmooth,
  madeCorner,
  madeSmooth,
  measured,
  pointOf,
  startMoved,
  withPointsMoved,
  withSegmentAs,
} from '@nuvet/core/shape';
import { withFewerPoints } from '@nuvet/core/trace';
import { useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { deleteChosen } from '@/table/hand-correcting';
import { setHand, useHand } from '@/table/hand-store';
import { newDrawn, shapeCommand, type Target } from '@/table/hand-target';
import { rasterNow } from '@/table/rectified-images';
import { useTable } from '@/table/table-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { words } from '@/words';
import { tracer } from '@/workers/tracer.client';
import { angleOfTurn, Kept, LockedDimensions, turnOfAngle, useHeld } from './LockedDimensions';
import { useChosen } from './use-chosen';

export function PointsPanel() {
  const { points, segment } = useHand(useShallow((s) => ({ points: s.points, segment: s.segment })));
  const { target } = useChosen();
  if (!target) return null;
  const path = target.paths[points?.path ?? segment?.path ?? 0];
  if (!path) return null;
  return (
    <>
      {points && points.indices.length > 0 ? (
        <ChosenPoints target={target} path={path} which={points.path} indices={points.indices} />
      ) : segment ? (
        <ChosenSegment target={target} path={path} which={segment.path} index={segment.index} />
      ) : (
        <WholePath target={target} path={path} />
      )}
      <LockedDimensions />
    </>
  );
}

const replaced = (target: Target, which: number, path: Path): Path[] => target.paths.map((p, k) => (k === which ? path : p));

interface PathProps {
  readonly target: Target;
  readonly path: Path;
}

function ChosenPoints({ target, path, which, indices }: PathProps & { which: number; indices: readonly number[] }) {
  const { run, job } = useChosen();
  const only = indices.length === 1 ? (indices[0] as number) : null;
  const at: Point | null = only === null ? null : pointOf(path, only);
  const write = (next: Path) => run(shapeCommand(target, replaced(target, which, next)));
  const moveTo = (to: Partial<Point>) =>
    at && write(withPointsMoved(path, indices, { x: (to.x ?? at.x) - at.x, y: (to.y ?? at.y) - at.y }));
  const smooth = only !== null && isSmooth(path, only);
  const sorted = [...indices].sort((a, b) => a - b);
  const span = [sorted[0] as number, sorted.at(-1) as number] as const;
  return (
    <>
      <Typography variant="h3">
        {indices.length === 1 ? words.byHand.point((only as number) + 1) : words.byHand.points(indices.length)}
      </Typography>
      {at && (
        <Row>
          <Measure label={words.byHand.x} mm={at.x} unit={job.unit} range="any" onMm={(x) => moveTo({ x })} />
          <Measure label={words.byHand.y} mm={at.y} unit={job.unit} range="any" onMm={(y) => moveTo({ y })} />
        </Row>
      )}
      {only !== null && <AngleAt path={path} index={only} />}
      {indices.length === 2 && <Apart path={path} a={span[0]} b={span[1]} />}
      {only !== null && (
        <Row>
          <Button size="small" variant="outlined" onClick={() => write(smooth ? madeCorner(path, only) : madeSmooth(path, only))}>
            {smooth ? words.byHand.makeACorner : words.byHand.makeSmooth}
          </Button>
          <Button
            size="small"
            variant="outlined"
            onClick={() => {
              const parts = brokenAt(path, only);
              const rest = target.paths.filter((_, k) => k !== which);
              const by = [...parts, ...rest].map((p, k) => ({
                ...newDrawn(job, words.byHand.outline, { kind: 'path', path: p }),
                name: k === 0 ? target.name : `${target.name} ${k + 1}`,
              }));
              run({ do: 'replace-drawn', word: words.byHand.breakingAnOutline, ids: [target.drawn?.id ?? target.pieceId], by });
              setHand({ chosen: by.map(({ id }) => id), points: null });
            }}
          >
            {words.byHand.breakHere}
          </Button>
        </Row>
      )}
      <Row>
        {only !== null && path.closed && (
          <Button size="small" variant="outlined" onClick={() => write(startMoved(path, only))}>
            {words.byHand.startHere}
          </Button>
        )}
        {indices.length > 1 && (
          <Button size="small" variant="outlined" onClick={() => write(withFewerPoints(path, span[0], span[1], 0.05))}>
            {words.byHand.fewerPointsBetween}
          </Button>
        )}
        {indices.length > 1 && <Closer target={target} path={path} which={which} run={span} />}
        <Button size="small" variant="outlined" color="error" onClick={() => deleteChosen(run, target)}>
          {words.byHand.remove}
        </Button>
      </Row>
    </>
  );
}

/** The angle between both sides of a corner; typed it is kept. */
function AngleAt({ path, index }: { path: Path; index: number }) {
  const { isPossible, keep } = useHeld();
  const isEnd = !path.closed && (index === 0 || index === path.segments.length);
  if (isEnd || !isPossible) return null;
  const measure = { kind: 'turn', point: index, turn: 0 } as const;
  const turn = measured(path, measure);
  return (
    <Kept measure={{ ...measure, turn }} word={words.byHand.angleWord}>
      <NumberField
        label={words.byHand.angle}
        value={angleOfTurn(turn)}
        digits={3}
        unit="°"
        least={0.01}
        most={180}
        onNumber={(degrees) => keep({ ...measure, turn: turnOfAngle(degrees, turn) })}
      />
    </Kept>
  );
}

/** How far two points are apart; typed it is kept, emptied it follows the stock. */
function Apart({ path, a, b }: { path: Path; a: number; b: number }) {
  const { job, isPossible, keep } = useHeld();
  if (!isPossible) return null;
  const measure = { kind: 'gap', a, b, mm: distance(pointOf(path, a), pointOf(path, b)), play: 0 } as const;
  return (
    <Kept measure={measure} word={words.byHand.distanceWord}>
      <Measure label={words.byHand.distance} mm={measure.mm} unit={job.unit} onMm={(mm) => keep({ ...measure, mm })} />
    </Kept>
  );
}

function ChosenSegment({ target, path, which, index }: PathProps & { which: number; index: number }) {
  const { run, job } = useChosen();
  const { of, keep } = useHeld();
  const step = stepsOf(path)[index];
  if (!step) return null;
  const { kind } = step.segment;
  const write = (next: Path) => run(shapeCommand(target, replaced(target, which, next)));
  const length = segmentLength(step.from, step.segment);
  const arc = step.segment.kind === 'arc' ? step.segment : null;
  /** An arc between the same ends; one that is tighter than half a circle over them cannot be. */
  const withRadius = (radius: number) => {
    const kept = of({ kind: 'radius', segment: index, mm: radius, play: 0 });
    if (kept) return keep({ kind: 'radius', segment: index, mm: radius, play: 0 });
    const half = distance(step.from, step.segment.to) / 2;
    if (!arc || radius < half) return;
    const minor = 2 * Math.asin(half / radius);
    const sweep = Math.sign(arc.sweep) * (Math.abs(arc.sweep) > Math.PI ? 2 * Math.PI - minor : minor);
    write({ ...path, segments: path.segments.map((s, k) => (k === index ? { ...arc, sweep } : s)) });
  };
  /** A line grows from its start; its end, and what hangs on it, moves. */
  const grow = (mm: number) => {
    const kept = of({ kind: 'length', segment: index, mm, play: 0 });
    if (kept) return keep({ kind: 'length', segment: index, mm, play: 0 });
    const k = mm / length;
    const { to } = step.segment;
    const last = path.closed ? (index + 1) % path.segments.length : index + 1;
    write(withPointsMoved(path, [last], { x: (to.x - step.from.x) * (k - 1), y: (to.y - step.from.y) * (k - 1) }));
  };
  return (
    <>
      <Pick
        label={words.byHand.theChosenSegmentIs}
        value={kind === 'line' || kind === 'arc' ? kind : 'cubic'}
        words={{ line: words.byHand.aLine, arc: words.byHand.anArc, cubic: words.byHand.aCurve }}
        onPick={(next) => write(withSegmentAs(path, index, next))}
      />
      <Row>
        {arc ? (
          <Kept measure={{ kind: 'radius', segment: index, mm: circleOf(step.from, arc).radius, play: 0 }} word={words.byHand.radiusWord}>
            <Measure label={words.byHand.radius} mm={circleOf(step.from, arc).radius} unit={job.unit} onMm={withRadius} />
          </Kept>
        ) : (
          <Kept measure={{ kind: 'length', segment: index, mm: length, play: 0 }} word={words.byHand.lengthWord}>
            <Measure label={words.byHand.length} mm={length} unit={job.unit} onMm={grow} />
          </Kept>
        )}
        <Button
          size="small"
          variant="outlined"
          sx={{ height: 40 }}
          onClick={() => {
            write(withPoint(path, index, 0.5));
            setHand({ points: { path: which, indices: [index + 1] }, segment: null });
          }}
        >
          {words.byHand.pointInTheMiddle}
        </Button>
      </Row>
    </>
  );
}

function WholePath({ target, path }: PathProps) {
  const { run } = useChosen();
  const points = target.paths.reduce((sum, p) => sum + p.segments.length, 0);
  return (
    <>
      <Typography variant="body2" color="textSecondary">
        {words.byHand.segmentsPrompt(points)}
      </Typography>
      {path.closed && <Closer target={target} path={path} which={0} run={null} />}
      <Row>
        <Button
          size="small"
          variant="outlined"
          onClick={() =>
            run(
              shapeCommand(
                target,
                target.paths.map((p) => withFewerPoints(p, 0, p.segments.length, 0.05)),
              ),
            )
          }
        >
          {words.byHand.fewerPoints}
        </Button>
        <Button size="small" variant="outlined" onClick={() => run(shapeCommand(target, replaced(target, 0, reversedPath(path))))}>
          {words.byHand.reverseDirection}
        </Button>
      </Row>
    </>
  );
}

/** Leads the path, or the run between the chosen points, along the picture's own edge. */
function Closer({ target, path, which, run: span }: PathProps & { which: number; run: readonly [number, number] | null }) {
  const { run, job } = useChosen();
  const activeId = useTable((s) => s.activeId);
  const picture = job.pictures.find(({ id }) => id === activeId) ?? job.pictures[0];
  const [state, setState] = useState<'idle' | 'busy' | 'none'>('idle');
  if (!picture) return null;
  const lead = async () => {
    setState('busy');
    const settings = traceWith(job, target.pieceId)?.settings ?? job.traces[0]?.settings ?? defaultTraceSettings;
    const closer = await tracer()
      .closer(picture, rasterNow(picture, false), settings, path, span)
      .catch(() => null);
    setState(closer ? 'idle' : 'none');
    if (closer) run(shapeCommand(target, replaced(target, which, closer)));
  };
  return (
    <Button size="small" variant="outlined" disabled={state === 'busy'} onClick={() => void lead()}>
      {state === 'none' ? words.byHand.noEdgeNearIt : words.byHand.closerToThePicture}
    </Button>
  );
}

'use client';
/**
 * Open ends: which nearly meet, how far they are apart, and joining them; and the list of those left open.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { type Job, masterOf, piecesOf } from '@nuvet/core/job';
import type { Path, Point } from '@nuvet/core/plane';
import { type BridgeKind, type EndPair, endPairs, type Fullness, plainFullness, withEndsJoined } from '@nuvet/core/shape';
import { useEffect, useMemo, useState } from 'react';
import { setHand } from '@/table/hand-store';
import { newDrawn, targetOf } from '@/table/hand-target';
import { setTable, useTable } from '@/table/table-store';
import { boxInView } from '@/table/view';
import { Measure, Pick } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../../job/job-store';

interface OpenLine {
  readonly id: string;
  readonly path: Path;
}

/** Open masters: drawn ones and traced lines; what follows from a master is not joined by itself. */
function openLines(job: Job): OpenLine[] {
  const others = piecesOf({ ...job, drawn: [] }).flatMap(({ id, outer, leftOut }) =>
    outer.closed || leftOut ? [] : [{ id, path: outer }],
  );
  const drawn = job.drawn.flatMap((one) =>
    one.leftOut || one.live.length > 0
      ? []
      : masterOf(one, job.making.stock.thicknessMm).paths.flatMap((path) => (path.closed ? [] : [{ id: one.id, path }])),
  );
  return [...others, ...drawn];
}

export function JoinPanel() {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [gapMm, setGap] = useState(1);
  const [how, setHow] = useState<BridgeKind>('meet');
  const [fullness, setFullness] = useState<Fullness>(plainFullness);
  const lines = useMemo(() => openLines(job), [job]);
  const pairs = useMemo(() => endPairs(lines.map(({ path }) => path), gapMm), [lines, gapMm]); // biome-ignore format: one line
  const joined = useMemo(() => withEndsJoined(lines.map(({ path }) => path), gapMm, how, fullness), [lines, gapMm, how, fullness]); // biome-ignore format: one line
  const made = useMemo(() => joined.filter((path) => !lines.some((line) => line.path === path)), [joined, lines]);
  // What would come of it is seen on the table while the figures are chosen.
  useEffect(() => {
    setHand({ sketch: made });
    return () => setHand({ sketch: [] });
  }, [made]);
  const join = () => {
    const gone = lines.filter(({ path }) => !joined.includes(path)).map(({ id }) => id);
    // Lines that share a drawn thing with a joined one come along.
    const along = lines.filter(({ id, path }) => gone.includes(id) && joined.includes(path)).map(({ path }) => path);
    const closedOnes = [...new Set(gone)].flatMap((id) => targetOf(job, id)?.paths.filter((path) => path.closed) ?? []);
    const by = [...made, ...along, ...closedOnes].map((path, k) => ({
      ...newDrawn(job, words.byHand.outline, { kind: 'path', path }),
      name: words.byHand.joined(job.drawn.length + k + 1),
    }));
    run({ do: 'replace-drawn', word: words.byHand.joiningEnds, ids: [...new Set(gone)], by });
    setHand({ chosen: by.slice(0, made.length).map(({ id }) => id) });
  };
  return (
    <>
      <Measure label={words.byHand.maximumGap} mm={gapMm} unit={job.unit} onMm={setGap} />
      <Pick
        label={words.byHand.joinWith}
        value={how}
        words={{
          meet: words.byHand.whereSidesCross,
          straight: words.byHand.byAStraightLine,
          smooth: words.byHand.byASmoothCurve,
          fair: words.byHand.byACurveOfOneCurvature,
        }}
        onPick={setHow}
      />
      {(how === 'smooth' || how === 'fair') && (
        <Box sx={{ px: 1 }}>
          <Typography variant="caption" color="textSecondary">
            {words.byHand.handleLengthAtEitherEnd}
          </Typography>
          {([0, 1] as const).map((end) => (
            <Slider
              key={end}
              size="small"
              aria-label={words.byHand.handleLengthAtTheEnd(end)}
              min={0.05}
              max={1.2}
              step={0.01}
              value={fullness[end]}
              onChange={(_, value) => setFullness(end === 0 ? [value, fullness[1]] : [fullness[0], value])}
            />
          ))}
        </Box>
      )}
      <Button variant="contained" disabled={pairs.length === 0} onClick={join}>
        {pairs.length === 0 ? words.byHand.noEndsSoNear : words.byHand.joinOfEnds(pairs.length)}
      </Button>
    </>
  );
}

/** How near ends must be to be called a near-miss, mm. */
const nearMissMm = 5;
const maxShown = 8;

/** Ends that are open, the nearest to another first; a click goes there. */
export function OpenEnds() {
  const job = useJob((s) => s.job);
  const screen = useTable((s) => s.screen);
  const lines = useMemo(() => openLines(job), [job]);
  const pairs = useMemo(() => endPairs(lines.map(({ path }) => path), nearMissMm), [lines]); // biome-ignore format: one line
  if (lines.length === 0) return null;
  const show = ({ a, b }: EndPair) => {
    const middle: Point = { x: (a.at.x + b.at.x) / 2, y: (a.at.y + b.at.y) / 2 };
    const half = Math.max(2, 3 * Math.hypot(a.at.x - b.at.x, a.at.y - b.at.y));
    setTable({ view: boxInView({ minX: middle.x - half, minY: middle.y - half, maxX: middle.x + half, maxY: middle.y + half }, screen) });
  };
  return (
    <Section title={words.byHand.openLines(lines.length)}>
      {pairs.slice(0, maxShown).map((pair) => (
        <Button
          key={`${pair.a.path}-${pair.a.which}-${pair.b.path}-${pair.b.which}`}
          size="small"
          color="error"
          onClick={() => show(pair)}
          sx={{ display: 'block', textAlign: 'left' }}
        >
          {words.byHand.twoEndsGoThere(pair.gapMm, pair.gapMm.toFixed(2))}
        </Button>
      ))}
      {pairs.length === 0 && (
        <Typography variant="caption" color="textSecondary">
          {words.byHand.noTwoEndsLieWithinMm(nearMissMm)}
        </Typography>
      )}
    </Section>
  );
}

'use client';
/**
 * Accuracy the outlines lie to the picture's edge, and with how many points: a chart over tolerances to choose from,
 * and the outlines coloured by their distance.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import type { Job, JobTrace, JobTraceSettings, Picture, RasterSource } from '@nuvet/core/job';
import { printDecimalInches, printMm } from '@nuvet/core/length';
import type { Point } from '@nuvet/core/plane';
import { scaleLog } from 'd3-scale';
import { line } from 'd3-shape';
import { memo, useEffect, useState } from 'react';
import { setTable, useTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { tracer } from '@/workers/tracer.client';
import type { DeviationSeen, TradeOff } from '@/workers/tracer.worker';

/** Tolerances that the chart compares, mm. */
const tolerances = [0.02, 0.05, 0.1, 0.2, 0.5, 1] as const;

interface Props {
  readonly picture: Picture;
  readonly trace: JobTrace;
  readonly raster: RasterSource;
  readonly settings: JobTraceSettings;
  readonly unit: Job['unit'];
  readonly onTolerance: (mm: number) => void;
}

export const Closeness = memo(function Closeness({ picture, trace, raster, settings, unit, onTolerance }: Props) {
  const [found, setFound] = useState<DeviationSeen | null>(null);
  const [compared, setCompared] = useState<{ readonly of: string; readonly list: readonly TradeOff[] } | null>(null);
  const [isShown, setIsShown] = useState(false);
  const key = JSON.stringify([raster.id, raster.toSheet]);
  // A comparison holds for every tolerance, and for one way of seeing the ink.
  const seen = JSON.stringify([key, { ...settings, toleranceMm: null }]);
  const offers = compared?.of === seen ? compared.list : null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for picture and raster
  useEffect(() => {
    let isWanted = true;
    // What a person has left out or led by hand does not count. The coloured lines are asked for only while they are looked at.
    const kept = trace.pieces.filter((p) => !p.leftOut && !p.byHand);
    tracer()
      .deviation(picture, raster, trace.settings, kept, isShown)
      .then(
        (strayed) => {
          if (!isWanted) return;
          setFound(strayed);
          if (isShown) setTable({ deviation: strayed });
        },
        () => {},
      );
    return () => {
      isWanted = false;
    };
  }, [trace, key, isShown]);
  useEffect(() => () => setTable({ deviation: null }), []);
  if (!found) return null;
  const show = (on: boolean) => {
    setIsShown(on);
    if (!on) setTable({ deviation: null });
  };
  const said = (mm: number) => (unit === 'mm' ? printMm(mm, 3) : printDecimalInches(mm, 4));
  return (
    <Section title={words.trace.accuracy}>
      <Typography variant="body2">
        {words.trace.accuracyNote(
          said(found.worst.mm),
          trace.pieces.reduce((n, p) => n + pointsOf(p), 0),
        )}
      </Typography>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <FormControlLabel
          label={words.trace.colourByDistance}
          sx={{ ml: 0 }}
          control={<Switch size="small" checked={isShown} onChange={(_, on) => show(on)} />}
        />
        <Button
          size="small"
          onClick={() => {
            show(true);
            lookAt(found.worst.at);
          }}
        >
          {words.trace.showTheLargestError}
        </Button>
      </Box>
      {offers ? (
        <TradeOffChart offers={offers} now={settings.toleranceMm} said={said} onTolerance={onTolerance} />
      ) : (
        <Button
          size="small"
          onClick={() =>
            void tracer()
              .tradeOff(raster, trace.settings, tolerances)
              .then((list) => list && setCompared({ of: seen, list: list.filter(isNew) }))
          }
        >
          {words.trace.compareTolerances}
        </Button>
      )}
    </Section>
  );
});

/** Whether an offer differs from the finer ones before it. */
const isNew = ({ points, worstMm }: TradeOff, k: number, all: readonly TradeOff[]): boolean =>
  all.slice(0, k).every((o) => o.points !== points || Math.abs(o.worstMm - worstMm) > 0.05 * worstMm);

const pointsOf = ({ outer, holes }: JobTrace['pieces'][number]): number =>
  outer.segments.length + holes.reduce((n, hole) => n + hole.segments.length, 0);

/** The worst place in the table's middle, close enough to judge it. */
function lookAt({ x, y }: Point): void {
  const { screen } = useTable.getState();
  const scale = 60;
  setTable({ view: { scale, x: screen.width / 2 - x * scale, y: screen.height / 2 + y * scale } });
}

const [width, height] = [306, 150];
const room = { left: 40, right: 12, top: 10, bottom: 30 };

interface ChartProps {
  readonly offers: readonly TradeOff[];
  readonly now: number;
  readonly said: (mm: number) => string;
  readonly onTolerance: (mm: number) => void;
}

/** Points against the largest distance; a click takes that tolerance. */
function TradeOffChart({ offers, now, said, onTolerance }: ChartProps) {
  const counts = offers.map((o) => o.points);
  const worst = offers.map((o) => Math.max(1e-4, o.worstMm));
  const x = scaleLog([Math.min(...worst) / 1.25, Math.max(...worst) * 1.25], [room.left, width - room.right]);
  const y = scaleLog([Math.max(1, Math.min(...counts) * 0.9), Math.max(...counts) * 1.1], [height - room.bottom, room.top]);
  const placeX = (o: TradeOff) => x(Math.max(1e-4, o.worstMm));
  const course = line<TradeOff>()
    .x(placeX)
    .y((o) => y(o.points));
  // Offers that came to the same are shown once, by their finest tolerance.
  const nearest = offers.findLast((o) => o.toleranceMm <= now * 1.001) ?? offers[0];
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={words.trace.pointsAgainstLargestDistance}
      sx={{ width: '100%', mt: 0.5 }}
    >
      <line x1={room.left} x2={width - room.right} y1={height - room.bottom} y2={height - room.bottom} stroke={colours.line} />
      <line x1={room.left} x2={room.left} y1={room.top} y2={height - room.bottom} stroke={colours.line} />
      <path d={course([...offers]) ?? ''} fill="none" stroke={colours.verdigris} strokeWidth={1.6} />
      <text x={width - room.right} y={height - 2} textAnchor="end" fontSize={11} fill={colours.ink}>
        {words.trace.largestDistanceMm}
      </text>
      <text x={4} y={room.top + 2} fontSize={11} fill={colours.ink} dominantBaseline="hanging">
        {words.trace.points}
      </text>
      {offers.map((offer) => {
        const isNow = offer === nearest;
        const isLabelled = isNow || offer === offers[0] || offer === offers.at(-1);
        const told = words.trace.toleranceMmPointsAtMost(offer.toleranceMm, offer.points, said(offer.worstMm));
        const [cx, cy] = [placeX(offer), y(offer.points)];
        return (
          // biome-ignore lint/a11y/useSemanticElements: there are no buttons inside an SVG
          <g
            key={offer.toleranceMm}
            role="button"
            tabIndex={0}
            aria-label={told}
            aria-pressed={isNow}
            style={{ cursor: 'pointer' }}
            onClick={() => onTolerance(offer.toleranceMm)}
            onKeyDown={(event) => event.key === 'Enter' && onTolerance(offer.toleranceMm)}
          >
            <title>{told}</title>
            <circle cx={cx} cy={cy} r={12} fill="transparent" />
            <circle
              cx={cx}
              cy={cy}
              r={isNow ? 6 : 4.5}
              fill={isNow ? colours.verdigris : colours.sheet}
              stroke={colours.verdigris}
              strokeWidth={1.8}
            />
            {isLabelled && (
              <>
                <text x={cx} y={cy - 10} fontSize={10.5} textAnchor="middle" fill={colours.ink}>
                  {offer.points}
                </text>
                <text x={cx} y={height - room.bottom + 13} fontSize={10} textAnchor="middle" fill={colours.ink}>
                  {Number(offer.worstMm.toPrecision(2))}
                </text>
              </>
            )}
          </g>
        );
      })}
    </Box>
  );
}

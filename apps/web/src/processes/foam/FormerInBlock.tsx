'use client';
/** A former in its block: the one under the wire, else the one that is chosen; and the way that the wire has gone. */
import Box from '@mui/material/Box';
import type { FoamPlan, Slice } from '@nuvet/core/foam';
import { chordsOf, type Box as Extent, type Path, type Point, pathBox } from '@nuvet/core/plane';
import { useMemo } from 'react';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { useWire } from './wire-store';

const chordMm = 0.2;
/** From the former to the edges of its block, and from those to the window's, mm. */
const marginMm = 20;
const rimMm = 14;

export default function FormerInBlock() {
  const plan = useMaking((s) => s.planned)?.plan as FoamPlan | undefined;
  const burnt = useMaking((s) => s.burnt);
  const under = useWire((s) => s.under);
  const chosen = useWire((s) => s.chosen);
  const number = under ?? chosen ?? 1;
  const former = plan && 'slices' in plan ? plan.slices.find((slice) => slice.number === number) : undefined;
  const seen = useMemo(() => (former ? seenOf(former) : null), [former]);
  if (!seen) return <Box sx={{ bgcolor: colours.ground }} />;
  const { box, line } = seen;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  return (
    <Box
      role="img"
      aria-label={words.foam.blockInView(number)}
      sx={{ bgcolor: colours.ground, p: 3, overflow: 'hidden', display: 'grid', minHeight: 0 }}
    >
      <svg
        viewBox={`${box.minX - rimMm} ${-box.maxY - rimMm} ${width + 2 * rimMm} ${height + 2 * rimMm}`}
        width="100%"
        height="100%"
        aria-hidden
        style={{ minHeight: 0 }}
      >
        <rect x={box.minX} y={-box.maxY} width={width} height={height} fill={colours.sheet} stroke={colours.line} strokeWidth={line} />
        <path d={seen.former} fill={colours.paleVerdigris} fillRule="evenodd" stroke={colours.verdigris} strokeWidth={1.5 * line} />
        {under !== null && burnt && (
          <>
            {burnt.stretches.map((points, k) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a stretch is where it comes
              <path key={k} d={wayOf(points)} fill="none" stroke={colours.madder} strokeWidth={line} strokeLinejoin="round" />
            ))}
            {!burnt.isOver && <circle cx={burnt.head.x} cy={-burnt.head.y} r={4 * line} fill={colours.madder} />}
          </>
        )}
      </svg>
    </Box>
  );
}

const text = (points: readonly Point[]): string => points.map(({ x, y }) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join('L');
const wayOf = (points: readonly Point[]): string => (points.length > 0 ? `M${text(points)}` : '');

function seenOf({ outline, holes }: Slice) {
  const { minX, minY, maxX, maxY } = pathBox(outline);
  const box: Extent = { minX: minX - marginMm, minY: minY - marginMm, maxX: maxX + marginMm, maxY: maxY + marginMm };
  const loop = (path: Path): string => `M${text(chordsOf(path, chordMm))}Z`;
  return {
    box,
    line: Math.max((box.maxX - box.minX) / 900, (box.maxY - box.minY) / 620),
    former: [outline, ...holes].map(loop).join(''),
  };
}

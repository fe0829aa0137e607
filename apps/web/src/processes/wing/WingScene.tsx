'use client';
/** Root and tip over one another as the wire sees them, its way at the root, and the panel from above. */
import Box from '@mui/material/Box';
import { coreOf, type WingPlan } from '@nuvet/core/foam';
import { type Point, pathBox, polygonOf } from '@nuvet/core/plane';
import { useMemo } from 'react';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';

const say = words.wing;
const chordMm = 0.1;
const rimMm = 24;

export default function WingScene() {
  const plan = useMaking((s) => s.planned)?.plan as WingPlan | undefined;
  const seen = useMemo(() => (plan && 'cut' in plan ? seenOf(plan) : null), [plan]);
  if (!seen) return <Box sx={{ bgcolor: colours.ground }} />;
  const { box, line, size } = seen;
  return (
    <Box role="img" aria-label={say.facesInView} sx={{ bgcolor: colours.ground, p: 3, overflow: 'hidden', display: 'grid' }}>
      <svg viewBox={`${box.minX} ${box.minY} ${box.width} ${box.height}`} width="100%" height="100%" aria-hidden style={{ minHeight: 0 }}>
        <path d={seen.rootSection} fill="none" stroke={colours.quietInk} strokeWidth={line} strokeDasharray={`${5 * line} ${4 * line}`} />
        <path d={seen.tipSection} fill="none" stroke={colours.quietInk} strokeWidth={line} strokeDasharray={`${5 * line} ${4 * line}`} />
        <path d={seen.root} fill={colours.sheet} stroke={colours.verdigris} strokeWidth={2 * line} />
        <path d={seen.tip} fill={colours.paleVerdigris} fillOpacity={0.8} stroke={colours.indigo} strokeWidth={2 * line} />
        <path d={seen.wire} fill="none" stroke={colours.madder} strokeWidth={line} />
        <text x={seen.rootAt.x} y={seen.rootAt.y} fontSize={size} fill={colours.verdigris} textAnchor="end">
          {say.root}
        </text>
        <text x={seen.tipAt.x} y={seen.tipAt.y} fontSize={size} fill={colours.indigo}>
          {say.tip}
        </text>
        <path d={seen.planform} fill={colours.sheet} stroke={colours.ink} strokeWidth={1.4 * line} strokeLinejoin="round" />
        <text x={seen.planAt.x} y={seen.planAt.y} fontSize={size} fill={colours.quietInk}>
          {say.fromAbove}
        </text>
      </svg>
    </Box>
  );
}

/** All that is drawn, y down: the faces above, the panel from above below them, its root edge at the left. */
function seenOf({ cut: { faces, wire }, panel }: WingPlan) {
  const flip = ({ x, y }: Point): Point => ({ x, y: -y });
  const text = (points: readonly Point[], isClosed = true): string => `M${points.map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`).join('L')}${isClosed ? 'Z' : ''}`; // biome-ignore format: one line
  const face = (points: readonly Point[]): Point[] => points.map(flip);
  const [root, tip] = [coreOf(faces.root), coreOf(faces.tip)];
  const all = [...root, ...tip, ...polygonOf(faces.root.section, chordMm), ...polygonOf(faces.tip.section, chordMm)].map(flip);
  const [minX, maxX] = [Math.min(...all.map(({ x }) => x)), Math.max(...all.map(({ x }) => x))];
  const [top, foot] = [Math.min(...all.map(({ y }) => y)), Math.max(...all.map(({ y }) => y))];
  // As long as the chord is drawn at most one and a half times.
  const scale = Math.min(1, (1.5 * (maxX - minX)) / panel.spanMm);
  const edges = [pathBox(faces.root.section), pathBox(faces.tip.section)];
  const planTop = foot + 2 * rimMm;
  const [a, b] = edges as [(typeof edges)[0], (typeof edges)[0]];
  const across = panel.spanMm * scale;
  const down = (x: number): number => planTop + (x - Math.min(a.minX, b.minX)) * scale;
  const planform = [{ x: minX, y: down(a.minX) }, { x: minX + across, y: down(b.minX) }, { x: minX + across, y: down(b.maxX) }, { x: minX, y: down(a.maxX) }]; // biome-ignore format: one line
  const planFoot = Math.max(...planform.map(({ y }) => y));
  const width = Math.max(maxX - minX, across) + 2 * rimMm;
  const box = { minX: minX - rimMm, minY: top - rimMm, width, height: planFoot - top + 2.5 * rimMm };
  const line = Math.max(box.width / 900, box.height / 620);
  return {
    box,
    line,
    size: 14 * line,
    root: text(face(root)),
    tip: text(face(tip)),
    rootSection: text(face(polygonOf(faces.root.section, chordMm))),
    tipSection: text(face(polygonOf(faces.tip.section, chordMm))),
    wire: text(face(wire.map(({ root: p }) => p)), false),
    rootAt: { x: minX - 4 * line, y: flip(root[0] as Point).y },
    tipAt: { x: Math.max(...tip.map(({ x }) => x)) + 4 * line, y: flip(tip[0] as Point).y + 22 * line },
    planform: text(planform),
    planAt: { x: minX, y: planFoot + 20 * line },
  };
}

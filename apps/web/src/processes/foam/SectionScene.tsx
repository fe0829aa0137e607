'use client';
/**
 * A section seen along the body: the chosen one at its true size, others behind it. The points of a drawn one are dragged on the right; the
 * left follows.
 */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type FoamPlan, type FoamSection, type FoamSettings, halfThrough } from '@nuvet/core/foam';
import { chordsOf, type Path, type Point, pathBox } from '@nuvet/core/plane';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { useOpenProcess } from '../open-process';
import type { OpenProcess } from '../process-view';
import { chooseSection, useChosenSection } from './section-store';

const say = words.foam;
const nudge = 0.01;
type Drawn = Extract<FoamSection, { kind: 'drawn' }>;

export default function SectionScene() {
  const open = useOpenProcess() as OpenProcess<FoamSettings, FoamPlan> | null;
  const { section, point } = useChosenSection();
  const svg = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<{ readonly k: number; readonly at: Point } | null>(null);
  const plan = open?.plan;
  if (!open || !plan || !('slices' in plan)) return <Box sx={{ bgcolor: colours.ground }} />;
  const { settings, set } = open;
  const chosen = settings.sections[section];
  const seen = plan.sections[section];
  if (!chosen || !seen) return <Box sx={{ bgcolor: colours.ground, p: 4 }}><Typography color="textSecondary">{say.noSection}</Typography></Box>; // biome-ignore format: one line

  const box = pathBox(seen.outline);
  const [width, height] = [Math.max(plan.widthMm, box.maxX - box.minX) * 1.15, Math.max(plan.heightMm, box.maxY - box.minY) * 1.15];
  const line = Math.max(width / 900, height / 600);
  const flip = ({ x, y }: Point): Point => ({ x, y: plan.heightMm - y });
  const text = (path: Path): string => `M${chordsOf(path, 0.1).map(flip).map(({ x, y }) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}${path.closed ? 'Z' : ''}`; // biome-ignore format: one line
  const half = (box.maxX - box.minX) / 2;
  const toMm = ({ x, y }: Point): Point => ({ x: x * half, y: box.minY + y * (box.maxY - box.minY) });
  const points = chosen.kind === 'drawn' ? chosen.points.map((p, k) => (dragged?.k === k ? { ...p, at: dragged.at } : p)) : [];
  const drawn = halfThrough(points.map(({ at, corner }) => ({ at: toMm(at), corner })));

  const move = (k: number, at: Point): void => {
    if (chosen.kind !== 'drawn') return;
    const moved: Drawn = { ...chosen, points: chosen.points.map((p, n) => (n === k ? { ...p, at } : p)) };
    set({ sections: settings.sections.map((one, n) => (n === section ? moved : one)) });
  };
  /** Where a pointer is, as shares of the section; the ends stay on the middle. */
  const under = ({ clientX, clientY }: PointerEvent, k: number): Point => {
    const matrix = svg.current?.getScreenCTM()?.inverse();
    if (!matrix) return { x: 0, y: 0 };
    const p = flip(new DOMPoint(clientX, clientY).matrixTransform(matrix));
    const isEnd = k === 0 || k === points.length - 1;
    return { x: isEnd ? 0 : Math.max(0, p.x / half), y: (p.y - box.minY) / (box.maxY - box.minY) };
  };
  const keys = (event: KeyboardEvent, k: number, at: Point): void => {
    const by = { ArrowLeft: [-nudge, 0], ArrowRight: [nudge, 0], ArrowUp: [0, nudge], ArrowDown: [0, -nudge] }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const isEnd = k === 0 || k === points.length - 1;
    move(k, { x: isEnd ? 0 : Math.max(0, at.x + (by[0] as number)), y: at.y + (by[1] as number) });
  };
  return (
    <Box sx={{ bgcolor: colours.ground, p: 3, display: 'grid', overflow: 'hidden' }}>
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing is no field set */}
      <svg
        ref={svg}
        role="group"
        aria-label={say.sectionInView(section + 1)}
        viewBox={`${-width / 2} ${plan.heightMm / 2 - height / 2} ${width} ${height}`}
        width="100%"
        height="100%"
        style={{ touchAction: 'none', minHeight: 0 }}
        onPointerMove={(event) => dragged && setDragged({ k: dragged.k, at: under(event, dragged.k) })}
        onPointerUp={() => {
          if (dragged) move(dragged.k, dragged.at);
          setDragged(null);
        }}
        onPointerCancel={() => setDragged(null)}
      >
        <line
          x1={0}
          x2={0}
          y1={plan.heightMm / 2 - height / 2}
          y2={plan.heightMm / 2 + height / 2}
          stroke={colours.line}
          strokeWidth={line}
        />
        {plan.sections.map((one, k) =>
          k === section ? null : (
            <path
              key={text(one.outline)}
              d={text(one.outline)}
              fill="none"
              stroke={colours.quietInk}
              strokeOpacity={0.5}
              strokeWidth={line}
              strokeDasharray={`${5 * line} ${4 * line}`}
            />
          ),
        )}
        <path d={text(seen.outline)} fill={colours.sheet} stroke={colours.verdigris} strokeWidth={2 * line} />
        {dragged && drawn && (
          <>
            <path d={text(drawn)} fill="none" stroke={colours.ink} strokeWidth={1.4 * line} />
            <path d={text(drawn)} fill="none" stroke={colours.ink} strokeWidth={1.4 * line} transform="scale(-1 1)" />
          </>
        )}
        {points.map(({ at, corner }, k) => {
          const { x, y } = flip(toMm(at));
          const size = 6 * line;
          const common = {
            role: 'button',
            tabIndex: 0,
            'aria-label': say.pointInView(k + 1),
            'aria-pressed': point === k,
            fill: point === k ? colours.verdigris : colours.sheet,
            stroke: colours.verdigris,
            strokeWidth: 1.8 * line,
            style: { cursor: 'grab' },
            onKeyDown: (event: KeyboardEvent) => keys(event, k, at),
            onPointerDown: (event: PointerEvent<SVGElement>) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              chooseSection(section, k);
              setDragged({ k, at });
            },
          };
          return corner ? (
            // biome-ignore lint/suspicious/noArrayIndexKey: points are told apart by their order along the half
            <path key={k} {...common} d={`M${x - size} ${y}L${x} ${y - size}L${x + size} ${y}L${x} ${y + size}Z`} />
          ) : (
            // biome-ignore lint/suspicious/noArrayIndexKey: points are told apart by their order along the half
            <circle key={k} {...common} cx={x} cy={y} r={size * 0.9} />
          );
        })}
      </svg>
    </Box>
  );
}

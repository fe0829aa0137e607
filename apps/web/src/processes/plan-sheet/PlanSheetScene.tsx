'use client';
/** The plan sheet as it will be printed; its dimensions can be dragged. */
import Box from '@mui/material/Box';
import {
  type DrawnDimension,
  type LineKind,
  lineLooks,
  type PlanSheetSettings,
  type SheetPlan,
  type SheetText,
} from '@nuvet/core/drafting';
import { pathData } from '@nuvet/core/formats';
import { type PointerEvent, useRef, useState } from 'react';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { useOpenProcess } from '../open-process';

const say = words.planSheet;

export default function PlanSheetScene() {
  const plan = useMaking((s) => s.planned?.plan as SheetPlan | undefined);
  const open = useOpenProcess();
  const svg = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<{ name: string; fromX: number; fromY: number; dx: number; dy: number } | null>(null);
  if (!plan || !('front' in plan) || !open) return <Box sx={{ bgcolor: colours.ground }} />;
  const { widthMm, heightMm, strokes, texts, dimensions } = plan;
  /** From the screen to millimetres of the paper. */
  const perPixel = (): number => widthMm / Math.max(1, svg.current?.getBoundingClientRect().width ?? 1);
  const take = (event: PointerEvent<SVGGElement>, name: string): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    setDragged({ name, fromX: event.clientX, fromY: event.clientY, dx: 0, dy: 0 });
  };
  const drag = (event: PointerEvent<SVGGElement>): void => {
    if (dragged)
      setDragged({ ...dragged, dx: (event.clientX - dragged.fromX) * perPixel(), dy: (dragged.fromY - event.clientY) * perPixel() });
  };
  const drop = (): void => {
    if (!dragged) return;
    const { moved } = open.settings as PlanSheetSettings;
    const before = moved.find(({ name }) => name === dragged.name) ?? { dx: 0, dy: 0 };
    const others = moved.filter(({ name }) => name !== dragged.name);
    if (Math.hypot(dragged.dx, dragged.dy) > 0.2)
      open.set({ moved: [...others, { name: dragged.name, dx: before.dx + dragged.dx, dy: before.dy + dragged.dy }] } as object);
    setDragged(null);
  };
  return (
    <Box role="img" aria-label={say.inView} sx={{ overflow: 'auto', bgcolor: colours.ground, p: 3, display: 'grid', placeItems: 'center' }}>
      <svg
        ref={svg}
        viewBox={`0 0 ${widthMm} ${heightMm}`}
        aria-hidden
        style={{ width: '100%', maxHeight: '100%', background: colours.sheet, boxShadow: '0 1px 10px rgba(32, 48, 58, 0.18)' }}
      >
        <g fill="none" stroke={colours.ink}>
          {(Object.keys(lineLooks) as LineKind[]).map((kind) => (
            <path
              key={kind}
              d={strokes.flatMap((stroke) => (stroke.kind === kind ? [pathData(stroke.path, heightMm)] : [])).join(' ')}
              strokeWidth={lineLooks[kind].widthMm}
              strokeDasharray={lineLooks[kind].dashMm.join(' ')}
            />
          ))}
        </g>
        {texts.map((text) => (
          <Written key={`${text.text} ${text.at.x} ${text.at.y}`} text={text} heightMm={heightMm} />
        ))}
        {dimensions.map((dimension) => (
          <g
            key={dimension.name}
            style={{ cursor: 'grab', touchAction: 'none' }}
            transform={dragged?.name === dimension.name ? `translate(${dragged.dx} ${-dragged.dy})` : undefined}
            onPointerDown={(event) => take(event, dimension.name)}
            onPointerMove={drag}
            onPointerUp={drop}
          >
            <Dimension dimension={dimension} heightMm={heightMm} />
          </g>
        ))}
      </svg>
    </Box>
  );
}

function Dimension({ dimension: { strokes, arrows, text }, heightMm }: { dimension: DrawnDimension; heightMm: number }) {
  const lines = strokes.map((path) => pathData(path, heightMm)).join(' ');
  return (
    <>
      <path d={lines} fill="none" stroke="transparent" strokeWidth={3} />
      <path d={lines} fill="none" stroke={colours.indigo} strokeWidth={lineLooks.dimension.widthMm} />
      <path d={arrows.map((path) => pathData(path, heightMm)).join(' ')} fill={colours.indigo} />
      <Written text={text} heightMm={heightMm} />
    </>
  );
}

function Written({ text: { text, at, heightMm: high, anchor, degrees }, heightMm }: { text: SheetText; heightMm: number }) {
  const [x, y] = [at.x, heightMm - at.y];
  return (
    <text
      x={x}
      y={y}
      fontSize={high / 0.72}
      textAnchor={anchor}
      fill={colours.ink}
      fontFamily="Helvetica, Arial, sans-serif"
      transform={degrees === 0 ? undefined : `rotate(${-degrees} ${x} ${y})`}
    >
      {text}
    </text>
  );
}

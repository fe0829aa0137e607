'use client';
/**
 * The quilt, as large as the place allows, painted in its fabrics; with its quilting line, what is sewn twice coloured, and the needle where
 * it has come to.
 */
import Box from '@mui/material/Box';
import { distance, type Path, type Point, polygonOf } from '@nuvet/core/plane';
import { blockAreas, type QuiltingLine, type QuiltingSettings, type QuiltPlan, quiltAreas, type StretchKind } from '@nuvet/core/quilting';
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { outlinePath2d } from '@/table/drawing-outlines';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { useOpenProcess } from '../open-process';
import type { OpenProcess } from '../process-view';
import { askForEnd, useLineEnds } from './line-ends-store';
import { useNeedle } from './needle-store';
import { paintAreas } from './painted-areas';
import { usePrints } from './prints';

/** The line is drawn in chords that leave it by at most this, mm. */
const chordMm = 0.15;
const marginPx = 36;

const noFabrics: QuiltingSettings['fabrics'] = [];

/** The line as places one after another, and where each piece of it is sewn a second time. */
interface Drawn {
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  /** 0 where the needle is moved there without sewing, else how it sews (see `sewn`). */
  readonly kinds: Uint8Array;
  readonly lengthMm: number;
}

/** How each kind of stretch is drawn. */
const sewn: readonly { readonly kind: StretchKind; readonly colour: string; readonly widthPx: number }[] = [
  { kind: 'drawn', colour: colours.ink, widthPx: 1.3 },
  { kind: 'again', colour: colours.madder, widthPx: 2.2 },
  { kind: 'seam', colour: colours.brass, widthPx: 2.2 },
];

function drawnLine({ runs, lengthMm }: QuiltingLine): Drawn {
  const places: { p: Point; kind: number }[] = [];
  for (const { path, kinds } of runs) {
    places.push({ p: path.start, kind: 0 });
    let from = path.start;
    path.segments.forEach((segment, k) => {
      const own: Path = { start: from, segments: [segment], closed: false };
      for (const p of polygonOf(own, chordMm).slice(1)) places.push({ p, kind: 1 + sewn.findIndex((one) => one.kind === kinds[k]) });
      from = segment.to;
    });
  }
  return {
    xs: Float32Array.from(places, ({ p }) => p.x),
    ys: Float32Array.from(places, ({ p }) => p.y),
    kinds: Uint8Array.from(places, ({ kind }) => kind),
    lengthMm,
  };
}

function useSize(frame: RefObject<HTMLDivElement | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, [frame]);
  return size;
}

export default function QuiltView() {
  const open = useOpenProcess() as OpenProcess<QuiltingSettings, QuiltPlan> | null;
  const { plan = null, settings = null } = open ?? {};
  const prints = usePrints(settings?.fabrics ?? noFabrics);
  const panel = useMaking((s) => s.panel);
  const asking = useLineEnds((s) => s.asking);
  const frame = useRef<HTMLDivElement>(null);
  const cloth = useRef<HTMLCanvasElement>(null);
  const thread = useRef<HTMLCanvasElement>(null);
  const needle = useRef<HTMLCanvasElement>(null);
  const size = useSize(frame);
  const share = useNeedle((s) => s.share);
  const isSewn = panel === 'needle';
  const withLine = panel === 'line' || isSewn;
  const burnt = useMaking((s) => s.burnt);
  const isBlock = withLine && (plan?.line?.isOnBlock ?? (settings?.line.over === 'block' && settings.further.length === 0));
  const areas = useMemo(
    () => (plan && settings ? (isBlock ? blockAreas(plan, settings) : quiltAreas(plan, settings)) : []),
    [plan, settings, isBlock],
  );
  const line = useMemo(() => (withLine && plan?.line ? drawnLine(plan.line) : null), [plan, withLine]);
  const whole = plan ? (isBlock ? plan.block : plan.quilt) : null;
  const scale = whole
    ? Math.max(1e-6, Math.min((size.width - 2 * marginPx) / whole.widthMm, (size.height - 2 * marginPx) / whole.heightMm))
    : 1;
  const left = whole ? (size.width - scale * whole.widthMm) / 2 : 0;
  const low = whole ? (size.height + scale * whole.heightMm) / 2 : 0;
  useEffect(() => {
    const canvas = cleared(cloth.current, size);
    if (!canvas || !settings) return;
    canvas.transform(scale, 0, 0, -scale, left, low);
    // Under a quilting line the cloth is paler, so that the line is seen.
    const edge = withLine ? colours.line : colours.ink;
    paintAreas(canvas, areas, settings, prints, { opacity: withLine ? 0.35 : 1, edge, edgeWidth: 0.7 / scale });
    if (withLine && plan?.line) drawAround(canvas, plan.line, scale);
    for (const end of ['startAt', 'endAt'] as const)
      if (withLine && isBlock && settings.line.pattern === 'drawn' && settings.line[end]) endAt(canvas, settings.line[end], scale);
  }, [areas, settings, scale, left, low, size, withLine, prints, plan, isBlock]);
  const drawn = useRef<{ key: readonly unknown[]; progress: Progress }>({ key: [], progress: { count: 0, since: 0 } });
  useEffect(() => {
    const above = cleared(needle.current, size);
    if (!line || !above) {
      cleared(thread.current, size);
      drawn.current.key = [];
      return;
    }
    above.transform(scale, 0, 0, -scale, left, low);
    if (isSewn) {
      const canvas = cleared(thread.current, size);
      drawn.current.key = [];
      if (!canvas || !burnt) return;
      canvas.transform(scale, 0, 0, -scale, left, low);
      stitched(canvas, burnt, scale);
      needleAt(above, burnt.head, scale);
      return;
    }
    // While the needle runs on, only what is new is drawn.
    const count = Math.max(1, Math.round(share * line.xs.length));
    const key = [line, size, scale, left, low];
    const { progress } = drawn.current;
    const goesOn = key.every((one, k) => one === drawn.current.key[k]) && count >= progress.count;
    const canvas = goesOn ? (thread.current?.getContext('2d') ?? null) : cleared(thread.current, size);
    if (!canvas) return;
    if (!goesOn) {
      canvas.transform(scale, 0, 0, -scale, left, low);
      drawn.current = { key, progress: { count: 0, since: arrowEveryPx / 2 } };
    }
    sewOn(canvas, line, count, scale, drawn.current.progress);
    needleAt(above, { x: line.xs[count - 1] as number, y: line.ys[count - 1] as number }, scale);
  }, [line, share, scale, left, low, size, isSewn, burnt]);
  return (
    <Box
      ref={frame}
      role="img"
      aria-label={withLine ? words.quilting.lineInView : words.quilting.quiltInView}
      sx={{ position: 'relative', overflow: 'hidden', bgcolor: colours.ground, cursor: asking ? 'crosshair' : undefined }}
      onClick={(event) => {
        if (!asking || !open || !settings || !isBlock) return;
        const { left: x, top: y } = event.currentTarget.getBoundingClientRect();
        const clicked = { x: (event.clientX - x - left) / scale, y: (low - event.clientY + y) / scale };
        open.set({ line: { ...settings.line, [asking]: endNear(plan?.line ?? null, clicked, snapPx / scale) } });
        askForEnd(null);
      }}
    >
      {[cloth, thread, needle].map((ref, k) => (
        <canvas key={String(k)} ref={ref} style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }} />
      ))}
    </Box>
  );
}

/** A click so near to where stretches of the line end is meant for there, pixels. */
const snapPx = 10;

function endNear(line: QuiltingLine | null, p: Point, within: number): Point {
  const ends = (line?.runs ?? []).flatMap(({ path }) => [path.start, ...path.segments.map(({ to }) => to)]);
  return ends.reduce((best, end) => (distance(end, p) < Math.min(within, best === p ? Infinity : distance(best, p)) ? end : best), p);
}

function cleared(element: HTMLCanvasElement | null, { width, height }: { width: number; height: number }): CanvasRenderingContext2D | null {
  const canvas = element?.getContext('2d');
  if (!element || !canvas || width === 0) return null;
  const ratio = window.devicePixelRatio || 1;
  [element.width, element.height] = [Math.round(width * ratio), Math.round(height * ratio)];
  canvas.setTransform(ratio, 0, 0, ratio, 0, 0);
  return canvas;
}

/** Where the machine goes on in another pass, and the first place of each kind that sews badly. */
function drawAround(canvas: CanvasRenderingContext2D, { passes, crowded, sharp }: QuiltingLine, scale: number): void {
  canvas.strokeStyle = colours.verdigris;
  canvas.lineWidth = 1.2 / scale;
  for (const mark of passes?.marks ?? []) canvas.stroke(outlinePath2d(mark));
  canvas.strokeStyle = colours.madder;
  canvas.lineWidth = 2 / scale;
  for (const { at } of [crowded, sharp]) {
    if (!at) continue;
    canvas.beginPath();
    canvas.arc(at.x, at.y, 11 / scale, 0, 2 * Math.PI);
    canvas.stroke();
  }
}

/** A given end of the line. */
function endAt(canvas: CanvasRenderingContext2D, { x, y }: Point, scale: number): void {
  canvas.strokeStyle = colours.verdigris;
  canvas.lineWidth = 2 / scale;
  canvas.strokeRect(x - 6 / scale, y - 6 / scale, 12 / scale, 12 / scale);
}

/** How far a line is drawn: up to which place, and how far beyond the last arrow, pixels. */
interface Progress {
  count: number;
  since: number;
}

/** Arrows along the line lie so far apart at least, and are so large, in pixels; on a long line there are so many. */
const arrowEveryPx = 130;
const mostArrows = 90;
const arrowPx = 5;

/** The line on from where it is drawn to: sewn once in ink, twice in madder, along seams in brass, with arrows that tell which way it runs. */
function sewOn(canvas: CanvasRenderingContext2D, { xs, ys, kinds, lengthMm }: Drawn, to: number, scale: number, progress: Progress): void {
  const from = Math.max(1, progress.count);
  for (const [n, { colour, widthPx }] of sewn.entries()) {
    canvas.beginPath();
    for (let k = from; k < to; k++) {
      if (kinds[k] !== n + 1) continue;
      if (k === from || kinds[k - 1] !== n + 1) canvas.moveTo(xs[k - 1] as number, ys[k - 1] as number);
      canvas.lineTo(xs[k] as number, ys[k] as number);
    }
    canvas.strokeStyle = colour;
    canvas.lineWidth = widthPx / scale;
    canvas.lineJoin = 'round';
    canvas.lineCap = 'round';
    canvas.stroke();
  }
  canvas.fillStyle = colours.ink;
  const every = Math.max(arrowEveryPx, (lengthMm * scale) / mostArrows);
  for (let k = from; k < to; k++) {
    const [x, y] = [xs[k] as number, ys[k] as number];
    const [dx, dy] = [x - (xs[k - 1] as number), y - (ys[k - 1] as number)];
    const length = Math.hypot(dx, dy);
    if (kinds[k] === 0 || length === 0) continue;
    progress.since += length * scale;
    if (progress.since < every) continue;
    progress.since = 0;
    const [u, v] = [((dx / length) * arrowPx) / scale, ((dy / length) * arrowPx) / scale];
    canvas.beginPath();
    canvas.moveTo(x + u, y + v);
    canvas.lineTo(x - u - 0.8 * v, y - v + 0.8 * u);
    canvas.lineTo(x - u + 0.8 * v, y - v - 0.8 * u);
    canvas.fill();
  }
  progress.count = to;
}

function needleAt(canvas: CanvasRenderingContext2D, { x, y }: Point, scale: number): void {
  for (const [colour, radiusPx] of [[colours.sheet, 6], [colours.verdigris, 4]] as const) {
    canvas.fillStyle = colour;
    canvas.beginPath();
    canvas.arc(x, y, radiusPx / scale, 0, 2 * Math.PI);
    canvas.fill();
  } // biome-ignore format: pairs in a line
}

/** What the machine has sewn, and where its needle is. */
function stitched(
  canvas: CanvasRenderingContext2D,
  { stretches }: NonNullable<ReturnType<typeof useMaking.getState>['burnt']>,
  scale: number,
): void {
  canvas.strokeStyle = colours.ink;
  canvas.lineWidth = 1.3 / scale;
  canvas.lineJoin = 'round';
  canvas.beginPath();
  for (const points of stretches) points.forEach(({ x, y }, k) => void (k === 0 ? canvas.moveTo(x, y) : canvas.lineTo(x, y)));
  canvas.stroke();
}

'use client';
/**
 * What pointer, touch and keyboard do on the light table: pan, zoom, make and move marks, choose pieces.
 */
import type { Job, Picture, Piece } from '@nuvet/core/job';
import { apply, distance, inverse, isInside, type Point } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import { useJob } from '@/stages/job-store';
import { setTable, takeTool, useTable } from './table-store';
import { moved, picturePlacement, toSheet, wholeSheet, zoomed } from './view';

/** A press that moves less than this is a click, screen pixels. */
const clickSlack = 4;
/** A mark's end is picked up from this near. */
const pickReach = 13;

/** Pan, zoom, marks and pieces by pointer, touch and keyboard. */
export function usePointerActions(frame: React.RefObject<HTMLDivElement | null>, picture: Picture, fit: TrueUpFit, stage: string) {
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const touches = useRef(new Map<number, Point>());
  const press = useRef<{ at: Point; moved: boolean } | null>(null);
  const [isDraggingMark, setIsDraggingMark] = useState(false);

  const currentView = () => {
    const { view, screen } = useTable.getState();
    return view ?? wholeSheet(fit, screen);
  };
  const here = (event: { clientX: number; clientY: number }): Point => {
    const box = frame.current?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  };
  const inPicture = (p: Point): Point => {
    const found = apply(inverse(picturePlacement(currentView(), fit)), p);
    return { x: Math.min(picture.widthPx, Math.max(0, found.x)), y: Math.min(picture.heightPx, Math.max(0, found.y)) };
  };

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    // React listens to the wheel passively; the page must not scroll under the table.
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const step = event.deltaMode === 1 ? event.deltaY * 18 : event.deltaY;
      setTable({ view: zoomed(currentView(), here(event), Math.exp(-step * (event.ctrlKey ? 0.01 : 0.0016))) });
    };
    element.addEventListener('wheel', turn, { passive: false });
    return () => element.removeEventListener('wheel', turn);
  });

  /** The mark's end near a place, the nearest first. */
  const endAt = (p: Point) => {
    if (stage !== 'true-up') return null;
    const placement = picturePlacement(currentView(), fit);
    const ends = picture.marks.flatMap((mark) =>
      (['a', 'b'] as const).map((end) => ({ mark, end, off: distance(apply(placement, mark[end]), p) })),
    );
    return ends.filter((e) => e.off <= pickReach).sort((x, y) => x.off - y.off)[0] ?? null;
  };

  const click = (p: Point) => {
    const { tool, firstEnd } = useTable.getState();
    if (stage === 'true-up' && tool) {
      const at = inPicture(p);
      if (!firstEnd) return setTable({ firstEnd: at });
      const ends = { id: nanoid(), a: firstEnd, b: at };
      run({
        do: 'add-mark',
        pictureId: picture.id,
        mark: tool === 'known-length' ? { kind: tool, ...ends, text: '', mm: null } : { kind: tool, ...ends },
      });
      takeTool(null);
      setTable({ asked: tool === 'known-length' ? ends.id : null, selectedEnd: { markId: ends.id, end: 'b' } });
      return;
    }
    if (stage === 'trace') setTable({ selectedPiece: pieceAt(job, toSheet(currentView(), p))?.id ?? null });
    if (stage === 'true-up') setTable({ selectedEnd: null });
  };

  const handlers = {
    onPointerDown(event: React.PointerEvent) {
      const at = here(event);
      event.currentTarget.setPointerCapture(event.pointerId);
      touches.current.set(event.pointerId, at);
      press.current = { at, moved: false };
      const found = useTable.getState().tool ? null : endAt(at);
      if (found && touches.current.size === 1) {
        setIsDraggingMark(true);
        setTable({
          selectedEnd: { markId: found.mark.id, end: found.end },
          dragged: { markId: found.mark.id, a: found.mark.a, b: found.mark.b },
          pointer: at,
        });
      }
    },
    onPointerMove(event: React.PointerEvent) {
      const at = here(event);
      const last = touches.current.get(event.pointerId);
      if (last && touches.current.size === 2) {
        const other = [...touches.current].find(([id]) => id !== event.pointerId)?.[1] as Point;
        const [middle, before] = [
          { x: (at.x + other.x) / 2, y: (at.y + other.y) / 2 },
          { x: (last.x + other.x) / 2, y: (last.y + other.y) / 2 },
        ];
        const grown = distance(at, other) / Math.max(1, distance(last, other));
        setTable({ view: zoomed(moved(currentView(), middle.x - before.x, middle.y - before.y), middle, grown) });
        if (press.current) press.current.moved = true;
      } else if (last && press.current) {
        if (distance(at, press.current.at) > clickSlack) press.current.moved = true;
        const { dragged, selectedEnd } = useTable.getState();
        if (isDraggingMark && dragged && selectedEnd) setTable({ dragged: { ...dragged, [selectedEnd.end]: inPicture(at) } });
        else if (press.current.moved) setTable({ view: moved(currentView(), at.x - last.x, at.y - last.y) });
      }
      if (last) touches.current.set(event.pointerId, at);
      setTable({ pointer: at });
      if (stage === 'trace' && !last) setTable({ hoveredPiece: pieceAt(job, toSheet(currentView(), at))?.id ?? null });
    },
    onPointerUp(event: React.PointerEvent) {
      const wasClick = press.current && !press.current.moved && touches.current.size === 1;
      touches.current.delete(event.pointerId);
      const { dragged } = useTable.getState();
      if (isDraggingMark) {
        if (dragged && !wasClick) run({ do: 'move-mark', pictureId: picture.id, ...dragged });
        setIsDraggingMark(false);
        setTable({ dragged: null });
      } else if (wasClick) click(here(event));
      if (touches.current.size === 0) press.current = null;
    },
    onPointerCancel(event: React.PointerEvent) {
      touches.current.delete(event.pointerId);
      setIsDraggingMark(false);
      setTable({ dragged: null });
    },
    onPointerLeave: () => setTable({ pointer: null, hoveredPiece: null }),
    onKeyDown(event: React.KeyboardEvent) {
      const arrows: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
      const arrow = arrows[event.key];
      const { selectedEnd, screen } = useTable.getState();
      const mark = picture.marks.find((m) => m.id === selectedEnd?.markId);
      const { tool, pointer } = useTable.getState();
      if (tool && stage === 'true-up' && (arrow || event.key === 'Enter')) {
        // By keyboard alone: arrows move the place that Enter takes, with shift by single screen pixels.
        const at = pointer ?? { x: screen.width / 2, y: screen.height / 2 };
        const step = event.shiftKey ? 1 : 10;
        if (arrow) setTable({ pointer: { x: at.x + arrow[0] * step, y: at.y + arrow[1] * step } });
        else click(at);
        event.preventDefault();
        return;
      }
      if (arrow && mark && selectedEnd && stage === 'true-up') {
        // By one pixel of the picture, with shift by a tenth, the way that the arrow points on the screen.
        const step = event.shiftKey ? 0.1 : 1;
        const placement = picturePlacement(currentView(), fit);
        const k = step / Math.hypot(placement.a, placement.b);
        const by = { x: (arrow[0] * placement.a + arrow[1] * placement.b) * k, y: (arrow[0] * placement.c + arrow[1] * placement.d) * k };
        const p = mark[selectedEnd.end];
        run({
          do: 'move-mark',
          pictureId: picture.id,
          markId: mark.id,
          a: mark.a,
          b: mark.b,
          [selectedEnd.end]: { x: p.x + by.x, y: p.y + by.y },
        });
      } else if (arrow) setTable({ view: moved(currentView(), -arrow[0] * 60, -arrow[1] * 60) });
      else if (event.key === '+' || event.key === '=')
        setTable({ view: zoomed(currentView(), { x: screen.width / 2, y: screen.height / 2 }, 1.4) });
      else if (event.key === '-') setTable({ view: zoomed(currentView(), { x: screen.width / 2, y: screen.height / 2 }, 1 / 1.4) });
      else if ((event.key === 'Delete' || event.key === 'Backspace') && mark && stage === 'true-up') {
        run({ do: 'remove-mark', pictureId: picture.id, markId: mark.id });
        setTable({ selectedEnd: null });
      } else return;
      event.preventDefault();
    },
  };
  return { handlers, isDraggingMark };
}

/** The smallest piece under a point of the sheet, left out ones too. */
function pieceAt(job: Job, p: Point): Piece | null {
  const under = job.trace?.pieces.filter((piece) => isInside(piece.outer, p, 0.05)) ?? [];
  return under.at(-1) ?? null;
}

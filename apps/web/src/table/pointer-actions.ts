'use client';
/**
 * What pointer, touch and keyboard do on the light table: pan, zoom, make and move marks, move pictures, choose pieces.
 */
import { type Picture, type Piece, sheetBoxOf, traceWith } from '@nuvet/core/job';
import { distance, type Point } from '@nuvet/core/plane';
import { useEffect, useRef, useState } from 'react';
import { useJob } from '@/stages/job-store';
import { words } from '@/words';
import { type Ground, groundOf } from './ground';
import { useHand } from './hand-store';
import { finish, isOpenEnded, placesOf } from './mark-making';
import { ignoresSnapping, setTable, type Tool, useTable } from './table-store';
import { pictureAt, pieceAt, underPoint } from './under-pointer';
import { useHandActions } from './use-hand-actions';
import { useMakingActions } from './use-making-actions';
import { usePictureSnap } from './use-picture-snap';
import { moved, toScreen, toSheet, wholeSheet, zoomed } from './view';
import { endWay, holdWay, leadWay, takeWayBack } from './way-leading';
import { surfaceNow } from './working-copies';

/** A press that moves less than this is a click, screen pixels. */
const clickSlack = 4;
/** A mark's point is picked up from this near. */
const pickReach = 13;

const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const zoomKeys: Readonly<Record<string, number>> = { '+': 1.4, '=': 1.4, '-': 1 / 1.4 };

const wayKeys: ReadonlySet<string> = new Set(['Enter', 'Backspace', 'Delete']);

/** Tools that take what they are pointed at, not a feature near by. */
const traceTools: ReadonlySet<Tool> = new Set<Tool>(['this-one', 'along-edge', 'limit-box', 'limit-outline', 'pick-colour']);

const snaps = (tool: Tool | null): boolean =>
  tool !== null && !tool.startsWith('crop') && tool !== 'move-picture' && !traceTools.has(tool) && tool !== 'box';

/** Pan, zoom, marks and pieces by pointer, touch and keyboard. */
export function usePointerActions(
  frame: React.RefObject<HTMLDivElement | null>,
  picture: Picture | null,
  stage: string,
  pieces: readonly Piece[],
  onMessage: (text: string) => void,
) {
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const touches = useRef(new Map<number, Point>());
  const press = useRef<{ at: Point; moved: boolean } | null>(null);
  const [isDraggingMark, setIsDraggingMark] = useState(false);
  const [isMovingPicture, setIsMovingPicture] = useState(false);

  const byHand = useRef(false);
  const isByHand = () => stage === 'trace' && useHand.getState().tray !== 'find';

  const currentView = () => {
    const { view, screen } = useTable.getState();
    return view ?? wholeSheet(sheetBoxOf(job), screen);
  };
  const ground = (): Ground | null =>
    picture ? groundOf(picture, surfaceNow(picture, useTable.getState().asPhotographed), currentView()) : null;
  const here = (event: { clientX: number; clientY: number }): Point => {
    const box = frame.current?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  };

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    // React listens to the wheel passively; the page must not scroll under the table.
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const step = event.deltaMode === 1 ? event.deltaY * 18 : event.deltaY;
      setTable({ view: zoomed(currentView(), here(event), Math.exp(-step * (event.ctrlKey ? 0.01 : 0.0016))), snap: null });
    };
    element.addEventListener('wheel', turn, { passive: false });
    return () => element.removeEventListener('wheel', turn);
  });

  /** The mark's point near a place, the nearest first; what was found and not placed cannot be picked up. */
  const pointAt = (p: Point) => {
    const place = ground();
    if (stage !== 'true-up' || !picture || picture.locked || !place) return null;
    const ends = picture.marks.flatMap((mark) =>
      mark.kind === 'box' || mark.kind === 'scale-card'
        ? []
        : mark.points.map((point, index) => ({ mark, index, off: distance(place.toScreen(point), p) })),
    );
    return ends.filter((e) => e.off <= pickReach).sort((x, y) => x.off - y.off)[0] ?? null;
  };

  const { lookForSnap, snapOnSheet, placeAt } = usePictureSnap(ground);

  const done = async (tool: Tool, taken: readonly Point[]) => {
    const place = ground();
    if (!picture || !place) return;
    const message = await finish(run, picture, place, tool, taken);
    if (message) onMessage(message);
  };

  /** One place more for the tool in hand; the last one makes the mark. */
  const takePlace = (tool: Tool, p: Point, isHeldOff: boolean) => {
    const { taken } = useTable.getState();
    const [at, place, last] = [placeAt(p, isHeldOff), ground(), taken.at(-1)];
    if (!at || !place) return;
    const { least, most } = placesOf(tool);
    const isAgain = last !== undefined && distance(place.toScreen(last), p) < clickSlack * 2;
    if (isAgain) {
      if (isOpenEnded(tool) && taken.length >= least) void done(tool, taken);
      return;
    }
    const next = [...taken, at];
    setTable({ taken: next });
    if (next.length >= most) void done(tool, next);
  };

  /** The first click keeps that piece alone, further ones take more in; a click into a hole fills it. */
  const takeThisOne = (p: Point) => {
    const under = underPoint(job, p, pickReach / currentView().scale);
    if (!under) return onMessage(words.table.nothingFoundThere);
    if (under.hole !== null) return run({ do: 'fill-hole', pieceId: under.piece.id, hole: under.hole });
    const isFirst = !traceWith(job, under.piece.id)?.pieces.some((piece) => piece.leftOut);
    if (isFirst) run({ do: 'keep-only', pieceIds: [under.piece.id] });
    else run({ do: 'leave-out', pieceIds: [under.piece.id], leftOut: !under.piece.leftOut });
  };

  /** Ends the way that is led along an edge. */
  const finishWay = async (closed: boolean) => {
    const place = ground();
    if (!picture || !place) return;
    const message = await endWay(run, job, picture, place.surface, closed);
    if (message) onMessage(message);
  };

  const wayByKey = (key: string): void => {
    const place = ground();
    if (key === 'Enter') void finishWay(false);
    else if (place) void takeWayBack(place.surface);
  };

  const clickAlongEdge = async (p: Point) => {
    const place = ground();
    if (place && (await holdWay(place, p))) await finishWay(true);
  };

  /** A click on a relation's tick refuses it, or takes it back. */
  const refuseTick = (p: Point): boolean => {
    const { relations } = useTable.getState();
    const near = relations?.seen
      .map((tick) => ({ key: tick.key, off: distance(toScreen(currentView(), tick.at), p) }))
      .filter(({ off }) => off < pickReach)
      .sort((a, b) => a.off - b.off)[0];
    if (!relations || !near) return false;
    const isRefused = relations.refused.includes(near.key);
    const refused = isRefused ? relations.refused.filter((key) => key !== near.key) : [...relations.refused, near.key];
    setTable({ relations: { ...relations, refused } });
    return true;
  };

  const click = (p: Point, isHeldOff: boolean) => {
    const { tool } = useTable.getState();
    if (stage === 'trace' && !tool && refuseTick(p)) return;
    if (tool === 'along-edge') return void clickAlongEdge(p);
    if (tool === 'this-one') return takeThisOne(toSheet(currentView(), p));
    if (tool && picture && tool !== 'move-picture') return takePlace(tool, p, isHeldOff);
    if (stage === 'trace')
      setTable({ selectedPiece: pieceAt(job, toSheet(currentView(), p), pickReach / currentView().scale)?.id ?? null });
    if (stage === 'true-up') setTable({ selected: null });
    const under = stage === 'bring-in' ? pictureAt(job, toSheet(currentView(), p)) : null;
    if (under) setTable({ activeId: under.id });
  };

  /** Two fingers: the view follows their middle and their distance. */
  const pinch = (id: number, at: Point, last: Point) => {
    const other = [...touches.current].find(([touch]) => touch !== id)?.[1] as Point;
    const [middle, before] = [
      { x: (at.x + other.x) / 2, y: (at.y + other.y) / 2 },
      { x: (last.x + other.x) / 2, y: (last.y + other.y) / 2 },
    ];
    const grown = distance(at, other) / Math.max(1, distance(last, other));
    setTable({ view: zoomed(moved(currentView(), middle.x - before.x, middle.y - before.y), middle, grown) });
    if (press.current) press.current.moved = true;
  };

  /** What is held moves along: a picture, a mark's point, or the view. */
  const drag = (at: Point, last: Point, isHeldOff: boolean) => {
    const { dragged, selected, draggedPlace } = useTable.getState();
    if (isMovingPicture && picture) {
      const from = draggedPlace?.place ?? picture.place;
      const { scale } = currentView();
      setTable({
        draggedPlace: { pictureId: picture.id, place: { x: from.x + (at.x - last.x) / scale, y: from.y - (at.y - last.y) / scale } },
      });
    } else if (isDraggingMark && dragged && selected) {
      const place = placeAt(at, isHeldOff);
      lookForSnap(at);
      if (place) setTable({ dragged: { ...dragged, points: dragged.points.map((p, k) => (k === selected.index ? place : p)) } });
    } else if (press.current?.moved) setTable({ view: moved(currentView(), at.x - last.x, at.y - last.y), snap: null });
  };

  /** By keyboard alone: arrows move the place that Enter takes, with shift by single screen pixels. */
  const placeByKey = (tool: Tool, arrow: readonly [number, number] | undefined, event: React.KeyboardEvent) => {
    const { pointer, screen, taken } = useTable.getState();
    const at = pointer ?? { x: screen.width / 2, y: screen.height / 2 };
    if (arrow) {
      const step = event.shiftKey ? 1 : 10;
      const next = { x: at.x + arrow[0] * step, y: at.y + arrow[1] * step };
      setTable({ pointer: next });
      if (snaps(tool)) lookForSnap(next);
    } else if (isOpenEnded(tool) && taken.length >= placesOf(tool).least) void done(tool, taken);
    else click(at, ignoresSnapping(event));
  };

  /** Whether the tool in hand takes a key. */
  const byTool = (tool: Tool, arrow: readonly [number, number] | undefined, event: React.KeyboardEvent): boolean => {
    if (tool === 'along-edge' && wayKeys.has(event.key)) wayByKey(event.key);
    else if (arrow || event.key === 'Enter') placeByKey(tool, arrow, event);
    else return false;
    return true;
  };

  const zoomBy = (factor: number) => {
    const { screen } = useTable.getState();
    setTable({ view: zoomed(currentView(), { x: screen.width / 2, y: screen.height / 2 }, factor) });
  };

  const making = useMakingActions({ stage, pieces, view: currentView, onMessage });
  const hand = useHandActions({ pieces, view: currentView, pictureSnap: snapOnSheet, onMessage, lookForSnap });

  /** The pointer moves with nothing pressed: ways and snaps follow it, the piece under it lights up. */
  const hover = (at: Point): void => {
    const { tool, way } = useTable.getState();
    const place = tool === 'along-edge' && way.start ? ground() : null;
    if (place) leadWay(place.toSurface(at));
    if (snaps(tool)) lookForSnap(at);
    if (stage === 'trace')
      setTable({ hoveredPiece: pieceAt(job, toSheet(currentView(), at), pickReach / currentView().scale)?.id ?? null });
  };

  /** Whether drawing or correcting by hand takes a press, a move, a release. */
  const handDown = (at: Point, event: React.PointerEvent): boolean => {
    byHand.current = touches.current.size === 1 && isByHand() && event.button === 0 && hand.down(at, event);
    return byHand.current;
  };
  const handMove = (at: Point, event: React.PointerEvent): boolean => {
    if (!isByHand()) return false;
    const isTaken = hand.move(at, event);
    if (!isTaken && !byHand.current) return isPlainMove(event) && useHand.getState().tray === 'draw';
    if (press.current && distance(at, press.current.at) > clickSlack) press.current.moved = true;
    return true;
  };
  const handUp = (at: Point, event: React.PointerEvent, wasClick: boolean): boolean => {
    if (!isByHand() || !(byHand.current || wasClick)) return false;
    const isTaken = hand.up(at, event);
    if (!isTaken && !byHand.current) return false;
    byHand.current = false;
    press.current = null;
    return true;
  };

  const handlers = {
    onPointerDown(event: React.PointerEvent) {
      const at = here(event);
      event.currentTarget.setPointerCapture(event.pointerId);
      touches.current.set(event.pointerId, at);
      press.current = { at, moved: false };
      if (handDown(at, event)) return;
      if (touches.current.size === 1 && event.button === 0 && making.down(at)) return;
      const { tool } = useTable.getState();
      if (touches.current.size !== 1) return;
      if (tool === 'move-picture' && picture) {
        if (picture.locked) onMessage(words.table.thisPictureIsLockedUnlockIt);
        else setIsMovingPicture(true);
        return;
      }
      const found = tool ? null : pointAt(at);
      if (found) {
        setIsDraggingMark(true);
        setTable({
          selected: { markId: found.mark.id, index: found.index },
          dragged: { markId: found.mark.id, points: found.mark.points },
          pointer: at,
        });
      }
    },
    onPointerMove(event: React.PointerEvent) {
      const at = here(event);
      const last = touches.current.get(event.pointerId);
      if (last && touches.current.size === 2) pinch(event.pointerId, at, last);
      else if (making.move(at)) {
        if (press.current && distance(at, press.current.at) > clickSlack) press.current.moved = true;
      } else if (handMove(at, event)) {
        setTable({ pointer: at, hoveredPiece: null });
        if (last) touches.current.set(event.pointerId, at);
        return;
      } else if (last && press.current) {
        if (distance(at, press.current.at) > clickSlack) press.current.moved = true;
        drag(at, last, ignoresSnapping(event));
      }
      if (last) touches.current.set(event.pointerId, at);
      setTable({ pointer: at });
      if (!last) hover(at);
    },
    onPointerUp(event: React.PointerEvent) {
      const wasClick = press.current && !press.current.moved && touches.current.size === 1;
      touches.current.delete(event.pointerId);
      if (handUp(here(event), event, wasClick === true)) return;
      if (making.up() || (wasClick && making.click(here(event)))) {
        press.current = null;
        return;
      }
      const { dragged, draggedPlace } = useTable.getState();
      if (isMovingPicture) {
        if (draggedPlace && !wasClick)
          run({ do: 'change-picture', pictureId: draggedPlace.pictureId, change: { place: draggedPlace.place } });
        setIsMovingPicture(false);
        setTable({ draggedPlace: null });
      } else if (isDraggingMark) {
        if (dragged && picture && !wasClick)
          run({ do: 'move-mark', pictureId: picture.id, markId: dragged.markId, points: [...dragged.points] });
        setIsDraggingMark(false);
        setTable({ dragged: null, snap: null });
      } else if (wasClick) click(here(event), ignoresSnapping(event));
      if (touches.current.size === 0) press.current = null;
    },
    onPointerCancel(event: React.PointerEvent) {
      touches.current.delete(event.pointerId);
      byHand.current = false;
      hand.cancel();
      setIsDraggingMark(false);
      setIsMovingPicture(false);
      setTable({ dragged: null, draggedPlace: null });
    },
    onPointerLeave: () => setTable({ pointer: null, hoveredPiece: null, snap: null }),
    onDoubleClick(event: React.MouseEvent) {
      if (isByHand()) hand.doubleClick(here(event));
    },
    onKeyDown(event: React.KeyboardEvent) {
      if ((isByHand() && hand.key(event)) || making.key(event)) return event.preventDefault();
      const arrow = arrows[event.key];
      const { selected, tool } = useTable.getState();
      if (tool && byTool(tool, arrow, event)) return event.preventDefault();
      const mark = stage === 'true-up' ? picture?.marks.find((m) => m.id === selected?.markId) : undefined;
      if (arrow && mark && selected && picture) nudge(picture, mark, selected.index, arrow, event.shiftKey ? 0.1 : 1);
      else if (arrow) setTable({ view: moved(currentView(), -arrow[0] * 60, -arrow[1] * 60) });
      else if (zoomKeys[event.key]) zoomBy(zoomKeys[event.key] as number);
      else if ((event.key === 'Delete' || event.key === 'Backspace') && mark && picture) {
        run({ do: 'remove-mark', pictureId: picture.id, markId: mark.id });
        setTable({ selected: null });
      } else return;
      event.preventDefault();
    },
  };

  /** Moves a point by so many pixels of the picture, the way that the arrow points on the screen. */
  function nudge(of: Picture, mark: Picture['marks'][number], index: number, arrow: readonly [number, number], step: number): void {
    const place = ground();
    const p = mark.points[index];
    if (!place || !p) return;
    const at = place.toScreen(p);
    const towards = place.toOriginal({ x: at.x + arrow[0], y: at.y + arrow[1] });
    const size = distance(p, towards) || 1;
    const next = { x: p.x + ((towards.x - p.x) * step) / size, y: p.y + ((towards.y - p.y) * step) / size };
    run({ do: 'move-mark', pictureId: of.id, markId: mark.id, points: mark.points.map((q, k) => (k === index ? next : q)) });
  }

  return { handlers, isDraggingMark, isMovingPicture, finishTaken: (tool: Tool, taken: readonly Point[]) => void done(tool, taken) };
}

const isPlainMove = (event: React.PointerEvent): boolean => event.buttons === 0;

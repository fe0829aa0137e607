'use client';
/**
 * Which tool of the light table a press, a move, a release or a key goes to. A press that a tool takes is its own until the release;
 * a click goes to the first that takes it.
 */
import { type Picture, type Piece, sheetBoxOf } from '@nuvet/core/job';
import { distance, type Point } from '@nuvet/core/plane';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { useJob } from '@/job/job-store';
import { type Coordinates, coordinatesOf } from './coordinates';
import { useHand } from './hand-store';
import { rasterNow } from './rectified-images';
import type { TableProcess } from './table-process';
import { setTable, type Tool, useTable } from './table-store';
import { chooser } from './tools/chooser';
import { edgeFollower } from './tools/edge-follower';
import { markMover } from './tools/mark-mover';
import { pictureMover } from './tools/picture-mover';
import { placeTaker } from './tools/place-taker';
import { clickSlack, type Keys, type Surroundings, type TableTool } from './tools/tool';
import { viewMover } from './tools/view-mover';
import { useHandActions } from './use-hand-actions';
import { useMakingActions } from './use-making-actions';
import { usePictureSnap } from './use-picture-snap';
import { wholeSheet } from './view';

/** What a press has taken hold of. */
export type Holding = 'mark' | 'picture' | null;

interface Press {
  readonly at: Point;
  moved: boolean;
  /** Whose it is; null where it is the view's. */
  owner: 'hand' | 'mark' | 'picture' | null;
}

export function usePointerActions(
  frame: React.RefObject<HTMLDivElement | null>,
  picture: Picture | null,
  stage: string,
  pieces: readonly Piece[],
  process: TableProcess | null,
  onMessage: (text: string) => void,
) {
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const touches = useRef(new Map<number, Point>());
  const press = useRef<Press | null>(null);
  const [holding, setHolding] = useState<Holding>(null);

  const view = () => useTable.getState().view ?? wholeSheet(sheetBoxOf(job), useTable.getState().screen);
  const coordinates = (): Coordinates | null =>
    picture ? coordinatesOf(picture, rasterNow(picture, useTable.getState().asPhotographed), view()) : null;
  const { lookForSnap, snapOnSheet, placeAt } = usePictureSnap(coordinates);
  const surroundings: Surroundings = { job, run, picture, stage, pieces, view, coordinates, lookForSnap, placeAt, onMessage };

  const movers = { mark: markMover(surroundings), picture: pictureMover(surroundings) } satisfies Record<NonNullable<Holding>, TableTool>;
  const [places, follower, choosing] = [
    placeTaker(surroundings, (at, keys) => click(at, keys)),
    edgeFollower(surroundings),
    chooser(surroundings),
  ];
  const sight = viewMover(surroundings);
  const making = useMakingActions({ stage, pieces, view, process, onMessage });
  const hand = useHandActions({ pieces, view, pictureSnap: snapOnSheet, onMessage, lookForSnap });
  const isByHand = () => stage === 'trace' && useHand.getState().tray !== 'find';

  /** In the order in which they are asked. */
  const click = (at: Point, keys: Keys): boolean => [follower, choosing, places].some((tool) => tool.click?.(at, keys));
  const hover = (at: Point): void => {
    for (const tool of [follower, places, choosing]) tool.hover?.(at);
  };

  const here = (event: { clientX: number; clientY: number }): Point => {
    const box = frame.current?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  };
  useWheel(frame, (event) => sight.wheel(here(event), event));

  /** A press that has gone far enough is no click any more. */
  const noteMove = (at: Point): void => {
    if (press.current && distance(at, press.current.at) > clickSlack) press.current.moved = true;
  };

  const pinch = (id: number, at: Point, last: Point): void => {
    const other = [...touches.current].find(([touch]) => touch !== id)?.[1];
    if (other) sight.pinch(at, last, other);
    if (press.current) press.current.moved = true;
  };

  const drag = (now: Press, at: Point, last: Point, keys: Keys): void => {
    noteMove(at);
    if (now.owner === 'mark' || now.owner === 'picture') movers[now.owner].drag?.(at, last, keys);
    else if (now.moved) sight.drag?.(at, last, keys);
  };

  /** Whether drawing or correcting by hand takes a move. */
  const handMove = (at: Point, event: React.PointerEvent): boolean => {
    if (!isByHand()) return false;
    const isHeld = press.current?.owner === 'hand';
    const isTaken = hand.move(at, event);
    if (!isTaken && !isHeld) return event.buttons === 0 && useHand.getState().tray === 'draw';
    noteMove(at);
    return true;
  };
  const handUp = (at: Point, event: React.PointerEvent, wasClick: boolean): boolean => {
    const isHeld = press.current?.owner === 'hand';
    return isByHand() && (isHeld || wasClick) && (hand.up(at, event) || isHeld);
  };

  const handlers = {
    onPointerDown(event: React.PointerEvent) {
      const at = here(event);
      event.currentTarget.setPointerCapture(event.pointerId);
      touches.current.set(event.pointerId, at);
      const now: Press = { at, moved: false, owner: null };
      press.current = now;
      if (touches.current.size !== 1) return;
      const isMain = event.button === 0;
      if (isMain && isByHand() && hand.down(at, event)) now.owner = 'hand';
      else if (!(isMain && making.down(at))) now.owner = (['picture', 'mark'] as const).find((kind) => movers[kind].down?.(at)) ?? null;
      if (now.owner === 'mark' || now.owner === 'picture') setHolding(now.owner);
    },
    onPointerMove(event: React.PointerEvent) {
      const at = here(event);
      const last = touches.current.get(event.pointerId);
      if (last && touches.current.size === 2) pinch(event.pointerId, at, last);
      else if (making.move(at)) noteMove(at);
      else if (handMove(at, event)) {
        setTable({ pointer: at, hoveredPiece: null });
        if (last) touches.current.set(event.pointerId, at);
        return;
      } else if (last && press.current) drag(press.current, at, last, event);
      if (last) touches.current.set(event.pointerId, at);
      setTable({ pointer: at });
      if (!last) hover(at);
    },
    onPointerUp(event: React.PointerEvent) {
      const at = here(event);
      const now = press.current;
      const wasClick = now !== null && !now.moved && touches.current.size === 1;
      touches.current.delete(event.pointerId);
      const isTaken = handUp(at, event, wasClick) || making.up() || (wasClick && making.click(at));
      if (!isTaken && (now?.owner === 'mark' || now?.owner === 'picture')) movers[now.owner].up?.(wasClick);
      else if (!isTaken && wasClick) click(at, event);
      setHolding(null);
      if (isTaken || touches.current.size === 0) press.current = null;
    },
    onPointerCancel(event: React.PointerEvent) {
      touches.current.delete(event.pointerId);
      press.current = null;
      hand.cancel();
      for (const mover of Object.values(movers)) mover.cancel?.();
      setHolding(null);
    },
    onPointerLeave: () => setTable({ pointer: null, hoveredPiece: null, snap: null }),
    onDoubleClick(event: React.MouseEvent) {
      if (isByHand()) hand.doubleClick(here(event));
    },
    onKeyDown(event: React.KeyboardEvent) {
      const isTaken =
        (isByHand() && hand.key(event)) ||
        making.key(event) ||
        [follower, places, movers.mark, sight].some((tool: TableTool) => tool.key?.(event));
      if (isTaken) event.preventDefault();
    },
  };

  return { handlers, holding, finishTaken: (tool: Tool, taken: readonly Point[]) => void places.finish(tool, taken) };
}

/** React listens to the wheel passively; the page must not scroll under the table. */
function useWheel(frame: React.RefObject<HTMLDivElement | null>, onWheel: (event: WheelEvent) => void): void {
  const turned = useEffectEvent(onWheel);
  useEffect(() => {
    const element = frame.current;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      turned(event);
    };
    element?.addEventListener('wheel', turn, { passive: false });
    return () => element?.removeEventListener('wheel', turn);
  }, [frame]);
}

'use client';
/**
 * Pointer and keys while something is drawn or corrected by hand. Every answer is whether the event was taken.
 */
import { type Job, masterOf, type Piece } from '@nuvet/core/job';
import { distance, type Path, type Point, shift } from '@nuvet/core/plane';
import { type SheetSnap, withPointsMoved } from '@nuvet/core/shape';
import { useRef } from 'react';
import { useJob } from '@/stages/job-store';
import { words } from '@/words';
import { aimAt, pathsOf } from './hand-aim';
import {
  deleteChosen,
  extendAt,
  type Held,
  heldAt,
  insertAt,
  pathsDragged,
  pieceToChoose,
  placeOfHeld,
  pointsWithin,
  trimAt,
  wholeAt,
} from './hand-correcting';
import { addPoint, closeOutline, figureFrom, growing, placeFigure, placesNeeded, takePointBack } from './hand-drawing';
import { type DrawTool, isDrawTool, setHand, useHand } from './hand-store';
import { moveCommand, shapeCommand, sourceOf, type Target, targetOf } from './hand-target';
import { addsToSelection, ignoresSnapping } from './table-store';
import { toSheet, type View } from './view';

const pickPx = 11;
/** A press held this long without moving sets the third point of an arc. */
const holdMs = 450;
const slackPx = 4;

interface Press {
  readonly at: Point;
  readonly sheet: Point;
  readonly since: number;
  moved: boolean;
  readonly held: Held | null;
  readonly target: Target | null;
  readonly from: Point;
  /** What the thing held may snap to, as it was when it was pressed. */
  readonly rest: readonly Piece[];
}

interface Surroundings {
  readonly pieces: readonly Piece[];
  readonly view: () => View;
  /** A feature of the picture near the pointer, mm on the sheet. */
  readonly pictureSnap: () => SheetSnap | null;
  readonly onMessage: (text: string) => void;
  readonly lookForSnap: (screen: Point) => void;
}

export function useHandActions({ pieces, view, pictureSnap, onMessage, lookForSnap }: Surroundings) {
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const press = useRef<Press | null>(null);
  const isActive = () => useHand.getState().tray !== 'find' && (useHand.getState().tool !== null || useHand.getState().asking !== null);
  const sheetAt = (screen: Point) => toSheet(view(), screen);
  const reach = () => pickPx / view().scale;

  /** Where the line that is drawn comes from. */
  const comesFrom = (): Point | null => {
    const { places, through } = useHand.getState();
    return through ?? places.at(-1) ?? growing(job)?.points.at(-1)?.at ?? null;
  };
  const aim = (screen: Point, isHeldOff: boolean, from = comesFrom()) =>
    aimAt(pieces, sheetAt(screen), view().scale, from, pictureSnap(), isHeldOff);

  const target = (): Target | null => {
    const id = useHand.getState().chosen.at(-1);
    return id ? targetOf(job, id) : null;
  };

  const down = (screen: Point, event: { altKey: boolean; shiftKey: boolean; timeStamp: number }): boolean => {
    if (!isActive()) return false;
    const { tool, asking } = useHand.getState();
    const sheet = sheetAt(screen);
    const aimed = isDrawTool(tool) || asking ? aim(screen, ignoresSnapping(event)) : { at: sheet, snap: null };
    const of = !asking && !isDrawTool(tool) && tool !== 'trim' ? target() : null;
    const held = of && heldUnder(of, sheet);
    press.current = {
      at: screen,
      sheet: aimed.at,
      since: event.timeStamp,
      moved: false,
      held,
      target: of,
      from: of && held ? placeOfHeld(of, held, sheet) : sheet,
      rest: of && held ? withoutOwn(pieces, of) : none,
    };
    setHand({ aim: aimed.at, snap: aimed.snap });
    if (of && held) chooseHeld(held, addsToSelection(event));
    // Without anything under it the table itself is dragged; with Shift a box over points.
    const isFraming = tool === 'points' && of !== null && held === null && addsToSelection(event);
    setHand({ frame: isFraming ? { a: sheet, b: sheet } : null });
    return isDrawTool(tool) || asking !== null || held !== null || isFraming;
  };

  /** What a press takes hold of: with the points tool a point, handle or segment, else the thing as a whole. */
  const heldUnder = (of: Target, sheet: Point): Held | null =>
    useHand.getState().tool === 'points' ? heldAt(of, sheet, reach()) : wholeUnder(of, sheet);

  /** The chosen thing as a whole, where the press lies on it. */
  const wholeUnder = (of: Target, sheet: Point): Held | null => {
    const under = pieceToChoose(pieces, sheet, reach());
    return under?.id.split('/')[0] === of.pieceId ? wholeAt(of, sheet, reach()) : null;
  };

  const chooseHeld = (held: Held, isMore: boolean): void => {
    const { points } = useHand.getState();
    if (held.kind === 'segment') setHand({ segment: { path: held.path, index: held.index }, points: null });
    if (held.kind !== 'points') return;
    const isIn = points?.path === held.path && points.indices.includes(held.index);
    if (isMore && points?.path === held.path) {
      const indices = isIn ? points.indices.filter((k) => k !== held.index) : [...points.indices, held.index];
      setHand({ points: { path: held.path, indices }, segment: null });
    } else if (!isIn) setHand({ points: { path: held.path, indices: [held.index] }, segment: null });
  };

  const move = (screen: Point, event: { altKey: boolean; buttons: number }): boolean => {
    if (!isActive()) return false;
    const { tool, asking } = useHand.getState();
    if (press.current && event.buttons > 0) return pressedMove(press.current, screen, event);
    if (isDrawTool(tool) || asking) {
      lookForSnap(screen);
      const aimed = aim(screen, ignoresSnapping(event));
      setHand({ aim: aimed.at, snap: aimed.snap });
    } else setHand({ aim: sheetAt(screen), snap: null });
    return false;
  };

  /** What is held follows the pointer. */
  const pressedMove = (now: Press, screen: Point, event: { altKey: boolean }): boolean => {
    const { tool, asking } = useHand.getState();
    if (distance(screen, now.at) > slackPx) now.moved = true;
    if (now.held && now.target && now.moved) {
      const isHeldOff = ignoresSnapping(event) || now.held.kind === 'handle' || now.held.kind === 'segment';
      const aimed = aimAt(now.rest, sheetAt(screen), view().scale, null, pictureSnap(), isHeldOff);
      const dragged = pathsDragged(now.target, now.held, now.from, aimed.at);
      const kept = now.target.drawn?.held;
      const paths = kept ? masterOf({ source: sourceOf(dragged), held: kept }, job.making.thicknessMm).paths : dragged;
      setHand({ aim: aimed.at, snap: aimed.snap, shaped: { pieceId: now.target.pieceId, source: sourceOf(paths), paths } });
      return true;
    }
    const { frame } = useHand.getState();
    if (frame) setHand({ frame: { a: frame.a, b: sheetAt(screen) } });
    else if (tool === 'outline' && now.moved) setHand({ aim: sheetAt(screen), snap: null });
    return isDrawTool(tool) || asking !== null || frame !== null;
  };

  const up = (screen: Point, event: { altKey: boolean; shiftKey: boolean; timeStamp: number; detail: number }): boolean => {
    const now = press.current;
    press.current = null;
    if (!isActive() || !now) return false;
    const { tool, asking, shaped } = useHand.getState();
    if (shaped && now.target) {
      setDown(now, now.target, shaped.paths);
      return true;
    }
    if (asking) {
      if (!now.moved) answer(now.sheet);
      return true;
    }
    if (takeFrame()) return true;
    if (isDrawTool(tool)) {
      if (tool === 'outline') takeOutlinePoint(now, screen, event.timeStamp);
      else takeFigurePlace(tool, now.moved ? [now.sheet, aim(screen, ignoresSnapping(event), now.sheet).at] : [now.sheet]);
      return true;
    }
    return now.moved ? now.held !== null : clickWith(screen, addsToSelection(event));
  };

  /** Points in the box that was drawn over them are chosen. */
  const takeFrame = (): boolean => {
    const { frame } = useHand.getState();
    const of = target();
    if (!frame || !of) return false;
    setHand({ frame: null, points: pointsWithin(of, frame.a, frame.b), segment: null });
    return true;
  };

  /** What was dragged comes to lie where it was let go. */
  const setDown = (now: Press, of: Target, paths: readonly Path[]): void => {
    const { aim: to } = useHand.getState();
    const isWhole = now.held?.kind === 'whole' && to !== null;
    run(isWhole ? moveCommand(of, shift(to.x - now.from.x, to.y - now.from.y)) : shapeCommand(of, paths));
    setHand({ shaped: null, snap: null });
  };

  /** A click sets a corner, a drag a curve's point with its handle, a long press the third point of an arc. */
  const takeOutlinePoint = (now: Press, screen: Point, time: number): void => {
    const isHeld = !now.moved && time - now.since >= holdMs && growing(job) !== null;
    if (isHeld) setHand({ through: now.sheet });
    else addPoint(run, job, now.sheet, reach(), now.moved ? sheetAt(screen) : null);
  };

  /** Places of a figure: one a click; a drag gives both at once. */
  const takeFigurePlace = (tool: DrawTool, more: readonly Point[]): void => {
    const places = [...useHand.getState().places, ...more].slice(0, placesNeeded(tool));
    if (places.length < placesNeeded(tool)) {
      setHand({ places });
      return;
    }
    const figure = figureFrom(tool, places, pathsOf(pieces));
    if (figure) placeFigure(run, job, tool, figure);
    else {
      setHand({ places: places.slice(0, -1) });
      onMessage(words.table.pointsCoincide);
    }
  };

  /** A place that the docket asked for. */
  const answer = (at: Point): void => {
    const { asking, places } = useHand.getState();
    if (asking === 'datum') setHand({ datum: at, asking: null });
    else setHand({ places: [...places, at] });
  };

  const clickWith = (screen: Point, isMore: boolean): boolean => {
    const { tool, chosen } = useHand.getState();
    const sheet = sheetAt(screen);
    if (tool === 'trim') {
      const message = (isMore ? extendAt : trimAt)(run, job, pieces, sheet, reach());
      if (message) onMessage(message);
      return true;
    }
    const of = tool === 'points' ? target() : null;
    if (of && heldAt(of, sheet, reach())) return true;
    const under = pieceToChoose(pieces, sheet, reach());
    const id = under?.id.split('/')[0] ?? null;
    if (!id) {
      setHand({ chosen: isMore ? chosen : [], points: null, segment: null });
      return true;
    }
    const next = isMore ? (chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]) : [id];
    setHand({ chosen: next, points: null, segment: null });
    return true;
  };

  const doubleClick = (screen: Point): boolean => {
    const { tool } = useHand.getState();
    const of = tool === 'points' ? target() : null;
    const held = of && heldAt(of, sheetAt(screen), reach());
    const paths = of && held && insertAt(of, held);
    if (!of || !held || !paths || held.kind !== 'segment') return false;
    run(shapeCommand(of, paths));
    setHand({ points: { path: held.path, indices: [held.index + 1] }, segment: null });
    return true;
  };

  const key = (event: React.KeyboardEvent): boolean => {
    const { tray, tool } = useHand.getState();
    if (tray === 'find') return false;
    return isDrawTool(tool) ? drawingKey(tool, event) : correctingKey(event);
  };

  const drawingKey = (tool: DrawTool, event: React.KeyboardEvent): boolean => {
    const { aim: at, through } = useHand.getState();
    if (event.key === 'Backspace') return takePointBack(run, job);
    if (event.key !== 'Enter') return false;
    if (tool === 'outline' && growing(job)) {
      if (event.shiftKey) closeOutline(run, job, through);
      else setHand({ goingOn: null });
    } else if (at && tool === 'outline') addPoint(run, job, at, reach(), null);
    else if (at) takeFigurePlace(tool, [at]);
    return true;
  };

  const correctingKey = (event: React.KeyboardEvent): boolean => {
    const { tool, points } = useHand.getState();
    const of = target();
    if (!of) return false;
    if (event.key === 'Delete' || event.key === 'Backspace') {
      const message = deleteChosen(run, of);
      if (message) onMessage(message);
      return true;
    }
    const arrow = arrows[event.key];
    if (!arrow || (tool === 'points' && !points)) return false;
    nudge(of, arrow, event.shiftKey ? 1 : 0.1);
    return true;
  };

  /** Nudges the selected points, or the whole thing with its points and dimensions. */
  const nudge = (of: Target, [x, y]: readonly [number, number], step: number): void => {
    const { points } = useHand.getState();
    const by = { x: x * step, y: y * step };
    if (!points) run(moveCommand(of, shift(by.x, by.y)));
    else run(shapeCommand(of, of.paths.map((path, k) => (k === points.path ? withPointsMoved(path, points.indices, by) : path)))); // biome-ignore format: one line
  };

  /** A press that the system took away: nothing has moved. */
  const cancel = (): void => {
    press.current = null;
    setHand({ shaped: null, frame: null, snap: null });
  };

  return { down, move, up, cancel, doubleClick, key };
}

const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

const none: readonly Piece[] = [];

/** What is dragged does not snap to itself. */
const withoutOwn = (pieces: readonly Piece[], target: Target): readonly Piece[] =>
  pieces.filter(({ id }) => id.split('/')[0] !== target.pieceId);

/** The job as it looks while something is dragged. */
export function jobWithShaped(job: Job, shaped: ReturnType<typeof useHand.getState>['shaped']): Pick<Job, 'traces' | 'drawn'> {
  if (!shaped) return job;
  const [outer, ...holes] = shaped.paths;
  const isDrawn = job.drawn.some(({ id }) => id === shaped.pieceId);
  if (isDrawn) return { traces: job.traces, drawn: job.drawn.map((d) => (d.id === shaped.pieceId ? { ...d, source: shaped.source } : d)) };
  if (!outer) return job;
  return {
    drawn: job.drawn,
    traces: job.traces.map((trace) =>
      trace.pieces.some((p) => p.id === shaped.pieceId)
        ? { ...trace, pieces: trace.pieces.map((p) => (p.id === shaped.pieceId ? { ...p, outer, holes: [...holes] } : p)) }
        : trace,
    ),
  };
}

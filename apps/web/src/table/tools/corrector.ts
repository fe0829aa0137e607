/**
 * Corrects by hand: points, handles, segments and whole things dragged, chosen, nudged, added and taken away; ends trimmed and extended.
 */
import { masterOf, type Piece } from '@nuvet/core/job';
import { distance, type Path, type Point, shift } from '@nuvet/core/plane';
import { withPointsMoved } from '@nuvet/core/shape';
import { aimAt } from '../hand-aim';
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
} from '../hand-correcting';
import { setHand, useHand } from '../hand-store';
import { moveCommand, shapeCommand, sourceOf, type Target, targetOf } from '../hand-target';
import { addsToSelection, ignoresSnapping } from '../table-store';
import { type HandSurroundings, type HandTool, onSheet, reachOf, slackPx } from './hand-tool';

/** A press while something is corrected: on a part of what is chosen, or on nothing of it. */
export interface CorrectingPress {
  readonly at: Point;
  moved: boolean;
  readonly hold: {
    readonly held: Held;
    readonly target: Target;
    readonly from: Point;
    /** What it may snap to, as it was when it was pressed. */
    readonly rest: readonly Piece[];
  } | null;
}

/** @param press kept from one event to the next */
export function corrector(around: HandSurroundings, press: { current: CorrectingPress | null }): HandTool {
  const { job, run, pieces, view, pictureSnap, onMessage } = around;
  const reach = () => reachOf(around);

  const target = (): Target | null => {
    const id = useHand.getState().chosen.at(-1);
    return id ? targetOf(job, id) : null;
  };

  /** The chosen thing as a whole, where the press lies on it. */
  const wholeUnder = (of: Target, sheet: Point): Held | null => {
    const under = pieceToChoose(pieces, sheet, reach());
    return under?.id.split('/')[0] === of.pieceId ? wholeAt(of, sheet, reach()) : null;
  };

  /** What a press takes hold of: with the points tool a point, handle or segment, else the thing as a whole. */
  const heldUnder = (of: Target, sheet: Point): Held | null =>
    useHand.getState().tool === 'points' ? heldAt(of, sheet, reach()) : wholeUnder(of, sheet);

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

  /** What is held follows the pointer. */
  const dragHeld = ({ held, target: of, from, rest }: NonNullable<CorrectingPress['hold']>, sheet: Point, isFree: boolean): void => {
    const isHeldOff = isFree || held.kind === 'handle' || held.kind === 'segment';
    const aimed = aimAt(rest, sheet, view().scale, null, pictureSnap(), isHeldOff);
    const dragged = pathsDragged(of, held, from, aimed.at);
    const kept = of.drawn?.held;
    const paths = kept ? masterOf({ source: sourceOf(dragged), held: kept }, job.making.stock.thicknessMm).paths : dragged;
    setHand({ aim: aimed.at, snap: aimed.snap, shaped: { pieceId: of.pieceId, source: sourceOf(paths), paths } });
  };

  /** What was dragged comes to lie where it was let go. */
  const setDown = ({ held, target: of, from }: NonNullable<CorrectingPress['hold']>, paths: readonly Path[]): void => {
    const { aim: to } = useHand.getState();
    run(held.kind === 'whole' && to !== null ? moveCommand(of, shift(to.x - from.x, to.y - from.y)) : shapeCommand(of, paths));
    setHand({ shaped: null, snap: null });
  };

  /** Points in the box that was drawn over them are chosen. */
  const takeFrame = (): boolean => {
    const { frame } = useHand.getState();
    const of = target();
    if (!frame || !of) return false;
    setHand({ frame: null, points: pointsWithin(of, frame.a, frame.b), segment: null });
    return true;
  };

  const clickAt = (sheet: Point, isMore: boolean): void => {
    const { tool, chosen } = useHand.getState();
    if (tool === 'trim') {
      const message = (isMore ? extendAt : trimAt)(run, job, pieces, sheet, reach());
      if (message) onMessage(message);
      return;
    }
    const of = tool === 'points' ? target() : null;
    if (of && heldAt(of, sheet, reach())) return;
    const id = pieceToChoose(pieces, sheet, reach())?.id.split('/')[0] ?? null;
    const kept = isMore ? chosen : [];
    setHand({ chosen: id === null ? kept : toggled(kept, id), points: null, segment: null });
  };

  /** Nudges the selected points, or the whole thing with its points and dimensions. */
  const nudge = (of: Target, [x, y]: readonly [number, number], step: number): void => {
    const { points } = useHand.getState();
    const by = { x: x * step, y: y * step };
    if (!points) run(moveCommand(of, shift(by.x, by.y)));
    else run(shapeCommand(of, of.paths.map((path, k) => (k === points.path ? withPointsMoved(path, points.indices, by) : path)))); // biome-ignore format: one line
  };

  return {
    down(screen, event) {
      const { tool } = useHand.getState();
      const sheet = onSheet(around, screen);
      const of = tool === 'trim' ? null : target();
      const held = of && heldUnder(of, sheet);
      const hold = of && held ? { held, target: of, from: placeOfHeld(of, held, sheet), rest: withoutOwn(pieces, of) } : null;
      press.current = { at: screen, moved: false, hold };
      if (held) chooseHeld(held, addsToSelection(event));
      // Without anything under it the table itself is dragged; with Shift a box over points.
      const isFraming = tool === 'points' && of !== null && held === null && addsToSelection(event);
      setHand({ aim: sheet, snap: null, frame: isFraming ? { a: sheet, b: sheet } : null });
      return hold !== null || isFraming;
    },
    drag(screen, event) {
      const now = press.current;
      if (!now) return false;
      if (distance(screen, now.at) > slackPx) now.moved = true;
      const sheet = onSheet(around, screen);
      if (now.hold && now.moved) {
        dragHeld(now.hold, sheet, ignoresSnapping(event));
        return true;
      }
      const { frame } = useHand.getState();
      if (frame) setHand({ frame: { a: frame.a, b: sheet } });
      return frame !== null;
    },
    hover: (screen) => setHand({ aim: onSheet(around, screen), snap: null }),
    up(screen, event) {
      const now = press.current;
      press.current = null;
      if (!now) return false;
      const { shaped } = useHand.getState();
      if (shaped && now.hold) setDown(now.hold, shaped.paths);
      else if (now.moved) return takeFrame() || now.hold !== null;
      else {
        setHand({ frame: null });
        clickAt(onSheet(around, screen), addsToSelection(event));
      }
      return true;
    },
    key({ key, shiftKey }) {
      const { tool, points } = useHand.getState();
      const of = target();
      if (!of) return false;
      if (key === 'Delete' || key === 'Backspace') {
        const message = deleteChosen(run, of);
        if (message) onMessage(message);
        return true;
      }
      const arrow = arrowsOnSheet[key];
      if (!arrow || (tool === 'points' && !points)) return false;
      nudge(of, arrow, shiftKey ? 1 : 0.1);
      return true;
    },
    doubleClick(screen) {
      const of = useHand.getState().tool === 'points' ? target() : null;
      const held = of && heldAt(of, onSheet(around, screen), reach());
      const paths = of && held && insertAt(of, held);
      if (!of || !held || !paths || held.kind !== 'segment') return false;
      run(shapeCommand(of, paths));
      setHand({ points: { path: held.path, indices: [held.index + 1] }, segment: null });
      return true;
    },
  };
}

const arrowsOnSheet: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** With one more, or without it where it was there. */
const toggled = (ids: readonly string[], id: string): readonly string[] =>
  ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id];

/** What is dragged does not snap to itself. */
const withoutOwn = (pieces: readonly Piece[], target: Target): readonly Piece[] =>
  pieces.filter(({ id }) => id.split('/')[0] !== target.pieceId);

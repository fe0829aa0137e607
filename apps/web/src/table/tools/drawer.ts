/**
 * Draws by hand: outlines point by point, figures by their places; and takes places that the docket asks for.
 */
import { distance, type Point } from '@nuvet/core/plane';
import { words } from '@/words';
import { aimAt, outlinesOf } from '../hand-aim';
import { addPoint, closeOutline, figureFrom, growing, placeFigure, placesNeeded, takePointBack } from '../hand-drawing';
import { type DrawTool, isDrawTool, setHand, useHand } from '../hand-store';
import { ignoresSnapping } from '../table-store';
import { type HandSurroundings, type HandTool, onSheet, reachOf, slackPx } from './hand-tool';

/** A press held this long without moving sets the third point of an arc. */
const holdMs = 450;

/** A press while something is drawn. */
export interface DrawingPress {
  readonly at: Point;
  /** The place that it aimed at. */
  readonly sheet: Point;
  readonly since: number;
  moved: boolean;
}

/** @param press kept from one event to the next */
export function drawer(around: HandSurroundings, press: { current: DrawingPress | null }): HandTool {
  const { job, run, pieces, view, pictureSnap, lookForSnap, onMessage } = around;
  const reach = () => reachOf(around);

  /** Where the line that is drawn comes from. */
  const comesFrom = (): Point | null => {
    const { places, through } = useHand.getState();
    return through ?? places.at(-1) ?? growing(job)?.points.at(-1)?.at ?? null;
  };
  const aim = (screen: Point, isHeldOff: boolean, from = comesFrom()) =>
    aimAt(pieces, onSheet(around, screen), view().scale, from, pictureSnap(), isHeldOff);

  /** A click sets a corner, a drag a curve's point with its handle, a long press the third point of an arc. */
  const takeOutlinePoint = (now: DrawingPress, screen: Point, time: number): void => {
    const isHeld = !now.moved && time - now.since >= holdMs && growing(job) !== null;
    if (isHeld) setHand({ through: now.sheet });
    else addPoint(run, job, now.sheet, reach(), now.moved ? onSheet(around, screen) : null);
  };

  /** Places of a figure: one a click; a drag gives both at once. */
  const takeFigurePlace = (tool: DrawTool, more: readonly Point[]): void => {
    const places = [...useHand.getState().places, ...more].slice(0, placesNeeded(tool));
    if (places.length < placesNeeded(tool)) {
      setHand({ places });
      return;
    }
    const figure = figureFrom(tool, places, outlinesOf(pieces));
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

  return {
    down(screen, event) {
      const aimed = aim(screen, ignoresSnapping(event));
      press.current = { at: screen, sheet: aimed.at, since: event.timeStamp, moved: false };
      setHand({ aim: aimed.at, snap: aimed.snap, frame: null });
      return true;
    },
    drag(screen) {
      const now = press.current;
      if (!now) return false;
      if (distance(screen, now.at) > slackPx) now.moved = true;
      if (useHand.getState().tool === 'outline' && now.moved) setHand({ aim: onSheet(around, screen), snap: null });
      return true;
    },
    hover(screen, event) {
      lookForSnap(screen);
      const aimed = aim(screen, ignoresSnapping(event));
      setHand({ aim: aimed.at, snap: aimed.snap });
    },
    up(screen, event) {
      const now = press.current;
      press.current = null;
      const { tool, asking } = useHand.getState();
      if (!now) return false;
      if (asking) {
        if (!now.moved) answer(now.sheet);
      } else if (tool === 'outline') takeOutlinePoint(now, screen, event.timeStamp);
      else if (isDrawTool(tool))
        takeFigurePlace(tool, now.moved ? [now.sheet, aim(screen, ignoresSnapping(event), now.sheet).at] : [now.sheet]);
      return true;
    },
    key({ key, shiftKey }) {
      const { tool, aim: at, through } = useHand.getState();
      if (key === 'Backspace') return takePointBack(run, job);
      if (key !== 'Enter' || !isDrawTool(tool)) return false;
      if (tool === 'outline' && growing(job)) {
        if (shiftKey) closeOutline(run, job, through);
        else setHand({ goingOn: null });
      } else if (at && tool === 'outline') addPoint(run, job, at, reach(), null);
      else if (at) takeFigurePlace(tool, [at]);
      return true;
    },
    doubleClick: () => false,
  };
}

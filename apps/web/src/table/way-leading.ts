'use client';
/**
 * Leading a way along an edge or a line: begun and held by clicks, following the pointer between, ended as a piece.
 */
import { type Command, type Job, type Picture, type Surface, traceOf } from '@nuvet/core/job';
import { distance, type Point } from '@nuvet/core/plane';
import { nanoid } from 'nanoid';
import { words } from '@/words';
import { finder } from '@/workers/finding';
import type { Ground } from './ground';
import { emptyWay, setTable, takeTool, useTable } from './table-store';

/** A click is drawn to what is followed from this near, screen pixels. */
const drawnReach = 8;
/** A click this near to the start closes the way, screen pixels. */
const closeReach = 12;

const reachPx = (ground: Ground): number => Math.min(30, Math.max(2, drawnReach / ground.scale));

const asking = { isBusy: false, wanted: null as Point | null };

/** The way follows the pointer; only the newest place is asked for. */
export function leadWay(to: Point): void {
  asking.wanted = to;
  if (asking.isBusy) return;
  asking.isBusy = true;
  void (async () => {
    while (asking.wanted) {
      const place = asking.wanted;
      asking.wanted = null;
      const next = await finder().wireTo(place);
      setTable(({ way }) => (way.start ? { way: { ...way, next } } : {}));
    }
    asking.isBusy = false;
  })();
}

let inHand: Promise<unknown> = Promise.resolve();

/** Clicks, steps back and the end are done one after the other: none begins before what it builds on is there. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const done = inHand.then(work);
  inHand = done.catch(() => {});
  return done;
}

/** A click: begins the way, holds it, or closes it at its start. Gives whether it has been closed. */
export function holdWay(ground: Ground, screen: Point): Promise<boolean> {
  const at = ground.toSurface(screen);
  return inTurn(() => held(ground, at));
}

async function held(ground: Ground, at: Point): Promise<boolean> {
  const { way } = useTable.getState();
  const { surface } = ground;
  if (!way.start) {
    const start = await finder().wireFrom(surface, at, way.follow, reachPx(ground));
    setTable({ way: { ...way, ...emptyWay, start } });
    return false;
  }
  const isClosing = way.held.length > 1 && distance(way.start, at) * ground.scale < closeReach;
  const part = await finder().wireHeld(surface, isClosing ? way.start : at, way.follow, reachPx(ground), isClosing);
  const end = part.at(-1);
  if (!end || part.length < 2) return false;
  setTable({ way: { ...way, held: [...way.held, part], next: [] } });
  if (!isClosing) await finder().wireFrom(surface, end, way.follow, 0.5);
  return isClosing;
}

/** Takes the last held part back; the way goes on from before it. */
export const takeWayBack = (surface: Surface): Promise<void> => inTurn(() => takenBack(surface));

async function takenBack(surface: Surface): Promise<void> {
  const { way } = useTable.getState();
  const held = way.held.slice(0, -1);
  const from = held.at(-1)?.at(-1) ?? (way.held.length > 0 ? way.start : null);
  setTable({ way: { ...way, held, next: [], start: from ? way.start : null } });
  if (from) await finder().wireFrom(surface, from, way.follow, 0.5);
}

/** Makes a piece of what has been held; a message where there is nothing to make. */
export const endWay = (...all: Parameters<typeof ended>): Promise<string | null> => inTurn(() => ended(...all));

async function ended(
  run: (command: Command) => void,
  job: Job,
  picture: Picture,
  surface: Surface,
  closed: boolean,
): Promise<string | null> {
  const { way } = useTable.getState();
  if (way.held.length === 0) return words.table.clickAlongTheEdgeFirstEach;
  const trace = traceOf(job, picture.id);
  if (!trace) return words.table.traceThePictureFirstThenFollow;
  const outer = await finder().wirePath(surface, way.held, way.follow, closed, trace.settings.toleranceMm);
  const count = trace.pieces.length;
  const piece = {
    id: `hand-${nanoid(10)}`,
    name: words.table.pieceName(count + 1),
    purpose: 'cut',
    leftOut: false,
    runsOff: false,
    outer,
    holes: [],
  } as const;
  run({ do: 'add-piece', pictureId: picture.id, piece: { ...piece, holes: [] } });
  takeTool('along-edge');
  setTable({ selectedPiece: piece.id });
  return null;
}

'use client';
/**
 * Leading a way along an edge or a line: begun and held by clicks, following the pointer between, ended as a piece.
 */
import { type Command, type Job, type Picture, type RasterSource, traceOf } from '@nuvet/core/job';
import { distance, type Point } from '@nuvet/core/plane';
import { nanoid } from 'nanoid';
import { words } from '@/words';
import { finder } from '@/workers/finder.client';
import type { Coordinates } from './coordinates';
import { emptyLiveWire, setTable, takeTool, useTable } from './table-store';

/** A click is drawn to what is followed from this near, screen pixels. */
const drawnReach = 8;
/** A click this near to the start closes the way, screen pixels. */
const closeReach = 12;

const searchRadiusPx = (coordinates: Coordinates): number => Math.min(30, Math.max(2, drawnReach / coordinates.scale));

const asking = { isBusy: false, wanted: null as Point | null };

/** The way follows the pointer; only the newest place is asked for. */
export function leadLiveWire(to: Point): void {
  asking.wanted = to;
  if (asking.isBusy) return;
  asking.isBusy = true;
  void (async () => {
    try {
      while (asking.wanted) {
        const place = asking.wanted;
        asking.wanted = null;
        const next = await finder().wireTo(place);
        setTable(({ liveWire }) => (liveWire.start ? { liveWire: { ...liveWire, next } } : {}));
      }
    } finally {
      asking.isBusy = false;
    }
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
export function addAnchor(coordinates: Coordinates, screen: Point): Promise<boolean> {
  const at = coordinates.toRaster(screen);
  return inTurn(() => held(coordinates, at));
}

async function held(coordinates: Coordinates, at: Point): Promise<boolean> {
  const { liveWire } = useTable.getState();
  const { raster } = coordinates;
  if (!liveWire.start) {
    const start = await finder().wireFrom(raster, at, liveWire.follow, searchRadiusPx(coordinates));
    setTable({ liveWire: { ...liveWire, ...emptyLiveWire, start } });
    return false;
  }
  const isClosing = liveWire.held.length > 1 && distance(liveWire.start, at) * coordinates.scale < closeReach;
  const part = await finder().wireHeld(raster, isClosing ? liveWire.start : at, liveWire.follow, searchRadiusPx(coordinates), isClosing);
  const end = part.at(-1);
  if (!end || part.length < 2) return false;
  setTable({ liveWire: { ...liveWire, held: [...liveWire.held, part], next: [] } });
  if (!isClosing) await finder().wireFrom(raster, end, liveWire.follow, 0.5);
  return isClosing;
}

/** Takes the last held part back; the way goes on from before it. */
export const undoSegment = (raster: RasterSource): Promise<void> => inTurn(() => takenBack(raster));

async function takenBack(raster: RasterSource): Promise<void> {
  const { liveWire } = useTable.getState();
  const held = liveWire.held.slice(0, -1);
  const from = held.at(-1)?.at(-1) ?? (liveWire.held.length > 0 ? liveWire.start : null);
  setTable({ liveWire: { ...liveWire, held, next: [], start: from ? liveWire.start : null } });
  if (from) await finder().wireFrom(raster, from, liveWire.follow, 0.5);
}

/** Makes a piece of what has been held; a message where there is nothing to make. */
export const finishPath = (...all: Parameters<typeof ended>): Promise<string | null> => inTurn(() => ended(...all));

async function ended(
  run: (command: Command) => void,
  job: Job,
  picture: Picture,
  raster: RasterSource,
  closed: boolean,
): Promise<string | null> {
  const { liveWire } = useTable.getState();
  if (liveWire.held.length === 0) return words.table.clickAlongTheEdgeFirstEach;
  const trace = traceOf(job, picture.id);
  if (!trace) return words.table.traceThePictureFirstThenFollow;
  const outer = await finder().wirePath(raster, liveWire.held, liveWire.follow, closed, trace.settings.toleranceMm);
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

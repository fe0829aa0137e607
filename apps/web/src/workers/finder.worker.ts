/**
 * The finding worker: what a picture itself tells. Snaps near the pointer, the drawn part, passages, and suggestions
 * for truing up. Places are pixels of the raster that is asked about.
 */
import type { RasterSource } from '@nuvet/core/job';
import { type Path, type Point, transformedPath } from '@nuvet/core/plane';
import {
  type Contour,
  contentHull,
  drawnTo,
  type GreyPicture,
  graduationAlong,
  greyPicture,
  inkContours,
  LiveWire,
  type LiveWireTarget,
  type MainDirection,
  type MirrorAxis,
  mainDirection,
  mirrorAxis,
  narrowestPassage,
  paperCorners,
  type Repeat,
  rehearsed,
  repeatAlong,
  type Snap,
  sheetsFor,
  snapToInk,
  straightRuns,
} from '@nuvet/core/raster';
import { pathAlongEdge } from '@nuvet/core/trace';
import { type FoundCard, findScaleCard } from '@nuvet/core/trueup';
import { expose } from 'comlink';
import { fetchBytes } from './pixels';
import { breath } from './slices';

export interface Found {
  readonly card: FoundCard | null;
  readonly paper: {
    readonly corners: [Point, Point, Point, Point];
    readonly isFirstLong: boolean;
    readonly sheets: { name: string; longMm: number; shortMm: number }[];
  } | null;
  readonly direction: MainDirection | null;
  readonly ruler: Repeat | null;
  readonly squares: { readonly across: Repeat; readonly up: Repeat } | null;
  readonly axis: MirrorAxis | null;
}

interface Asked {
  readonly id: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A place off the picture is its nearest place on it. */
const within = ({ width, height }: GreyPicture, { x, y }: Point): Point => ({
  x: Math.min(width - 1, Math.max(0, x)),
  y: Math.min(height - 1, Math.max(0, y)),
});

let held: { readonly id: string; readonly grey: GreyPicture; contours?: readonly Contour[] } | null = null;
let reading: { readonly id: string; readonly done: Promise<void> } | null = null;

async function greyOf({ id, widthPx, heightPx }: Asked): Promise<{ grey: GreyPicture; contours?: readonly Contour[] }> {
  if (held?.id !== id) {
    if (reading?.id !== id) {
      const done = fetchBytes(`/api/pictures/${id}/grey`, widthPx * heightPx, () => {}).then((bytes) => {
        held = { id, grey: greyPicture(bytes, widthPx, heightPx) };
      });
      reading = { id, done };
    }
    await reading.done;
  }
  if (held?.id !== id) throw new Error('another picture was asked for');
  return held;
}

async function contoursOf(asked: Asked): Promise<readonly Contour[]> {
  const picture = await greyOf(asked);
  picture.contours ??= inkContours(picture.grey);
  return picture.contours;
}

const shortestRunPx = 60;

let wire: { readonly id: string; readonly wire: LiveWire } | null = null;

let rehearsedId: string | null = null;

/** The windows about a way's start read one by one, with room for the pointer's moves between. */
async function prepareAhead(begun: LiveWire): Promise<void> {
  for (const _ of begun.prepared()) {
    await breath();
    if (wire?.wire !== begun) return;
  }
}

const finder = {
  /** Begins a way at the edge or line nearest to a place; null until the picture has been read. */
  async wireFrom(asked: Asked, at: Point, follow: LiveWireTarget, searchRadiusPx: number): Promise<Point | null> {
    const { grey } = await greyOf(asked);
    const from = drawnTo(grey, within(grey, at), follow, searchRadiusPx);
    const begun = new LiveWire(grey, from, follow);
    wire = { id: asked.id, wire: begun };
    void prepareAhead(begun);
    return from;
  },

  /** Makes ready for leading ways over a picture: read, and gone over once. */
  async wireReady(asked: Asked): Promise<void> {
    const { grey } = await greyOf(asked);
    if (rehearsedId !== asked.id) rehearsed(grey);
    rehearsedId = asked.id;
  },

  /** The way from where it was begun to a place. */
  wireTo(at: Point): Point[] {
    return wire ? wire.wire.to(held ? within(held.grey, at) : at) : [];
  },

  /** The same pixel by pixel, to the edge or line nearest to a place. */
  wireHeld(asked: Asked, at: Point, follow: LiveWireTarget, searchRadiusPx: number, exactly: boolean): Point[] {
    if (!wire || held?.id !== asked.id) return [];
    const inside = within(held.grey, at);
    return wire.wire.held(exactly ? inside : drawnTo(held.grey, inside, follow, searchRadiusPx));
  },

  /** One path along ways held one after another, on the sheet. */
  async wirePath(
    asked: RasterSource,
    parts: readonly (readonly Point[])[],
    follow: LiveWireTarget,
    closed: boolean,
    toleranceMm: number,
  ): Promise<Path> {
    const { grey } = await greyOf(asked);
    const path = parts.flatMap((part, k) => (k === 0 ? part : part.slice(1)));
    const whole = closed ? path.slice(0, -1) : path;
    return transformedPath(pathAlongEdge(grey, whole, follow, closed, toleranceMm / asked.mmPerPx), asked.toSheet);
  },

  /** Null until the picture has been read, so that nobody waits for it. */
  async snap(asked: Asked, at: Point, searchRadiusPx: number): Promise<Snap | null> {
    if (held?.id !== asked.id) {
      void greyOf(asked).catch(() => {});
      return null;
    }
    return snapToInk(held.grey, at, searchRadiusPx);
  },

  async drawnPart(asked: Asked): Promise<Point[] | null> {
    return contentHull((await greyOf(asked)).grey, await contoursOf(asked));
  },

  async passage(asked: Asked, a: Point, b: Point): Promise<[Point, Point] | null> {
    return narrowestPassage(await contoursOf(asked), a, b);
  },

  /** All suggestions; null where another picture has been asked for meanwhile. */
  async suggest(asked: Asked): Promise<Found | null> {
    const { grey } = await greyOf(asked);
    const isWanted = () => held?.id === asked.id;
    const card = findScaleCard(grey);
    await breath();
    const corners = isWanted() && !card ? paperCorners(grey) : null;
    const paper = corners && { corners, ...sheetsFor(corners, grey) };
    await breath();
    if (!isWanted()) return null;
    const direction = mainDirection(straightRuns(await contoursOf(asked), shortestRunPx, grey));
    await breath();
    if (!isWanted()) return null;
    const angle = direction?.turn ?? 0;
    const [across, up] = [repeatAlong(grey, angle), repeatAlong(grey, angle + Math.PI / 2)];
    await breath();
    if (!isWanted()) return null;
    // Where the drawing hides much of a ruling, bands of it still show.
    const graduations = across && up ? [across, up] : [graduationAlong(grey, angle), graduationAlong(grey, angle + Math.PI / 2)];
    const [along, upward] = graduations;
    const squares = along && upward && Math.abs(Math.log(along.stepPx / upward.stepPx)) < 0.1 ? { across: along, up: upward } : null;
    const rulers = squares ? [] : graduations.filter((r): r is Repeat => r !== null);
    const ruler = rulers.toSorted((a, b) => b.agreement * b.count - a.agreement * a.count)[0] ?? null;
    await breath();
    if (!isWanted()) return null;
    return { card, paper, direction, ruler, squares, axis: mirrorAxis(grey) };
  },
};

export type Finder = typeof finder;

expose(finder);

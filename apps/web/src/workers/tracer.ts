/**
 * The tracing worker: holds a picture's grey pixels and traces them, the newest request only; writes files.
 */
import { type FilePiece, writeDxf, writeSvg } from '@nuvet/core/formats';
import {
  fromOriginal,
  type JobTrace,
  type JobTraceSettings,
  type Picture,
  pictureSchema,
  pieceSchema,
  type Surface,
  traceOnSheet,
  traceSettingsSchema,
} from '@nuvet/core/job';
import { apply, inverse, type Point, project, transformedPath } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture, onlyInside } from '@nuvet/core/raster';
import { findInk, fitInk, type Ink, madeSymmetric, type Outlines, type Symmetry, strayOf, symmetriesOf } from '@nuvet/core/trace';
import { expose } from 'comlink';
import { z } from 'zod';
import { fetchBytes } from './pixels';

/** What is this near to a symmetry is offered it, root mean square, mm; drawings by hand leave it by so much. */
const nearlyMm = 0.6;
/** How far from a corner its softness is seen, in deviations of it. */
const cornerReach = 6;
/** The step that outlines are walked in to make them symmetric, mm: a pixel at 300 dpi. */
const walkMm = 25.4 / 300;

/** How long the worker computes before it looks whether it is still wanted. */
const breathMs = 30;

interface Held {
  readonly id: string;
  readonly grey: GreyPicture;
  /** The ink found last, and what it was asked by: another tolerance needs no new one. */
  ink?: { readonly key: string; readonly found: Ink };
}

let held: Held | null = null;
let newest = 0;

const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

async function readGrey(surface: Surface, onShare: (share: number) => void): Promise<GreyPicture> {
  const bytes = await fetchBytes(`/api/pictures/${surface.id}/grey`, surface.widthPx * surface.heightPx, onShare);
  return greyPicture(bytes, surface.widthPx, surface.heightPx);
}

/** The picture with paper outside its crop. */
function cropped(grey: GreyPicture, picture: Picture, surface: Surface): GreyPicture {
  if (!picture.crop) return grey;
  const back = fromOriginal(surface);
  return onlyInside(
    grey,
    picture.crop.map((p) => (back ? project(back, p) : p)),
  );
}

/** The picture's pixels, read once. */
async function sourceOf(picture: Picture, surface: Surface, onShare: (share: number) => void): Promise<Held> {
  const id = JSON.stringify([surface.id, picture.crop]);
  if (held?.id !== id) held = { id, grey: cropped(await readGrey(surface, onShare), picture, surface) };
  return held;
}

function inkOf(picture: Held, mmPerPx: number, { threshold, inverted, smallestMm }: JobTraceSettings): Ink {
  const key = JSON.stringify([threshold, inverted, smallestMm, mmPerPx]);
  if (picture.ink?.key !== key) picture.ink = { key, found: findInk(picture.grey, mmPerPx, { threshold, inverted, smallestMm }) };
  return picture.ink.found;
}

const tracer = {
  /**
   * Traces a picture; an older request that is still under way ends with null.
   * @param onShare hears what is under way and the share done, 0 to 1
   */
  async trace(
    asked: unknown,
    surface: Surface,
    wish: unknown,
    onShare: (word: 'reading' | 'tracing', share: number) => void,
  ): Promise<JobTrace | null> {
    const picture = pictureSchema.parse(asked);
    const settings: JobTraceSettings = traceSettingsSchema.parse(wish);
    const mine = ++newest;
    const source = await sourceOf(picture, surface, (share) => onShare('reading', share));
    if (mine !== newest) return null;
    const { mmPerPx } = surface;
    const ink = inkOf(source, mmPerPx, settings);
    await breath();
    if (mine !== newest) return null;
    const steps = fitInk(ink, mmPerPx, settings);
    let since = performance.now();
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) return traceOnSheet(picture, settings, step.value, surface);
      if (performance.now() - since < breathMs) continue;
      onShare('tracing', step.value);
      await breath();
      if (mine !== newest) return null;
      since = performance.now();
    }
  },

  /** How far the kept outlines lie from the ink's border, points on the sheet, mm; null where middles were traced. */
  async deviation(of: unknown, surface: Surface, wish: unknown, asked: unknown, withLines: boolean): Promise<DeviationSeen | null> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(wish);
    const pieces = z.array(pieceSchema).parse(asked);
    if (settings.take === 'network' || settings.take === 'line-middle') return null;
    const back = inverse(surface.toSheet);
    const paths = pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map((path) => transformedPath(path, back));
    const source = await sourceOf(pictureSchema.parse(of), surface, () => {});
    const ink = inkOf(source, surface.mmPerPx, settings);
    const contours = ink.contours.map(({ points }) => points);
    const lines = strayOf(paths, contours, cornerReach * ink.softness).map(({ points, off }) => ({
      points: points.map((p) => apply(surface.toSheet, p)),
      off: off.map((d) => d * surface.mmPerPx),
    }));
    let worst: DeviationSeen['worst'] = { at: { x: 0, y: 0 }, mm: 0 };
    for (const { points, off } of lines)
      off.forEach((mm, k) => {
        if (mm > worst.mm) worst = { at: points[k] as Point, mm };
      });
    return { lines: withLines ? lines : [], worst, toleranceMm: settings.toleranceMm };
  },

  /** Points and largest distance over a range of tolerances, the same ink fitted anew for each; null where overtaken. */
  async tradeOff(surface: Surface, wish: unknown, tolerances: readonly number[]): Promise<TradeOff[] | null> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(wish);
    if (!held || settings.take === 'network' || settings.take === 'line-middle') return null;
    const mine = newest;
    const ink = inkOf(held, surface.mmPerPx, settings);
    const contours = ink.contours.map(({ points }) => points);
    const found: TradeOff[] = [];
    for (const toleranceMm of tolerances) {
      const steps = fitInk(ink, surface.mmPerPx, { ...settings, toleranceMm });
      let step = steps.next();
      while (!step.done) {
        await breath();
        if (mine !== newest) return null;
        step = steps.next();
      }
      const paths = step.value.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
      const worst = strayOf(paths, contours, cornerReach * ink.softness).reduce(
        (most, { off }) => off.reduce((a, d) => Math.max(a, d), most),
        0,
      );
      found.push({ toleranceMm, points: paths.reduce((n, p) => n + p.segments.length, 0), worstMm: worst * surface.mmPerPx });
    }
    return found;
  },

  /** The symmetries that a piece nearly has, on the sheet. */
  symmetries(asked: unknown): Symmetry[] {
    const { outer, holes } = pieceSchema.parse(asked);
    return outer.closed ? symmetriesOf({ outer, holes }, nearlyMm) : [];
  },

  /** A piece made exactly symmetric; null where its outlines cannot be matched. */
  symmetric(asked: unknown, symmetry: Symmetry, toleranceMm: number): Outlines | null {
    const { outer, holes } = pieceSchema.parse(asked);
    return madeSymmetric({ outer, holes }, symmetry, walkMm, toleranceMm);
  },

  /** Ends what is under way. */
  stop(): void {
    newest++;
  },

  /** A file's text from pieces. */
  write(kind: 'svg' | 'dxf', asked: unknown, title: string): string {
    const pieces: FilePiece[] = z.array(pieceSchema).parse(asked);
    return kind === 'svg' ? writeSvg(pieces, title) : writeDxf(pieces, title);
  },
};

/** The outlines, where they were asked for, as points with their distance from the ink's border, mm, on the sheet. */
export interface DeviationSeen {
  readonly lines: readonly { readonly points: readonly Point[]; readonly off: readonly number[] }[];
  readonly worst: { readonly at: Point; readonly mm: number };
  readonly toleranceMm: number;
}

export interface TradeOff {
  readonly toleranceMm: number;
  readonly points: number;
  readonly worstMm: number;
}

export type Tracer = typeof tracer;

expose(tracer);

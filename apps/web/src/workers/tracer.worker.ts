/**
 * The tracing worker: traces the picture that it holds (held-picture.ts), the newest request only.
 */

import {
  type JobTrace,
  type JobTraceSettings,
  type Piece,
  pathSchema,
  pathsOf,
  pictureSchema,
  pieceSchema,
  type RasterSource,
  relatedPieces,
  relationsOfPieces,
  traceOnSheet,
  traceSettingsSchema,
} from '@nuvet/core/job';
import { apply, inverse, type Path, type Point, transformedPath } from '@nuvet/core/plane';
import { coloursIn, coloursInside, hexOf, type Rgb } from '@nuvet/core/raster';
import type { HalfSide } from '@nuvet/core/shape';
import {
  type BorderSettings,
  type Borders,
  contourDeviation,
  type Outlines,
  type RelationKind,
  refittedBetween,
  type Symmetry,
  snapToEdge,
  symmetriesOf,
  symmetrize,
} from '@nuvet/core/trace';
import { expose } from 'comlink';
import { z } from 'zod';
import { asNumbers, type ChordTrace } from './chord-trace';
import { coarseTrace, prepareLooks } from './coarse-trace';
import { coloursOf, holding, limitsOn, noProgress, onRaster, pictureBorders } from './held-picture';
import { breath, runInSlices } from './slices';

/** What is this near to a symmetry is offered it, root mean square, mm; drawings by hand leave it by so much. */
const nearlyMm = 0.6;
/** How far from a corner its softness is seen, in deviations of it. */
const cornerRadius = 6;
/** The step that outlines are walked in to make them symmetric, mm: a pixel at 300 dpi. */
const walkMm = 25.4 / 300;

/** A border farther than this from what a hand drew is not what it meant, mm. */
const closerReachMm = 4;

/** So long after a first look the processor is the page's, which is painting it, ms. */
const paintingMs = 60;

let newest = 0;
let lookedAt = Number.NEGATIVE_INFINITY;

/** How a path is led along borders. */
const alongBorders = ({ blur }: Borders, { mmPerPx }: RasterSource, { toleranceMm }: JobTraceSettings): BorderSettings => ({
  blur,
  tolerancePx: toleranceMm / mmPerPx,
  searchRadiusPx: closerReachMm / mmPerPx,
});

const isOfMiddles = ({ take }: JobTraceSettings): boolean => take === 'network' || take === 'line-middle';

const tracer = {
  /** A first look at what `trace` would find, in a few hundredths of a second; null where there is none. What is under way ends. */
  look(asked: unknown, raster: RasterSource, given: unknown): ChordTrace | null {
    newest++;
    const found = coarseTrace(pictureSchema.parse(asked), raster, traceSettingsSchema.parse(given));
    if (found) lookedAt = performance.now();
    return found && asNumbers(found);
  },

  /**
   * Traces a picture; an older request that is still under way ends with null.
   * @param onShare hears what is under way and the share done, 0 to 1
   */
  async trace(
    asked: unknown,
    raster: RasterSource,
    given: unknown,
    onShare: (word: 'reading' | 'tracing', share: number) => void,
  ): Promise<JobTrace | null> {
    const picture = pictureSchema.parse(asked);
    const settings: JobTraceSettings = traceSettingsSchema.parse(given);
    const mine = ++newest;
    const isWanted = () => mine === newest;
    const untilPainted = lookedAt + paintingMs - performance.now();
    if (untilPainted > 0) await new Promise((resolve) => setTimeout(resolve, untilPainted));
    if (!isWanted()) return null;
    const borders = await pictureBorders(
      picture,
      raster,
      settings,
      isWanted,
      (share) => onShare('reading', share),
      (share) => onShare('tracing', share / 2),
    );
    await breath();
    if (!borders || !isWanted()) return null;
    const found = await runInSlices(borders.fit(settings), (share) => onShare('tracing', share), isWanted);
    setTimeout(() => prepareLooks(picture, raster, settings));
    return (
      found && traceOnSheet(picture, settings, found, raster, undefined, limitsOn(picture, raster, settings, holding(raster).grey).isFramed)
    );
  },

  /** Pieces of which a hand has changed some segments, the others fitted anew to the borders that the settings find. */
  async refitted(of: unknown, raster: RasterSource, given: unknown, asked: unknown): Promise<Piece[]> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(given);
    const pieces = z.array(pieceSchema).parse(asked);
    if (isOfMiddles(settings)) return pieces;
    const borders = await pictureBorders(pictureSchema.parse(of), raster, settings, () => true, noProgress, noProgress);
    if (!borders) return pieces;
    const back = inverse(raster.toSheet);
    return pieces.map((piece) => {
      const made = pathsOf(piece).map((path, k) =>
        refittedBetween(transformedPath(path, back), piece.touched?.[k] ?? [], borders.contours, alongBorders(borders, raster, settings)),
      );
      const [outer, ...holes] = made.map(({ path }) => transformedPath(path, raster.toSheet));
      return { ...piece, outer: outer ?? piece.outer, holes, touched: made.map(({ touched }) => touched) };
    });
  },

  /** The colours that a picture is made of, the commonest first. */
  async coloursIn(of: unknown, raster: RasterSource): Promise<{ hex: string; share: number }[]> {
    const { crop } = pictureSchema.parse(of);
    const all = await coloursOf(raster, noProgress);
    return coloursIn(crop ? coloursInside(all, onRaster(crop, raster)) : all).map(({ rgb, share }) => ({ hex: hexOf(rgb), share }));
  },

  /** The colour at a place of the raster, the mean of the pixels about it. */
  async colourAt(raster: RasterSource, { x, y }: Point): Promise<string | null> {
    const { width, height, data } = await coloursOf(raster, noProgress);
    const sum = [0, 0, 0];
    let count = 0;
    for (let v = Math.floor(y) - 2; v <= y + 2; v++) {
      for (let u = Math.floor(x) - 2; u <= x + 2; u++) {
        if (u < 0 || v < 0 || u >= width || v >= height) continue;
        count++;
        for (let c = 0; c < 3; c++) sum[c] = (sum[c] as number) + (data[3 * (v * width + u) + c] as number);
      }
    }
    return count === 0 ? null : hexOf(sum.map((s) => s / count) as unknown as Rgb);
  },

  /** How far the kept outlines lie from the ink's border, points on the sheet, mm; null where middles were traced. */
  async deviation(of: unknown, raster: RasterSource, given: unknown, asked: unknown, withLines: boolean): Promise<DeviationSeen | null> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(given);
    const pieces = z.array(pieceSchema).parse(asked);
    if (isOfMiddles(settings)) return null;
    const back = inverse(raster.toSheet);
    const paths = pieces.flatMap(pathsOf).map((path) => transformedPath(path, back));
    const borders = await pictureBorders(pictureSchema.parse(of), raster, settings, () => true, noProgress, noProgress);
    if (!borders) return null;
    const lines = contourDeviation(paths, borders.contours, cornerRadius * borders.blur).map(({ points, off }) => ({
      points: points.map((p) => apply(raster.toSheet, p)),
      off: off.map((d) => d * raster.mmPerPx),
    }));
    let worst: DeviationSeen['worst'] = { at: { x: 0, y: 0 }, mm: 0 };
    for (const { points, off } of lines)
      off.forEach((mm, k) => {
        if (mm > worst.mm) worst = { at: points[k] as Point, mm };
      });
    return { lines: withLines ? lines : [], worst, toleranceMm: settings.toleranceMm };
  },

  /** A path on the sheet, or a run of its points, led along the ink's border near it; null where there is none. */
  async closer(
    of: unknown,
    raster: RasterSource,
    given: unknown,
    asked: unknown,
    run: readonly [number, number] | null,
  ): Promise<Path | null> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(given);
    const borders = await pictureBorders(pictureSchema.parse(of), raster, settings, () => true, noProgress, noProgress);
    if (!borders) return null;
    const path = transformedPath(pathSchema.parse(asked), inverse(raster.toSheet));
    const closer = snapToEdge(path, run, borders.contours, alongBorders(borders, raster, settings));
    return closer && transformedPath(closer, raster.toSheet);
  },

  /** Points and largest distance over a range of tolerances, the same ink fitted anew for each; null where overtaken. */
  async tradeOff(raster: RasterSource, given: unknown, tolerances: readonly number[]): Promise<TradeOff[] | null> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(given);
    const borders = holding(raster).borders?.found;
    if (!borders || isOfMiddles(settings)) return null;
    const mine = newest;
    const found: TradeOff[] = [];
    for (const toleranceMm of tolerances) {
      const fit = await runInSlices(borders.fit({ ...settings, toleranceMm }), noProgress, () => mine === newest);
      if (!fit) return null;
      const paths = fit.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
      const worst = contourDeviation(paths, borders.contours, cornerRadius * borders.blur).reduce(
        (max, { off }) => off.reduce((a, d) => Math.max(a, d), max),
        0,
      );
      found.push({ toleranceMm, points: paths.reduce((n, p) => n + p.segments.length, 0), worstMm: worst * raster.mmPerPx });
    }
    return found;
  },

  /** The symmetries that a piece nearly has, on the sheet. */
  symmetries(asked: unknown): Symmetry[] {
    const { outer, holes } = pieceSchema.parse(asked);
    return outer.closed ? symmetriesOf({ outer, holes }, nearlyMm) : [];
  },

  /** A piece made exactly symmetric, from both halves or from one; null where its outlines cannot be matched. */
  symmetric(asked: unknown, symmetry: Symmetry, toleranceMm: number, stands: HalfSide | null): Outlines | null {
    const { outer, holes } = pieceSchema.parse(asked);
    return symmetrize({ outer, holes }, symmetry, walkMm, toleranceMm, stands);
  },

  /** What the pieces' segments nearly are to one another. */
  relations(asked: unknown, toleranceMm: number): RelationSeen[] {
    return relationsOfPieces(z.array(pieceSchema).parse(asked), toleranceMm).map(({ key, kind, at, off }) => ({ key, kind, at, off }));
  },

  /** Pieces with their relations made exact, but those refused; only what changes. */
  async related(asked: unknown, refused: readonly string[], toleranceMm: number): Promise<TracedRelation[]> {
    const made: TracedRelation[] = [];
    for (const group of relatedPieces(z.array(pieceSchema).parse(asked), refused, toleranceMm)) {
      made.push(...group.map(({ piece, outer, holes, held: count }) => ({ pieceId: piece.id, outer, holes, held: count })));
      await breath();
    }
    return made;
  },

  /** Ends what is under way. */
  stop(): void {
    newest++;
  },
};

/** The outlines, where they were asked for, as points with their distance from the ink's border, mm, on the sheet. */
export interface DeviationSeen {
  readonly lines: readonly { readonly points: readonly Point[]; readonly off: readonly number[] }[];
  readonly worst: { readonly at: Point; readonly mm: number };
  readonly toleranceMm: number;
}

/** A relation that segments of a piece nearly have, and where its tick stands on the sheet. */
export interface RelationSeen {
  readonly key: string;
  readonly kind: RelationKind;
  readonly at: Point;
  readonly off: number;
}

export interface TracedRelation extends Outlines {
  readonly pieceId: string;
  /** How many relations hold. */
  readonly held: number;
}

export interface TradeOff {
  readonly toleranceMm: number;
  readonly points: number;
  readonly worstMm: number;
}

export type Tracer = typeof tracer;

expose(tracer);

/**
 * The tracing worker: holds a picture's grey pixels and traces them, the newest request only.
 */
import {
  fromOriginal,
  type JobTrace,
  type JobTraceSettings,
  type Picture,
  type Piece,
  pathSchema,
  pictureSchema,
  pieceSchema,
  relatedPieces,
  relationsOfPieces,
  type Surface,
  traceOnSheet,
  traceSettingsSchema,
} from '@nuvet/core/job';
import { apply, chain, inverse, type Path, type Point, project, stretch, transformedPath } from '@nuvet/core/plane';
import {
  type ColourPicture,
  coloursIn,
  coloursInside,
  type GreyPicture,
  greyPicture,
  hexOf,
  onlyInside,
  type Rgb,
  reducedTo,
} from '@nuvet/core/raster';
import {
  type Borders,
  closerToBorders,
  colourBorders,
  findInk,
  firstLook,
  type Ink,
  inkBorders,
  madeSymmetric,
  type Outlines,
  type RelationKind,
  refittedBetween,
  type Symmetry,
  strayOf,
  symmetriesOf,
} from '@nuvet/core/trace';
import { expose } from 'comlink';
import { z } from 'zod';
import { asNumbers, type ChordTrace } from './chord-trace';
import { fetchBytes } from './pixels';

/** What is this near to a symmetry is offered it, root mean square, mm; drawings by hand leave it by so much. */
const nearlyMm = 0.6;
/** How far from a corner its softness is seen, in deviations of it. */
const cornerReach = 6;
/** The step that outlines are walked in to make them symmetric, mm: a pixel at 300 dpi. */
const walkMm = 25.4 / 300;

/** A border farther than this from what a hand drew is not what it meant, mm. */
const closerReachMm = 4;

/** How long the worker computes before it looks whether it is still wanted. */
const breathMs = 30;

interface Held {
  readonly id: string;
  /** Read when it is first needed: most pictures are traced by their darkness alone. */
  grey?: GreyPicture;
  /** The same halved a few times, for a first look. */
  coarse?: { readonly picture: GreyPicture; readonly factor: number };
  /** Its ink, which another tolerance shares. */
  coarseInk?: { readonly key: string; readonly ink: Ink };
  colours?: ColourPicture;
  /** The borders found last, and what they were asked by: another tolerance needs no new ones. */
  borders?: { readonly key: string; readonly found: Borders };
}

let held: Held | null = null;
let newest = 0;

const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

/** An outline in pixels of the picture as it came, in pixels of its surface. */
function onSurface(outline: readonly Point[], surface: Surface): Point[] {
  const back = fromOriginal(surface);
  return outline.map((p) => (back ? project(back, p) : p));
}

type OnShare = (share: number) => void;
const unheard: OnShare = () => {};

function holding(surface: Surface): Held {
  if (held?.id !== surface.id) held = { id: surface.id };
  return held;
}

/** The picture's grey pixels, read once, with paper outside its crop and outside what the trace is limited to. */
async function greyOf(picture: Picture, surface: Surface, within: readonly Point[] | null, onShare: OnShare): Promise<GreyPicture> {
  const own = holding(surface);
  const { id, widthPx, heightPx } = surface;
  own.grey ??= greyPicture(await fetchBytes(`/api/pictures/${id}/grey`, widthPx * heightPx, onShare), widthPx, heightPx);
  return [picture.crop, within].reduce((grey, outline) => (outline ? onlyInside(grey, onSurface(outline, surface)) : grey), own.grey);
}

async function coloursOf(picture: Picture, surface: Surface, within: readonly Point[] | null, onShare: OnShare): Promise<ColourPicture> {
  const own = holding(surface);
  const { id, widthPx: width, heightPx: height } = surface;
  own.colours ??= { width, height, data: await fetchBytes(`/api/pictures/${id}/colours`, 3 * width * height, onShare) };
  return [picture.crop, within].reduce((all, outline) => (outline ? coloursInside(all, onSurface(outline, surface)) : all), own.colours);
}

/** Runs steps with a breath now and then; null once they are no longer wanted. */
async function breathing<T>(steps: Generator<number, T>, isWanted: () => boolean, onShare: OnShare): Promise<T | null> {
  let since = performance.now();
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value;
    if (performance.now() - since < breathMs) continue;
    onShare(step.value);
    await breath();
    if (!isWanted()) return null;
    since = performance.now();
  }
}

/** The borders that the settings ask for; null once they are no longer wanted. */
async function bordersOf(
  picture: Picture,
  surface: Surface,
  settings: JobTraceSettings,
  isWanted: () => boolean,
  onReading: OnShare,
  onFinding: OnShare,
): Promise<Borders | null> {
  const { threshold, inverted, smallestMm, colours, take, within } = settings;
  const { mmPerPx } = surface;
  const isByColour = colours.length > 0;
  const told = isByColour ? [colours.map(({ hex }) => hex), take === 'shape'] : [threshold, inverted];
  const key = JSON.stringify([told, smallestMm, mmPerPx, picture.crop, within]);
  const own = holding(surface);
  if (own.borders?.key === key) return own.borders.found;
  if (isByColour) {
    const all = await coloursOf(picture, surface, within, onReading);
    const found = isWanted() ? await breathing(colourBorders(all, mmPerPx, settings), isWanted, onFinding) : null;
    if (found) own.borders = { key, found };
    return found;
  }
  const grey = await greyOf(picture, surface, within, onReading);
  if (!isWanted()) return null;
  const found = inkBorders(findInk(grey, mmPerPx, { threshold, inverted, smallestMm }), mmPerPx);
  own.borders = { key, found };
  return found;
}

/** Pictures longer than this are looked at coarsely first, so that a slider's move shows at once; px. */
const coarsePx = 1300;

/** The picture halved, where that is worth while and its greys have been read. */
function coarseOf(surface: Surface): Held['coarse'] {
  const own = held?.id === surface.id ? held : null;
  if (!own?.grey || Math.max(own.grey.width, own.grey.height) <= 1.5 * coarsePx) return undefined;
  own.coarse ??= reducedTo(own.grey, coarsePx);
  return own.coarse;
}

/**
 * A first look at a trace, on a picture halved a few times; null where that would be no quicker, or needs what is not read
 * yet.
 */
function coarseTrace(picture: Picture, surface: Surface, settings: JobTraceSettings): JobTrace | null {
  const coarse = settings.colours.length > 0 || settings.take !== 'shape' ? undefined : coarseOf(surface);
  if (!coarse) return null;
  const { factor } = coarse;
  const mmPerPx = surface.mmPerPx * factor;
  const { threshold, inverted, smallestMm, within } = settings;
  const own = holding(surface);
  const key = JSON.stringify([threshold, inverted, smallestMm, mmPerPx, picture.crop, within]);
  if (own.coarseInk?.key !== key) {
    const small = [picture.crop, within].reduce(
      (grey, outline) =>
        outline
          ? onlyInside(
              grey,
              onSurface(outline, surface).map(({ x, y }) => ({ x: x / factor, y: y / factor })),
            )
          : grey,
      coarse.picture,
    );
    own.coarseInk = { key, ink: findInk(small, mmPerPx, settings) };
  }
  const found = firstLook(own.coarseInk.ink, mmPerPx, settings);
  return traceOnSheet(picture, settings, found, { toSheet: chain(surface.toSheet, stretch(factor)), mmPerPx });
}

/** How often a first look is tried beforehand: an engine makes quick code only of what has run a few times. */
const rehearsals = 4;

/** The first move of a slider shall find all that a first look needs. */
function prepareLooks(picture: Picture, surface: Surface, settings: JobTraceSettings): void {
  if (held?.id !== surface.id || held.coarse) return;
  for (let k = 0; k < rehearsals; k++) {
    const found = coarseTrace(picture, surface, settings);
    if (found) asNumbers(found);
  }
}

const outlinesOf = ({ outer, holes }: Piece): Path[] => [outer, ...holes];

const isPartlyByHand = ({ edited, touched }: Piece): boolean => edited === true && touched !== undefined;

const isOfMiddles = ({ take }: JobTraceSettings): boolean => take === 'network' || take === 'line-middle';

const tracer = {
  /** A first look at what `trace` would find, in a few hundredths of a second; null where there is none. What is under way ends. */
  look(asked: unknown, surface: Surface, wish: unknown): ChordTrace | null {
    newest++;
    const found = coarseTrace(pictureSchema.parse(asked), surface, traceSettingsSchema.parse(wish));
    return found && asNumbers(found);
  },

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
    const isWanted = () => mine === newest;
    const borders = await bordersOf(
      picture,
      surface,
      settings,
      isWanted,
      (share) => onShare('reading', share),
      (share) => onShare('tracing', share / 2),
    );
    await breath();
    if (!borders || !isWanted()) return null;
    const found = await breathing(borders.fit(settings), isWanted, (share) => onShare('tracing', share));
    setTimeout(() => prepareLooks(picture, surface, settings));
    return found && traceOnSheet(picture, settings, found, surface);
  },

  /**
   * Pieces of which a hand has changed some segments, the others fitted anew to the borders that the settings find; all other
   * pieces as they are.
   */
  async refitted(of: unknown, surface: Surface, wish: unknown, asked: unknown): Promise<Piece[]> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(wish);
    const pieces = z.array(pieceSchema).parse(asked);
    if (isOfMiddles(settings) || !pieces.some(isPartlyByHand)) return pieces;
    const borders = await bordersOf(pictureSchema.parse(of), surface, settings, () => true, unheard, unheard);
    if (!borders) return pieces;
    const { mmPerPx, toSheet } = surface;
    const back = inverse(toSheet);
    const wishes = { softness: borders.softness, tolerancePx: settings.toleranceMm / mmPerPx, reachPx: closerReachMm / mmPerPx };
    return pieces.map((piece) => {
      if (!isPartlyByHand(piece)) return piece;
      const made = outlinesOf(piece).map((path, k) =>
        refittedBetween(transformedPath(path, back), piece.touched?.[k] ?? [], borders.contours, wishes),
      );
      const [outer, ...holes] = made.map(({ path }) => transformedPath(path, toSheet));
      return { ...piece, outer: outer ?? piece.outer, holes, touched: made.map(({ touched }) => touched) };
    });
  },

  /** The colours that a picture is made of, the commonest first. */
  async coloursIn(of: unknown, surface: Surface): Promise<{ hex: string; share: number }[]> {
    const picture = pictureSchema.parse(of);
    return coloursIn(await coloursOf(picture, surface, null, unheard)).map(({ rgb, share }) => ({ hex: hexOf(rgb), share }));
  },

  /** The colour at a place of the surface, the mean of the pixels about it. */
  async colourAt(of: unknown, surface: Surface, { x, y }: Point): Promise<string | null> {
    const { width, height, data } = await coloursOf(pictureSchema.parse(of), surface, null, unheard);
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
  async deviation(of: unknown, surface: Surface, wish: unknown, asked: unknown, withLines: boolean): Promise<DeviationSeen | null> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(wish);
    const pieces = z.array(pieceSchema).parse(asked);
    if (isOfMiddles(settings)) return null;
    const back = inverse(surface.toSheet);
    const paths = pieces.flatMap(outlinesOf).map((path) => transformedPath(path, back));
    const borders = await bordersOf(pictureSchema.parse(of), surface, settings, () => true, unheard, unheard);
    if (!borders) return null;
    const lines = strayOf(paths, borders.contours, cornerReach * borders.softness).map(({ points, off }) => ({
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

  /** A path on the sheet, or a run of its points, led along the ink's border near it; null where there is none. */
  async closer(of: unknown, surface: Surface, wish: unknown, asked: unknown, run: readonly [number, number] | null): Promise<Path | null> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(wish);
    const borders = await bordersOf(pictureSchema.parse(of), surface, settings, () => true, unheard, unheard);
    if (!borders) return null;
    const { mmPerPx, toSheet } = surface;
    const path = transformedPath(pathSchema.parse(asked), inverse(toSheet));
    const wishes = { softness: borders.softness, tolerancePx: settings.toleranceMm / mmPerPx, reachPx: closerReachMm / mmPerPx };
    const closer = closerToBorders(path, run, borders.contours, wishes);
    return closer && transformedPath(closer, toSheet);
  },

  /** Points and largest distance over a range of tolerances, the same ink fitted anew for each; null where overtaken. */
  async tradeOff(surface: Surface, wish: unknown, tolerances: readonly number[]): Promise<TradeOff[] | null> {
    const settings: JobTraceSettings = traceSettingsSchema.parse(wish);
    const borders = held?.id === surface.id ? held.borders?.found : undefined;
    if (!borders || isOfMiddles(settings)) return null;
    const mine = newest;
    const found: TradeOff[] = [];
    for (const toleranceMm of tolerances) {
      const fit = await breathing(borders.fit({ ...settings, toleranceMm }), () => mine === newest, unheard);
      if (!fit) return null;
      const paths = fit.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
      const worst = strayOf(paths, borders.contours, cornerReach * borders.softness).reduce(
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

  /** What the pieces' segments nearly are to one another. */
  relations(asked: unknown, toleranceMm: number): RelationSeen[] {
    return relationsOfPieces(z.array(pieceSchema).parse(asked), toleranceMm).map(({ key, kind, at, off }) => ({ key, kind, at, off }));
  },

  /** Pieces with their relations made exact, but those refused; only what changes. */
  async related(asked: unknown, refused: readonly string[], toleranceMm: number): Promise<RelatedPiece[]> {
    const made: RelatedPiece[] = [];
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

export interface RelatedPiece extends Outlines {
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

/**
 * What the tracing worker holds of a picture: its pixels, read when they are first needed, and the borders found last.
 */
import { frameToTraceIn, fromOriginal, isWaiting, type JobTraceSettings, type Picture, type RasterSource } from '@nuvet/core/job';
import { type Point, project } from '@nuvet/core/plane';
import { type ColourPicture, coloursInside, type GreyPicture, greyPicture, onlyInside } from '@nuvet/core/raster';
import { type Borders, colourBorders, findInk, type Ink, inkBorders } from '@nuvet/core/trace';
import { fetchBytes } from './pixels';
import { type OnShare, runInSlices } from './slices';

export interface Held {
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

/** An outline in pixels of the picture as it came, in pixels of its raster. */
export function onRaster(outline: readonly Point[], raster: RasterSource): Point[] {
  const back = fromOriginal(raster);
  return outline.map((p) => (back ? project(back, p) : p));
}

/** The frames that a trace may be limited to, to tell whether they have changed. */
export const framesOf = ({ marks }: Picture) => marks.flatMap((mark) => (mark.kind === 'frame' && !isWaiting(mark) ? [mark.points] : []));

export const noProgress: OnShare = () => {};

/** The picture of a raster; another one is let go. */
export function holding(raster: RasterSource): Held {
  if (held?.id !== raster.id) held = { id: raster.id };
  return held;
}

/** The picture's grey pixels, read once. */
async function greyOf(raster: RasterSource, onShare: OnShare): Promise<GreyPicture> {
  const own = holding(raster);
  const { id, widthPx, heightPx } = raster;
  own.grey ??= greyPicture(await fetchBytes(`/api/pictures/${id}/grey`, widthPx * heightPx, onShare), widthPx, heightPx);
  return own.grey;
}

/** What a trace is limited to, in pixels of the raster: the crop, the limit drawn, the sheet that was framed. */
export function limitsOn(picture: Picture, raster: RasterSource, settings: JobTraceSettings, grey: GreyPicture | undefined): TraceLimits {
  const frame =
    grey && !picture.crop
      ? frameToTraceIn(
          framesOf(picture).map((f) => onRaster(f, raster)),
          raster.mmPerPx,
          settings,
          grey,
        )
      : null;
  const drawn = [picture.crop, settings.within].flatMap((outline) => (outline ? [onRaster(outline, raster)] : []));
  return { outlines: frame ? [...drawn, frame] : drawn, isFramed: frame !== null };
}

export interface TraceLimits {
  readonly outlines: readonly (readonly Point[])[];
  /** Whether the frame is one of them. */
  readonly isFramed: boolean;
}

export async function coloursOf(raster: RasterSource, onShare: OnShare): Promise<ColourPicture> {
  const own = holding(raster);
  const { id, widthPx: width, heightPx: height } = raster;
  own.colours ??= { width, height, data: await fetchBytes(`/api/pictures/${id}/colours`, 3 * width * height, onShare) };
  return own.colours;
}

/** The borders that the settings ask for; null once they are no longer wanted. */
export async function pictureBorders(
  picture: Picture,
  raster: RasterSource,
  settings: JobTraceSettings,
  isWanted: () => boolean,
  onReading: OnShare,
  onFinding: OnShare,
): Promise<Borders | null> {
  const { threshold, inverted, smallestMm, keepsTexture, colours, take, within, aroundFrame } = settings;
  const { mmPerPx } = raster;
  const isByColour = colours.length > 0;
  const told = isByColour ? [colours.map(({ hex }) => hex), take === 'shape'] : [threshold, inverted, keepsTexture];
  const key = JSON.stringify([told, smallestMm, mmPerPx, picture.crop, within, aroundFrame, framesOf(picture)]);
  const own = holding(raster);
  if (own.borders?.key === key) return own.borders.found;
  if (isByColour) {
    // The greys on both sides of a frame show whether it is the edge of the sheet.
    const grey = framesOf(picture).length > 0 ? await greyOf(raster, onReading) : undefined;
    const { outlines } = limitsOn(picture, raster, settings, grey);
    const all = outlines.reduce(coloursInside, await coloursOf(raster, onReading));
    const found = isWanted() ? await runInSlices(colourBorders(all, mmPerPx, settings), onFinding, isWanted) : null;
    if (found) own.borders = { key, found };
    return found;
  }
  const whole = await greyOf(raster, onReading);
  if (!isWanted()) return null;
  const { outlines } = limitsOn(picture, raster, settings, whole);
  const grey = outlines.reduce((all, outline) => onlyInside(all, outline, inverted), whole);
  const found = inkBorders(findInk(grey, mmPerPx, { threshold, inverted, smallestMm, keepsTexture }), mmPerPx);
  own.borders = { key, found };
  return found;
}

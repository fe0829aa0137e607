/**
 * What the tracing worker holds of a picture: its pixels, read when they are first needed, and the borders found last.
 */
import { frameToTraceIn, fromOriginal, isWaiting, type JobTraceSettings, type Picture, type Surface } from '@nuvet/core/job';
import { type Point, project } from '@nuvet/core/plane';
import { type ColourPicture, coloursInside, type GreyPicture, greyPicture, onlyInside } from '@nuvet/core/raster';
import { type Borders, colourBorders, findInk, type Ink, inkBorders } from '@nuvet/core/trace';
import { breathing, type OnShare } from './breathing';
import { fetchBytes } from './pixels';

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

/** An outline in pixels of the picture as it came, in pixels of its surface. */
export function onSurface(outline: readonly Point[], surface: Surface): Point[] {
  const back = fromOriginal(surface);
  return outline.map((p) => (back ? project(back, p) : p));
}

/** The frames that a trace may be limited to, to tell whether they have changed. */
export const framesOf = ({ marks }: Picture) => marks.flatMap((mark) => (mark.kind === 'frame' && !isWaiting(mark) ? [mark.points] : []));

export const unheard: OnShare = () => {};

/** The picture of a surface; another one is let go. */
export function holding(surface: Surface): Held {
  if (held?.id !== surface.id) held = { id: surface.id };
  return held;
}

/** The picture's grey pixels, read once. */
async function greyOf(surface: Surface, onShare: OnShare): Promise<GreyPicture> {
  const own = holding(surface);
  const { id, widthPx, heightPx } = surface;
  own.grey ??= greyPicture(await fetchBytes(`/api/pictures/${id}/grey`, widthPx * heightPx, onShare), widthPx, heightPx);
  return own.grey;
}

/** What a trace is limited to, in pixels of the surface: the crop, the limit drawn, the sheet that was framed. */
export function limitsOn(picture: Picture, surface: Surface, settings: JobTraceSettings, grey: GreyPicture | undefined): TraceLimits {
  const frame =
    grey && !picture.crop
      ? frameToTraceIn(
          framesOf(picture).map((f) => onSurface(f, surface)),
          surface.mmPerPx,
          settings,
          grey,
        )
      : null;
  const drawn = [picture.crop, settings.within].flatMap((outline) => (outline ? [onSurface(outline, surface)] : []));
  return { outlines: frame ? [...drawn, frame] : drawn, isFramed: frame !== null };
}

export interface TraceLimits {
  readonly outlines: readonly (readonly Point[])[];
  /** Whether the frame is one of them. */
  readonly isFramed: boolean;
}

export async function coloursOf(surface: Surface, onShare: OnShare): Promise<ColourPicture> {
  const own = holding(surface);
  const { id, widthPx: width, heightPx: height } = surface;
  own.colours ??= { width, height, data: await fetchBytes(`/api/pictures/${id}/colours`, 3 * width * height, onShare) };
  return own.colours;
}

/** The borders that the settings ask for; null once they are no longer wanted. */
export async function bordersOf(
  picture: Picture,
  surface: Surface,
  settings: JobTraceSettings,
  isWanted: () => boolean,
  onReading: OnShare,
  onFinding: OnShare,
): Promise<Borders | null> {
  const { threshold, inverted, smallestMm, colours, take, within, aroundFrame } = settings;
  const { mmPerPx } = surface;
  const isByColour = colours.length > 0;
  const told = isByColour ? [colours.map(({ hex }) => hex), take === 'shape'] : [threshold, inverted];
  const key = JSON.stringify([told, smallestMm, mmPerPx, picture.crop, within, aroundFrame, framesOf(picture)]);
  const own = holding(surface);
  if (own.borders?.key === key) return own.borders.found;
  if (isByColour) {
    // The greys on both sides of a frame show whether it is the edge of the sheet.
    const grey = framesOf(picture).length > 0 ? await greyOf(surface, onReading) : undefined;
    const { outlines } = limitsOn(picture, surface, settings, grey);
    const all = outlines.reduce(coloursInside, await coloursOf(surface, onReading));
    const found = isWanted() ? await breathing(colourBorders(all, mmPerPx, settings), onFinding, isWanted) : null;
    if (found) own.borders = { key, found };
    return found;
  }
  const whole = await greyOf(surface, onReading);
  if (!isWanted()) return null;
  const { outlines } = limitsOn(picture, surface, settings, whole);
  const grey = outlines.reduce((all, outline) => onlyInside(all, outline, inverted), whole);
  const found = inkBorders(findInk(grey, mmPerPx, { threshold, inverted, smallestMm }), mmPerPx);
  own.borders = { key, found };
  return found;
}

/**
 * What the tracing worker holds of a picture: its pixels, read when they are first needed, and the borders found last.
 */
import { fromOriginal, type JobTraceSettings, type Picture, type Surface } from '@nuvet/core/job';
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

export const unheard: OnShare = () => {};

/** The picture of a surface; another one is let go. */
export function holding(surface: Surface): Held {
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

export async function coloursOf(
  picture: Picture,
  surface: Surface,
  within: readonly Point[] | null,
  onShare: OnShare,
): Promise<ColourPicture> {
  const own = holding(surface);
  const { id, widthPx: width, heightPx: height } = surface;
  own.colours ??= { width, height, data: await fetchBytes(`/api/pictures/${id}/colours`, 3 * width * height, onShare) };
  return [picture.crop, within].reduce((all, outline) => (outline ? coloursInside(all, onSurface(outline, surface)) : all), own.colours);
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
  const { threshold, inverted, smallestMm, colours, take, within } = settings;
  const { mmPerPx } = surface;
  const isByColour = colours.length > 0;
  const told = isByColour ? [colours.map(({ hex }) => hex), take === 'shape'] : [threshold, inverted];
  const key = JSON.stringify([told, smallestMm, mmPerPx, picture.crop, within]);
  const own = holding(surface);
  if (own.borders?.key === key) return own.borders.found;
  if (isByColour) {
    const all = await coloursOf(picture, surface, within, onReading);
    const found = isWanted() ? await breathing(colourBorders(all, mmPerPx, settings), onFinding, isWanted) : null;
    if (found) own.borders = { key, found };
    return found;
  }
  const grey = await greyOf(picture, surface, within, onReading);
  if (!isWanted()) return null;
  const found = inkBorders(findInk(grey, mmPerPx, { threshold, inverted, smallestMm }), mmPerPx);
  own.borders = { key, found };
  return found;
}

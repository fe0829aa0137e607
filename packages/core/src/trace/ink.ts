/**
 * In: a grey picture and what in it is meant. Out: the ink as dark on light, its level, its borders, and how soft its edges are.
 * Rests on: Otsu's threshold, or a local one (raster/local-threshold.ts); marching squares.
 */
import { type Contour, contoursAt } from '../raster/contours.ts';
import type { GreyPicture } from '../raster/grey.ts';
import { descreened, dotPitch } from '../raster/halftone.ts';
import { isUnevenlyIlluminated, normalizeIllumination, withoutFalloff } from '../raster/illumination.ts';
import { normalizedIllumination } from '../raster/local-threshold.ts';
import { classMeans, histogram, isBilevel, otsuThreshold, type Threshold } from '../raster/threshold.ts';
import { brokenStrokes } from './broken-strokes.ts';

export interface InkSettings {
  /** Values up to and with this one are ink; `auto` finds one for the whole picture, `local` one for every place. */
  readonly threshold: 'auto' | 'local' | number;
  /** Whether the light parts are the ink instead of the dark ones. */
  readonly inverted: boolean;
  /** Specks and pinholes smaller than a square of this side are left out, mm. */
  readonly smallestMm: number;
  /** Whether the dots of a print, and the grain that breaks up strokes, are traced as they are. */
  readonly keepsTexture: boolean;
}

/** The ink of a picture; it serves every tolerance. */
export interface Ink {
  /** Dark where there is ink. */
  readonly grey: GreyPicture;
  /** Between two greys; what is darker is ink. */
  readonly level: number;
  /** The threshold used, in the picture's own greys. */
  readonly threshold: number;
  /** How far apart the dots lie that greys were made of, px, where these were smoothed away; null where there were none. */
  readonly dotPitch: number | null;
  /** Whether strokes that grain breaks up were joined along themselves. */
  readonly isGrainy: boolean;
  /** Whether the light falls off over the picture, so that every place has a threshold of its own unasked. */
  readonly isUneven: boolean;
  readonly contours: readonly Contour[];
  readonly dropped: number;
  /** Deviation of the Gaussian that softens the picture's edges, px. */
  readonly blur: number;
  /** What the kind of picture alone brings, px. */
  readonly minNoise: number;
  /** Where inks of several colours are told apart: which of them each pixel has, from 1; 0 for paper. */
  readonly kinds?: Uint8Array;
}

/** A one-bit scan's stairs leave the true contour by up to half a pixel. */
const stairsPx = 0.3;
/**
 * What linear interpolation between pixels leaves a grey border's places off by, px: the less softly the picture was drawn, the more; a
 * slanting edge that covers pixels by its area alone (a blur of 0.5 to 0.6) waves by a twelfth of a pixel.
 */
const roughness = (blur: number): number => 0.03 + 0.05 * Math.max(0, Math.min(1, (0.75 - blur) / 0.1));
/** Classes nearer than this may be noise, grey levels. */
const minContrast = 24;
/** The local threshold looks about itself over this much, mm. */
const windowMm = 6;

/** Where a border cuts through dots it is so rough, in shares of their distance. */
const roughnessOfDots = 0.07;
/** Patterns of finer dots repeat over so many pixels, as dithered ones do. */
const finestDots = 4;
/** Strokes narrower than so many dots' distances are broken up by grain: even dots would not show in them. */
const strokesOfDots = 8;
/** A picture with fewer specks has no texture, and one with fewer of them is not printed in dots. */
const minSpecks = 12;
const minDots = 100;

/** @param mmPerPx the picture's true scale */
export function findInk(picture: GreyPicture, mmPerPx: number, settings: InkSettings): Ink {
  const dark = settings.inverted ? negativeOf(picture) : picture;
  const plain = inkOf(dark, mmPerPx, settings);
  if (settings.keepsTexture || plain.dropped < minSpecks) return plain;
  const smallestArea = (settings.smallestMm / mmPerPx) ** 2;
  const strokes = brokenStrokes(plain.grey, plain, smallestArea);
  const pitch = plain.dropped < minDots ? null : dotPitch(plain.grey, plain.level, smallestArea);
  if (strokes && (pitch === null || strokes.widthPx < strokesOfDots * pitch)) return strokesIn(plain, strokes.grey, mmPerPx, settings);
  if (pitch === null) return plain;
  const ink = inkOf(descreened(dark, pitch), mmPerPx, settings);
  const minNoise = Math.max(ink.minNoise, roughnessOfDots * Math.max(finestDots, pitch));
  return { ...ink, isUneven: plain.isUneven, minNoise, dotPitch: pitch };
}

/** The ink of strokes that grain broke up, made whole. */
function strokesIn(plain: Ink, grey: GreyPicture, mmPerPx: number, settings: InkSettings): Ink {
  const ink = inkOf(grey, mmPerPx, { ...settings, threshold: 127, inverted: false });
  return { ...ink, threshold: plain.threshold, isUneven: plain.isUneven, dropped: plain.dropped, isGrainy: true };
}

/** Of a picture that nothing was done to. */
const asItIs = { dotPitch: null, isGrainy: false, isUneven: false } as const;

function inkOf(dark: GreyPicture, mmPerPx: number, settings: InkSettings): Ink {
  const { grey, counts, found, told, isUneven } = parted(dark, windowMm / mmPerPx, settings);
  if (!found) return { grey, level: 127.5, contours: [], threshold: 127, dropped: 0, blur: 1, minNoise: 0, ...asItIs };
  const level = Math.min(254, found.value) + 0.5;
  const { contours, meanStep, dropped } = contoursAt(grey, level, (settings.smallestMm / mmPerPx) ** 2);
  // A Gaussian edge of deviation s rises by contrast / (s sqrt(2 pi)) a pixel at its middle.
  const contrast = Math.max(1, found.paper - found.ink);
  const blur = Math.min(4, Math.max(0.3, (0.4 * contrast) / Math.max(1, meanStep)));
  const threshold = settings.inverted ? 255 - told : told;
  const minNoise = isBilevel(counts) ? stairsPx : roughness(blur);
  return { grey, level, contours, threshold, dropped, blur, minNoise, ...asItIs, isUneven };
}

interface Parted {
  readonly grey: GreyPicture;
  readonly counts: Uint32Array;
  readonly found: Pick<Threshold, 'value' | 'ink' | 'paper'> | null;
  /** The threshold that a person is told: in greys of the picture as it came, where one serves it. */
  readonly told: number;
  readonly isUneven: boolean;
}

/** Ink and paper told apart; where the light falls off, with their border at one level. */
function parted(dark: GreyPicture, windowPx: number, settings: InkSettings): Parted {
  const levelled = (grey: GreyPicture, told: number, isUneven: boolean): Parted => {
    const counts = histogram(grey);
    return { grey, counts, found: classMeans(counts, 127), told, isUneven };
  };
  if (settings.threshold === 'local') return levelled(normalizedIllumination(dark, windowPx), 127, false);
  const counts = histogram(dark);
  if (typeof settings.threshold === 'number') {
    const found = handSet(counts, settings);
    return { grey: dark, counts, found, told: found.value, isUneven: false };
  }
  const found = inkThreshold(counts);
  const lit = found && withoutFalloff(dark, windowPx, found);
  if (lit) return levelled(normalizeIllumination(lit.grey, windowPx, lit.found), found.value, true);
  if (found && isUnevenlyIlluminated(dark, found)) return levelled(normalizeIllumination(dark, windowPx, found), found.value, false);
  return { grey: dark, counts, found, told: found?.value ?? 127, isUneven: false };
}

const handSet = (counts: Uint32Array, { threshold, inverted }: InkSettings) =>
  classMeans(counts, inverted ? 255 - (threshold as number) : (threshold as number));

const negativeOf = ({ width, height, data }: GreyPicture): GreyPicture => ({ width, height, data: data.map((v) => 255 - v) });

/**
 * Otsu's threshold where there is ink at all. Noise alone, cut in two, gives classes a few greys apart that hold 2/pi
 * of its variance (of a normal distribution); faint ink holds more.
 */
function inkThreshold(counts: Uint32Array): Threshold | null {
  const found = otsuThreshold(counts);
  return found && (found.paper - found.ink >= minContrast || found.parted > 0.75) ? found : null;
}

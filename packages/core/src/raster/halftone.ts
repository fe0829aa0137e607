/**
 * In: a grey picture and the level that parts its ink from its paper. Out: whether it is printed or dithered in dots, how far these
 * lie apart, and the picture with them smoothed to an even grey.
 * Rests on: the dots' nearest neighbours. In a screen, an ordered dither and a diffused one these lie at much the same distance, on all
 * sides; letters lie near along a line only, and specks at random (of which the spread is half the mean: Clark & Evans 1954).
 */
import { gaussianSmoothed } from './gaussian.ts';
import type { GreyPicture } from './grey.ts';

/** Side of the squares that are looked at, px, and how many of them there are at most. */
const tilePx = 96;
const maxTiles = 64;
/** A tile says something where it is neither nearly all paper nor nearly all ink. */
const minShare = 0.05;
/** So many dots, whole in the tile, show a pattern. */
const minDots = 24;
/** So many of them are measured. */
const maxMeasured = 160;
/** Half the dots lie at distances that differ by less than this share of the median; */
const maxSpread = 0.45;
/** and their fourth neighbours little farther off than the nearest. */
const maxFourth = 1.6;
/** Dots farther apart are shapes, px. */
const maxPitch = 12;
/** Dots this far apart, px, are large enough to be seen as all of one size: half of them differ by less than this share of the median. */
const measuredPitch = 5;
const maxAreaSpread = 0.5;
/** A picture in which fewer tiles than these show a pattern has none. */
const minTilesFound = 3;
const minTileShare = 0.12;
/** How wide the Gaussian is in pitches of the dots: less than a hundredth of their contrast is left; and in pixels, at least. */
const smoothingOfPitch = 0.52;
const minSmoothing = 2.1;

/**
 * How far apart the dots lie that a picture is printed in, px; null where it is not printed in dots.
 * @param level what is darker is ink
 * @param largestDot area of a dot at most, square pixels
 */
export function dotPitch(picture: GreyPicture, level: number, largestDot: number): number | null {
  const mixed = mixedTiles(picture, level);
  const stride = Math.max(1, mixed.length / maxTiles);
  const looked = Array.from({ length: Math.min(maxTiles, mixed.length) }, (_, k) => mixed[Math.floor(k * stride)] as Tile);
  // Where dots nearly touch they come apart at a darker level, and their gaps at a lighter one.
  const pitches = looked.flatMap((tile) => {
    for (const shift of [0, -0.5, 0.5]) {
      const found = pitchIn(picture, tile, level + shift * (shift < 0 ? level - tile.dark : tile.light - level), largestDot);
      if (found !== null) return [found];
    }
    return [];
  });
  if (pitches.length === 0 || pitches.length < Math.max(Math.min(minTilesFound, looked.length), minTileShare * looked.length)) return null;
  return quantile(pitches, 0.5);
}

interface Tile {
  readonly x: number;
  readonly y: number;
  /** The mean greys of its ink and of its paper. */
  readonly dark: number;
  readonly light: number;
}

function mixedTiles({ width, height, data }: GreyPicture, level: number): Tile[] {
  const tiles: Tile[] = [];
  for (let y = 0; y + tilePx <= height; y += tilePx) {
    for (let x = 0; x + tilePx <= width; x += tilePx) {
      let [count, dark, all] = [0, 0, 0];
      for (let j = 0; j < tilePx; j += 3) {
        for (let i = j % 2, p = (y + j) * width + x + i; i < tilePx; i += 2, p += 2) {
          const v = data[p] as number;
          all += v;
          if (v < level) {
            dark += v;
            count++;
          }
        }
      }
      const looked = (tilePx / 3) * (tilePx / 2);
      const share = count / looked;
      if (share > minShare && share < 1 - minShare) tiles.push({ x, y, dark: dark / count, light: (all - dark) / (looked - count) });
    }
  }
  return tiles;
}

/** How far apart the dots of a tile lie, those of the ink or the gaps in it; null where it shows no pattern of dots. */
function pitchIn({ width, data }: GreyPicture, { x, y }: Tile, level: number, largestDot: number): number | null {
  const isInk = new Uint8Array(tilePx * tilePx);
  let count = 0;
  for (let j = 0; j < tilePx; j++) {
    for (let i = 0; i < tilePx; i++) {
      if ((data[(y + j) * width + x + i] as number) < level) {
        isInk[j * tilePx + i] = 1;
        count++;
      }
    }
  }
  for (const wanted of 2 * count <= isInk.length ? [1, 0] : [0, 1]) {
    const dots = dotsOf(isInk, wanted);
    const pitch = dots.length >= minDots && quantile(dots.map(({ area }) => area), 0.5) <= largestDot ? evenPitch(dots) : null; // biome-ignore format: one line
    if (pitch !== null) return pitch;
  }
  return null;
}

interface Dot {
  readonly x: number;
  readonly y: number;
  readonly area: number;
}

/** The areas of one kind that lie whole in a tile, joined along their pixels' sides. */
function dotsOf(isInk: Uint8Array, wanted: number): Dot[] {
  const isOpen = Uint8Array.from(isInk, (v) => (v === wanted ? 1 : 0));
  const stack = new Int32Array(isInk.length);
  const dots: Dot[] = [];
  for (let p = 0; p < isOpen.length; p++) {
    const dot = isOpen[p] ? dotFrom(isOpen, stack, p) : null;
    if (dot) dots.push(dot);
  }
  return dots;
}

/** The area that a pixel belongs to, taken out of what is open; null where it runs over the tile's edge. */
function dotFrom(isOpen: Uint8Array, stack: Int32Array, first: number): Dot | null {
  let [size, sumX, sumY, area, isWhole] = [0, 0, 0, 0, true];
  const take = (p: number): void => {
    if (!isOpen[p]) return;
    isOpen[p] = 0;
    stack[size++] = p;
  };
  for (take(first); size > 0; ) {
    const p = stack[--size] as number;
    const [i, j] = [p % tilePx, Math.floor(p / tilePx)];
    sumX += i;
    sumY += j;
    area++;
    if (i === 0 || j === 0 || i === tilePx - 1 || j === tilePx - 1) isWhole = false;
    if (i > 0) take(p - 1);
    if (i < tilePx - 1) take(p + 1);
    take(p - tilePx);
    take(p + tilePx);
  }
  return isWhole ? { x: sumX / area, y: sumY / area, area } : null;
}

/** The distance of dots from one another; null where they lie at random, along lines, or too far apart. */
function evenPitch(dots: readonly Dot[]): number | null {
  const stride = Math.max(1, dots.length / maxMeasured);
  const [nearest, fourth]: [number[], number[]] = [[], []];
  for (let k = 0; k < dots.length; k += stride) {
    const { x, y } = dots[Math.floor(k)] as Dot;
    // The four nearest, in order.
    const found = [Infinity, Infinity, Infinity, Infinity];
    for (const other of dots) {
      let d = (other.x - x) ** 2 + (other.y - y) ** 2;
      if (d === 0) continue;
      for (let n = 0; n < 4; n++) if (d < (found[n] as number)) [found[n], d] = [d, found[n] as number];
    }
    nearest.push(Math.sqrt(found[0] as number));
    fourth.push(Math.sqrt(found[3] as number));
  }
  const pitch = quantile(nearest, 0.5);
  const isEven = quantile(nearest, 0.75) - quantile(nearest, 0.25) <= maxSpread * pitch && quantile(fourth, 0.5) <= maxFourth * pitch;
  const areas = dots.map(({ area }) => area);
  const isAlike = pitch < measuredPitch || quantile(areas, 0.75) - quantile(areas, 0.25) <= maxAreaSpread * quantile(areas, 0.5);
  return isEven && isAlike && pitch <= maxPitch ? pitch : null;
}

const quantile = (list: readonly number[], share: number): number =>
  list.toSorted((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))] as number;

/** The picture with dots that lie so far apart, px, smoothed to an even grey. */
export const descreened = (picture: GreyPicture, pitch: number): GreyPicture =>
  gaussianSmoothed(picture, Math.max(minSmoothing, smoothingOfPitch * pitch));

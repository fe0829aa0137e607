/**
 * In: a picture in colour and the colours to trace. Out: the areas of each as pieces that share their borders.
 * Rests on: the planar map of the pixels' colours (raster/label-borders.ts). Every border between two junctions is placed
 * where its two colours are mixed evenly, fitted once, and walked one way by the one piece and the other by its neighbour.
 */
import { isInBox } from '../plane/box.ts';
import { isInside, type Path, pathArea, pathBox, reversedPath } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { isSameColour, labDistance, labOf, type Rgb } from '../raster/cielab.ts';
import { type ColourLabels, colourLabels, mixedShare } from '../raster/colour-labels.ts';
import { type BorderChain, borderChains, withoutSpecks } from '../raster/label-borders.ts';
import { type ColourPicture, coloursIn } from '../raster/palette.ts';
import { smoothedForBlade } from './blade-smoothing.ts';
import { touchesEdge } from './picture-edge.ts';
import { cutAtJunctions, fittedPath, type HalfBorder, junctionsOf, type ThroughBorder, throughPaths } from './through-borders.ts';

/** The colours of a picture: which pixel has which, and which of them are traced. */
export interface ColourInk {
  readonly picture: ColourPicture;
  readonly palette: readonly Rgb[];
  /** Which of the palette's colours each pixel belongs to. */
  readonly shades: Uint8Array;
  /** Which of the meant colours, from 1; 0 for what is not meant. */
  readonly labels: Uint8Array;
  readonly dropped: number;
}

export interface ColourMap {
  readonly borders: readonly ThroughBorder[];
  readonly width: number;
  readonly height: number;
  readonly blur: number;
}

export interface ColourPiece {
  readonly outer: Path;
  readonly holes: readonly Path[];
  readonly runsOff: boolean;
  /** Index of the meant colour. */
  readonly colour: number;
}

/**
 * The colours told apart. Yields the share done, 0 to 1.
 * @param meant at most 12
 * @param smallestPx smaller areas go to their neighbour, side of a square
 */
export function* colourInk(picture: ColourPicture, meant: readonly Rgb[], smallestPx: number): Generator<number, ColourInk> {
  const nearestMeant = (rgb: Rgb): number => {
    const apart = meant.map((m) => labDistance(labOf(m), labOf(rgb)));
    const nearest = apart.indexOf(Math.min(...apart));
    return nearest >= 0 && isSameColour(meant[nearest] as Rgb, rgb) ? nearest : -1;
  };
  const found = coloursIn(picture).map(({ rgb }) => ({ rgb, meant: nearestMeant(rgb) }));
  // The picture's own shade of a meant colour is truer than what was typed or clicked.
  const palette = meant.map((rgb, k) => found.find((f) => f.meant === k)?.rgb ?? rgb);
  const others = found.filter((f) => f.meant < 0).map((f) => f.rgb);
  const all = [...palette, ...(others.length > 0 ? others : [[255, 255, 255] as const])].slice(0, 16);
  yield 0.1;
  const steps = colourLabels(picture, all);
  let step = steps.next();
  while (!step.done) {
    yield 0.1 + 0.7 * step.value;
    step = steps.next();
  }
  const { labels: shades, width } = step.value as ColourLabels;
  const labels = shades.map((shade) => (shade < meant.length ? shade + 1 : 0));
  const dropped = withoutSpecks(labels, width, smallestPx * smallestPx);
  return { picture, palette: all, shades, labels, dropped };
}

/** The meant colours dark on light, mixed pixels between, for whatever works on grey ink: lines of one pen, say. */
export function meantInGrey({ picture, palette, shades, labels }: ColourInk): { width: number; height: number; data: Uint8Array } {
  const { width, height, data } = picture;
  const grey = new Uint8Array(width * height);
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      const isMeant = labels[p] !== 0;
      const other = unlikeNeighbour(labels, width, x, p);
      if (other === p) {
        grey[p] = isMeant ? 0 : 255;
        continue;
      }
      const share = mixedShare(pixelAt(data, p), palette[shades[p] as number] as Rgb, palette[shades[other] as number] as Rgb);
      const own = Math.min(0.5, Math.max(0, share));
      grey[p] = Math.round(255 * (isMeant ? own : 1 - own));
    }
  }
  return { width, height, data: grey };
}

/** A neighbour of a pixel on the other side of what is meant; the pixel itself where there is none. */
function unlikeNeighbour(labels: Uint8Array, width: number, x: number, p: number): number {
  const isMeant = labels[p] !== 0;
  if (x > 0 && (labels[p - 1] !== 0) !== isMeant) return p - 1;
  if (x < width - 1 && (labels[p + 1] !== 0) !== isMeant) return p + 1;
  if (p >= width && (labels[p - width] !== 0) !== isMeant) return p - width;
  return p + width < labels.length && (labels[p + width] !== 0) !== isMeant ? p + width : p;
}

const pixelAt = (data: Uint8Array, p: number): Rgb => [data[3 * p] as number, data[3 * p + 1] as number, data[3 * p + 2] as number];

/** The borders between the meant colours, placed where their neighbours are mixed evenly. */
export function colourMap(ink: ColourInk): ColourMap {
  const { width, height } = ink.picture;
  const chains = borderChains(ink.labels, width, height);
  const steps: number[] = [];
  const placed = chains.map((chain) => placedPoints(ink, chain, steps));
  steps.sort((a, b) => a - b);
  // A Gaussian edge of deviation s rises by 1 / (s sqrt(2 pi)) a pixel at its middle.
  const blur = Math.min(4, Math.max(0.3, 0.4 / Math.max(0.05, steps[steps.length >> 1] ?? 1)));
  const blurMargin = Math.ceil(2.5 * blur) + 1;
  const borders = chains.map((chain, k): ThroughBorder => {
    const points = placed[k] as Float64Array;
    const [l, r] = [chain.sides[0] as number, chain.sides[1] as number];
    const labels = [l < 0 ? 0 : (ink.labels[l] as number), r < 0 ? 0 : (ink.labels[r] as number)] as const;
    if (chain.start < 0) return { chain, points, labels };
    const count = points.length / 2;
    const cut = Math.min(blurMargin, Math.floor((count - 1) / 2));
    return { chain, points: points.slice(2 * cut, 2 * (count - cut)), labels };
  });
  return { borders, width, height, blur };
}

/** For every crack the place between its two pixels where their colours are mixed evenly; how steep that is goes to `steps`. */
function placedPoints({ picture, palette, shades }: ColourInk, { sides, middles }: BorderChain, steps: number[]): Float64Array {
  const { data } = picture;
  const points = middles.slice();
  for (let k = 0; k < sides.length; k += 2) {
    const [p, q] = [sides[k] as number, sides[k + 1] as number];
    // The picture's own edge is its pixels' edge.
    if (p < 0 || q < 0) continue;
    const step = q - p;
    const [dx, dy] = Math.abs(step) === 1 ? [step, 0] : [0, Math.sign(step)];
    const [a, b] = [palette[shades[p] as number] as Rgb, palette[shades[q] as number] as Rgb];
    const share = (at: number): number => (3 * at + 2 < data.length && at >= 0 ? mixedShare(pixelAt(data, at), a, b) : Number.NaN);
    let [here, along] = [share(p), -0.5];
    let there = share(q);
    if (here >= 0.5) [there, here, along] = [here, share(p - step), -1.5];
    else if (there < 0.5) [here, there, along] = [there, share(q + step), 0.5];
    if (!(here < 0.5 && there >= 0.5)) continue;
    if (along === -0.5) steps.push(there - here);
    along += (0.5 - here) / (there - here);
    points[k] = (middles[k] as number) + along * dx;
    points[k + 1] = (middles[k + 1] as number) + along * dy;
  }
  return points;
}

/**
 * The pieces of a map, every border fitted once. Yields the share done, 0 to 1.
 * @param tolerancePx largest distance of an outline from the border seen
 */
export function* colourPieces(
  { borders, width, height, blur }: ColourMap,
  tolerancePx: number,
  forBlade: boolean,
): Generator<number, ColourPiece[]> {
  const meetings = junctionsOf(borders, width);
  const sampledContours = throughPaths(borders, meetings);
  const fits: Path[] = [];
  for (const sampled of sampledContours) {
    const fit = fittedPath(sampled, borders, meetings, blur, tolerancePx);
    // Half the tolerance is left for it.
    fits.push(forBlade ? smoothedForBlade(fit, tolerancePx / 2) : fit);
    if (fits.length % 40 === 0) yield fits.length / sampledContours.length;
  }
  const fitted = cutAtJunctions(sampledContours, fits, borders, meetings);
  const walked = loopsOf(borders);
  const loops = walked.map(({ label, list }) => {
    const path = joinedPath(list, fitted);
    return {
      label,
      path,
      area: pathArea(path),
      runsOff: list.some(({ border }) => touchesEdge((borders[border] as ThroughBorder).points, { width, height })),
    };
  });
  // Seen with y down an outer outline, the piece to its left, runs the negative way.
  const outers = loops.filter(({ area }) => area < 0).sort((a, b) => a.area - b.area);
  const holes = new Map<number, Path[]>();
  for (const loop of loops.filter(({ area }) => area >= 0)) {
    const at = middleOf(loop.path);
    const around = outers.findLastIndex((outer) => outer.label === loop.label && isWithin(outer.path, at));
    if (around >= 0) holes.set(around, [...(holes.get(around) ?? []), loop.path]);
  }
  return outers.map(({ label, path, runsOff }, k) => ({ outer: path, holes: holes.get(k) ?? [], runsOff, colour: label - 1 }));
}

/** A point of a path that is no junction. */
function middleOf({ start, segments }: Path): Point {
  const to = (segments[0] as Path['segments'][0]).to;
  return segments.length === 1 ? start : { x: (start.x + to.x) / 2, y: (start.y + to.y) / 2 };
}

const isWithin = (path: Path, p: Point): boolean => isInBox(pathBox(path), p) && isInside(path, p, 0.1);

/** The faces' outlines: half borders in turn, each face to the left. */
function loopsOf(borders: readonly ThroughBorder[]): { readonly label: number; readonly list: readonly HalfBorder[] }[] {
  const halves: HalfBorder[] = borders.flatMap((_, border) => [
    { border, isBack: false },
    { border, isBack: true },
  ]);
  const labelOf = ({ border, isBack }: HalfBorder): number => (borders[border] as ThroughBorder).labels[isBack ? 1 : 0];
  /** The pixel to the left of a half border at its start or at its end. */
  const pixelAtEnd = ({ border, isBack }: HalfBorder, atStart: boolean): number => {
    const { sides } = (borders[border] as ThroughBorder).chain;
    return sides[(atStart === isBack ? sides.length - 2 : 0) + (isBack ? 1 : 0)] as number;
  };
  const nodeOf = ({ border, isBack }: HalfBorder, atStart: boolean): number => {
    const { chain } = borders[border] as ThroughBorder;
    return atStart === isBack ? chain.end : chain.start;
  };
  const leaving = new Map<number, HalfBorder[]>();
  for (const half of halves) {
    const node = nodeOf(half, true);
    if (node >= 0) leaving.set(node, [...(leaving.get(node) ?? []), half]);
  }
  const used = new Set<HalfBorder>();
  return halves.flatMap((first) => {
    const label = labelOf(first);
    if (label === 0 || used.has(first)) return [];
    const list: HalfBorder[] = [];
    let half: HalfBorder | undefined = first;
    while (half && !used.has(half)) {
      used.add(half);
      list.push(half);
      const node = nodeOf(half, false);
      if (node < 0) break;
      const pixel = pixelAtEnd(half, false);
      const onward: HalfBorder[] = (leaving.get(node) ?? []).filter((other) => labelOf(other) === label && !used.has(other));
      half = onward.find((other) => pixelAtEnd(other, true) === pixel) ?? onward[0];
    }
    return [{ label, list }];
  });
}

function joinedPath(list: readonly HalfBorder[], fitted: readonly Path[]): Path {
  const parts = list.map(({ border, isBack }) => (isBack ? reversedPath(fitted[border] as Path) : (fitted[border] as Path)));
  return { start: (parts[0] as Path).start, segments: parts.flatMap(({ segments }) => segments), closed: true };
}

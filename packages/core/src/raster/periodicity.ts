/**
 * In: a grey picture and a direction. Out: what repeats in it at equal steps: a ruler's graduation, squared paper.
 * Rests on: autocorrelation of mean profiles for the step, the phase of the profile's Fourier term for its fine value.
 */
import { norm, type Point } from '../plane/point.ts';
import { type GreyPicture, greyPicture } from './grey.ts';
import { halvedBytes } from './warp.ts';

export interface Repeat {
  /** Step from one line to the next, pixels. */
  readonly stepPx: number;
  /** One standard error of the step, pixels: from how far the lines lie off an even row. */
  readonly stepErrorPx: number;
  /** How well the profile agrees with itself one step on, 0 to 1. */
  readonly agreement: number;
  /** Whole steps that the picture shows. */
  readonly count: number;
  /** From the middle of the first line to that of the last one. */
  readonly from: Point;
  readonly to: Point;
}

const minStep = 5;
const minCount = 8;
const minAgreement = 0.35;
const maxStep = 400;
/** In the quick look: finer graduations come first anyhow. */
const maxQuickStep = 130;
const maxBands = 5;
const enoughPixels = 5e6;

/** Darkness summed across a direction, at places one pixel apart along it: each pixel shared between the two nearest. */
interface Profile {
  readonly values: Float64Array;
  /** Where place 0 lies, along the direction from the picture's middle. */
  readonly start: number;
  /** The band across the direction that was summed, from the picture's middle. */
  readonly across: number;
}

/**
 * What repeats along a direction over the whole picture, such as the lines of squared paper.
 * @param angle of the direction in the picture, radians, y down
 */
export const repeatAlong = (picture: GreyPicture, angle: number): Repeat | null =>
  onEnoughPixels(picture, (small) => {
    const [profile] = profilesAlong(small, angle, 1);
    return profile ? repeatIn(small, profile, angle) : null;
  });

/** What repeats in some narrow band along a direction, such as the graduation of a ruler; the finest that is sure. */
export const graduationAlong = (picture: GreyPicture, angle: number): Repeat | null =>
  onEnoughPixels(picture, (small) => graduationIn(small, angle));

/** Half as fine is enough to count steps in a large picture, and the length over all of them is as exact. */
function onEnoughPixels(picture: GreyPicture, find: (small: GreyPicture) => Repeat | null): Repeat | null {
  const { width, height, data } = picture;
  if (width * height <= enoughPixels) return find(picture);
  const half = find(greyPicture(halvedBytes(data, width, height, 1), width >> 1, height >> 1));
  const doubled = ({ x, y }: Point): Point => ({ x: 2 * x, y: 2 * y });
  return half && { ...half, stepPx: 2 * half.stepPx, stepErrorPx: 2 * half.stepErrorPx, from: doubled(half.from), to: doubled(half.to) };
}

function graduationIn(picture: GreyPicture, angle: number): Repeat | null {
  const across = Math.abs(Math.sin(angle)) * picture.width + Math.abs(Math.cos(angle)) * picture.height;
  const bands = Math.max(4, Math.min(90, Math.round(across / 20)));
  // A quick look at every band; only those that seem to repeat are looked into.
  const promising = profilesAlong(picture, angle, bands)
    .map((profile) => ({ profile, agreement: firstPeak(withoutSlow(profile.values, 60), maxQuickStep, 0.1)?.agreement ?? 0 }))
    .toSorted((a, b) => b.agreement - a.agreement)
    .slice(0, maxBands);
  const repeats = promising.flatMap(({ profile, agreement }) => (agreement > 0 ? (repeatIn(picture, profile, angle) ?? []) : []));
  const sure = repeats.filter((r) => r.agreement > 0.5);
  if (sure.length === 0) return null;
  // The band where every line is met shows the finest step; bands of long lines only show multiples of it.
  const finest = Math.min(...sure.map((r) => r.stepPx));
  return sure.filter((r) => r.stepPx < 1.2 * finest).reduce((a, b) => (b.agreement * b.count > a.agreement * a.count ? b : a));
}

function profilesAlong({ width, height, data }: GreyPicture, angle: number, bands: number): Profile[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const length = Math.ceil(Math.abs(c) * width + Math.abs(s) * height);
  const across = Math.abs(s) * width + Math.abs(c) * height;
  const sums = new Float64Array(bands * length);
  const counts = new Float64Array(bands * length);
  const [midX, midY] = [width / 2, height / 2];
  // Every other row along the lines tells enough: a profile is the mean of many.
  const skip = bands === 1 && height > 1500 ? 2 : 1;
  for (let y = 0; y < height; y += skip) {
    let along = (0.5 - midX) * c + (y + 0.5 - midY) * s + length / 2;
    let side = ((midX - 0.5) * s + (y + 0.5 - midY) * c + across / 2) * (bands / across);
    const sideStep = (-s * bands) / across;
    for (let x = 0, p = y * width; x < width; x++, p++) {
      const band = side < 0 ? 0 : side >= bands ? bands - 1 : side | 0;
      const k = band * length + (along | 0);
      const share = along - (along | 0);
      const dark = 255 - (data[p] as number);
      // Shared between two bins, so that the profile does not beat with the pixel rows.
      sums[k] = (sums[k] as number) + dark * (1 - share);
      counts[k] = (counts[k] as number) + 1 - share;
      if (k + 1 < sums.length) {
        sums[k + 1] = (sums[k + 1] as number) + dark * share;
        counts[k + 1] = (counts[k + 1] as number) + share;
      }
      along += c;
      side += sideStep;
    }
  }
  return Array.from({ length: bands }, (_, band) => {
    const values = sums.subarray(band * length, (band + 1) * length).map((sum, k) => {
      const n = counts[band * length + k] as number;
      return n > 0.5 ? sum / n : NaN;
    });
    return { values: filled(values), start: -length / 2, across: ((band + 0.5) / bands - 0.5) * across };
  });
}

/** Bins that no pixel fell into take their neighbour's value. */
function filled(values: Float64Array): Float64Array {
  let last = values.find((v) => !Number.isNaN(v)) ?? 0;
  return values.map((v) => (last = Number.isNaN(v) ? last : v));
}

function repeatIn(picture: GreyPicture, { values, start, across }: Profile, angle: number): Repeat | null {
  const n = values.length;
  const clean = withoutSlow(values, 60);
  const found = bestStretch(clean);
  if (!found) return null;
  const fine = fineStep(clean.subarray(found.from, found.to), found.step);
  const lines = rowOfLines(values, fine.step, found.from + fine.phase);
  if (!lines || lines.count < minCount || n < minCount * minStep) return null;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const at = (bin: number): Point => ({
    x: picture.width / 2 + (start + bin) * c - across * s,
    y: picture.height / 2 + (start + bin) * s + across * c,
  });
  const { first, count, step, error } = lines;
  return { stepPx: step, stepErrorPx: error, agreement: found.agreement, count, from: at(first), to: at(first + count * step) };
}

/** A line counts as shown where it is this dark against the usual line. */
const shownShare = 0.4;
/** Lines that lie farther off an even row than so many deviations do not tell its step. */
const maxDeviations = 3;

interface Line {
  readonly index: number;
  /** Where its middle lies, in bins; NaN where no line is. */
  readonly at: number;
  readonly dark: number;
}

interface Row {
  readonly first: number;
  readonly count: number;
  readonly step: number;
  readonly error: number;
}

/**
 * The longest row of lines at even steps, one that is missing now and then let pass: its first and last are lines that
 * are truly there. Step and first place are the straight line through the lines' middles (least squares).
 */
function rowOfLines(values: Float64Array, step: number, phase: number): Row | null {
  const start = phase - step * Math.floor(phase / step);
  const steps = Math.floor((values.length - 1 - start) / step) + 1;
  if (steps < 2) return null;
  const lines = Array.from({ length: steps }, (_, index) => lineNear(values, start + index * step, step, index));
  const usual = usualDark(lines);
  const isShown = ({ dark }: Line): boolean => dark > shownShare * usual;
  let best: readonly Line[] = [];
  let run: Line[] = [];
  for (const line of lines) {
    if (!isShown(line)) continue;
    if (run.length > 0 && line.index - (run.at(-1) as Line).index > 2) run = [];
    run.push(line);
    if (run.length > best.length) best = run;
  }
  const [first, last] = [best[0], best.at(-1)];
  if (!first || !last || best.length < 0.75 * (last.index - first.index + 1)) return null;
  const even = evenRow(best);
  const isEven = even.deviation < 0.15 * step && Math.abs(even.step - step) < 0.05 * step;
  const fit = isEven ? even : { step, zero: start, error: 0.05 * step };
  return { first: fit.zero + fit.step * first.index, count: last.index - first.index, step: fit.step, error: fit.error };
}

/** As dark as the upper half of the lines in the darkest stretch of them mostly are. */
function usualDark(lines: readonly Line[]): number {
  const sorted = lines.map(({ dark }) => dark).sort((a, b) => b - a);
  const shown = sorted.filter((dark) => dark > 0.25 * (sorted[Math.floor(sorted.length / 8)] as number));
  return shown[shown.length >> 1] ?? 0;
}

/** The darkest place within a third of a step, against the paper on both sides, and the middle of the dark there. */
function lineNear(values: Float64Array, centre: number, step: number, index: number): Line {
  const reach = Math.max(1, step / 3);
  const [low, high] = [Math.max(0, Math.ceil(centre - reach)), Math.min(values.length - 1, Math.floor(centre + reach))];
  const about: number[] = [];
  for (let k = Math.max(0, Math.ceil(centre - step / 2)); k <= Math.min(values.length - 1, centre + step / 2); k++)
    about.push(values[k] as number);
  const paper = about.sort((a, b) => a - b)[about.length >> 2] ?? 0;
  let peak = low;
  for (let k = low; k <= high; k++) if ((values[k] as number) > (values[peak] as number)) peak = k;
  const dark = (values[peak] ?? 0) - paper;
  let [sum, moment] = [0, 0];
  for (const towards of [-1, 1]) {
    for (let k = towards < 0 ? peak : peak + 1; Math.abs(k - peak) <= reach && k >= 0 && k < values.length; k += towards) {
      const weight = (values[k] as number) - paper - 0.2 * dark;
      if (weight <= 0) break;
      sum += weight;
      moment += weight * k;
    }
  }
  return { index, at: sum > 0 ? moment / sum : NaN, dark };
}

/** A straight line through the middles against their number, those that lie far off left out. */
function evenRow(lines: readonly Line[]): { zero: number; step: number; error: number; deviation: number } {
  let used = lines;
  let fit = throughMiddles(used);
  for (let round = 0; round < 3; round++) {
    const offs = lines.map(({ index, at }) => Math.abs(at - fit.zero - fit.step * index));
    const usual = 1.4826 * (offs.toSorted((a, b) => a - b)[offs.length >> 1] as number);
    const near = lines.filter((_, k) => (offs[k] as number) <= maxDeviations * Math.max(usual, 0.02));
    if (near.length < 3 || near.length === used.length) break;
    used = near;
    fit = throughMiddles(used);
  }
  return fit;
}

function throughMiddles(lines: readonly Line[]): { zero: number; step: number; error: number; deviation: number } {
  const n = lines.length;
  const meanIndex = lines.reduce((sum, { index }) => sum + index, 0) / n;
  const meanAt = lines.reduce((sum, { at }) => sum + at, 0) / n;
  const spread = lines.reduce((sum, { index }) => sum + (index - meanIndex) ** 2, 0);
  const step = lines.reduce((sum, { index, at }) => sum + (index - meanIndex) * (at - meanAt), 0) / spread;
  const zero = meanAt - step * meanIndex;
  const squares = lines.reduce((sum, { index, at }) => sum + (at - zero - step * index) ** 2, 0);
  const deviation = Math.sqrt(squares / Math.max(1, n - 2));
  return { zero, step, deviation, error: deviation / Math.sqrt(spread) };
}

/** The profile less its slow changes, by a moving mean. */
function withoutSlow(values: Float64Array, reach: number): Float64Array {
  const sums = new Float64Array(values.length + 1);
  for (let k = 0; k < values.length; k++) sums[k + 1] = (sums[k] as number) + (values[k] as number);
  return values.map((v, k) => {
    const [a, b] = [Math.max(0, k - reach), Math.min(values.length, k + reach + 1)];
    return v - ((sums[b] as number) - (sums[a] as number)) / (b - a);
  });
}

/** The stretch of a profile that repeats best, and its step; a ruler need not run over the whole picture. */
function bestStretch(values: Float64Array): { step: number; from: number; to: number; agreement: number } | null {
  let best: { step: number; from: number; to: number; agreement: number; worth: number } | null = null;
  const n = values.length;
  for (const share of [1, 0.5, 0.25]) {
    const size = Math.floor(n * share);
    for (let from = 0; from + size <= n; from += Math.max(1, size >> 1)) {
      const part = values.subarray(from, from + size);
      const step = firstPeak(part);
      if (!step) continue;
      const worth = step.agreement * Math.sqrt(share);
      if (!best || worth > best.worth) best = { step: step.step, from, to: from + size, agreement: step.agreement, worth };
    }
  }
  return best && grown(values, best);
}

/** The stretch made longer at both ends as far as the lines go on. */
function grown(values: Float64Array, { step, from, to, agreement }: { step: number; from: number; to: number; agreement: number }) {
  const window = Math.ceil(3 * step);
  const goesOn = (at: number, inward: number): boolean => {
    if (at < 0 || at + window > values.length) return false;
    const lag = Math.round(step * 3) * inward;
    return correlation(values, at, at + lag, window) > 0.3;
  };
  while (goesOn(to, -1)) to += Math.round(step);
  while (goesOn(from - window, 1)) from -= Math.round(step);
  return { step, from: Math.max(0, from), to: Math.min(values.length, to), agreement };
}

function correlation(values: Float64Array, a: number, b: number, count: number): number {
  if (b < 0 || b + count > values.length) return 0;
  let [ab, aa, bb] = [0, 0, 0];
  for (let k = 0; k < count; k++) {
    const [x, y] = [values[a + k] as number, values[b + k] as number];
    ab += x * y;
    aa += x * x;
    bb += y * y;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}

/** How well values agree with themselves so many bins on, for the lags from `min` to `max`; 0 elsewhere. */
function autocorrelation(values: Float64Array, min: number, max: number): Float64Array {
  const n = values.length;
  const energy = new Float64Array(n + 1);
  for (let k = 0; k < n; k++) energy[k + 1] = (energy[k] as number) + (values[k] as number) ** 2;
  const r = new Float64Array(max + 1);
  for (let lag = min; lag <= max; lag++) {
    let sum = 0;
    for (let k = 0, later = lag; later < n; k++, later++) sum += (values[k] as number) * (values[later] as number);
    const both = (energy[n - lag] as number) * ((energy[n] as number) - (energy[lag] as number));
    r[lag] = both > 0 ? sum / Math.sqrt(both) : 0;
  }
  return r;
}

/** The smallest lag whose autocorrelation stands out as a peak. */
function firstPeak(values: Float64Array, longest = maxStep, min = minAgreement): { step: number; agreement: number } | null {
  const n = values.length;
  const max = Math.min(Math.floor(n / minCount), longest);
  if (max < minStep + 2) return null;
  const r = autocorrelation(values, minStep - 2, max + 1);
  let highest = 0;
  for (let lag = minStep; lag <= max; lag++) if (isPeak(r, lag)) highest = Math.max(highest, r[lag] as number);
  if (highest < min) return null;
  for (let lag = minStep; lag <= max; lag++) {
    if (!isPeak(r, lag) || (r[lag] as number) < 0.75 * highest) continue;
    const [a, b, c] = [r[lag - 1] as number, r[lag] as number, r[lag + 1] as number];
    return { step: lag + (a - c) / (2 * (a - 2 * b + c)), agreement: b };
  }
  return null;
}

/** Higher than both neighbours, and than half way to the next: a shoulder is no peak. */
function isPeak(r: Float64Array, lag: number): boolean {
  const here = r[lag] as number;
  return here > (r[lag - 1] as number) && here >= (r[lag + 1] as number) && (r[Math.round(lag / 2)] as number) < here;
}

/** Step and phase by the strongest Fourier term near the step; its phase puts a line at each step from `phase` on. */
function fineStep(values: Float64Array, step: number): { step: number; phase: number } {
  const termAt = (s: number) => {
    let re = 0;
    let im = 0;
    // Turned on from bin to bin by one complex product instead of two angle functions.
    const stepRe = Math.cos((2 * Math.PI) / s);
    const stepIm = Math.sin((2 * Math.PI) / s);
    let c = 1;
    let d = 0;
    for (let k = 0; k < values.length; k++) {
      const v = values[k] as number;
      re += v * c;
      im += v * d;
      const next = c * stepRe - d * stepIm;
      d = c * stepIm + d * stepRe;
      c = next;
    }
    return { size: norm(re, im), phase: Math.atan2(im, re) };
  };
  // The lag is true to half a bin over its own length; a term over n bins tells steps apart by step^2 / n.
  const reach = Math.max(0.6, (step * step) / values.length);
  let [centre, width] = [step, reach];
  for (let round = 0; round < 14; round++) {
    const tries = Array.from({ length: 9 }, (_, k) => centre + ((k - 4) / 4) * width);
    centre = tries.reduce((a, b) => (termAt(b).size > termAt(a).size ? b : a));
    width /= round === 0 ? 4 : 2;
  }
  return { step: centre, phase: (termAt(centre).phase / (2 * Math.PI)) * centre };
}

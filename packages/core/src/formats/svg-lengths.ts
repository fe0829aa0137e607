/**
 * In: lengths, transforms and view boxes as SVG writes them. Out: numbers in user units, and transforms.
 * Rests on: SVG 2 (W3C): units, the transform attribute, viewBox and preserveAspectRatio.
 */
import { chain, identity, shift, stretch, type Transform, turn } from '../plane/transform.ts';

/** A CSS pixel, mm. */
export const cssPxMm = 25.4 / 96;
const plainFontPx = 16;

/** What a length may be a share of, in user units. */
export interface Viewport {
  readonly width: number;
  readonly height: number;
}

export interface LengthContext {
  readonly viewport: Viewport;
  readonly fontPx: number;
  /** The outermost viewport, for vw and vh. */
  readonly window: Viewport;
}

const physicalPx: Readonly<Record<string, number>> = { '': 1, px: 1, mm: 1 / cssPxMm, cm: 10 / cssPxMm, in: 96, pt: 96 / 72, pc: 16, q: 0.25 / cssPxMm }; // biome-ignore format: one line
const lengthWord = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z]*|%)\s*$/i;

/** A length in user units; null where it is none. @param side what a percentage is of */
export function lengthIn(text: string | undefined, { viewport, fontPx, window }: LengthContext, side: 'x' | 'y' | 'both'): number | null {
  const found = lengthWord.exec(text ?? '');
  if (!found) return null;
  const value = Number(found[1]);
  const unit = (found[2] as string).toLowerCase();
  const whole = side === 'x' ? viewport.width : side === 'y' ? viewport.height : Math.hypot(viewport.width, viewport.height) / Math.SQRT2;
  const relative: Readonly<Record<string, number>> = {
    '%': whole / 100, em: fontPx, rem: plainFontPx, ex: fontPx / 2, ch: fontPx / 2, vw: window.width / 100, vh: window.height / 100,
    vmin: Math.min(window.width, window.height) / 100, vmax: Math.max(window.width, window.height) / 100,
  }; // biome-ignore format: a row a kind
  const factor = Object.hasOwn(physicalPx, unit) ? physicalPx[unit] : Object.hasOwn(relative, unit) ? relative[unit] : undefined;
  return factor === undefined || !Number.isFinite(value) ? null : value * factor;
}

/** A length of the outermost element in CSS pixels, and whether it is a physical one; null where it is none, or a share of what is not known. */
export function absoluteLength(text: string | undefined): { readonly px: number; readonly isPhysical: boolean } | null {
  const found = lengthWord.exec(text ?? '');
  const unit = (found?.[2] ?? '?').toLowerCase();
  const factor = Object.hasOwn(physicalPx, unit) ? physicalPx[unit] : (unit === 'em' || unit === 'rem' ? plainFontPx : unit === 'ex' || unit === 'ch' ? plainFontPx / 2 : undefined); // biome-ignore format: one line
  const px = factor === undefined ? 0 : Number(found?.[1]) * factor;
  return px > 0 && Number.isFinite(px) ? { px, isPhysical: unit !== 'px' && unit !== '' } : null;
}

const fontWords: Readonly<Record<string, number>> = { 'xx-small': 9, 'x-small': 10, small: 13, medium: 16, large: 18, 'x-large': 24, 'xx-large': 32 }; // biome-ignore format: one line

export function fontSizeIn(text: string | undefined, parentPx: number): number {
  const word = (text ?? '').trim().toLowerCase();
  if (Object.hasOwn(fontWords, word)) return fontWords[word] as number;
  if (word === 'smaller' || word === 'larger') return word === 'larger' ? 1.2 * parentPx : parentPx / 1.2;
  const share = { width: parentPx, height: parentPx };
  return lengthIn(word, { viewport: share, fontPx: parentPx, window: share }, 'x') ?? parentPx;
}

export interface ViewBox extends Viewport {
  readonly x: number;
  readonly y: number;
}

export function viewBoxOf(text: string | undefined): ViewBox | null {
  const [x, y, width, height, more] = (text ?? '').split(/[\s,]+/).filter(Boolean).map(Number); // biome-ignore format: one line
  const isBox = more === undefined && [x, y, width, height].every((v) => Number.isFinite(v)) && (width as number) > 0 && (height as number) > 0; // biome-ignore format: one line
  return isBox ? { x: x as number, y: y as number, width: width as number, height: height as number } : null;
}

/** From the units of a view box to a viewport of a size, aligned as preserveAspectRatio says. */
export function viewBoxTransform(box: ViewBox, { width, height }: Viewport, ratio: string | undefined): Transform {
  const words = (ratio ?? '').trim().split(/\s+/).filter((word) => word !== 'defer'); // biome-ignore format: one line
  const align = /^(none|x(Min|Mid|Max)Y(Min|Mid|Max))$/.test(words[0] ?? '') ? (words[0] as string) : 'xMidYMid';
  const [sx, sy] = [width / box.width, height / box.height];
  if (align === 'none') return chain(stretch(sx, sy), shift(-box.x, -box.y));
  const scale = words[1] === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const share = (word: string | undefined): number => (word === 'Min' ? 0 : word === 'Max' ? 1 : 0.5);
  const dx = (width - scale * box.width) * share(/^x(Min|Mid|Max)/.exec(align)?.[1]);
  const dy = (height - scale * box.height) * share(/Y(Min|Mid|Max)$/.exec(align)?.[1]);
  return chain(shift(dx, dy), chain(stretch(scale), shift(-box.x, -box.y)));
}

const angleUnits: Readonly<Record<string, number>> = {
  '': Math.PI / 180,
  deg: Math.PI / 180,
  grad: Math.PI / 200,
  rad: 1,
  turn: 2 * Math.PI,
};

/** A list of transforms, as the attribute or CSS writes it, the last one done first; what follows one that cannot be read counts for nothing. */
export function transformIn(text: string, context: LengthContext): Transform {
  let whole = identity;
  const list = text.trim();
  if (list === '' || list === 'none') return whole;
  let at = 0;
  const next = /\s*,?\s*(matrix|translateX|translateY|translate|scaleX|scaleY|scale|rotate|skewX|skewY|skew)\s*\(([^)]*)\)/iy;
  for (next.lastIndex = 0; at < list.length; at = next.lastIndex) {
    const found = next.exec(list);
    const step = found && oneTransform((found[1] as string).toLowerCase(), found[2] as string, context);
    if (!step) return at === 0 || list.slice(at).trim() === '' ? whole : identity;
    whole = chain(whole, step);
  }
  return whole;
}

type Step = (numbers: readonly number[], angles: readonly number[], lengths: readonly number[]) => Transform;

/** By its name in small letters: how many numbers it takes at least, and the transform of them. */
const transforms: Readonly<Record<string, readonly [least: number, Step]>> = {
  matrix: [6, ([a, b, c, d, e, f]) => ({ a, b, c, d, e, f }) as Transform],
  translate: [1, (_, __, [x = 0, y = 0]) => shift(x, y)],
  translatex: [1, (_, __, [x = 0]) => shift(x, 0)],
  translatey: [1, (_, __, [y = 0]) => shift(0, y)],
  scale: [1, ([x = 1, y]) => stretch(x, y ?? x)],
  scalex: [1, ([x = 1]) => stretch(x, 1)],
  scaley: [1, ([y = 1]) => stretch(1, y)],
  rotate: [1, (_, [angle = 0], [, x = 0, y = 0]) => chain(shift(x, y), chain(turn(angle), shift(-x, -y)))],
  skewx: [1, (_, [angle = 0]) => ({ ...identity, c: Math.tan(angle) })],
  skewy: [1, (_, [angle = 0]) => ({ ...identity, b: Math.tan(angle) })],
  skew: [1, (_, [x = 0, y = 0]) => ({ ...identity, c: Math.tan(x), b: Math.tan(y) })],
};

function oneTransform(name: string, list: string, context: LengthContext): Transform | null {
  const words = list.split(/[\s,]+/).filter(Boolean);
  const angles = words.map((word) => {
    const found = /^([+-]?[\d.]+(?:e[+-]?\d+)?)(deg|grad|rad|turn|)$/i.exec(word);
    return found ? Number(found[1]) * (angleUnits[(found[2] as string).toLowerCase()] as number) : 0;
  });
  const lengths = words.map((word, k) => lengthIn(word, context, k === 0 ? 'x' : 'y') ?? 0);
  const [least, step] = transforms[name] as (typeof transforms)[string];
  const isWhole = words.length >= least && words.every((word) => Number.isFinite(Number.parseFloat(word)));
  return isWhole ? step(words.map(Number.parseFloat), angles, lengths) : null;
}

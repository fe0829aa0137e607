/**
 * In: colours of a screen, three bytes. Out: the same in CIELAB, where equal distances look about equally different.
 * Rests on: IEC 61966-2-1 (sRGB), CIE 15 (CIELAB, white point D65, two-degree observer).
 */

/** Red, green and blue, 0 to 255. */
export type Rgb = readonly [number, number, number];
/** Lightness 0 to 100, then green to red and blue to yellow. */
export type Lab = readonly [number, number, number];

/** White of D65 with luminance 1. */
const white = [0.3127 / 0.329, 1, (1 - 0.3127 - 0.329) / 0.329] as const;

const linear = Float64Array.from({ length: 256 }, (_, v) => {
  const c = v / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});

const bent = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116);

export function labOf([red, green, blue]: Rgb): Lab {
  const channel = (v: number) => linear[Math.min(255, Math.max(0, Math.round(v)))] as number;
  const [r, g, b] = [channel(red), channel(green), channel(blue)];
  const x = bent((0.4123907993 * r + 0.3575843394 * g + 0.1804807884 * b) / white[0]);
  const y = bent(0.2126390059 * r + 0.7151686788 * g + 0.0721923154 * b);
  const z = bent((0.0193308187 * r + 0.1191947798 * g + 0.9505321522 * b) / white[2]);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** The distance of two colours (CIE 1976). */
export const labDistance = (a: Lab, b: Lab): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** Colours nearer than this are one to the eye and to a scanner's noise. */
const sameColour = 14;

export const isSameColour = (a: Rgb, b: Rgb): boolean => labDistance(labOf(a), labOf(b)) < sameColour;

/** Six hexadecimal digits after a number sign; null where it is something else. */
export function rgbOfHex(hex: string): Rgb | null {
  const found = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex.trim());
  return found
    ? [Number.parseInt(found[1] as string, 16), Number.parseInt(found[2] as string, 16), Number.parseInt(found[3] as string, 16)]
    : null;
}

export const hexOf = (rgb: Rgb): string => `#${rgb.map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`;

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import type { Point } from '../plane/index.ts';
import { convexHull, greyFromRgb, greyFromRgba, greyPicture, onlyInside, simplerHull } from './index.ts';

const at = fc.record({ x: fc.integer({ min: 0, max: 60 }), y: fc.integer({ min: 0, max: 40 }) });
const area = (p: readonly Point[]) =>
  Math.abs(p.reduce((sum, a, k) => sum + a.x * (p[(k + 1) % p.length] as Point).y - a.y * (p[(k + 1) % p.length] as Point).x, 0)) / 2;

/** Even-odd, a ray to the right, written apart from the code's own. */
function isIn(outline: readonly Point[], x: number, y: number): boolean {
  let inside = false;
  outline.forEach((a, k) => {
    const b = outline[(k + 1) % outline.length] as Point;
    if (a.y > y !== b.y > y && x < a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y)) inside = !inside;
  });
  return inside;
}

describe('a crop', () => {
  const dark = greyPicture(new Uint8Array(60 * 40).fill(30), 60, 40);
  it('keeps the pixels whose centres lie inside and makes paper of the rest, whatever the outline', () => {
    fc.assert(
      fc.property(fc.array(at, { minLength: 3, maxLength: 9 }), (outline) => {
        const { data } = onlyInside(dark, outline);
        for (let y = 0; y < 40; y++) for (let x = 0; x < 60; x++) expect(data[y * 60 + x]).toBe(isIn(outline, x + 0.5, y + 0.5) ? 30 : 255);
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('leaves the picture itself as it was', () => {
    onlyInside(dark, [{ x: 5, y: 5 }, { x: 20, y: 5 }, { x: 5, y: 30 }]); // biome-ignore format: one line
    expect(dark.data.every((v) => v === 30)).toBe(true);
  });
});

describe('a hull', () => {
  it('turns one way, holds every point, and is its own hull', () => {
    fc.assert(
      fc.property(fc.array(at, { minLength: 4, maxLength: 40 }), (points) => {
        const hull = convexHull(points);
        fc.pre(hull.length >= 3);
        for (let k = 0; k < hull.length; k++) {
          const [a, b] = [hull[k], hull[(k + 1) % hull.length]] as [Point, Point];
          for (const p of points) expect((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)).toBeGreaterThan(-1e-9);
        }
        expect(convexHull(hull)).toHaveLength(hull.length);
      }),
    );
  });
  it('made simpler has no more corners than asked, and loses the least', () => {
    const circle = Array.from({ length: 200 }, (_, k) => ({ x: 50 * Math.cos(k * 0.0314159), y: 50 * Math.sin(k * 0.0314159) }));
    const simple = simplerHull(convexHull(circle), 24);
    expect(simple).toHaveLength(24);
    // The best of 24 corners on a circle holds sin(15 degrees) / (15 degrees in radians) of it.
    expect(area(simple) / (Math.PI * 2500)).toBeGreaterThan(0.97);
  });
});

describe('grey from colours', () => {
  it('is the same from three channels as from four, and tells a grey picture from a coloured one', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 48, maxLength: 48 }), (rgb) => {
        const rgba = new Uint8Array(64);
        for (let k = 0; k < 16; k++) rgba.set([...rgb.subarray(3 * k, 3 * k + 3), 255], 4 * k);
        const { grey, isGrey } = greyFromRgb(rgb, 4, 4);
        expect([...grey]).toEqual([...greyFromRgba(rgba, 4, 4).data]);
        expect(isGrey).toBe(
          Array.from({ length: 16 }, (_, k) => rgb[3 * k] === rgb[3 * k + 1] && rgb[3 * k] === rgb[3 * k + 2]).every(Boolean),
        );
      }),
    );
    expect(greyFromRgb(new Uint8Array(48).fill(90), 4, 4)).toMatchObject({ isGrey: true });
    expect(() => greyFromRgb(new Uint8Array(5), 4, 4)).toThrow(RangeError);
  });
});

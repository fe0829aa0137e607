/** Bodies of foam from two views: sections, slices and shells against closed forms and a distance field. */
import { type Body, bodyOf, foamIn, reaches, type SliceSettings, sectionOutline, slicesOf, volumeOf } from '@nuvet/core/foam';
import { circlePath, ellipsePath, type Path, type Point, pathArea, pathBox, polygonOf, polygonPath, rectanglePath } from '@nuvet/core/plane'; // biome-ignore format: one line
import { finished } from '@nuvet/core/steps';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

const ellipse = { topExponent: 2, bottomExponent: 2, widestAt: 0.5 };
/** An ellipsoid, its half axes along, across and up. */
const [along, across, up] = [300, 70, 50];
const ellipsoid = bodyOf({ side: ellipsePath({ x: 300, y: 50 }, along, up, 0), above: ellipsePath({ x: 300, y: 400 }, along, across, 0), nose: 'left' }, ellipse); // biome-ignore format: one line
const cone = bodyOf({ side: polygonPath([{ x: 0, y: 40 }, { x: 200, y: 0 }, { x: 200, y: 80 }]), above: null, nose: 'left' }, ellipse); // biome-ignore format: one line
const plain: SliceSettings = {
  boards: [{ thicknessMm: 20, count: null }],
  glueMm: 0,
  cutTo: 'larger',
  sandingMm: 0,
  shellMm: null,
  dowels: [],
};
const sliced = (body: Body, change: Partial<SliceSettings> = {}) => finished(slicesOf(body, { ...plain, ...change }));

describe('a section', () => {
  it('of an ellipsoid is the ellipse of the closed form, within 0.01 mm', () => {
    fc.assert(
      fc.property(fc.double({ min: 2, max: 598, noNaN: true }), (x) => {
        const share = Math.sqrt(1 - ((x - along) / along) ** 2);
        const outline = sectionOutline(ellipsoid.section(x) as NonNullable<ReturnType<Body['section']>>);
        for (const { x: y, y: z } of polygonOf(outline, 0.001)) {
          const r = Math.hypot(y / (across * share), (z - up) / (up * share));
          expect(Math.abs(r - 1) * Math.min(across, up) * share).toBeLessThan(0.01);
        }
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('of a cone is a circle as wide as the cone is there', () => {
    for (const x of [20, 77, 150]) {
      const outline = sectionOutline(cone.section(x) as NonNullable<ReturnType<Body['section']>>);
      expect(pathArea(outline)).toBeCloseTo(Math.PI * (x / 5) ** 2, 1);
    }
  });
  it('reaches as far in any direction as its outline does, whatever its exponents', () => {
    const exponent = fc.double({ min: 1.6, max: 6, noNaN: true });
    fc.assert(
      fc.property(exponent, exponent, fc.double({ min: 0.15, max: 0.9, noNaN: true }), fc.nat(239), (topExponent, bottomExponent, widestAt, k) => {
        const section = { halfWidth: 60, bottom: 5, top: 85, rule: { topExponent, bottomExponent, widestAt } };
        const angle = (2 * Math.PI * k) / 240;
        const most = Math.max(...polygonOf(sectionOutline(section), 0.0005).map(({ x, y }) => x * Math.cos(angle) + y * Math.sin(angle)));
        expect(Math.abs((reaches(section, 240)[k] as number) - most)).toBeLessThan(Math.min(topExponent, bottomExponent) < 2 ? 0.15 : 0.03);
      }),
      { numRuns: lawRuns(80) },
    ); // biome-ignore format: one line
  });
  it('with a flat bottom is flat where it is widest', () => {
    const outline = sectionOutline({ halfWidth: 40, bottom: 0, top: 60, rule: { topExponent: 2, bottomExponent: 2, widestAt: 0 } });
    expect(pathBox(outline)).toMatchObject({
      minX: expect.closeTo(-40, 6),
      maxX: expect.closeTo(40, 6),
      minY: 0,
      maxY: expect.closeTo(60, 6),
    });
    expect(pathArea(outline)).toBeCloseTo((Math.PI * 40 * 60) / 2, 1);
  });
});

describe('a body', () => {
  it('has the volume of the closed form, and its middle', () => {
    const { volumeMm3, middleMm } = volumeOf(ellipsoid);
    const exact = (4 / 3) * Math.PI * along * across * up;
    expect(Math.abs(volumeMm3 / exact - 1)).toBeLessThan(1e-3);
    expect(middleMm).toBeCloseTo(along, 1);
    expect(volumeOf(cone).middleMm).toBeCloseTo(150, 1);
  });
  it('whose views differ in length says by how much, and is as long as from the side', () => {
    const body = bodyOf(
      { side: ellipsePath({ x: 0, y: 0 }, 300, 50, 0), above: ellipsePath({ x: 0, y: 0 }, 306, 70, 0), nose: 'right' },
      ellipse,
    );
    expect([body.lengthMm, body.longerMm, body.widthMm].map((mm) => Math.round(1000 * mm) / 1000)).toEqual([600, 12, 137.255]);
  });
  it('with an open view is refused', () => {
    expect(() => bodyOf({ side: { ...circlePath({ x: 0, y: 0 }, 40), closed: false }, above: null, nose: 'left' }, ellipse)).toThrow(/view of the body is open/); // biome-ignore format: one line
  });
});

describe('slices', () => {
  it('are as thick as their boards measure, with glue between, and the last one is trimmed', () => {
    const slices = sliced(ellipsoid, { boards: [{ thicknessMm: 58, count: 3 }, { thicknessMm: 40, count: null }], glueMm: 0.5 }); // biome-ignore format: boards
    expect(slices.slice(0, 4).map(({ from, to }) => [from, to])).toEqual([[0, 58], [58.5, 116.5], [117, 175], [175.5, 215.5]]); // biome-ignore format: stations
    const laminated = sliced(ellipsoid, { boards: [{ thicknessMm: 20, layers: 2, count: null }], glueMm: 0.5 });
    expect(laminated.slice(0, 2).map(({ from, to }) => [from, to])).toEqual([[0, 40.5], [41, 81.5]]); // biome-ignore format: stations
    const last = slices.at(-1);
    expect([last?.to, (last?.thicknessMm as number) < 40]).toEqual([600, true]);
  });
  it('cut to their larger faces hold the body, to their smaller ones lie in it; the stack comes to its volume as boards grow thinner', () => {
    const exact = (4 / 3) * Math.PI * along * across * up;
    const volume = (thicknessMm: number, cutTo: 'larger' | 'smaller') => sliced(ellipsoid, { boards: [{ thicknessMm, count: null }], cutTo }).reduce((sum, slice) => sum + foamIn(slice), 0); // biome-ignore format: one line
    const [coarse, fine] = [volume(40, 'larger') - exact, volume(10, 'larger') - exact];
    expect(fine).toBeGreaterThan(0);
    // Four times as many slices, a quarter of the error.
    expect(coarse / fine).toBeGreaterThan(3.3);
    expect(coarse / fine).toBeLessThan(4.7);
    expect(volume(20, 'smaller')).toBeLessThan(exact);
  });
  it('that hold the widest place are as wide as the body is there', () => {
    const [slice] = sliced(ellipsoid, { boards: [{ thicknessMm: 600, count: 1 }] });
    expect(pathBox(slice?.outline as Path).maxX).toBeCloseTo(across, 6);
  });
  it('left fatter for sanding are so by that, all round', () => {
    const [plainSlice, fat] = [0, 3].map((sandingMm) => sliced(ellipsoid, { sandingMm })[10]?.outline as Path);
    const [a, b] = [pathBox(plainSlice as Path), pathBox(fat as Path)];
    expect([a.minX - b.minX, b.maxY - a.maxY].map((mm) => Math.round(1000 * mm) / 1000)).toEqual([3, 3]);
  });
  it('hollowed keep a shell that is nowhere thinner than asked, square to the skin', () => {
    const shellMm = 12;
    for (const body of [ellipsoid, cone]) {
      const slices = sliced(body, { shellMm });
      expect(slices.filter(({ isHollow }) => isHollow)).toEqual(slices.filter(({ holes }) => holes.length > 0));
      expect(slices.some(({ isHollow }) => isHollow)).toBe(true);
      const skin = skinOf(body);
      for (const { from, to, holes } of slices)
        for (const hole of holes)
          for (const p of everyFourth(polygonOf(hole, 0.5)))
            for (const x of [from, (from + to) / 2, to]) expect(nearest(skin, x, p)).toBeGreaterThanOrEqual(shellMm - 0.02);
    }
  });
  it('have dowel holes in line, where there is foam for them, and they join the hollow where they meet it', () => {
    const dowels = [{ across: 0, up: 50, diameterMm: 8 }];
    const solid = sliced(ellipsoid, { dowels });
    expect(solid.filter(({ holes }) => holes.length === 1).length).toBeGreaterThan(20);
    expect(solid.some(({ isHollow }) => isHollow)).toBe(false);
    for (const { holes } of solid) for (const hole of holes) expect(pathArea(hole)).toBeCloseTo(Math.PI * 16, 3);
    expect(sliced(ellipsoid, { dowels, shellMm: 10 })[14]?.holes.length).toBe(1);
  });
  it('of a body that narrows and widens have what both faces need', () => {
    // Higher at the front face, wider at the back one: the outline is what either reaches.
    const body: Body = { lengthMm: 20, heightMm: 80, widthMm: 100, longerMm: 0, frontLarger: null, section: (x) => ({ halfWidth: 30 + x, bottom: 0, top: 80 - x, rule: ellipse }) }; // biome-ignore format: one line
    const [slice] = sliced(body, { cutTo: 'both' });
    const box = pathBox(slice?.outline as Path);
    expect([box.maxX, box.maxY]).toEqual([expect.closeTo(50, 2), expect.closeTo(80, 2)]);
    const inner = pathBox(slice?.marked as Path);
    expect([inner.maxX, inner.maxY]).toEqual([expect.closeTo(30, 1), expect.closeTo(60, 1)]);
  });
  it('without boards, or of very thin ones, are refused in a sentence', () => {
    expect(() => sliced(ellipsoid, { boards: [] })).toThrow(/Say what the body is cut from/);
    expect(() => sliced(ellipsoid, { boards: [{ thicknessMm: 0.5, count: null }] })).toThrow(/more than 400 slices/);
    expect(sliced(bodyOf({ side: rectanglePath({ minX: 0, minY: 0, maxX: 90, maxY: 20 }), above: null, nose: 'left' }, ellipse), { shellMm: 30 }).every(({ holes }) => holes.length === 0)).toBe(true); // biome-ignore format: one line
  });
});

const everyFourth = (points: readonly Point[]): Point[] => points.filter((_, k) => k % 4 === 0);

/** Places all over a body's skin, 1.5 mm apart or less; how far apart they are counts against the shell by less than 0.02 mm. */
function skinOf(body: Body): Map<number, Point[]> {
  const skin = new Map<number, Point[]>();
  for (let x = 0.25; x < body.lengthMm; x += 1) {
    const section = body.section(x);
    if (section) skin.set(x, polygonOf(sectionOutline(section), 0.002));
  }
  return skin;
}

function nearest(skin: ReadonlyMap<number, readonly Point[]>, x: number, p: Point): number {
  let least = Infinity;
  for (const [at, points] of skin) {
    if (Math.abs(at - x) > 14) continue;
    for (let k = 0; k < points.length; k++) {
      const [a, b] = [points[k] as Point, points[(k + 1) % points.length] as Point];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy)));
      least = Math.min(least, Math.hypot(at - x, p.x - a.x - t * dx, p.y - a.y - t * dy));
    }
  }
  return least;
}

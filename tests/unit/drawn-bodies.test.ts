/** Bodies whose sections were drawn, with a chine, or change along them; slots, openings, covered frames; how many slices are enough. */
import {
  type Body,
  bodyOf,
  foamPlan,
  foamSchema,
  type KnownSection,
  plainFoam,
  profileOfOutline,
  profileThrough,
  type SliceSettings,
  sectionOutline,
  sliceCounts,
  slicesOf,
  volumeOf,
} from '@nuvet/core/foam';
import { readSvg } from '@nuvet/core/formats';
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import { chain, circlePath, ellipsePath, levelCrossings, type Path, type Point, pathArea, pathBox, polygonOf, polygonPath, rectanglePath, shift, transformedPath, turn } from "@nuvet/core/plane"; // biome-ignore format: one line
import { processKinds } from '@nuvet/core/processes';
import { distanceTo, windingNumber } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

const ellipse = { topExponent: 2, bottomExponent: 2, widestAt: 0.5 };
const views = { side: ellipsePath({ x: 300, y: 50 }, 300, 50, 0), above: ellipsePath({ x: 300, y: 400 }, 300, 70, 0), nose: 'left' } as const; // biome-ignore format: one line
const plain: SliceSettings = {
  boards: [{ thicknessMm: 30, count: null }],
  glueMm: 0,
  cutTo: 'larger',
  sandingMm: 0,
  shellMm: null,
  dowels: [],
};
const sliced = (body: Body, change: Partial<SliceSettings> = {}) => finished(slicesOf(body, { ...plain, ...change }));
const outlineAt = (body: Body, x: number): Path => sectionOutline(body.section(x) as NonNullable<ReturnType<Body['section']>>);
const polygon = (...places: readonly (readonly [number, number])[]): Path => polygonPath(places.map(([x, y]) => ({ x, y })));
/** A hull with flared sides: it bends inwards below its gunwale. */
const flared = polygon([0, 0], [30, 4], [38, 26], [60, 60], [-60, 60], [-38, 26], [-30, 4]);
/** As wide and as high all along. */
const prismViews = { side: rectanglePath({ minX: 0, minY: 0, maxX: 240, maxY: 60 }), above: rectanglePath({ minX: 0, minY: 100, maxX: 240, maxY: 220 }), nose: 'left' } as const; // biome-ignore format: one line
const prism = (known: readonly KnownSection[], rule = ellipse): Body => bodyOf(prismViews, rule, known);

describe('a section that was drawn', () => {
  it('as an ellipse is what the rule of an ellipse gives, within 0.01 mm', () => {
    const drawn = bodyOf(views, ellipse, [{ atMm: 300, shape: profileOfOutline(ellipsePath({ x: 90, y: -20 }, 35, 25, 0)) }]);
    const byRule = bodyOf(views, ellipse);
    for (const x of [20, 150, 300, 555]) {
      const away = distanceTo([outlineAt(byRule, x)]);
      for (const p of polygonOf(outlineAt(drawn, x), 1)) expect(away(p)).toBeLessThan(0.01);
    }
  });
  it('keeps its corners, as wide and as high as the views have it', () => {
    const body = prism([{ atMm: 0, shape: profileOfOutline(flared) }]);
    const outline = outlineAt(body, 100);
    expect(pathBox(outline)).toMatchObject({ minX: -60, maxX: 60, minY: 0, maxY: 60 });
    const away = distanceTo([flared]);
    for (const p of polygonOf(outline, 1)) expect(away(p)).toBeLessThan(1e-6);
    expect(pathArea(outline)).toBeCloseTo(pathArea(flared), 6);
  });
  it('runs on into the next one: alike they stay, and halfway a corner lies halfway', () => {
    const [narrow, wide] = [
      polygon([0, 0], [10, 20], [40, 40], [-40, 40], [-10, 20]),
      polygon([0, 0], [30, 20], [40, 40], [-40, 40], [-30, 20]),
    ];
    const body = prism([{ atMm: 40, shape: profileOfOutline(narrow) }, { atMm: 200, shape: profileOfOutline(wide) }]); // biome-ignore format: one line
    const widthAt = (x: number, z: number): number => Math.max(...levelCrossings(polygonOf(outlineAt(body, x), 0.01), z));
    const [before, middle, after] = [widthAt(10, 30), widthAt(120, 30), widthAt(230, 30)] as [number, number, number];
    expect([before, after]).toEqual([expect.closeTo(15, 0), expect.closeTo(45, 0)]);
    expect(middle).toBeGreaterThan(before + 8);
    expect(middle).toBeLessThan(after - 8);
    const same = prism([{ atMm: 0, shape: profileOfOutline(flared) }, { atMm: 240, shape: profileOfOutline(flared) }]); // biome-ignore format: one line
    expect(pathArea(outlineAt(same, 77))).toBeCloseTo(pathArea(outlineAt(same, 0)), 6);
  });
  it('by rules of their own runs evenly from exponent to exponent', () => {
    const rule = (n: number) => ({ topExponent: n, bottomExponent: n, widestAt: 0.5 });
    const body = bodyOf(views, ellipse, [{ atMm: 100, shape: rule(2) }, { atMm: 500, shape: rule(4) }]); // biome-ignore format: one line
    expect(body.section(300)?.rule).toMatchObject({ topExponent: 3, bottomExponent: 3 });
    expect(body.section(50)?.rule.topExponent).toBe(2);
    expect(body.section(590)?.rule.topExponent).toBe(4);
  });
  it('with a chine has straight sides from its keel: area and corner of the closed form', () => {
    const body = prism([], { topExponent: 8, bottomExponent: 1, widestAt: 0.4 });
    const outline = outlineAt(body, 120);
    // Below a triangle as wide as the body and 24 high.
    const below = polygonOf(outline, 0.01).filter(({ y }) => y <= 24);
    for (const { x, y } of below) expect(y).toBeCloseTo((24 * Math.abs(x)) / 60, 6);
    const [slice] = sliced(body);
    expect(pathArea(slice?.outline as Path)).toBeCloseTo(pathArea(outline), 6);
  });
  it('drawn through points is one half, mirrored; across itself, or beside its middle, it is refused in a sentence', () => {
    const at = (x: number, y: number, corner = true) => ({ at: { x, y }, corner });
    const body = prism([{ atMm: 0, shape: profileThrough([at(0, 0), at(1, 0), at(1, 1), at(0, 1)]) }]);
    expect(pathArea(outlineAt(body, 60))).toBeCloseTo(120 * 60, 0);
    expect(() => profileThrough([at(0, 0), at(1, 1), at(1, 0), at(0, 1), at(-0.5, 2)])).toThrow(/from the middle of its foot/);
    expect(() => profileThrough([at(0, 0), at(2, 0), at(0.5, 1), at(0.5, -1), at(1, 2), at(0, 2)])).toThrow(/crosses itself/);
    expect(() => profileOfOutline(polygon([0, 0], [40, 40], [40, 0], [0, 40]))).toThrow(/crosses itself/);
    expect(() => profileOfOutline({ ...flared, closed: false })).toThrow(/is open/);
  });
});

describe('a view from the front', () => {
  // Drawn at half the size, of its own place on the sheet.
  const front = transformedPath(flared, chain(shift(500, 200), { a: 0.5, b: 0, c: 0, d: 0.5, e: 0, f: 0 }));
  it('is the shape of the sections, as wide and as high as the other views have them', () => {
    const body = bodyOf({ ...prismViews, front }, ellipse);
    const away = distanceTo([flared]);
    for (const p of polygonOf(outlineAt(body, 100), 1)) expect(away(p)).toBeLessThan(1e-6);
    expect(body.frontLarger).toEqual({ wideMm: expect.closeTo(-60, 6), highMm: expect.closeTo(-30, 6) });
  });
  it('says how wide a body is that has no view from above', () => {
    const body = bodyOf({ ...prismViews, above: null, front }, ellipse);
    expect(body.widthMm).toBeCloseTo(120, 6);
    expect(pathArea(outlineAt(body, 100))).toBeCloseTo(pathArea(flared), 6);
  });
  it('stands where the body is largest, and runs on into a section that is known', () => {
    const known = [{ atMm: 0, shape: ellipse }];
    const body = bodyOf({ ...views, front }, ellipse, known);
    const shareOf = (x: number): number => {
      const { minX, minY, maxX, maxY } = pathBox(outlineAt(body, x));
      return pathArea(outlineAt(body, x)) / ((maxX - minX) * (maxY - minY));
    };
    const shareOfFront = pathArea(flared) / (120 * 60);
    expect([shareOf(1), shareOf(300), shareOf(590)]).toEqual([expect.closeTo(Math.PI / 4, 2), expect.closeTo(shareOfFront, 4), expect.closeTo(shareOfFront, 4)]); // biome-ignore format: one line
  });
  it.each([
    ['drawn at another size, is told with both differences', front, /60.* narrower and 30.* lower/],
    ['with halves that differ, is told by how much', polygon([0, 0], [60, 30], [20, 60], [-60, 60]), /differ by up to/],
  ])('%s', (_, outer, said) => {
    const piece = (id: string, path: Path) => ({ id, name: id, purpose: 'cut' as const, leftOut: false, runsOff: false, outer: path, holes: [] }); // biome-ignore format: one line
    const pieces = [piece('side', prismViews.side), piece('above', prismViews.above), piece('front', outer)];
    const planned = (frontId: string) => finished(foamPlan(pieces, { ...plainFoam, sideId: 'side', aboveId: 'above', frontId }, { thicknessMm: 40 })); // biome-ignore format: one line
    expect(
      planned('front')
        .notes.map(({ message }) => message)
        .join(' '),
    ).toMatch(said);
    expect(() => planned('gone')).toThrow(/view from the front is gone/);
  });
});

describe('slices of drawn sections', () => {
  const body = bodyOf(views, ellipse, [{ atMm: 150, shape: profileOfOutline(flared) }, { atMm: 450, shape: ellipse }]); // biome-ignore format: one line
  it('hold every section within them by their larger face, and lie in each by their smaller one', () => {
    for (const [cutTo, sign] of [['larger', 1], ['smaller', -1]] as const)
      for (const { from, to, outline } of sliced(body, { cutTo }).slice(1, -1)) {
        const away = distanceTo([outline]);
        for (const x of [from, (from + to) / 2, to])
          for (const p of polygonOf(outlineAt(body, x), 1).filter((_, k) => k % 3 === 0)) {
            const isIn = windingNumber([outline], p) > 0;
            // Where outlines cross within a slice the corner between them is cut off by a hair.
            if (isIn !== sign > 0) expect(away(p)).toBeLessThan(0.1);
          }
      } // biome-ignore format: both ways
  });
  it('keep a shell that is nowhere thinner than asked, square to the skin', () => {
    const shellMm = 12;
    const slices = sliced(body, { shellMm });
    expect(slices.filter(({ isHollow }) => isHollow).length).toBeGreaterThan(5);
    const skin = Array.from({ length: 301 }, (_, k) => 2 * k).map((x) => ({
      x,
      places: body.section(x) ? polygonOf(outlineAt(body, x), 1) : [],
    }));
    const nearest = (x: number, p: Point): number => skin.reduce((least, one) => (Math.abs(one.x - x) > 14 ? least : one.places.reduce((near, q) => Math.min(near, Math.hypot(one.x - x, q.x - p.x, q.y - p.y)), least)), Infinity); // biome-ignore format: one line
    for (const { from, to, holes } of slices)
      for (const hole of holes)
        for (const [k, p] of polygonOf(hole, 0.5).entries())
          if (k % 6 === 0) for (const x of [from, (from + to) / 2, to]) expect(nearest(x, p)).toBeGreaterThanOrEqual(shellMm - 0.05);
  });
});

describe('slots and openings', () => {
  const body = bodyOf(views, ellipse);
  it('a keel slot is as wide as asked in the middle of every former, its bottom on one line where it is straight', () => {
    const slots = [{ side: 'below', at: 0, widthMm: 6, depthMm: 20, isStraight: true }] as const;
    const slices = sliced(body, { slots });
    const met = slices.filter(({ missedSlots }) => missedSlots === 0);
    expect(met.length).toBeGreaterThan(10);
    for (const { outline } of met) {
      const corners = [outline.start, ...outline.segments.map(({ to }) => to)].filter(
        ({ x, y }) => Math.abs(Math.abs(x) - 3) < 1e-6 && Math.abs(y - 20) < 1e-6,
      );
      expect(corners.length).toBeGreaterThanOrEqual(2);
    }
    // Its floor lies below the foot of formers near the ends: they are told.
    expect(slices.length - met.length).toBeGreaterThan(0);
  });
  it('a longeron has a notch on either side, as deep as asked from the skin', () => {
    const area = (slots: SliceSettings['slots']) => pathArea(sliced(body, { slots: slots ?? [] })[10]?.outline as Path);
    const notched = area([{ side: 'sides', at: 50, widthMm: 8, depthMm: 10, isStraight: false }]);
    // Between the notch's bottom and the skin: 8 high, 10 deep, less what the curve lacks.
    expect(area([]) - notched).toBeGreaterThan(2 * 8 * 10 - 8);
    expect(area([]) - notched).toBeLessThan(2 * 8 * 10);
    expect(area([]) - area([{ side: 'above', at: 20, widthMm: 5, depthMm: 6, isStraight: false }])).toBeCloseTo(2 * 5 * 6, -1);
  });
  it('a slot that opens into the hollow makes one outline of both', () => {
    const slots = [{ side: 'above', at: 0, widthMm: 10, depthMm: 40, isStraight: false }] as const;
    const [open, closed] = [sliced(body, { shellMm: 15, slots })[9], sliced(body, { shellMm: 15 })[9]];
    expect([open?.holes.length, closed?.holes.length]).toEqual([0, 1]);
    expect(pathArea(open?.outline as Path)).toBeLessThan(pathArea(closed?.outline as Path) - pathArea(closed?.holes[0] as Path));
  });
  it('a cockpit from the side view opens the formers that it lies over, as wide as asked', () => {
    const pieces = [view('side', views.side), view('above', views.above), view('cockpit', rectanglePath({ minX: 210, minY: 60, maxX: 390, maxY: 140 }))]; // biome-ignore format: one line
    const settings = foamSchema.parse({ ...plainFoam, sideId: 'side', aboveId: 'above', boards: [{ thicknessMm: 30, count: null }], cutTo: 'larger', cutouts: [{ pieceId: 'cockpit', widthMm: 80 }] }); // biome-ignore format: one line
    const { slices } = finished(foamPlan(pieces, settings, { thicknessMm: 30 }));
    for (const { from, to, outline } of slices) {
      const floor = polygonOf(outline, 0.1).some(({ x, y }) => Math.abs(Math.abs(x) - 40) < 1e-6 && Math.abs(y - 60) < 1e-6);
      expect([from, floor]).toEqual([from, from >= 210 - 1e-9 && to <= 390 + 1e-9]);
    }
  });
});

const view = (id: string, outer: Path): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] });

describe('views and sheets', () => {
  const settings = { ...plainFoam, sideId: 'side', aboveId: 'above', boards: [{ thicknessMm: 40, count: null }] };
  it('a view whose axis rises is turned back by it', () => {
    const slanted = transformedPath(views.side, turn((12 * Math.PI) / 180));
    const level = finished(foamPlan([view('side', views.side), view('above', views.above)], settings, { thicknessMm: 40 }));
    const turned = finished(
      foamPlan([view('side', slanted), view('above', views.above)], { ...settings, sideAxis: 12 }, { thicknessMm: 40 }),
    );
    expect(turned.lengthMm).toBeCloseTo(level.lengthMm, 4);
    expect(turned.bodyMm3 / level.bodyMm3).toBeCloseTo(1, 4);
    expect(finished(foamPlan([view('side', slanted), view('above', views.above)], settings, { thicknessMm: 40 })).lengthMm).toBeLessThan(
      595,
    );
    // Or by a line that was drawn along it, whichever way.
    const [c, s] = [Math.cos((12 * Math.PI) / 180), Math.sin((12 * Math.PI) / 180)];
    const line = view('axis', { start: { x: 600 * c, y: 600 * s }, segments: [{ kind: 'line', to: { x: 0, y: 0 } }], closed: false });
    const byLine = finished(foamPlan([view('side', slanted), view('above', views.above), line], { ...settings, sideAxisId: 'axis' }, { thicknessMm: 40 })); // biome-ignore format: one line
    expect(byLine.sideAxis).toBeCloseTo(12, 9);
    expect(byLine.lengthMm).toBeCloseTo(level.lengthMm, 4);
  });
  it('formers go on the sheets at hand, so many of each, and what finds none lies beside them', async () => {
    const kind = processKinds.foam as (typeof processKinds)[string];
    const work = { title: 'Float', pieces: [view('side', views.side), view('above', views.above)], settings: { ...settings, sheets: [{ widthMm: 320, heightMm: 260, count: 1 }, { widthMm: 160, heightMm: 120, count: 2 }] }, machine: plainMachine, stock: plainStock }; // biome-ignore format: one line
    const { bytes } = await (kind.files.svg as NonNullable<(typeof kind.files)[string]>).make(work, finished(kind.plan(work)), { dpi: 96, underlay: null }); // biome-ignore format: one line
    const cut = finished(readSvg(new TextDecoder().decode(bytes))).outlines.filter(({ path, purpose }) => purpose === 'cut' && path.closed).map(({ path }) => pathBox(path)); // biome-ignore format: one line
    expect(cut.length).toBe(15);
    const on = (low: number, high: number) => cut.filter(({ minX, maxX }) => minX > low && maxX < high).length;
    const [first, second, third] = [on(-8, 322), on(342, 512), on(532, 702)];
    expect([first > 2, second > 0, third > 0, first + second + third < 15]).toEqual([true, true, true, true]);
  });
});

describe('a covered frame', () => {
  it('has formers at even distances, smaller by the skin square to it, with holes that leave a web', () => {
    const body = bodyOf(views, ellipse);
    const slices = sliced(body, { boards: [{ thicknessMm: 3, count: null }], spacingMm: 75, skinMm: 2, webMm: 12 });
    expect(slices.map(({ from }) => from)).toEqual([75, 150, 225, 300, 375, 450, 525]);
    const middle = slices.find(({ from }) => from === 300);
    const box = pathBox(middle?.outline as Path);
    expect([box.maxX, box.maxY]).toEqual([expect.closeTo(70 - 2, 1), expect.closeTo(100 - 2, 1)]);
    const away = distanceTo([middle?.outline as Path]);
    expect(middle?.holes.length).toBe(1);
    for (const p of polygonOf(middle?.holes[0] as Path, 0.2)) expect(away(p)).toBeGreaterThan(12 - 0.01);
  });
});

describe('how many slices are enough', () => {
  it('is what slicing comes to: foam, and the largest step', () => {
    const body = bodyOf(views, ellipse);
    const counts = sliceCounts(body);
    for (const slices of [10, 20]) {
      const one = counts.find((count) => count.slices === (slices === 20 ? 22 : 10));
      const made = sliced(body, { boards: [{ thicknessMm: one?.thicknessMm as number, count: null }] });
      const foam = made.reduce((sum, { outline, thicknessMm }) => sum + pathArea(outline) * thicknessMm, 0);
      expect(Math.abs((one?.foamMm3 as number) / foam - 1)).toBeLessThan(0.01);
      expect(Math.abs((one?.stepMm as number) - Math.max(...made.map(({ stepMm }) => stepMm)))).toBeLessThan(2);
    }
    // Ever finer slices come to the body itself.
    const { volumeMm3 } = volumeOf(body);
    const over = counts.map(({ foamMm3 }) => foamMm3 / volumeMm3 - 1);
    expect(over.at(-1)).toBeLessThan(0.02);
    for (const [k, share] of over.entries()) if (k > 0) expect(share).toBeLessThan(over[k - 1] as number);
  });
});

describe('a body like a ring', () => {
  it('seen from the side as a round and from above as a lens has the sections of the closed form', () => {
    // Half a torus laid open: from above two arcs of 200 mm, 40 mm apart.
    const ring = bodyOf({ side: rectanglePath({ minX: 0, minY: 0, maxX: 200, maxY: 40 }), above: circlePath({ x: 100, y: 300 }, 100), nose: 'left' }, ellipse); // biome-ignore format: one line
    fc.assert(
      fc.property(fc.double({ min: 3, max: 197, noNaN: true }), (x) => {
        const half = Math.sqrt(100 ** 2 - (x - 100) ** 2);
        expect(Math.abs(pathArea(outlineAt(ring, x)) - Math.PI * half * 20)).toBeLessThan(0.02);
      }),
      { numRuns: lawRuns(40) },
    );
  });
});

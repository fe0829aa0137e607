import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { circlePath, type Path, pathBox, polygonPath, rectanglePath, transformedPath } from '../plane/index.ts';
import { distanceTo } from '../shape/index.ts';
import { finished } from '../steps.ts';
import { mostSheets, type NestingPart, nestedOnSheets } from './bottom-left.ts';

const box = (widthMm: number, heightMm: number): Path => rectanglePath({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm });
const part = (outer: Path, count = 1): NestingPart => ({ outer, holes: [], count });
const plain = { widthMm: 300, heightMm: 200, marginMm: 0, gapMm: 0, angles: [0] };

describe('parts on sheets', () => {
  it('squares that fill a sheet fill it, and the next one begins another', () => {
    const { placed, sheets, tooLarge } = finished(nestedOnSheets([part(box(100, 100), 7)], plain));
    expect([placed.length, sheets, tooLarge]).toEqual([7, 2, []]);
    expect(placed.slice(0, 6).map(({ place: { e, f } }) => [e, f])).toEqual([[0, 0], [100, 0], [200, 0], [0, 100], [100, 100], [200, 100]]); // biome-ignore format: one line
  });
  it('what is larger than a sheet is named, unless it fits when it is turned', () => {
    expect(finished(nestedOnSheets([part(box(150, 250))], plain)).tooLarge).toEqual([0]);
    const turned = finished(nestedOnSheets([part(box(150, 250))], { ...plain, angles: [0, Math.PI / 2] }));
    expect([turned.placed.length, turned.tooLarge]).toEqual([1, []]);
  });
  it('copies that would need more sheets than are begun are counted', () => {
    const { placed, sheets, left } = finished(nestedOnSheets([part(box(20, 20), mostSheets + 3)], { ...plain, widthMm: 21, heightMm: 21 }));
    expect([placed.length, sheets, left]).toEqual([mostSheets, mostSheets, 3]);
  });
  it('small parts lie in the holes of large ones', () => {
    const frame: NestingPart = { outer: box(290, 190), holes: [rectanglePath({ minX: 40, minY: 40, maxX: 250, maxY: 150 })], count: 1 };
    const { sheets } = finished(nestedOnSheets([frame, part(box(90, 90), 2)], { ...plain, gapMm: 4 }));
    expect(sheets).toBe(1);
  });
  it('triangles turned half round lie in one another’s gaps', () => {
    const triangle = polygonPath([{ x: 0, y: 0 }, { x: 100, y: 0 }, { x: 0, y: 100 }]); // biome-ignore format: one line
    const { usedMm } = finished(nestedOnSheets([part(triangle, 6)], { ...plain, widthMm: 310, angles: [0, Math.PI] }));
    expect(usedMm).toBeLessThan(135);
  });
  it('all lie on the sheet within its margin, and no two nearer than the gap', () => {
    const shape = fc.oneof(
      fc.tuple(fc.integer({ min: 8, max: 90 }), fc.integer({ min: 8, max: 90 })).map(([w, h]) => box(w, h)),
      fc.integer({ min: 5, max: 40 }).map((r) => circlePath({ x: 3, y: -7 }, r)),
      fc.array(fc.integer({ min: 10, max: 45 }), { minLength: 3, maxLength: 9 }).map((radii) => polygonPath(radii.map((r, k) => ({ x: r * Math.cos((2 * Math.PI * k) / radii.length), y: r * Math.sin((2 * Math.PI * k) / radii.length) })))), // biome-ignore format: one line
    );
    fc.assert(
      fc.property(fc.array(shape, { minLength: 1, maxLength: 8 }), fc.constantFrom(0.5, 2, 6), (shapes, gapMm) => {
        const settings = { widthMm: 260, heightMm: 180, marginMm: 5, gapMm, angles: [0, Math.PI / 2, Math.PI] };
        const { placed } = finished(nestedOnSheets(shapes.map((outer) => part(outer, 2)), settings)); // biome-ignore format: one line
        expect(placed.length).toBe(2 * shapes.length);
        const lying = placed.map(({ part: k, sheet, place }) => ({ sheet, path: transformedPath(shapes[k] as Path, place) }));
        for (const { path } of lying) {
          const { minX, minY, maxX, maxY } = pathBox(path);
          for (const room of [minX, minY, 260 - maxX, 180 - maxY]) expect(room).toBeGreaterThanOrEqual(5 - 1e-6);
        }
        lying.forEach((a, k) => {
          const away = distanceTo([a.path]);
          for (const b of lying.slice(k + 1)) {
            if (b.sheet !== a.sheet) continue;
            const nearest = Math.min(...b.path.segments.map(({ to }) => away(to)), ...a.path.segments.map(({ to }) => distanceTo([b.path])(to))); // biome-ignore format: one line
            expect(nearest).toBeGreaterThanOrEqual(gapMm - 1e-6);
          }
        });
      }),
      { numRuns: lawRuns(40) },
    );
  });
});

import { contours as d3Contours } from 'd3-contour';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { contoursAt, greyFromRgba, greyPicture, histogram, isBilevel, otsuThreshold } from './index.ts';

/** A picture from a function of pixel centres. */
const drawn = (width: number, height: number, grey: (x: number, y: number) => number) =>
  greyPicture(
    Uint8Array.from({ length: width * height }, (_, p) => Math.round(grey((p % width) + 0.5, Math.floor(p / width) + 0.5))),
    width,
    height,
  );
const fromRows = (rows: string[]) =>
  drawn(rows[0]?.length ?? 0, rows.length, (x, y) => (rows[Math.floor(y)]?.[Math.floor(x)] === '#' ? 0 : 200));

describe('grey from RGBA', () => {
  it('weighs by ITU-R BT.709 and lays transparency over white', () => {
    const rgba = Uint8Array.from([255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 77, 77, 77, 255, 0, 0, 0, 0]);
    // 0.2126, 0.7152 and 0.0722 of 255.
    expect([...greyFromRgba(rgba, 5, 1).data]).toEqual([54, 182, 18, 77, 255]);
  });
  it('refuses a wrong number of bytes', () => expect(() => greyFromRgba(new Uint8Array(7), 1, 2)).toThrow(RangeError));
});

describe('the automatic threshold', () => {
  it('lies where the between-class variance is largest, tried out for every value', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 3, maxLength: 300 }), (values) => {
        const found = otsuThreshold(histogram(greyPicture(Uint8Array.from(values), values.length, 1)));
        const spread = (t: number) => {
          const [low, high] = [values.filter((v) => v <= t), values.filter((v) => v > t)];
          const mean = (list: number[]) => list.reduce((a, b) => a + b, 0) / list.length;
          return low.length && high.length ? low.length * high.length * (mean(low) - mean(high)) ** 2 : 0;
        };
        const best = Math.max(...Array.from({ length: 256 }, (_, t) => spread(t)));
        if (!found) expect(best).toBe(0);
        else expect(spread(found.value)).toBeGreaterThan(best * (1 - 1e-9));
      }),
    );
  });
  it('parts a one-bit scan in the middle and knows it for one', () => {
    const counts = histogram(fromRows(['##..', '#...']));
    expect(otsuThreshold(counts)?.value).toBe(99);
    expect(isBilevel(counts)).toBe(true);
  });
  it('finds nothing to part in a picture of one grey', () => expect(otsuThreshold(histogram(drawn(4, 4, () => 128)))).toBeNull());
});

describe('contours', () => {
  it('are sub-pixel: a disc of 20 pixels radius keeps its radius within 0.03 and its area within 0.1 %', () => {
    const disc = drawn(60, 60, (x, y) => 127.5 + 100 * Math.max(-1, Math.min(1, Math.hypot(x - 30.3, y - 29.6) - 20)));
    const { contours } = contoursAt(disc, 127.5);
    expect(contours).toHaveLength(1);
    const { points, area } = contours[0] as (typeof contours)[0];
    for (let k = 0; k < points.length; k += 2) {
      expect(Math.abs(Math.hypot((points[k] as number) - 30.3, (points[k + 1] as number) - 29.6) - 20)).toBeLessThan(0.03);
    }
    expect(Math.abs(area / (Math.PI * 400) - 1)).toBeLessThan(0.001);
  });
  it('nest: a ring inside a ring, and the specks beside them', () => {
    const { contours } = contoursAt(
      fromRows(['..........#', '.#######...', '.#.....#...', '.#.###.#...', '.#.#.#.#.#.', '.#.###.#...', '.#.....#...', '.#######...']),
      99.5,
    );
    const depth = (k: number): number => (k < 0 ? -1 : 1 + depth(contours[k]?.parent ?? -1));
    expect(contours.map((c, k) => [c.isHole, depth(k)]).sort()).toEqual([
      [false, 0],
      [false, 0],
      [false, 0],
      [false, 2],
      [true, 1],
      [true, 3],
    ]);
  });
  it('of more border than any drawing has are none: all are dropped, so that nothing fills the memory', () => {
    // A comb of stripes a pixel wide: one border all along every one of them.
    const [width, height] = [3000, 4200];
    const comb = new Uint8Array(width * height);
    for (let p = width; p < comb.length; p++) comb[p] = p % 2 === 0 ? 0 : 255;
    expect(contoursAt(greyPicture(comb, width, height), 127.5)).toMatchObject({ contours: [], dropped: 0 });
    expect(contoursAt(greyPicture(comb.subarray(0, width * 400), width, 400), 127.5).contours).toHaveLength(1);
  });
  it('decide an ambiguous cell by its mean: two dark pixels touching at a corner', () => {
    const touching = (light: number) => greyPicture(Uint8Array.from([0, light, light, 0]), 2, 2);
    expect(contoursAt(touching(150), 127.5).contours).toHaveLength(1);
    expect(contoursAt(touching(255), 127.4).contours).toHaveLength(2);
  });
  it("close along the picture's edge where ink runs off it", () => {
    const { contours } = contoursAt(
      drawn(10, 10, (x) => (x < 5 ? 0 : 200)),
      99.5,
    );
    expect(contours).toHaveLength(1);
    expect(contours[0]?.area).toBeGreaterThan(45);
  });
  it('leave out what is too small, and count it', () => {
    const picture = fromRows(['#......', '...###.', '...###.', '...###.']);
    expect(contoursAt(picture, 99.5, 4)).toMatchObject({ dropped: 1, contours: [{ isHole: false }] });
  });
  it('refuse a level that a pixel can lie on', () => expect(() => contoursAt(fromRows(['#']), 100)).toThrow(RangeError));

  it('enclose the same area as those of d3-contour, on noise', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 144, maxLength: 144 }), (values) => {
        const ours = contoursAt(greyPicture(Uint8Array.from(values), 12, 12), 127.5).contours;
        const area = ours.reduce((sum, c) => sum + (c.isHole ? -c.area : c.area), 0);
        // d3-contour rounds what is above a value; padded with paper and turned over it draws the same borders.
        const padded = Array.from({ length: 14 * 14 }, (_, k) => {
          const [x, y] = [(k % 14) - 1, Math.floor(k / 14) - 1];
          return x >= 0 && y >= 0 && x < 12 && y < 12 ? 255 - (values[y * 12 + x] as number) : 0;
        });
        const theirs = d3Contours().size([14, 14]).smooth(true).contour(padded, 127.5);
        const ring = (points: number[][]) =>
          points
            .slice(1)
            .reduce(
              (sum, b, k) =>
                sum + ((points[k] as number[])[0] as number) * (b[1] as number) - (b[0] as number) * ((points[k] as number[])[1] as number),
              0,
            ) / 2;
        const theirArea = theirs.coordinates.flat().reduce((sum, points) => sum + ring(points), 0);
        // Ambiguous cells may be cut the other way: half a pixel each at most.
        let ambiguous = 0;
        for (let y = 0; y < 13; y++) {
          for (let x = 0; x < 13; x++) {
            const [a, b, c, d] = [padded[y * 14 + x], padded[y * 14 + x + 1], padded[(y + 1) * 14 + x], padded[(y + 1) * 14 + x + 1]].map(
              (v) => (v as number) > 127.5,
            );
            if (a === d && b === c && a !== b) ambiguous++;
          }
        }
        expect(Math.abs(area - Math.abs(theirArea))).toBeLessThanOrEqual(ambiguous * 0.75 + 1e-6);
      }),
      { numRuns: lawRuns(60) },
    );
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { apply, distance, type Point, type Projection, project, projectionOfFour } from '../plane/index.ts';
import { chanceOfF, fitTrueUp, sizeInWords, TrueUpError, type TrueUpMark, worstResidual } from './index.ts';

const size = { widthPx: 2480, heightPx: 3508 };
let count = 0;
const mark = (kind: TrueUpMark['kind'], points: readonly Point[], ...stated: number[]): TrueUpMark => ({
  kind,
  id: `${kind} ${++count}`,
  points,
  stated,
});
const at = (x: number, y: number): Point => ({ x, y });
const length = (a: Point, b: Point, mm: number) => mark('known-length', [a, b], mm);

describe('the true-up fit', () => {
  it('takes the resolution where nothing is marked: A4 at 300 dpi is 210 x 297 mm', () => {
    const fit = fitTrueUp(size, [], 300);
    expect(fit.model).toBe('resolution');
    expect(fit.mmPerPx).toBeCloseTo(0.084667, 6);
    expect(fit.sheetWidthMm).toBeCloseTo(209.973, 3);
    expect(fit.sheetHeightMm).toBeCloseTo(297.011, 3);
  });
  it('says when the size is not known', () => expect(fitTrueUp(size, [], null).model).toBe('unsized'));
  it('brings six inches marked over 1800 pixels to 152.4 mm whatever the file says', () => {
    const fit = fitTrueUp(size, [length(at(100, 100), at(1180, 1540), 152.4)], 72);
    expect(fit).toMatchObject({ model: 'uniform', residuals: [{ parts: [{ statedMm: 152.4 }] }] });
    expect(fit.mmPerPx).toBeCloseTo(152.4 / 1800, 12);
    expect(worstResidual(fit)).toBeLessThan(1e-9);
  });
  it('puts y up and the lower left corner of the turned picture at the origin', () => {
    const { toSheet } = fitTrueUp(size, [], 25.4);
    expect(apply(toSheet, at(0, 3508)).x).toBeCloseTo(0, 9);
    expect(apply(toSheet, at(2480, 0)).y).toBeCloseTo(3508, 9);
  });
  it('shares what two lengths disagree by', () => {
    const [a, b] = [at(0, 0), at(1000, 0)];
    const fit = fitTrueUp(size, [length(a, b, 100), length(a, b, 101)], null);
    expect(fit.mmPerPx).toBeCloseTo(0.1005, 5);
    expect(fit.residuals.map((l) => l.offMm)).toEqual([expect.closeTo(0.5, 2), expect.closeTo(-0.5, 2)]);
    expect(fit.outliers).toHaveLength(2);
  });
  it('turns the least way: lines marked right to left, or a plumb line marked upward, do not turn it over', () => {
    const down = fitTrueUp(size, [mark('level', [at(900, 500), at(100, 480)])], 300);
    expect((down.turn * 180) / Math.PI).toBeCloseTo(1.432, 3);
    const up = fitTrueUp(size, [mark('plumb', [at(500, 900), at(520, 100)])], 300);
    expect((up.turn * 180) / Math.PI).toBeCloseTo(1.432, 3);
  });
  it('takes quarter turns, a flip and a datum: the datum lies where it is asked to, a level line stays level', () => {
    const placing = { quarterTurns: 1, flipped: true, datum: at(700, 900), place: at(12, -5) };
    const level = mark('level', [at(500, 900), at(520, 100)]);
    const fit = fitTrueUp(size, [level], 300, { placing });
    expect(distance(project(fit.projection, at(700, 900)), at(12, -5))).toBeLessThan(1e-9);
    expect(worstResidual(fit)).toBeLessThan(1e-9);
    expect(fit.toSheet.a * fit.toSheet.d - fit.toSheet.b * fit.toSheet.c).toBeGreaterThan(0);
    expect(fit.sheetWidthMm).toBeGreaterThan(fit.sheetHeightMm);
  });
  it('refuses a mark without length, a frame with three corners in a line, a circle marked along a line', () => {
    const refused = (m: TrueUpMark) => expect(() => fitTrueUp(size, [m], null)).toThrow(TrueUpError);
    refused(length(at(5, 5), at(5, 5), 10));
    refused(mark('frame', [at(0, 0), at(100, 0), at(200, 0.01), at(0, 100)], 10, 10));
    refused(mark('circle', [at(0, 0), at(100, 0.02), at(200, 0)], 10));
  });
});

describe('kinds of marks', () => {
  const turned =
    (angle: number, k: number) =>
    (x: number, y: number): Point =>
      at(1200 + (Math.cos(angle) * x - Math.sin(angle) * y) / k, 1500 - (Math.sin(angle) * x + Math.cos(angle) * y) / k);

  it('a circle of known diameter gives the scale from three marks on its rim', () => {
    const rim = [0.2, 1.9, 4.4].map((angle) => turned(0, 0.1)(30 * Math.cos(angle), 30 * Math.sin(angle)));
    expect(fitTrueUp(size, [mark('circle', rim, 60)], null).mmPerPx).toBeCloseTo(0.1, 9);
  });
  it('a frame gives scale and turn; marks may run either way round and start anywhere', () => {
    const corners = [[0, 0], [80, 0], [80, 50], [0, 50]] as const; // biome-ignore format: one line
    const placed = corners.map(([x, y]) => turned(0.3, 0.08)(x, y));
    for (const points of [placed, [placed[3], placed[2], placed[1], placed[0]] as Point[]]) {
      const fit = fitTrueUp(size, [mark('frame', points, 80, 50)], null);
      expect(fit.mmPerPx).toBeCloseTo(0.08, 9);
      expect(fit.turn).toBeCloseTo(-0.3, 9);
      expect(worstResidual(fit)).toBeLessThan(1e-8);
    }
    const sideways = fitTrueUp(size, [mark('frame', [placed[1], placed[2], placed[3], placed[0]] as Point[], 50, 80)], null);
    expect(sideways.turn).toBeCloseTo(-0.3, 9);
  });
  it('a box is met whole inside, covering, or each side stretched to its own', () => {
    const hull = [at(100, 100), at(600, 100), at(600, 350), at(100, 350)];
    const box = (boxFit: 'contained' | 'covering' | 'each-side') => fitTrueUp(size, [{ ...mark('box', hull, 100, 60), boxFit }], null);
    expect(box('contained').mmPerPx).toBeCloseTo(100 / 500, 9);
    expect(box('covering').mmPerPx).toBeCloseTo(60 / 250, 9);
    const hardStretch = box('each-side');
    expect(hardStretch.mmPerPxAlong.x * 500).toBeCloseTo(100, 6);
    expect(hardStretch.mmPerPxAlong.y * 250).toBeCloseTo(60, 6);
    expect(hardStretch.model).toBe('stretch');
  });
  it('a box that is not stretched claims only the side that touches: the other is neither left over nor a slip of units', () => {
    const hull = [at(100, 100), at(600, 100), at(600, 350), at(100, 350)];
    for (const [boxFit, stated, index] of [
      ['contained', [100, 500], 0],
      ['covering', [10, 50], 1],
    ] as const) {
      // biome-ignore format: two ways
      const box = { ...mark('box', hull, ...stated), boxFit };
      const known = length(at(0, 0), at(1000, 0), 200);
      const fit = fitTrueUp(size, [box, known], null);
      expect(fit.unitMistakes).toEqual([]);
      expect(fit.outliers).toEqual([]);
      expect(fit.mmPerPx).toBeCloseTo(0.2, 9);
      expect(fit.residuals[0]?.parts.map((p) => p.name)).toEqual([['width', 'height'][index]]);
      expect(worstResidual(fit)).toBeLessThan(1e-9);
    }
  });
  it('a passage of 50 px that must take a ball of 12.7 mm with 0.3 mm of play makes a pixel 0.26 mm', () => {
    expect(fitTrueUp(size, [mark('clearance', [at(100, 100), at(130, 140)], 12.7, 0.3)], null).mmPerPx).toBeCloseTo(0.26, 9);
  });
  it('right angles and lengths together find a scan that is 1.5 % long one way', () => {
    const long = (x: number, y: number) => at(200 + x * 12, 3200 - y * 12 * 1.015);
    const marks = [
      length(long(0, 0), long(150, 0), 150),
      length(long(0, 0), long(0, 200), 200),
      length(long(10, 10), long(110, 160), Math.hypot(100, 150)),
    ];
    const fit = fitTrueUp(size, marks, null);
    expect(fit.model).toBe('stretch');
    expect(fit.mmPerPxAlong.x / fit.mmPerPxAlong.y).toBeCloseTo(1.015, 6);
    expect(fitTrueUp(size, marks, null, { pinned: 'uniform' }).model).toBe('uniform');
  });
});

/** A camera's view of a sheet: millimetres to pixels. */
function camera(random: () => number): Projection {
  const four = [at(0, 0), at(200, 0), at(200, 280), at(0, 280)] as const;
  const jitter = (x: number, y: number) => at(x + 300 * (random() - 0.5), y + 300 * (random() - 0.5));
  return projectionOfFour(four, [jitter(400, 3100), jitter(2000, 3100), jitter(2000, 700), jitter(400, 700)]) as Projection;
}

function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
const normalizationOf = (random: () => number) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
const noisy = (random: () => number, p: Point, sigma: number) =>
  at(p.x + sigma * normalizationOf(random), p.y + sigma * normalizationOf(random));

describe('against an independent truth', () => {
  it('finds a known scale and turn again from any exact marks, with nothing left over', () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 2480 }), y: fc.integer({ min: 0, max: 3508 }) });
    const pairs = fc.array(
      fc.tuple(place, place).filter(([a, b]) => distance(a, b) > 20),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(
        pairs,
        fc.double({ min: 0.01, max: 2, noNaN: true }),
        fc.double({ min: -0.7, max: 0.7, noNaN: true }),
        (ends, scale, turn) => {
          const back = (angle: number, from: Point): Point => at(from.x + 400 * Math.cos(angle), from.y - 400 * Math.sin(angle));
          const marks = [
            ...ends.map(([a, b]) => length(a, b, distance(a, b) * scale)),
            mark('level', [at(700, 900), back(-turn, at(700, 900))]),
            mark('plumb', [at(300, 900), back(Math.PI / 2 - turn, at(300, 900))]),
          ];
          const fit = fitTrueUp(size, marks, null, { pinned: 'uniform' });
          expect(fit.mmPerPx / scale).toBeCloseTo(1, 7);
          expect(fit.turn).toBeCloseTo(turn, 6);
          expect(worstResidual(fit)).toBeLessThan(1e-3 * scale);
          expect(fit.unitMistakes).toEqual([]);
        },
      ),
    );
  });

  it('perspective from a frame alone is the closed form of four points', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const toPixels = camera(seeded(seed));
        const corners = [at(10, 20), at(190, 20), at(190, 260), at(10, 260)] as const;
        const fit = fitTrueUp(
          size,
          [
            mark(
              'frame',
              corners.map((p) => project(toPixels, p)),
              180,
              240,
            ),
          ],
          null,
          { pinned: 'perspective' },
        );
        expect(fit.model).toBe('perspective');
        const home = project(fit.projection, project(toPixels, at(10, 20)));
        for (const p of [at(100, 140), at(60, 90), at(170, 230)]) {
          const found = project(fit.projection, project(toPixels, p));
          expect(found.x - home.x).toBeCloseTo(p.x - 10, 5);
          expect(found.y - home.y).toBeCloseTo(p.y - 20, 5);
        }
      }),
      { numRuns: lawRuns(60) },
    );
  });

  it.each([
    ['uniform', 0.7],
    ['uniform', 2],
    ['stretch', 1],
    ['affine', 1],
    ['perspective', 1],
  ] as const)(
    '%s with %f px of noise: unbiased, left-overs as large as the noise, standard errors true within 15 percent over 500 draws',
    (model, sigma) => {
      const random = seeded(41);
      const view = camera(random);
      const near = (p: Point): Point => {
        if (model === 'perspective') return project(view, p);
        const [sx, sy, m] = model === 'uniform' ? [1, 1, 0] : model === 'stretch' ? [1.01, 0.99, 0] : [1.01, 0.99, 0.02];
        const [x, y] = [Math.cos(0.04) * p.x - Math.sin(0.04) * p.y, Math.sin(0.04) * p.x + Math.cos(0.04) * p.y];
        return at(300 + 9 * (sx * x + m * y), 3300 - 9 * sy * y);
      };
      const places = Array.from(
        { length: 10 },
        () => [at(20 + 60 * random(), 20 + 90 * random()), at(110 + 80 * random(), 140 + 130 * random())] as const,
      );
      const crossways = Array.from(
        { length: 6 },
        () => [at(20 + 60 * random(), 260 - 90 * random()), at(110 + 80 * random(), 20 + 90 * random())] as const,
      );
      const frame = [at(15, 15), at(185, 15), at(185, 265), at(15, 265)];
      const marksOf = (seen: (p: Point) => Point) => [
        ...[...places, ...crossways].map(([p, q]) => length(seen(p), seen(q), distance(p, q))),
        mark('level', [seen(at(20, 30)), seen(at(180, 30))]),
        mark('frame', frame.map(seen), 170, 250),
      ];
      // Two lengths through the picture's middle, as `expect` has them: level and plumb.
      const exact = fitTrueUp(size, marksOf(near), null, { pinned: model, noisePx: sigma });
      const { overMm } = exact.expect as { overMm: number };
      const middle = project(exact.projection, at(size.widthPx / 2, size.heightPx / 2));
      const spans = [at(overMm / 2, 0), at(0, overMm / 2)].map((half) =>
        [-1, 1].map((way) => inversePoint(exact.projection, at(middle.x + way * half.x, middle.y + way * half.y))),
      );
      const errors: number[][] = [[], []];
      let [expected, left] = [0, 0];
      for (let draw = 0; draw < 500; draw++) {
        const marks = marksOf((p) => noisy(random, near(p), sigma));
        const fit = fitTrueUp(size, marks, null, { pinned: model, noisePx: sigma });
        expect(fit.model).toBe(model);
        expect(fit.unitMistakes).toEqual([]);
        spans.forEach(([p, q], k) => {
          (errors[k] as number[]).push(distance(project(fit.projection, p as Point), project(fit.projection, q as Point)) - overMm);
        });
        expected += (fit.expect as { plusMinusMm: number }).plusMinusMm / 500;
        left += (fitTrueUp(size, marks, null, { pinned: model }).noisePx as number) / 500;
      }
      const deviations = errors.map((list) => {
        const mean = list.reduce((sum, e) => sum + e, 0) / list.length;
        const deviation = Math.sqrt(list.reduce((sum, e) => sum + (e - mean) ** 2, 0) / (list.length - 1));
        // Unbiased: the mean of 500 is no farther off than four of its own errors.
        expect(Math.abs(mean)).toBeLessThan((4 * deviation) / Math.sqrt(list.length));
        return deviation;
      });
      expect(left / sigma).toBeGreaterThan(0.85);
      expect(left / sigma).toBeLessThan(1.15);
      // `expect` is two standard errors of the worse of the two.
      expect(Math.abs(expected / (2 * Math.max(...deviations)) - 1)).toBeLessThan(0.15);
    },
  );

  it('recommends perspective for a photograph, one scale for a flat scan, and never cries slip on clean marks', () => {
    const random = seeded(12);
    for (let draw = 0; draw < 200; draw++) {
      const view = camera(random);
      const flat = (p: Point): Point => at(300 + 9 * p.x, 3300 - 9 * p.y);
      for (const [near, wanted] of [
        [(p: Point) => project(view, p), 'perspective'],
        [flat, 'uniform'],
      ] as const) {
        // biome-ignore format: two cases
        const seen = (p: Point) => noisy(random, near(p), 0.7);
        const marks = [
          mark('frame', [at(15, 15), at(185, 15), at(185, 265), at(15, 265)].map(seen), 170, 250),
          length(seen(at(30, 40)), seen(at(150, 220)), distance(at(30, 40), at(150, 220))),
          length(seen(at(40, 200)), seen(at(160, 60)), distance(at(40, 200), at(160, 60))),
        ];
        const fit = fitTrueUp(size, marks, null);
        expect(fit.unitMistakes).toEqual([]);
        if (wanted === 'perspective') expect(fit.recommended).toBe('perspective');
        else if (draw < 30) expect(fit.carried).toContain('perspective');
      }
    }
  });

  it('a plain scan is called plain in all but the one case in a hundred that chance allows a model', () => {
    const random = seeded(77);
    let plain = 0;
    for (let draw = 0; draw < 300; draw++) {
      const seen = (p: Point) => noisy(random, at(300 + 9 * p.x, 3300 - 9 * p.y), 0.7);
      const marks = [
        mark('frame', [at(15, 15), at(185, 15), at(185, 265), at(15, 265)].map(seen), 170, 250),
        length(seen(at(30, 40)), seen(at(150, 220)), distance(at(30, 40), at(150, 220))),
      ];
      if (fitTrueUp(size, marks, null).recommended === 'uniform') plain++;
    }
    expect(plain).toBeGreaterThan(285);
  });

  it('lets neither of two marks win that contradict each other by a unit, and names both', () => {
    const marks = [length(at(100, 100), at(1400, 100), 130), length(at(100, 500), at(2270, 500), 2170)];
    const fit = fitTrueUp(size, marks, null);
    expect(fit.model).toBe('unsized');
    expect(fit.unitMistakes).toMatchObject([
      { id: (marks[0] as TrueUpMark).id, looksLike: 'centimetres', isEither: true, mendedMm: 1300 },
      { id: (marks[1] as TrueUpMark).id, looksLike: 'millimetres, not centimetres', isEither: true, mendedMm: 217 },
    ]);
    // A resolution that can be trusted decides.
    expect(fitTrueUp(size, marks, 254).unitMistakes).toMatchObject([{ id: (marks[1] as TrueUpMark).id, isEither: false }]);
  });

  it('takes the corners of a frame in turn, however they were marked', () => {
    const corners = [at(100, 100), at(2100, 100), at(2100, 1100), at(100, 1100)];
    const right = fitTrueUp(size, [mark('frame', corners, 200, 100)], null);
    expect(right.crossedFrames).toEqual([]);
    for (const order of [
      [0, 2, 1, 3],
      [0, 1, 3, 2],
      [2, 0, 3, 1],
    ]) {
      // biome-ignore format: one line
      const crossed = mark('frame', order.map((k) => corners[k] as Point), 200, 100); // biome-ignore format: one line
      const fit = fitTrueUp(size, [crossed], null);
      expect(fit.crossedFrames).toEqual([crossed.id]);
      // Along both: a width taken for a height would be made good by a stretch.
      expect(fit.mmPerPxAlong.x).toBeCloseTo(0.1, 9);
      expect(fit.mmPerPxAlong.y).toBeCloseTo(0.1, 9);
      expect(Math.max(...fit.residuals.map((l) => Math.abs(l.offMm)))).toBeLessThan(1e-6);
    }
  });

  it('finds every slip of units with three marks or more, and says what it looks like', () => {
    const factors = [10, 25.4, 2.54, 12, 304.8, 1000];
    const words: Record<number, string> = {
      10: 'centimetres',
      25.4: 'inches',
      2.54: 'inches, not centimetres',
      12: 'feet, not inches',
      304.8: 'feet',
      1000: 'metres',
    };
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.integer({ min: 3, max: 7 }),
        fc.constantFrom(...factors),
        (seed, marksCount, factor) => {
          const random = seeded(seed);
          const marks = Array.from({ length: marksCount }, () => {
            const a = at(200 + 900 * random(), 300 + 2800 * random());
            const angle = 6.28 * random();
            const px = 250 + 600 * random();
            return length(noisy(random, a, 0.7), noisy(random, at(a.x + px * Math.cos(angle), a.y + px * Math.sin(angle)), 0.7), px * 0.1);
          });
          const which = Math.floor(random() * marksCount);
          const right = marks[which] as TrueUpMark;
          const wrong = { ...right, stated: [(right.stated[0] as number) / factor] };
          const { unitMistakes, mmPerPx } = fitTrueUp(
            size,
            marks.map((m) => (m === right ? wrong : m)),
            null,
          );
          expect(unitMistakes).toMatchObject([
            { id: right.id, factor, looksLike: words[factor], mendedMm: expect.closeTo(right.stated[0] as number, 6) },
          ]);
          expect(mmPerPx).toBeCloseTo(0.1, 2);
        },
      ),
      { numRuns: lawRuns(400) },
    );
  });

  it('names the one mark of many that does not agree', () => {
    const random = seeded(5);
    const marks = Array.from({ length: 6 }, (_, k) =>
      length(noisy(random, at(200, 300 + 400 * k), 0.7), noisy(random, at(1700, 350 + 400 * k), 0.7), 150.08),
    );
    const bad = { ...(marks[3] as TrueUpMark), stated: [154] };
    const fit = fitTrueUp(
      size,
      marks.map((m, k) => (k === 3 ? bad : m)),
      null,
    );
    expect(fit.outliers.map((s) => s.id)).toEqual([bad.id]);
    expect(fitTrueUp(size, marks, null).outliers).toEqual([]);
    const leverages = fit.residuals.map((l) => l.leverage);
    expect(leverages.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 6);
  });
});

const inversePoint = (p: Projection, q: Point): Point => {
  // Newton from the middle: written apart from the code's own inverse.
  let [x, y] = [1240, 1754];
  for (let k = 0; k < 60; k++) {
    const here = project(p, at(x, y));
    const [dx, dy] = [project(p, at(x + 1e-3, y)), project(p, at(x, y + 1e-3))];
    const [a, b, c, d] = [(dx.x - here.x) / 1e-3, (dx.y - here.y) / 1e-3, (dy.x - here.x) / 1e-3, (dy.y - here.y) / 1e-3];
    const det = a * d - b * c;
    x += (d * (q.x - here.x) - c * (q.y - here.y)) / det;
    y += (a * (q.y - here.y) - b * (q.x - here.x)) / det;
  }
  return at(x, y);
};

describe('the F distribution', () => {
  it('agrees with printed tables (Snedecor & Cochran, upper points, values from memory)', () => {
    expect(chanceOfF(4.103, 2, 10)).toBeCloseTo(0.05, 4);
    expect(chanceOfF(21.2, 1, 4)).toBeCloseTo(0.01, 4);
    expect(chanceOfF(4.938, 3, 20)).toBeCloseTo(0.01, 4);
  });
  it('with one degree on either side is the arctangent', () => {
    for (const f of [0.2, 1, 7]) expect(chanceOfF(f, 1, 1)).toBeCloseTo(1 - (2 / Math.PI) * Math.atan(Math.sqrt(f)), 12);
  });
});

describe('a size in words', () => {
  it('can be checked by eye', () => {
    expect(sizeInWords(31_600)).toBe('longer than a railway coach');
    expect(sizeInWords(13_000)).toBe('about as long as a bus');
    expect(sizeInWords(0.5)).toBe('smaller than a grain of rice');
  });
});

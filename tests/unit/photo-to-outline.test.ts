/** A photograph taken at an angle, brought to size by what is known in it, then traced: against the drawn truth. */
import { defaultTraceSettings, frameToTraceIn, newPicture, traceOnSheet } from '@nuvet/core/job';
import {
  apply,
  circlePath,
  inverseProjection,
  type Path,
  type Point,
  pathArea,
  pathBox,
  pathLength,
  polygonPath,
  project,
  transformedPath,
} from '@nuvet/core/plane';
import { greyPicture, onlyInside, paperCorners, sheetsFor, warped } from '@nuvet/core/raster';
import { tracePicture } from '@nuvet/core/trace';
import { findScaleCard, fitTrueUp, rectificationPlan, type TrueUpFit, type TrueUpMark } from '@nuvet/core/trueup';
import { deviationOf, onScaleCard, type Photo, photographScene, plateScene, rectangle, type Scene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';

const p = (x: number, y: number): Point => ({ x, y });

/** Marks as a person places them with a magnifier: to a tenth of a pixel. */
const placed = (p: Point): Point => ({ x: Math.round(p.x * 10) / 10, y: Math.round(p.y * 10) / 10 });

function rectified({ picture }: Photo, fit: TrueUpFit) {
  const plan = rectificationPlan(fit, fit.mmPerPx);
  const steps = warped({ width: picture.width, height: picture.height, grey: picture.data, colour: null }, plan);
  for (let step = steps.next(); ; step = steps.next())
    if (step.done) return { plan, flat: greyPicture(step.value.grey, step.value.width, step.value.height) };
}

/** The plate's outlines as traced, on the sheet. */
function outlinesOf(photo: Photo, fit: TrueUpFit): Path[] {
  const { plan, flat } = rectified(photo, fit);
  const picture = newPicture({
    id: '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10',
    name: 'x',
    widthPx: photo.picture.width,
    heightPx: photo.picture.height,
    resolution: null,
  });
  const { pieces } = traceOnSheet(picture, defaultTraceSettings, tracePicture(flat, plan.mmPerPx, defaultTraceSettings), plan, fit);
  const plate = pieces.flatMap((p) => [p, ...p.holes.map((outer) => ({ ...p, outer, holes: [] }))]);
  // The plate is what is as wide as a plate, with what lies in it.
  const whole = pieces.find((p) => Math.abs(pathBox(p.outer).maxX - pathBox(p.outer).minX - 90) < 3 && p.holes.length === 5);
  expect(whole, `${plate.length} outlines and no plate among them`).toBeDefined();
  return [(whole as NonNullable<typeof whole>).outer, ...(whole as NonNullable<typeof whole>).holes];
}

/** Where the truth lies on the sheet of a fit that was made from known corners: moved, not turned. */
function truthAt(photo: Photo, fit: TrueUpFit): Path[] {
  const home = project(fit.projection, photo.at({ x: 0, y: 0 }));
  const truth = plateScene.pieces.flatMap((p) => [p.outer, ...p.holes]);
  return truth.map((path) => transformedPath(path, { a: 1, b: 0, c: 0, d: 1, e: home.x, f: home.y }));
}

const sheet: Scene = { ...plateScene, widthMm: 180, heightMm: 130 };

describe('the plate photographed at an angle', () => {
  it.each([
    [12, 40],
    [25, 70],
    [35, 110],
    [30, 200],
  ])(
    // biome-ignore format: tilts
    'of %f degrees, leaning to %f, its frame stated: within 0.15 mm of the truth everywhere',
    (tiltDegrees, leanDegrees) => {
      const photo = photographScene(sheet, { widthPx: 4000, heightPx: 3000, tiltDegrees, leanDegrees, turnDegrees: 3, seed: tiltDegrees });
      const corners = [[0, 130], [180, 130], [180, 0], [0, 0]].map(([x, y]) => placed(photo.at({ x, y } as Point))); // biome-ignore format: corners
      const frame: TrueUpMark = { kind: 'frame', id: 'sheet', points: corners, stated: [180, 130] };
      const fit = fitTrueUp({ widthPx: 4000, heightPx: 3000 }, [frame], 72);
      expect(fit.model).toBe('perspective');
      const { worstMm, rmsMm } = deviationOf(outlinesOf(photo, fit), truthAt(photo, fit));
      expect(worstMm).toBeLessThan(0.15);
      expect(rmsMm).toBeLessThan(0.06);
    },
  );
  it('and the paper found by itself: as good as by hand', () => {
    const a4: Scene = { ...plateScene, widthMm: 297, heightMm: 210 };
    const photo = photographScene(a4, { widthPx: 4000, heightPx: 3000, tiltDegrees: 22, seed: 8 });
    const corners = paperCorners(photo.picture) as [Point, Point, Point, Point];
    const { isFirstLong, sheets } = sheetsFor(corners, photo.picture);
    expect([isFirstLong, sheets[0]?.name]).toEqual([true, 'A4']);
    const fit = fitTrueUp({ widthPx: 4000, heightPx: 3000 }, [{ kind: 'frame', id: 'paper', points: corners, stated: [297, 210] }], null);
    const [outer] = outlinesOf(photo, fit);
    const box = pathBox(outer as Path);
    expect(Math.abs(box.maxX - box.minX - 90)).toBeLessThan(0.15);
    expect(Math.abs(box.maxY - box.minY - 60)).toBeLessThan(0.15);
  });
});

describe('a dark figure photographed where the light falls off', () => {
  const kite = polygonPath([p(105, 30), p(165, 170), p(105, 260), p(45, 170)]);
  const rings = [circlePath(p(40, 50), 20), circlePath(p(170, 50), 20)];
  const figures: Scene = {
    widthMm: 210,
    heightMm: 297,
    pieces: [kite, ...rings].map((outer) => ({ outer, holes: [] })),
  } as unknown as Scene;

  it.each([
    [12, 40, 0.82],
    [25, 70, 0.55],
    [32, 110, 0.7],
  ])('of %f degrees, leaning to %f, filling %f: no wider than it is, by a hundredth of a millimetre', (tiltDegrees, leanDegrees, fill) => {
    const photo = photographScene(figures, { widthPx: 3000, heightPx: 4000, tiltDegrees, leanDegrees, fill, seed: 7 });
    const corners = [p(0, 297), p(210, 297), p(210, 0), p(0, 0)].map((at) => photo.at(at));
    const fit = fitTrueUp({ widthPx: 3000, heightPx: 4000 }, [{ kind: 'frame', id: 'sheet', points: corners, stated: [210, 297] }], null);
    const { plan, flat } = rectified(photo, fit);
    const frame = frameToTraceIn(
      [corners.map((at) => project(inverseProjection(plan.toOriginal), at))],
      plan.mmPerPx,
      defaultTraceSettings,
      flat,
    );
    const { pieces } = tracePicture(onlyInside(flat, frame as Point[]), plan.mmPerPx, defaultTraceSettings);
    // The room about the sheet is not traced, nor its edge.
    expect(pieces.length).toBe(3);
    for (const truth of [kite, ...rings]) {
      const found = pieces
        .map(({ outer }) => transformedPath(outer, plan.toSheet))
        .find((path) => Math.abs(pathLength(path) - pathLength(truth)) < 0.01 * pathLength(truth));
      // Set off by d all along, an outline gains d times its length.
      expect(Math.abs(Math.abs(pathArea(found as Path)) - Math.abs(pathArea(truth))) / pathLength(truth)).toBeLessThan(0.01);
    }
  });

  it('a rectangle drawn on the paper limits nothing, a sheet on its ground does', () => {
    const drawn: Scene = {
      ...figures,
      pieces: [{ outer: rectangle(20, 20, 170, 257), holes: [rectangle(21, 21, 168, 255)] }],
    } as unknown as Scene;
    const photo = photographScene(drawn, { widthPx: 1500, heightPx: 2000, tiltDegrees: 15, seed: 7 });
    const at = (x: number, y: number, w: number, h: number) => [p(x, y), p(x + w, y), p(x + w, y + h), p(x, y + h)].map((q) => photo.at(q));
    expect(frameToTraceIn([at(20, 20, 170, 257)], 0.2, defaultTraceSettings, photo.picture)).toBeNull();
    const sheetFrame = at(0, 0, 210, 297);
    expect(frameToTraceIn([sheetFrame], 0.2, defaultTraceSettings, photo.picture)).toHaveLength(4);
    // Marked crosswise it is the same sheet; where it is asked for, its surroundings are traced, too.
    const crosswise = [0, 2, 1, 3].map((k) => sheetFrame[k] as Point);
    expect(frameToTraceIn([crosswise], 0.2, defaultTraceSettings, photo.picture)).toHaveLength(4);
    expect(frameToTraceIn([sheetFrame], 0.2, { ...defaultTraceSettings, aroundFrame: true }, photo.picture)).toBeNull();
  });
});

describe('the scale card', () => {
  it.each([0, 15, 28, 35])('photographed at %f degrees gives the size within 0.3 percent, straight and square', (tiltDegrees) => {
    const photo = photographScene(onScaleCard(plateScene, { x: 45, y: 100 }), {
      widthPx: 3000,
      heightPx: 4000,
      tiltDegrees,
      turnDegrees: 8,
      leanDegrees: 30,
      seed: 3,
    });
    const card = findScaleCard(photo.picture);
    expect(card?.markers).toBe(4);
    const mark: TrueUpMark = { kind: 'scale-card', id: 'card', points: card?.points ?? [], places: card?.places ?? [], stated: [100] };
    const fit = fitTrueUp({ widthPx: 3000, heightPx: 4000 }, [mark], null);
    const [outer] = outlinesOf(photo, fit);
    const { minX, minY, maxX, maxY } = pathBox(outer as Path);
    expect(Math.abs(maxX - minX - 90) / 90).toBeLessThan(0.003);
    expect(Math.abs(maxY - minY - 60) / 60).toBeLessThan(0.003);
  });
});

describe('laying a picture flat', () => {
  const ramp = {
    width: 300,
    height: 200,
    grey: Uint8Array.from({ length: 60_000 }, (_, k) => Math.round(40 + 0.5 * (k % 300) + 0.1 * Math.floor(k / 300))),
    colour: null,
  };
  const run = (
    toOriginal: Parameters<typeof warped>[1]['toOriginal'],
    width: number,
    height: number,
    source: Parameters<typeof warped>[0] = ramp,
  ) => {
    const steps = warped(source, { widthPx: width, heightPx: height, toOriginal });
    for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
  };
  it('as it is gives every pixel back, and two halves are the whole', () => {
    const same = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0, g: 0, h: 0, i: 1 };
    expect(run(same, 300, 200).grey).toEqual(ramp.grey);
    const plan = { widthPx: 300, heightPx: 200, toOriginal: same };
    const half = (from: number, to: number) => {
      const steps = warped(ramp, plan, from, to);
      for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value.grey;
    };
    expect(Buffer.concat([half(0, 70), half(70, 200)])).toEqual(Buffer.from(ramp.grey));
  });
  it('a ramp stays a ramp wherever it is taken from (cubic convolution is exact on lines)', () => {
    const toOriginal = { a: 1.1, b: 0.06, c: -0.05, d: 0.9, e: 20, f: 15, g: 2e-4, h: 1e-4, i: 1 };
    const { grey } = run(toOriginal, 150, 120);
    for (let y = 8; y < 112; y += 9)
      for (let x = 8; x < 142; x += 9) {
        const p = project(toOriginal, { x: x + 0.5, y: y + 0.5 });
        expect(Math.abs((grey[y * 150 + x] as number) - (40 + 0.5 * (p.x - 0.5) + 0.1 * (p.y - 0.5)))).toBeLessThan(1.2);
      }
  });
  it('shrunk eight times, every pixel of the original counts: the mean of noise stays the mean', () => {
    let state = 5;
    const next = () => {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
      return state >>> 24;
    };
    const noise = {
      width: 800,
      height: 800,
      grey: Uint8Array.from({ length: 640_000 }, next),
      colour: null,
    };
    const { grey } = run({ ...apply8(), g: 0, h: 0, i: 1 }, 100, 100, noise);
    const inner = Array.from(grey).filter((_, k) => k % 100 > 3 && k % 100 < 96);
    const mean = inner.reduce((a, b) => a + b, 0) / inner.length;
    const spread = Math.sqrt(inner.reduce((a, b) => a + (b - mean) ** 2, 0) / inner.length);
    expect(Math.abs(mean - 127.5)).toBeLessThan(1);
    // 74 for single pixels, an eighth of it for means of 64.
    expect(spread).toBeLessThan(16);
  });
  it('colours keep their hue', () => {
    const count = 100 * 100;
    const colour = new Uint8Array(3 * count);
    for (let k = 0; k < count; k++) colour.set([200, 90, 40], 3 * k);
    const source = { width: 100, height: 100, grey: new Uint8Array(count).fill(109), colour };
    const made = run({ a: 0.7, b: 0.1, c: -0.1, d: 0.7, e: 20, f: 20, g: 0, h: 0, i: 1 }, 60, 60, source);
    expect([...(made.colour as Uint8Array).slice(3 * 1830, 3 * 1831)]).toEqual([200, 90, 40]);
  });
});

const apply8 = () => {
  const unit = apply({ a: 8, b: 0, c: 0, d: 8, e: 0, f: 0 }, { x: 1, y: 1 });
  return { a: unit.x, b: 0, c: 0, d: unit.y, e: 0, f: 0 };
};

/** What is shown and traced of a picture: the picture itself, or the working copy of a photograph. */
import { describe, expect, it } from 'vitest';
import { apply, distance, type Point, project } from '../plane/index.ts';
import {
  applyCommand,
  defaultTraceSettings,
  emptyJob,
  fitOf,
  fromOriginal,
  isWaiting,
  type Mark,
  measuredBy,
  newPicture,
  type Picture,
  pullingMarks,
  rasterSourceOf,
  rectifiedPlanOf,
  sheetBoxOf,
  shownBoxOf,
} from './index.ts';

const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
const plain = newPicture({ id, name: 'x.jpg', widthPx: 1600, heightPx: 1200, resolution: { dpi: 200, source: 'exif', trusted: true } });
const seen: Point[] = [
  { x: 300, y: 250 },
  { x: 1250, y: 310 },
  { x: 1380, y: 1000 },
  { x: 180, y: 930 },
];
const frame: Mark = { id: 'f', kind: 'frame', points: seen, stated: [{ text: '180 mm', value: 180 }, { text: '13 cm', value: 130 }] }; // biome-ignore format: one line
const photo: Picture = { ...plain, resolution: null, marks: [frame] };

describe('a box of which one side is known', () => {
  it.each([
    [1000, 500, [100, null], 0.1],
    [1000, 500, [null, 100], 0.2],
    [400, 900, [100, null], 0.25],
    [400, 900, [null, 90], 0.1],
  ] as const)('%i x %i px by %j mm has the scale of that side alone', (wide, high, sides, mmPerPx) => {
    const corners = [{ x: 100, y: 100 }, { x: 100 + wide, y: 100 }, { x: 100 + wide, y: 100 + high }, { x: 100, y: 100 + high }]; // biome-ignore format: corners
    const box: Mark = { id: 'b', kind: 'box', points: corners, stated: sides.map((value) => ({ text: String(value ?? ''), value })) };
    const fit = fitOf({ ...photo, marks: [box] });
    expect(fit.mmPerPxAlong.x).toBeCloseTo(mmPerPx, 9);
    expect(fit.mmPerPxAlong.y).toBeCloseTo(mmPerPx, 9);
  });
});

describe('the surface of a picture', () => {
  it('is the picture itself where no perspective has to be taken out', () => {
    expect(rectifiedPlanOf(plain)).toBeNull();
    const raster = rasterSourceOf(plain, 'never used');
    expect(raster).toMatchObject({ id, widthPx: 1600, heightPx: 1200, toOriginal: null });
    expect(fromOriginal(raster)).toBeNull();
  });
  it('is the working copy of a photograph: each of its pixels lies where the fit puts the original’s', () => {
    const fit = fitOf(photo);
    expect(fit.model).toBe('perspective');
    const raster = rasterSourceOf(photo, 'copy');
    const back = fromOriginal(raster);
    expect(raster.id).toBe('copy');
    for (const p of [...seen, { x: 800, y: 600 }]) {
      const onCopy = project(back as NonNullable<typeof back>, p);
      expect(distance(apply(raster.toSheet, onCopy), project(fit.projection, p))).toBeLessThan(1e-6);
      expect(distance(project(raster.toOriginal as NonNullable<typeof raster.toOriginal>, onCopy), p)).toBeLessThan(1e-6);
    }
    // Without the copy the photograph is shown as it is.
    expect(rasterSourceOf(photo, null)).toMatchObject({ id, toOriginal: null });
  });
  it('has about as many pixels as the photograph, and a key that moving the picture about does not change', () => {
    const plan = rectifiedPlanOf(photo);
    const pixels = (plan?.widthPx ?? 0) * (plan?.heightPx ?? 0);
    expect(pixels).toBeLessThan(1.15 * 1600 * 1200);
    expect(rectifiedPlanOf({ ...photo, opacity: 0.5 })?.key).toBe(plan?.key);
    expect(rectifiedPlanOf({ ...photo, place: { x: 40, y: -7 } })?.key).toBe(plan?.key);
    const moved = { ...photo, marks: [{ ...frame, points: [{ x: 305, y: 250 }, ...seen.slice(1)] }] };
    expect(rectifiedPlanOf(moved)?.key).not.toBe(plan?.key);
  });
  it('traced pieces follow from one perspective to another by their corners', () => {
    const job = applyCommand(emptyJob('x'), { do: 'bring-in', picture: photo });
    const fit = fitOf(photo);
    const corners = seen.map((p) => project(fit.projection, p));
    const [start, ...rest] = corners as [Point, ...Point[]];
    const outer = { start, segments: [...rest, start].map((to) => ({ kind: 'line' as const, to })), closed: true };
    const piece = { id: 'p', name: 'Piece 1', purpose: 'cut' as const, leftOut: false, runsOff: false, outer, holes: [] };
    const trace = { pictureId: id, settings: defaultTraceSettings, threshold: 128, dropped: 0, insideFrame: false, mmPerPx: fit.mmPerPx, toSheet: fit.toSheet, projection: fit.projection, pieces: [piece] }; // biome-ignore format: a trace
    const traced = applyCommand(job, { do: 'set-trace', trace });
    const larger = applyCommand(traced, { do: 'state', pictureId: id, markId: 'f', index: 0, text: '190 mm', value: 190 });
    const now = fitOf(larger.pictures[0] as Picture);
    larger.traces[0]?.pieces[0]?.outer.segments.forEach((s, k) => {
      expect(distance(s.to, project(now.projection, seen[(k + 1) % 4] as Point))).toBeLessThan(1e-6);
    });
  });
  it('a crop is what counts as shown', () => {
    const cropped = { ...plain, crop: [{ x: 0, y: 0 }, { x: 400, y: 0 }, { x: 400, y: 300 }, { x: 0, y: 300 }] }; // biome-ignore format: one line
    const box = shownBoxOf(cropped);
    expect(box.maxX - box.minX).toBeCloseTo((400 / 200) * 25.4, 9);
    expect(sheetBoxOf({ pictures: [cropped], drawings: [] })).toEqual(box);
    expect(shownBoxOf(plain)).toEqual(fitOf(plain).sheetBox);
    expect(sheetBoxOf({ pictures: [], drawings: [] }).maxX).toBeGreaterThan(0);
  });
});

describe('marks of a job', () => {
  const mark = (kind: Mark['kind'], points: Point[], values: (number | null)[]): Mark => ({
    id: kind,
    kind,
    points,
    stated: values.map((value) => ({ text: value === null ? '' : String(value), value })),
  });
  const [a, b, c] = [{ x: 0, y: 0 }, { x: 300, y: 0 }, { x: 300, y: 400 }]; // biome-ignore format: a 3-4-5 triangle
  it('pull once all that they state is typed; checks never do', () => {
    const marks = [
      mark('known-length', [a, b], [null]),
      mark('level', [a, b], []),
      mark('check', [a, c], [50]),
      mark('clearance', [b, c], [3, 0]),
    ];
    expect(pullingMarks({ ...plain, marks }).map((m) => m.kind)).toEqual(['level', 'clearance']);
    expect(marks.map(isWaiting)).toEqual([true, false, false, false]);
  });
  it('measure in mm and degrees what they lie on', () => {
    const fit = fitOf({ ...plain, resolution: { dpi: 254, source: 'stated', trusted: true } });
    const value = (kind: Mark['kind'], points: Point[]) => measuredBy({ kind, points }, fit)?.value;
    expect(value('check', [a, c])).toBeCloseTo(50, 9);
    expect(value('check-along', [a, b, c])).toBeCloseTo(70, 9);
    expect(value('check-angle', [a, b, c])).toBeCloseTo(90, 9);
    // The circle through a right triangle has its longest side as diameter (Thales).
    expect(value('check-radius', [a, b, c])).toBeCloseTo(25, 9);
    expect(measuredBy({ kind: 'level', points: [a, b] }, fit)).toBeNull();
  });
});

import {
  deviationOf,
  fullSheetScene,
  plateScene,
  type Scan,
  type Scene,
  scanScene,
  smoothScene,
  starScene,
  straightScene,
} from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import {
  type ArcSegment,
  axesOf,
  circleOf,
  directionOn,
  dot,
  type EllipseSegment,
  inverse,
  type Path,
  type Point,
  pathArea,
  pathBox,
  stepsOf,
  transformedPath,
} from '../plane/index.ts';
import { greyPicture } from '../raster/index.ts';
import { findInk, fitInk, plainTraceSettings, type Trace, tracePicture } from './index.ts';

const settings = plainTraceSettings;
const scenes: Scene[] = [plateScene, starScene, straightScene, smoothScene, fullSheetScene()];
const scans = scenes.flatMap((scene) => [
  { scene, scan: scanScene(scene, { dpi: 300, tiltDegrees: 0.7, noise: 4, seed: 11 }) },
  { scene, scan: scanScene(scene, { dpi: 300, tiltDegrees: -3, noise: 6, seed: 12 }) },
]);
const traced = (scan: Scan) => tracePicture(scan.picture, scan.mmPerPx, settings);
/** All outlines of a trace, brought to the sheet by the scan's true transform. */
const onSheet = (trace: Trace, scan: Scan): Path[] =>
  trace.pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map((path) => transformedPath(path, inverse(scan.toPixels)));
const truthOf = (scene: Scene): Path[] => scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
const corners = (path: Path): Point[] => path.segments.map((s) => s.to);

describe.each(scans)('$scene.name scanned at 300 dpi', ({ scene, scan }) => {
  const trace = traced(scan);
  it('has the right number of pieces and holes', () => {
    expect(trace.pieces).toHaveLength(scene.pieces.length);
    const holes = (list: readonly { holes: readonly Path[] }[]) => list.map((p) => p.holes.length).sort();
    expect(holes(trace.pieces)).toEqual(holes(scene.pieces));
  });
  it('lies within 0.01 mm RMS and 0.1 mm at worst of the truth', () => {
    const { rmsMm, worstMm } = deviationOf(onSheet(trace, scan), truthOf(scene));
    expect(rmsMm).toBeLessThan(0.01);
    expect(worstMm).toBeLessThan(0.1);
  });
  it('has the true overall width and height within 0.05 mm', () => {
    const overall = (paths: Path[]) => {
      const boxes = paths.map(pathBox);
      const [minX, maxX] = [Math.min(...boxes.map((b) => b.minX)), Math.max(...boxes.map((b) => b.maxX))];
      const [minY, maxY] = [Math.min(...boxes.map((b) => b.minY)), Math.max(...boxes.map((b) => b.maxY))];
      return { width: maxX - minX, height: maxY - minY };
    };
    const [ours, truth] = [overall(onSheet(trace, scan)), overall(truthOf(scene))];
    expect(Math.abs(ours.width - truth.width)).toBeLessThan(0.05);
    expect(Math.abs(ours.height - truth.height)).toBeLessThan(0.05);
  });
});

describe('straight-sided figures', () => {
  it.each(scans.filter(({ scene }) => scene === starScene || scene === straightScene))(
    'come out as one line a side, corners within 0.1 mm ($scene.name)',
    ({ scene, scan }) => {
      const paths = onSheet(traced(scan), scan);
      const truth = truthOf(scene);
      expect(paths.flatMap((p) => p.segments).every((s) => s.kind === 'line')).toBe(true);
      expect(paths.reduce((n, p) => n + p.segments.length, 0)).toBe(truth.reduce((n, p) => n + p.segments.length, 0));
      const found = paths.flatMap(corners);
      for (const corner of truth.flatMap(corners)) {
        expect(Math.min(...found.map((p) => Math.hypot(p.x - corner.x, p.y - corner.y)))).toBeLessThan(0.1);
      }
    },
  );
  it('a five-pointed star is ten lines', () => {
    const { pieces } = traced(scanScene(starScene, { dpi: 300, tiltDegrees: 2.3, noise: 5, seed: 5 }));
    expect(pieces[0]?.outer.segments.map((s) => s.kind)).toEqual(Array(10).fill('line'));
  });
});

describe('figures that are what they are', () => {
  const figures = (path: Path) => stepsOf(path).map(({ segment }) => segment.kind);
  it.each(scans.filter(({ scene }) => scene === plateScene))(
    'the plate is four lines and four tangent arcs, its holes circles, its oval an ellipse (noise $scan.settings.noise)',
    ({ scan }) => {
      const [plate] = traced(scan).pieces;
      if (!plate) throw new Error('no plate');
      const [outer, ...holes] = [plate.outer, ...plate.holes].map((path) => transformedPath(path, inverse(scan.toPixels))) as [
        Path,
        ...Path[],
      ];
      expect(figures(outer).toSorted()).toEqual(['arc', 'arc', 'arc', 'arc', 'line', 'line', 'line', 'line']);
      const steps = stepsOf(outer);
      steps.forEach(({ from, segment }, k) => {
        const before = steps.at(k - 1) as (typeof steps)[0];
        expect(dot(directionOn(before.from, before.segment, 1), directionOn(from, segment, 0))).toBeGreaterThan(Math.cos(1e-4));
        if (segment.kind === 'arc') expect(Math.abs(circleOf(from, segment).radius - 8)).toBeLessThan(0.01);
      });
      const circles = holes.filter((path) => path.segments[0]?.kind === 'arc');
      expect(circles.map((path) => path.segments.length)).toEqual([2, 2, 2, 2]);
      for (const path of circles) expect(Math.abs(circleOf(path.start, path.segments[0] as ArcSegment).radius - 3)).toBeLessThan(0.006);
      const [oval] = holes.filter((path) => path.segments[0]?.kind === 'ellipse');
      const axes = axesOf(oval?.start as Point, oval?.segments[0] as EllipseSegment);
      expect(Math.abs(axes.major - 15)).toBeLessThan(0.006);
      expect(Math.abs(axes.minor - 8)).toBeLessThan(0.006);
    },
  );
  it('a free curve is no circle, and an egg no ellipse', () => {
    const scan = scanScene(smoothScene, { dpi: 300, noise: 5, seed: 3 });
    const kinds = traced(scan).pieces.flatMap(({ outer }) => [new Set(figures(outer))]);
    expect(kinds.filter((set) => set.has('cubic')).length).toBe(2);
    expect(kinds.filter((set) => set.size === 1 && set.has('arc')).length).toBe(2);
  });
});

describe('smooth outlines', () => {
  it('have no kink where their curves join', () => {
    const scan = scanScene(smoothScene, { dpi: 300, tiltDegrees: 1, noise: 5, seed: 8 });
    // The largest piece is the ring, the next one the leaf, which has two tips.
    const pebble = traced(scan).pieces[2]?.outer as Path;
    expect(pebble.segments.length).toBeGreaterThan(4);
    const steps = stepsOf(pebble);
    steps.forEach(({ from, segment }, k) => {
      const before = steps.at(k - 1) as (typeof steps)[0];
      expect(dot(directionOn(before.from, before.segment, 1), directionOn(from, segment, 0))).toBeGreaterThan(Math.cos(1e-5));
    });
  });
  it('take fewer segments when the tolerance is wider', () => {
    const scan = scanScene(smoothScene, { dpi: 300, noise: 5 });
    const count = (toleranceMm: number) =>
      tracePicture(scan.picture, scan.mmPerPx, { ...settings, toleranceMm }).pieces.reduce((n, p) => n + p.outer.segments.length, 0);
    expect(count(0.5)).toBeLessThan(count(0.05));
  });
});

describe('other pictures', () => {
  it('a one-bit scan stays within 0.03 mm RMS', () => {
    const scan = scanScene(plateScene, { dpi: 300, tiltDegrees: 2, seed: 4 });
    const bits = greyPicture(
      scan.picture.data.map((v) => (v < 137 ? 0 : 255)),
      scan.picture.width,
      scan.picture.height,
    );
    const trace = tracePicture(bits, scan.mmPerPx, settings);
    expect(deviationOf(onSheet(trace, scan), truthOf(plateScene)).rmsMm).toBeLessThan(0.03);
  });
  it('blank paper gives no piece', () => {
    const blank = scanScene({ name: 'blank', widthMm: 50, heightMm: 50, pieces: [] }, { dpi: 300, noise: 5 });
    expect(traced(blank).pieces).toEqual([]);
    expect(tracePicture(greyPicture(new Uint8Array(100).fill(200), 10, 10), 0.1, settings).pieces).toEqual([]);
  });
  it('ink that runs off the picture closes along the edge and says so', () => {
    const data = new Uint8Array(80 * 60).fill(230);
    for (let y = 20; y < 40; y++) data.fill(30, y * 80, y * 80 + 50);
    const [piece] = tracePicture(greyPicture(data, 80, 60), 0.2, settings).pieces;
    expect(piece?.runsOff).toBe(true);
    expect(pathBox(piece?.outer as Path)).toMatchObject({ minX: expect.closeTo(0, 0), maxX: expect.closeTo(50, 0) });
  });
  it('every threshold, tolerance and size is survived', () => {
    const { picture, mmPerPx } = scanScene(plateScene, { dpi: 75, noise: 6 });
    const inkAreas = [0, 1, 60, 200, 234, 254, 255].map((threshold) => {
      const traces = [0.005, 2].map((toleranceMm) =>
        tracePicture(picture, mmPerPx, { ...settings, threshold, toleranceMm, smallestMm: 0 }),
      );
      for (const path of traces.flatMap(({ pieces }) => pieces.flatMap(({ outer, holes }) => [outer, ...holes]))) {
        expect(path.closed).toBe(true);
        // In the paper's own noise a corner may be set off by what its softness could hide; everywhere else nothing leaves the sheet.
        const room = threshold === 234 ? 40 : 1;
        const { minX, minY, maxX, maxY } = pathBox(path);
        expect(Math.min(minX, minY)).toBeGreaterThan(-room);
        expect(maxX).toBeLessThan(picture.width + room);
        expect(maxY).toBeLessThan(picture.height + room);
      }
      const [fine] = traces as [Trace];
      return fine.pieces.reduce((sum, { outer, holes }) => sum + [outer, ...holes].reduce((s, path) => s + pathArea(path), 0), 0);
    });
    // The lighter what still counts as ink, the more ink there is: from none to the whole sheet.
    for (const [k, area] of inkAreas.entries()) expect(Math.abs(area)).toBeGreaterThanOrEqual(Math.abs(inkAreas[k - 1] ?? 0));
    expect(inkAreas[0]).toBe(0);
    expect(Math.abs(inkAreas[2] as number)).toBeGreaterThan(0);
  });
  it('can be stopped between steps, and the same borders serve another tolerance', () => {
    const { picture, mmPerPx } = scanScene(fullSheetScene(), { dpi: 200 });
    const ink = findInk(picture, mmPerPx, settings);
    const steps = fitInk(ink, mmPerPx, settings);
    const first = steps.next();
    expect(first.done).toBe(false);
    expect(first.value).toBeGreaterThan(0);
    const finish = (toleranceMm: number): Trace => {
      const run = fitInk(ink, mmPerPx, { ...settings, toleranceMm });
      for (let step = run.next(); ; step = run.next()) if (step.done) return step.value;
    };
    expect(finish(0.3)).toEqual(tracePicture(picture, mmPerPx, { ...settings, toleranceMm: 0.3 }));
  });
});

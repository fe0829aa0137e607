/** What the tracing worker reads of a picture and keeps, and the first looks that it takes from it. */
import {
  defaultTraceSettings,
  type JobTraceSettings,
  newPicture,
  type Picture,
  type Piece,
  type RasterSource,
  rasterSourceOf,
} from '@nuvet/core/job';
import { centreOf, distance, nearestOnPath, pathArea, pathBox, polygonOf } from '@nuvet/core/plane';
import type { GreyPicture } from '@nuvet/core/raster';
import { deviationOf, fullSheetScene, plateScene, type Scene, scanScene } from '@nuvet/truth';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { coarseTrace, prepareLooks } from './coarse-trace';
import { holding, noProgress, pictureBorders } from './held-picture';
import { runInSlices } from './slices';

const settings: JobTraceSettings = { ...defaultTraceSettings, toleranceMm: 0.1, smallestMm: 1 };
let count = 0;

/** A picture of a scene as the job has it, brought to its size, each with a number of its own. */
function scanned(scene: Scene, dpi: number): { grey: GreyPicture; picture: Picture; raster: RasterSource; mmPerPx: number } {
  const { picture: grey, mmPerPx } = scanScene(scene, { dpi, seed: 3 });
  const id = `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;
  const resolution = { dpi, source: 'png', trusted: true } as const;
  const picture = newPicture({ id, name: 'scan.png', widthPx: grey.width, heightPx: grey.height, resolution });
  return { grey, picture, raster: rasterSourceOf(picture, null), mmPerPx };
}

const asked: string[] = [];
let answer: () => Response;
beforeEach(() => {
  asked.length = 0;
  vi.stubGlobal('fetch', async (address: string) => {
    asked.push(address);
    return answer();
  });
});
afterEach(() => vi.unstubAllGlobals());
const serving = ({ data }: GreyPicture) => {
  answer = () => new Response(data.slice() as Uint8Array<ArrayBuffer>);
};
const wanted = () => true;

describe('borders', () => {
  it('are found once for every tolerance, the pixels read once, with the share that has come', async () => {
    const { grey, picture, raster } = scanned(plateScene, 100);
    serving(grey);
    const shares: number[] = [];
    const first = await pictureBorders(picture, raster, settings, wanted, (share) => shares.push(share), noProgress);
    expect(await pictureBorders(picture, raster, { ...settings, toleranceMm: 0.4 }, wanted, noProgress, noProgress)).toBe(first);
    expect(await pictureBorders(picture, raster, { ...settings, inverted: true }, wanted, noProgress, noProgress)).not.toBe(first);
    expect(asked).toEqual([`/api/pictures/${picture.id}/grey`]);
    expect(shares.at(-1)).toBe(1);
  });
  it('are those within the crop and what the trace is limited to; the rest counts as paper', async () => {
    const { grey, picture, raster } = scanned(fullSheetScene(), 60);
    serving(grey);
    const all = await pictureBorders(picture, raster, settings, wanted, noProgress, noProgress);
    const half = [{ x: 0, y: 0 }, { x: grey.width / 2, y: 0 }, { x: grey.width / 2, y: grey.height }, { x: 0, y: grey.height }]; // biome-ignore format: corners
    const left = await pictureBorders({ ...picture, crop: half }, raster, settings, wanted, noProgress, noProgress);
    const top = half.map(({ x, y }) => ({ x: 2 * x, y: y / 2 }));
    const corner = await pictureBorders({ ...picture, crop: half }, raster, { ...settings, within: top }, wanted, noProgress, noProgress);
    const [n, m, k] = [all, left, corner].map((borders) => borders?.contours.length ?? 0) as [number, number, number];
    expect(m / n).toBeGreaterThan(0.4);
    expect(m / n).toBeLessThan(0.65);
    expect(k / m).toBeLessThan(0.7);
    for (const points of left?.contours ?? [])
      for (let i = 0; i < points.length; i += 2) expect(points[i]).toBeLessThan(grey.width / 2 + 1);
    expect(asked).toHaveLength(1);
  });
  it('come to nothing once they are no longer wanted, or say that the picture could not be read', async () => {
    const { grey, picture, raster } = scanned(plateScene, 80);
    serving(grey);
    expect(await pictureBorders(picture, raster, settings, () => false, noProgress, noProgress)).toBeNull();
    const other = scanned(plateScene, 70);
    answer = () => new Response(null, { status: 404 });
    await expect(pictureBorders(other.picture, other.raster, settings, wanted, noProgress, noProgress)).rejects.toThrow(
      'could not be read',
    );
    // The next attempt reads it anew.
    serving(other.grey);
    expect((await pictureBorders(other.picture, other.raster, settings, wanted, noProgress, noProgress))?.contours.length).toBeGreaterThan(
      0,
    );
  });
  it('of another picture let the one before go', async () => {
    const [a, b] = [scanned(plateScene, 60), scanned(plateScene, 50)];
    serving(a.grey);
    await pictureBorders(a.picture, a.raster, settings, wanted, noProgress, noProgress);
    serving(b.grey);
    await pictureBorders(b.picture, b.raster, settings, wanted, noProgress, noProgress);
    expect(holding(b.raster).grey?.width).toBe(b.grey.width);
    expect(holding(a.raster).grey).toBeUndefined();
  });
});

describe('work in steps', () => {
  function* slow(steps: number): Generator<number, string> {
    for (let k = 0; k < steps; k++) {
      const since = performance.now();
      while (performance.now() - since < 8);
      yield k / steps;
    }
    return 'done';
  }
  it('tells how far it is, and comes to its end', async () => {
    const shares: number[] = [];
    expect(await runInSlices(slow(12), (share) => shares.push(share))).toBe('done');
    expect(shares.length).toBeGreaterThan(0);
    expect(shares).toEqual(shares.toSorted((a, b) => a - b));
  });
  it('stops where it stands when it is no longer wanted', async () => {
    let isWanted = true;
    setTimeout(() => {
      isWanted = false;
    });
    expect(await runInSlices(slow(400), noProgress, () => isWanted)).toBeNull();
  });
});

describe('a first look', () => {
  it('has every piece of the scene, each within a coarse pixel of where it is', async () => {
    const scene = fullSheetScene();
    const { grey, picture, raster, mmPerPx } = scanned(scene, 300);
    serving(grey);
    expect(coarseTrace(picture, raster, settings)).toBeNull();
    await pictureBorders(picture, raster, settings, wanted, noProgress, noProgress);
    const look = coarseTrace(picture, raster, settings);
    expect(look?.pieces).toHaveLength(scene.pieces.length);
    const factor = (look?.mmPerPx ?? 0) / mmPerPx;
    expect(factor).toBeCloseTo(4, 9);
    // Every corner of it lies on the outline of the piece whose middle is nearest.
    const near = (piece: Piece) =>
      scene.pieces.reduce((best, one) =>
        distance(centreOf(pathBox(one.outer)), centreOf(pathBox(piece.outer))) < distance(centreOf(pathBox(best.outer)), centreOf(pathBox(piece.outer))) ? one : best,
      ); // biome-ignore format: one choice
    for (const piece of look?.pieces ?? []) {
      const truth = near(piece);
      expect(pathArea(piece.outer) / pathArea(truth.outer)).toBeCloseTo(1, 0.5);
      for (const p of polygonOf(piece.outer, 0.1)) expect(nearestOnPath(truth.outer, p).distance).toBeLessThan(2.5 * (look?.mmPerPx ?? 0));
    }
    const off = deviationOf(look?.pieces.flatMap(({ outer, holes }) => [outer, ...holes]) ?? [], scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes])); // biome-ignore format: one call
    expect(off.rmsMm).toBeLessThan(0.6 * (look?.mmPerPx ?? 0));
  });
  it('follows the tolerance with fewer corners, from the ink that it has', async () => {
    const { grey, picture, raster } = scanned(plateScene, 600);
    serving(grey);
    await pictureBorders(picture, raster, settings, wanted, noProgress, noProgress);
    prepareLooks(picture, raster, settings);
    const ink = holding(raster).coarseInk?.ink;
    const corners = [0.05, 0.3, 1, 2].map(
      (toleranceMm) =>
        coarseTrace(picture, raster, { ...settings, toleranceMm })?.pieces.reduce((n, p) => n + p.outer.segments.length, 0) ?? 0,
    );
    expect(corners).toEqual(corners.toSorted((a, b) => b - a));
    expect(corners[3]).toBeLessThan(corners[0] ?? 0);
    expect(holding(raster).coarseInk?.ink).toBe(ink);
  });
  it('is none where the whole is as quick, or where lines or colours are meant', async () => {
    const small = scanned(plateScene, 100);
    serving(small.grey);
    await pictureBorders(small.picture, small.raster, settings, wanted, noProgress, noProgress);
    expect(coarseTrace(small.picture, small.raster, settings)).toBeNull();
    const large = scanned(plateScene, 500);
    serving(large.grey);
    await pictureBorders(large.picture, large.raster, settings, wanted, noProgress, noProgress);
    expect(coarseTrace(large.picture, large.raster, { ...settings, take: 'network' })).toBeNull();
    expect(coarseTrace(large.picture, large.raster, { ...settings, colours: [{ hex: '#202020', purpose: 'cut' }] })).toBeNull();
    expect(coarseTrace(large.picture, large.raster, settings)).not.toBeNull();
  });
});

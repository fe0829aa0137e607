/**
 * What Nuvet finds in a picture by itself, against scenes whose truth is known.
 */
import { demoJobs, onScaleCard, photographScene, plateScene, type Scene, scanScene, squaredPrint, straightScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { apply, circlePath, distance, inverse, type Point, polygonPath } from '../plane/index.ts';
import { findScaleCard } from '../trueup/index.ts';
import {
  contentHull,
  convexHull,
  findSquareMarkers,
  graduationAlong,
  inkContours,
  mainDirection,
  markerCells,
  mirrorAxis,
  narrowestPassage,
  paperCorners,
  repeatAlong,
  sheetsFor,
  snapToInk,
  straightRuns,
} from './index.ts';

const degrees = (angle: number) => (angle * 180) / Math.PI;
const bare: Scene = { name: 'paper', widthMm: 120, heightMm: 90, pieces: [] };

describe('the straightening angle', () => {
  it.each([0.37, 1.4, -2.2, 7, -19.3, 33])('is right to 0.05 degrees on a scan tilted by %f degrees', (tiltDegrees) => {
    const { picture } = scanScene(straightScene, { dpi: 300, tiltDegrees, seed: 3 });
    const found = mainDirection(straightRuns(inkContours(picture), 40, picture));
    expect(Math.abs(degrees(found?.turn ?? 9) + tiltDegrees)).toBeLessThan(0.05);
  });
  it.each(demoJobs.map((job) => [job.name, job] as const))('is right to 0.05 degrees for %s, or not offered', (_, job) => {
    const { picture } = scanScene(job.scene, job.scan);
    const found = mainDirection(straightRuns(inkContours(picture), 60, picture));
    if (found) expect(Math.abs(degrees(found.turn) + (job.scan.tiltDegrees ?? 0))).toBeLessThan(0.05);
    if (job.name.startsWith('Mill')) expect(found).not.toBeNull();
  });
  it('is not offered where nothing is straight', () => {
    const round: Scene = { ...bare, pieces: [] };
    const { picture } = scanScene(round, { dpi: 150 });
    expect(mainDirection(straightRuns(inkContours(picture), 60, picture))).toBeNull();
  });
});

describe('the sheet of paper in a photograph', () => {
  const a4: Scene = { ...plateScene, widthMm: 297, heightMm: 210 };
  const letter: Scene = { ...plateScene, widthMm: 279.4, heightMm: 215.9 };
  it.each([
    [a4, 0, 'A4'],
    [a4, 18, 'A4'],
    [a4, 33, 'A4'],
    [letter, 12, 'US Letter'],
    [letter, 30, 'US Letter'],
  ] as const)(
    // biome-ignore format: cases
    'has its corners to 2 pixels and its size named (%#)',
    (scene, tiltDegrees, name) => {
      const photo = photographScene(scene, { widthPx: 2400, heightPx: 1800, tiltDegrees, seed: 5 });
      const corners = paperCorners(photo.picture);
      const truth = [[0, scene.heightMm], [scene.widthMm, scene.heightMm], [scene.widthMm, 0], [0, 0]].map(([x, y]) => photo.at({ x, y } as Point)); // biome-ignore format: corners
      expect(corners).not.toBeNull();
      for (const p of truth) expect(Math.min(...(corners ?? []).map((q) => distance(p, q)))).toBeLessThan(2);
      const { sheets } = sheetsFor(corners as [Point, Point, Point, Point], photo.picture);
      expect(sheets[0]?.name).toBe(name);
    },
  );
  it('is not seen in a scan that paper fills', () => expect(paperCorners(scanScene(plateScene, { dpi: 200 }).picture)).toBeNull());
});

describe('what repeats', () => {
  it.each([1.4, -2.2])('a ruler tilted by %f degrees: ten millimetres are ten millimetres to 0.1 percent', (tiltDegrees) => {
    const job = demoJobs[0] as (typeof demoJobs)[0];
    const { picture, mmPerPx } = scanScene(job.scene, { ...job.scan, tiltDegrees });
    const found = graduationAlong(picture, (-tiltDegrees * Math.PI) / 180);
    expect(found).not.toBeNull();
    expect(Math.abs((found?.stepPx ?? 0) * mmPerPx - 1)).toBeLessThan(0.001);
    expect(found?.count).toBeGreaterThan(60);
    expect(distance(found?.from as Point, found?.to as Point) / (found?.count ?? 1)).toBeCloseTo(found?.stepPx ?? 0, 6);
  });
  it.each([
    // Divisions, the mm of one, resolution, tilt.
    [10, 10, 300, 0.6],
    [10, 10, 150, -1.1],
    [9, 5, 300, 0],
    [24, 25.4 / 8, 200, 1.7],
    [31, 2.54, 300, -0.4],
  ])('a drawn scale of %i divisions of %f mm at %i dpi: every one counted, from its zero on', (count, mm, dpi, tiltDegrees) => {
    const [left, low] = [18, 20];
    const bar = (x: number, y: number, w: number, h: number) => polygonPath([{ x, y }, { x: x + w, y }, { x: x + w, y: y + h }, { x, y: y + h }]); // biome-ignore format: corners
    const ticks = Array.from({ length: count + 1 }, (_, k) => bar(left + k * mm - 0.15, low, 0.3, k % 5 === 0 ? 5 : 3));
    const scene = { ...bare, widthMm: count * mm + 60, heightMm: 70, print: [bar(left, low - 0.15, count * mm, 0.3), ...ticks] };
    const { picture, mmPerPx, toPixels } = scanScene(scene, { dpi, tiltDegrees, noise: 4, seed: 8, print: 60 });
    const found = graduationAlong(picture, (-tiltDegrees * Math.PI) / 180);
    expect(found?.count).toBe(count);
    expect(Math.abs((found?.stepPx ?? 0) * mmPerPx - mm)).toBeLessThan(0.001 * mm);
    expect(found?.stepErrorPx).toBeLessThan(0.002 * (found?.stepPx ?? 0));
    const ends = [found?.from, found?.to].map((p) => apply(inverse(toPixels), p as Point).x).sort((a, b) => a - b);
    // To a quarter of a pixel.
    expect(Math.abs((ends[0] as number) - left)).toBeLessThan(mmPerPx / 4);
    expect(Math.abs((ends[1] as number) - left - count * mm)).toBeLessThan(mmPerPx / 4);
  });
  it.each([5, 4.2333])('squared paper of %f mm, both ways', (pitch) => {
    const scene = { ...bare, widthMm: 180, heightMm: 140, print: squaredPrint(180, 140, pitch) };
    const { picture, mmPerPx } = scanScene(scene, { dpi: 200, tiltDegrees: 0.8 });
    for (const turn of [0, Math.PI / 2]) {
      const found = repeatAlong(picture, (-0.8 * Math.PI) / 180 + turn);
      expect(Math.abs((found?.stepPx ?? 0) * mmPerPx - pitch)).toBeLessThan(0.002 * pitch);
    }
  });
  it('dotted paper of 5 mm, both ways', () => {
    const dots = Array.from({ length: 35 * 27 }, (_, k) => circlePath({ x: 5 * (1 + (k % 35)), y: 5 * (1 + Math.floor(k / 35)) }, 0.35));
    const { picture, mmPerPx } = scanScene(
      { ...bare, widthMm: 180, heightMm: 140, print: dots },
      { dpi: 200, tiltDegrees: -0.6, print: 120 },
    );
    for (const turn of [0, Math.PI / 2]) {
      const found = repeatAlong(picture, (0.6 * Math.PI) / 180 + turn);
      expect(Math.abs((found?.stepPx ?? 0) * mmPerPx - 5)).toBeLessThan(0.01);
    }
  });
  it('nothing, on blank paper', () => {
    const { picture } = scanScene(bare, { dpi: 200 });
    expect(repeatAlong(picture, 0)).toBeNull();
    expect(graduationAlong(picture, 0)).toBeNull();
  });
});

describe('square markers and the scale card', () => {
  it('are read under tilt, each where it is to half a pixel', () => {
    for (const tiltDegrees of [0, 20, 35]) {
      const scene = onScaleCard(plateScene, { x: 45, y: 100 });
      const photo = photographScene(scene, { widthPx: 2400, heightPx: 3200, tiltDegrees, turnDegrees: 11, seed: 4 });
      const found = findScaleCard(photo.picture);
      expect(found?.markers).toBe(4);
      found?.points.forEach((p, k) => {
        const place = found.places[k] as Point;
        expect(distance(p, photo.at({ x: place.x + 105, y: place.y + 148.5 }))).toBeLessThan(0.5);
      });
    }
  });
  it('any number turned any way is told apart', () => {
    const cell = 12;
    for (const id of [0, 1, 201, 204, 511, 1023]) {
      const size = 15 * cell;
      const data = new Uint8Array(size * size).fill(235);
      for (const [r, row] of markerCells(id).entries())
        for (const [c, isWhite] of row.entries()) paint(data, size, (c + 5) * cell, (r + 5) * cell, cell, isWhite ? 230 : 20);
      for (let k = 0; k < 7; k++)
        for (const [r, c] of [[0, k], [6, k], [k, 0], [k, 6]] as const) paint(data, size, (c + 4) * cell, (r + 4) * cell, cell, 20); // biome-ignore format: border
      expect(findSquareMarkers({ width: size, height: size, data }).map((m) => m.id)).toEqual([id]);
    }
  });
  it('nothing is read from a drawing without markers', () =>
    expect(findSquareMarkers(scanScene(straightScene, { dpi: 200 }).picture)).toEqual([]));
});

function paint(data: Uint8Array, stride: number, x: number, y: number, size: number, tone: number): void {
  for (let v = y; v < y + size; v++) data.fill(tone, v * stride + x, v * stride + x + size);
}

describe('snapping', () => {
  const { picture, at } = scanScene(straightScene, { dpi: 300, tiltDegrees: 2, noise: 3 });
  it('to a corner, from some pixels away', () => {
    const corner = at({ x: 20, y: 90 });
    const found = snapToInk(picture, { x: corner.x + 5, y: corner.y - 6 }, 12);
    expect(found?.kind).toBe('corner');
    expect(distance(found?.at as Point, corner)).toBeLessThan(0.6);
  });
  it('to an edge, to a tenth of a pixel', () => {
    const place = at({ x: 60, y: 90 });
    const found = snapToInk(picture, { x: place.x + 3, y: place.y + 7 }, 12);
    expect(found?.kind).toBe('edge');
    const n = { x: at({ x: 60, y: 91 }).x - place.x, y: at({ x: 60, y: 91 }).y - place.y };
    const off = ((found as { at: Point }).at.x - place.x) * n.x + ((found as { at: Point }).at.y - place.y) * n.y;
    expect(Math.abs(off) / Math.hypot(n.x, n.y)).toBeLessThan(0.12);
  });
  it('to the middle of a line and to a crossing', () => {
    const lines = { ...bare, print: squaredPrint(120, 90, 10) };
    const scan = scanScene(lines, { dpi: 300, print: 60, noise: 3, tiltDegrees: 1 });
    const cross = snapToInk(scan.picture, { x: scan.at({ x: 50, y: 40 }).x + 4, y: scan.at({ x: 50, y: 40 }).y + 5 }, 12);
    expect(cross?.kind).toBe('crossing');
    expect(distance(cross?.at as Point, scan.at({ x: 50, y: 40 }))).toBeLessThan(0.7);
    const place = scan.at({ x: 50, y: 45 });
    const middle = snapToInk(scan.picture, { x: place.x + 5, y: place.y }, 12);
    expect(middle?.kind).toBe('middle');
    expect(distance(middle?.at as Point, place)).toBeLessThan(0.3);
  });
  it('to nothing on blank paper', () => expect(snapToInk(picture, at({ x: 5, y: 5 }), 12)).toBeNull());
});

describe('the drawn part', () => {
  it('has a hull as large as what is drawn', () => {
    const { picture, mmPerPx } = scanScene(plateScene, { dpi: 300 });
    const hull = contentHull(picture, inkContours(picture)) as Point[];
    const xs = hull.map((p) => p.x);
    expect((Math.max(...xs) - Math.min(...xs)) * mmPerPx).toBeCloseTo(90, 1);
  });
  it('a hull holds every point and turns one way (closed form)', () => {
    const hull = convexHull([{ x: 0, y: 0 }, { x: 4, y: 0 }, { x: 2, y: 1 }, { x: 4, y: 4 }, { x: 0, y: 4 }, { x: 2, y: 2 }]); // biome-ignore format: points
    expect(hull).toHaveLength(4);
  });
  it('a passage of 11.3 mm is found where it is narrowest', () => {
    const { picture, at, mmPerPx } = scanScene(straightScene, { dpi: 300 });
    // Between the bar's lower side (y 90) and the hexagon's top (y 62 + 17 sin 60).
    const found = narrowestPassage(inkContours(picture), at({ x: 62, y: 91 }), at({ x: 66, y: 75 })) as [Point, Point];
    expect(distance(...found) * mmPerPx).toBeCloseTo(90 - 62 - 17 * Math.sin(Math.PI / 3), 1);
  });
  it('a sheet photographed on a table has no mirror axis: the table is no drawing', () => {
    const photo = photographScene({ ...plateScene, widthMm: 180, heightMm: 130 }, { widthPx: 1200, heightPx: 900, tiltDegrees: 20, fill: 0.6, seed: 2 }); // biome-ignore format: one line
    expect(mirrorAxis(photo.picture)).toBeNull();
  });
  it('its mirror axis is right to half a degree where it has one, and not offered where it has none', () => {
    const plate = scanScene(plateScene, { dpi: 150, tiltDegrees: 6 });
    const axis = mirrorAxis(plate.picture);
    const angle = degrees(Math.atan2((axis?.b.y ?? 0) - (axis?.a.y ?? 0), (axis?.b.x ?? 0) - (axis?.a.x ?? 0)));
    const off = (((angle + 6) % 90) + 90) % 90;
    expect(Math.min(off, 90 - off)).toBeLessThan(0.5);
    const middle = apply(plate.toPixels, { x: 60, y: 45 });
    const [a, b] = [axis?.a as Point, axis?.b as Point];
    expect(Math.abs((b.x - a.x) * (middle.y - a.y) - (b.y - a.y) * (middle.x - a.x)) / distance(a, b)).toBeLessThan(2);
    const otter = demoJobs[3] as (typeof demoJobs)[0];
    expect(mirrorAxis(scanScene(otter.scene, { ...otter.scan, dpi: 150 }).picture)).toBeNull();
  });
});

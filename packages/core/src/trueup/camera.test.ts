/** Cameras found again from what a pinhole makes of a flat sheet, and how far noise in the marks puts them off. */
import { randomFrom } from '@nuvet/truth';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { type FourPoints, inverseProjection, type Point, type Projection, projectionOfFour } from '../plane/index.ts';
import { cameraAt, cameraOf, focalFrom } from './camera.ts';
import { fitTrueUp, standardErrorOf } from './fit.ts';
import type { TrueUpMark } from './mark-kinds.ts';

const size = { widthPx: 4000, heightPx: 3000 };
const sheet: FourPoints = [{ x: 0, y: 0 }, { x: 297, y: 0 }, { x: 297, y: 210 }, { x: 0, y: 210 }]; // biome-ignore format: a sheet

interface Pinhole {
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly focalPx: number;
  /** Of its axis from straight down, towards where, and how it is turned about it, radians. */
  readonly tilt: number;
  readonly towards: number;
  readonly turn: number;
}

/** Where a pinhole shows a place of the sheet, y down: its own axes right, down and forward (Hartley & Zisserman 2004, chapter 6). */
function shown({ x, y, z, focalPx, tilt, towards, turn }: Pinhole, p: Point): Point {
  const [s, c] = [Math.sin(tilt), Math.cos(tilt)];
  const forward = [s * Math.cos(towards), s * Math.sin(towards), -c];
  const side = [-Math.sin(towards), Math.cos(towards), 0];
  const upright = [c * Math.cos(towards), c * Math.sin(towards), s];
  const mixed = (a: number, b: number): number[] => side.map((v, k) => a * v + b * (upright[k] as number));
  const [right, down] = [mixed(-Math.cos(turn), -Math.sin(turn)), mixed(Math.sin(turn), -Math.cos(turn))];
  const away = [p.x - x, p.y - y, -z];
  const along = (axis: number[]): number => axis.reduce((sum, v, k) => sum + v * (away[k] as number), 0);
  const depth = along(forward);
  return { x: size.widthPx / 2 + (focalPx * along(right)) / depth, y: size.heightPx / 2 + (focalPx * along(down)) / depth };
}

const toSheet = (camera: Pinhole): Projection => inverseProjection(projectionOfFour(sheet, sheet.map((p) => shown(camera, p)) as unknown as FourPoints) as Projection); // biome-ignore format: one line

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const pinholes = (leastTilt: number, mostTilt: number) =>
  fc.record({
    x: number(-100, 400),
    y: number(-100, 300),
    z: number(250, 1500),
    focalPx: number(2500, 8000),
    tilt: number(leastTilt, mostTilt),
    towards: number(0, 2 * Math.PI),
    turn: number(0, 2 * Math.PI),
  });

describe('the camera of a flat sheet', () => {
  it('is where the pinhole was, with its focal length, wherever it looks from at a slant', () => {
    fc.assert(
      fc.property(pinholes(0.08, 0.6), (pinhole) => {
        const map = toSheet(pinhole);
        const focal = focalFrom(map, size) as number;
        expect(focal / pinhole.focalPx).toBeCloseTo(1, 5);
        const found = cameraOf(map, size, focal);
        expect(found.x).toBeCloseTo(pinhole.x, 2);
        expect(found.y).toBeCloseTo(pinhole.y, 2);
        expect(found.z / pinhole.z).toBeCloseTo(1, 5);
        expect(found.tilt).toBeCloseTo(pinhole.tilt, 5);
      }),
      { numRuns: lawRuns(400) },
    );
  });
  it('of a known height is over the same place, with the focal length that goes with it, also from straight above', () => {
    fc.assert(
      fc.property(pinholes(0, 0.3), (pinhole) => {
        const found = cameraAt(toSheet(pinhole), size, pinhole.z);
        expect(found.z).toBeCloseTo(pinhole.z, 4);
        expect(found.focalPx / pinhole.focalPx).toBeCloseTo(1, 4);
        expect(Math.hypot(found.x - pinhole.x, found.y - pinhole.y)).toBeLessThan(0.01);
      }),
      { numRuns: lawRuns(400) },
    );
  });
  it('seen from straight above has no focal length that the sheet could tell', () => {
    const map = toSheet({ x: 150, y: 100, z: 600, focalPx: 4000, tilt: 0, towards: 0, turn: 0.3 });
    const focal = focalFrom(map, size);
    // Rounding alone may leave one: then it is far from any lens.
    if (focal !== null) expect(focal / 4000 > 50 || focal / 4000 < 0.02).toBe(true);
  });
});

describe('the standard error of its height', () => {
  it.each([
    [0.15, 600, 3600],
    [0.35, 900, 4200],
  ])('tilted by %f, %i mm up: is how far the height scatters when the marks are set again with noise', (tilt, z, focalPx) => {
    const pinhole: Pinhole = { x: 140, y: 60, z, focalPx, tilt, towards: 1.1, turn: 0.2 };
    // Squares near the corners of a sheet, as the scale card has them.
    const places = [[15, 15], [252, 15], [252, 165], [15, 165]].flatMap(([x, y]) => [[0, 0], [30, 0], [30, 30], [0, 30]].map(([u, v]) => ({ x: (x as number) + (u as number), y: (y as number) + (v as number) }))); // biome-ignore format: corners
    const noisePx = 0.4;
    // Normal deviates by Box and Muller 1958.
    const even = randomFrom(261);
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even());
    const heights: number[] = [];
    const errors: number[] = [];
    for (let k = 0; k < 160; k++) {
      const points = places.map((p) => shown(pinhole, p)).map((p) => ({ x: p.x + noisePx * normal(), y: p.y + noisePx * normal() }));
      const marks: TrueUpMark[] = [{ id: 'card', kind: 'scale-card', points, places, stated: [100] }];
      const options = { pinned: 'perspective' } as const;
      const height = (map: Projection): number => cameraOf(map, size, focalFrom(map, size) as number).z;
      heights.push(height(fitTrueUp(size, marks, null, options).projection));
      errors.push(standardErrorOf(size, marks, null, options, height) as number);
    }
    const mean = heights.reduce((a, b) => a + b, 0) / heights.length;
    const scatter = Math.sqrt(heights.reduce((sum, h) => sum + (h - mean) ** 2, 0) / (heights.length - 1));
    const told = errors.reduce((a, b) => a + b, 0) / errors.length;
    expect(Math.abs(mean - z)).toBeLessThan(4 * (scatter / Math.sqrt(heights.length)) + 0.002 * z);
    // Of 160 heights the scatter itself is known to about 6 %.
    expect(told / scatter).toBeGreaterThan(0.75);
    expect(told / scatter).toBeLessThan(1.3);
  });
});

import { describe, expect, it } from 'vitest';
import { circlePath, nearestOnPath, type Path, polygonPath } from '../plane/index.ts';
import { distanceTo } from '../shape/index.ts';
import { farthest, fileDeviation } from './deviation.ts';

describe('how far outlines lie apart', () => {
  const ring = circlePath({ x: 0, y: 0 }, 20);
  it('is the difference of radii for circles about one centre, from either side', () => {
    const other = circlePath({ x: 0, y: 0 }, 20.3);
    expect(farthest([ring], [other]).mm).toBeCloseTo(0.3, 9);
    expect(fileDeviation([ring], [other])).toMatchObject({ largestMm: expect.closeTo(0.3, 9), widthMm: expect.closeTo(40.6, 9) });
  });
  it('counts what is missing as well as what is too much', () => {
    const far = circlePath({ x: 100, y: 0 }, 5);
    expect(fileDeviation([ring, far], [ring]).largestMm).toBeCloseTo(85, 1);
    expect(fileDeviation([ring], [ring, far]).largestMm).toBeCloseTo(85, 1);
    expect(fileDeviation([ring], []).largestMm).toBe(Infinity);
  });
  it('is to the nearest outline, also where the box of another one lies nearer', () => {
    const slanted: Path[] = [polygonPath([{ x: 0, y: 0 }, { x: 10, y: 10 }, { x: 0, y: 10 }]), circlePath({ x: 9.2, y: 1 }, 1)]; // biome-ignore format: one line
    const off = distanceTo(slanted);
    for (let k = 0; k < 400; k++) {
      const p = { x: (k * 7.31) % 12, y: (k * 3.77) % 12 };
      expect(off(p)).toBeCloseTo(Math.min(...slanted.map((path) => nearestOnPath(path, p).distance)), 9);
    }
  });
});

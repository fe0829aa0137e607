/** Snaps to outlines: closed forms of feet and touches. */
import { describe, expect, it } from 'vitest';
import { circlePath, distance, type Path } from '../plane/index.ts';
import { snapToOutlines, squareLocked } from './snapping.ts';

const line = (x1: number, y1: number, x2: number, y2: number): Path => ({ start: { x: x1, y: y1 }, segments: [{ kind: 'line', to: { x: x2, y: y2 } }], closed: false }); // biome-ignore format: one line
const paths = [line(0, 0, 100, 0), line(50, -20, 50, 40), circlePath({ x: 150, y: 0 }, 20)];

describe('a place near outlines', () => {
  it('goes to ends before crossings before middles before the line', () => {
    expect(snapToOutlines(paths, { x: 1, y: 1 }, { reachMm: 2 })).toEqual({ at: { x: 0, y: 0 }, word: 'end' });
    expect(snapToOutlines(paths, { x: 50.6, y: 0.5 }, { reachMm: 2 })).toEqual({ at: { x: 50, y: 0 }, word: 'crossing' });
    expect(snapToOutlines(paths, { x: 50.3, y: 10.4 }, { reachMm: 2 })).toEqual({ at: { x: 50, y: 10 }, word: 'middle' });
    expect(snapToOutlines(paths, { x: 20, y: 1 }, { reachMm: 2 })).toEqual({ at: { x: 20, y: 0 }, word: 'on line' });
    expect(snapToOutlines(paths, { x: 150.5, y: 0.4 }, { reachMm: 2 })?.word).toBe('centre');
    expect(snapToOutlines(paths, { x: 20, y: 10 }, { reachMm: 2 })).toBeNull();
  });
  it('finds the foot of the perpendicular and the touch from where a line comes', () => {
    expect(snapToOutlines(paths, { x: 30.8, y: 0.5 }, { reachMm: 2, from: { x: 30, y: 25 } })).toEqual({
      at: { x: 30, y: 0 },
      word: 'perpendicular',
    });
    const from = { x: 150, y: 40 };
    // A line from 2 r away touches at 60 degrees.
    const touch = { x: 150 + 20 * Math.cos(Math.PI / 6), y: 20 * Math.sin(Math.PI / 6) };
    const found = snapToOutlines(paths, { x: touch.x + 0.5, y: touch.y + 0.5 }, { reachMm: 2, from });
    expect(found?.word).toBe('tangent');
    expect(distance(found?.at ?? from, touch)).toBeLessThan(1e-9);
  });
  it('keeps to the grid and to set directions where that is asked', () => {
    expect(snapToOutlines([], { x: 9.2, y: 20.6 }, { reachMm: 2, gridMm: 5 })).toEqual({ at: { x: 10, y: 20 }, word: 'grid' });
    expect(squareLocked({ x: 0, y: 0 }, { x: 10, y: 1 }, 15)).toEqual({ x: 10, y: 0 });
    const diagonal = squareLocked({ x: 0, y: 0 }, { x: 10, y: 8 }, 45);
    expect(diagonal.x).toBeCloseTo(diagonal.y, 9);
  });
});

/** Lines to draw by: midway between two, and right across at an angle. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance, type Point } from '../plane/index.ts';
import { lineAcross, lineMidway } from './figures.ts';

const p = (x: number, y: number): Point => ({ x, y });
/** How far a place lies from a line through `a` along `d` (length 1), mm. */
const off = (a: Point, d: Point, q: Point): number => Math.abs(d.x * (q.y - a.y) - d.y * (q.x - a.x));
const angle = fc.double({ min: 0, max: 2 * Math.PI, noNaN: true });

describe('the line midway', () => {
  it('between parallel lines lies as far from the one as from the other', () => {
    fc.assert(
      fc.property(angle, fc.double({ min: 1, max: 90, noNaN: true }), fc.boolean(), (turn, apart, isOpposite) => {
        const d = p(Math.cos(turn), Math.sin(turn));
        const first = [p(3, 4), p(3 + 20 * d.x, 4 + 20 * d.y)] as const;
        const far = p(3 - d.y * apart, 4 + d.x * apart);
        const there = p(far.x + 35 * d.x, far.y + 35 * d.y);
        const { at, along } = lineMidway(first, isOpposite ? [there, far] : [far, there], first[0], far);
        expect(off(at, along, first[0])).toBeCloseTo(apart / 2, 9);
        expect(off(at, along, far)).toBeCloseTo(apart / 2, 9);
        expect(Math.abs(along.x * d.x + along.y * d.y)).toBeCloseTo(1, 9);
      }),
    );
  });
  it('between lines that cross halves the angle in which both places lie', () => {
    fc.assert(
      fc.property(angle, fc.double({ min: 0.2, max: 2.9, noNaN: true }), (turn, between) => {
        const ray = (a: number, r: number): Point => p(5 + r * Math.cos(a), -2 + r * Math.sin(a));
        const [one, two] = [[ray(turn, 10), ray(turn, 40)] as const, [ray(turn + between, 60), ray(turn + between, 15)] as const];
        const { at, along } = lineMidway(one, two, ray(turn, 20), ray(turn + between, 30));
        expect(distance(at, p(5, -2))).toBeLessThan(1e-6);
        expect(along.x * Math.cos(turn + between / 2) + along.y * Math.sin(turn + between / 2)).toBeCloseTo(1, 9);
      }),
    );
  });
});

describe('a line right across', () => {
  it('goes through its place at its angle and reaches out of all that is drawn', () => {
    fc.assert(
      fc.property(angle, (turn) => {
        const d = p(Math.cos(turn), Math.sin(turn));
        const line = lineAcross(p(20, 30), p(7 * d.x, 7 * d.y), { minX: -300, minY: 0, maxX: 50, maxY: 400 });
        if (line.kind !== 'line') throw new Error('no line');
        expect(off(p(20, 30), d, line.from)).toBeLessThan(1e-9);
        for (const end of [line.from, line.to]) expect(end.x < -300 || end.x > 50 || end.y < 0 || end.y > 400).toBe(true);
      }),
    );
    expect(lineAcross(p(0, 0), p(1, 0), null)).toMatchObject({ from: { x: -155, y: 0 }, to: { x: 155, y: 0 } });
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apply, distance, type Point } from '../plane/index.ts';
import { fitTrueUp, TrueUpError, type TrueUpMark, worstLeftOver } from './index.ts';

const size = { widthPx: 2480, heightPx: 3508 };
const length = (a: Point, b: Point, mm: number): TrueUpMark => ({ kind: 'known-length', id: 'l', a, b, mm });
const line = (kind: 'level' | 'plumb', a: Point, b: Point): TrueUpMark => ({ kind, id: kind, a, b });

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
    const fit = fitTrueUp(size, [length({ x: 100, y: 100 }, { x: 1180, y: 1540 }, 152.4)], 72);
    expect(fit).toMatchObject({ model: 'uniform', leftOvers: [{ statedMm: 152.4 }] });
    expect(fit.mmPerPx).toBeCloseTo(152.4 / 1800, 12);
    expect(worstLeftOver(fit)).toBeLessThan(1e-9);
  });
  it('puts y up and the lower left corner of the turned picture at the origin', () => {
    const { toSheet } = fitTrueUp(size, [], 25.4);
    expect(apply(toSheet, { x: 0, y: 3508 })).toEqual({ x: 0, y: 0 });
    expect(apply(toSheet, { x: 2480, y: 0 })).toEqual({ x: 2480, y: 3508 });
  });
  it('shares what two lengths disagree by: 100 and 101 mm over 1000 pixels each come out 100.5', () => {
    const [a, b] = [
      { x: 0, y: 0 },
      { x: 1000, y: 0 },
    ];
    const fit = fitTrueUp(size, [length(a, b, 100), length(a, b, 101)], null);
    expect(fit.mmPerPx).toBeCloseTo(0.1005, 12);
    expect(fit.leftOvers.map((l) => l.offMm)).toEqual([expect.closeTo(0.5, 9), expect.closeTo(-0.5, 9)]);
  });
  it('turns the least way: lines marked right to left, or a plumb line marked upward, do not turn it over', () => {
    const down = fitTrueUp(size, [line('level', { x: 900, y: 500 }, { x: 100, y: 480 })], 300);
    expect((down.turn * 180) / Math.PI).toBeCloseTo(1.432, 3);
    const up = fitTrueUp(size, [line('plumb', { x: 500, y: 900 }, { x: 520, y: 100 })], 300);
    expect((up.turn * 180) / Math.PI).toBeCloseTo(1.432, 3);
  });
  it('refuses a mark without length', () => {
    expect(() => fitTrueUp(size, [length({ x: 5, y: 5 }, { x: 5, y: 5 }, 10)], null)).toThrow(TrueUpError);
  });

  it('finds a known scale and turn again from any exact marks, with nothing left over', () => {
    const at = fc.record({ x: fc.integer({ min: 0, max: 2480 }), y: fc.integer({ min: 0, max: 3508 }) });
    const pairs = fc.array(
      fc.tuple(at, at).filter(([a, b]) => distance(a, b) > 20),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(
        pairs,
        fc.double({ min: 0.01, max: 2, noNaN: true }),
        fc.double({ min: -0.7, max: 0.7, noNaN: true }),
        (ends, scale, turn) => {
          const back = (angle: number, from: Point): Point => ({ x: from.x + 400 * Math.cos(angle), y: from.y - 400 * Math.sin(angle) });
          const marks = [
            ...ends.map(([a, b]) => length(a, b, distance(a, b) * scale)),
            line('level', { x: 700, y: 900 }, back(-turn, { x: 700, y: 900 })),
            line('plumb', { x: 300, y: 900 }, back(Math.PI / 2 - turn, { x: 300, y: 900 })),
          ];
          const fit = fitTrueUp(size, marks, null);
          expect(fit.mmPerPx).toBeCloseTo(scale, 10);
          expect(fit.turn).toBeCloseTo(turn, 9);
          expect(worstLeftOver(fit)).toBeLessThan(1e-6);
        },
      ),
    );
  });
});

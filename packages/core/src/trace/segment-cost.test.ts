/** What segments between places cost, on contours made from lines, circles and curves of known measures. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { type Path, type Point, polygonOf } from '../plane/index.ts';
import { edgeModelOf } from './edge-model.ts';
import { placeAt } from './optimal-segmentation.ts';
import { SampledContour } from './sampled-contour.ts';
import { arcLimits, fitCost, impossible, modelCost } from './segment-cost.ts';

const edgeModel = edgeModelOf(0.6, 0.03, 2);
const sampledContourOf = (path: Path): SampledContour =>
  new SampledContour(Float64Array.from(polygonOf(path, 0.0005).flatMap(({ x, y }) => [x, y])), false);
const arcOf = (radius: number, sweep: number, turn = 0): Path => {
  const at = (angle: number): Point => ({ x: 500 + radius * Math.cos(angle), y: 500 + radius * Math.sin(angle) });
  return { start: at(turn), segments: [{ kind: 'arc', to: at(turn + sweep), sweep }], closed: false };
};
/** The price between two places that lie so far from the contour's ends, points. */
function price(kind: 'line' | 'arc' | 'cubic', sampled: SampledContour, from: number, to: number): number {
  const place = (index: number) => placeAt(sampled, edgeModel, index, 0, sampled.count - 1);
  return fitCost(sampled, edgeModel, kind, place(from), place(to));
}
/** The kind of segment that is cheapest between two places. */
const chosen = (sampled: SampledContour, from: number, to: number) =>
  (['line', 'arc', 'cubic'] as const).reduce((best, kind) =>
    price(kind, sampled, from, to) < price(best, sampled, from, to) ? kind : best,
  );
const radius = fc.double({ min: 40, max: 900, noNaN: true });
const sweep = fc.double({ min: 0.6, max: 4.5, noNaN: true });
const side = fc.constantFrom(1, -1);

describe('an arc', () => {
  it('of any radius, sweep and side is told as one, at what an arc costs', () => {
    fc.assert(
      fc.property(radius, sweep, side, fc.double({ min: -3, max: 3, noNaN: true }), (r, s, way, turn) => {
        fc.pre(r * s > 80 && s - 25 / r > 0.3);
        const sampled = sampledContourOf(arcOf(r, way * s, turn));
        const found = price('arc', sampled, 12, sampled.count - 13);
        expect(found).toBeGreaterThanOrEqual(modelCost.arc);
        expect(found).toBeLessThan(modelCost.arc + 0.05);
        expect(chosen(sampled, 12, sampled.count - 13)).toBe('arc');
      }),
      { numRuns: lawRuns(150) },
    );
  });
  it('is no line, and dearer as a curve', () => {
    const sampled = sampledContourOf(arcOf(200, 1.5));
    expect(price('line', sampled, 12, sampled.count - 13)).toBe(Infinity);
    expect(price('cubic', sampled, 12, sampled.count - 13)).toBeGreaterThan(modelCost.arc);
  });
  it('so flat that it turns by less than a fifth of a radian is too short to tell', () => {
    const sampled = sampledContourOf(arcOf(800, 0.6));
    expect(price('arc', sampled, 100, 220)).toBe(impossible);
  });
  it('of more than its limit off a circle is none', () => {
    const wave: Path = {
      start: { x: 0, y: 0 },
      segments: [{ kind: 'cubic', c1: { x: 100, y: 160 }, c2: { x: 240, y: 60 }, to: { x: 300, y: 200 } }],
      closed: false,
    };
    const sampled = sampledContourOf(wave);
    expect(price('arc', sampled, 12, sampled.count - 13)).toBe(Infinity);
    expect(price('cubic', sampled, 12, sampled.count - 13)).toBeLessThan(modelCost.cubic + 0.1);
    expect(chosen(sampled, 12, sampled.count - 13)).toBe('cubic');
  });
});

describe('a line', () => {
  it('in any direction is told as one; between places too near to each other it is not told', () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (angle) => {
        const to = { x: 300 * Math.cos(angle), y: 300 * Math.sin(angle) };
        const sampled = sampledContourOf({ start: { x: 0, y: 0 }, segments: [{ kind: 'line', to }], closed: false });
        expect(price('line', sampled, 12, 280)).toBeCloseTo(modelCost.line, 6);
        expect(chosen(sampled, 12, 280)).toBe('line');
        expect(price('line', sampled, 12, 30)).toBe(impossible);
        expect(price('arc', sampled, 12, 280)).toBe(impossible);
      }),
    );
  });
});

it('the rougher a course is, the more an arc may leave it', () => {
  const [fine, rough] = [0.03, 0.3].map((noise) => arcLimits(edgeModelOf(0.6, noise, 2))) as [
    ReturnType<typeof arcLimits>,
    ReturnType<typeof arcLimits>,
  ];
  for (const key of ['rms', 'worst', 'angle'] as const) expect(rough[key]).toBeGreaterThan(fine[key]);
});

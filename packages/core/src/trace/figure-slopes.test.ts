/** The slopes by which whole circles and ovals are fitted, against central differences at points on the figure. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { type DistanceFrom, offCircle, offOval, type Values } from './circle-and-ellipse-fit.ts';

const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const figure = fc.tuple(within(-20, 20), within(-20, 20), within(4, 30), within(4, 30), within(-1.5, 1.5)) as fc.Arbitrary<Values>;
const step = 1e-6;

function compared(measure: DistanceFrom, values: Values, count: number, x: number, y: number): void {
  const slopes = new Float64Array(5);
  expect(Math.abs(measure(values, x, y, slopes))).toBeLessThan(1e-9);
  const spare = new Float64Array(5);
  for (let k = 0; k < count; k++) {
    const by = (d: number) => values.map((v, j) => (j === k ? v + d : v)) as unknown as Values;
    const seen = (measure(by(step), x, y, spare) - measure(by(-step), x, y, spare)) / (2 * step);
    expect(Math.abs(seen - (slopes[k] as number))).toBeLessThan(1e-5);
  }
}

it('of circles', () => {
  fc.assert(
    fc.property(figure, within(0, 6.28), (v, angle) =>
      compared(offCircle, v, 3, v[0] + v[2] * Math.cos(angle), v[1] + v[2] * Math.sin(angle)),
    ),
    { numRuns: lawRuns(200) },
  );
});

it('of ovals', () => {
  fc.assert(
    fc.property(figure, within(0, 6.28), (v, t) => {
      const [cx, cy, a, b, angle] = v;
      const [p, q] = [a * Math.cos(t), b * Math.sin(t)];
      compared(offOval, v, 5, cx + p * Math.cos(angle) - q * Math.sin(angle), cy + p * Math.sin(angle) + q * Math.cos(angle));
    }),
    { numRuns: lawRuns(200) },
  );
});

/** Chords along contours: within the tolerance, fewer as it widens. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { nearestOnPath } from '../plane/index.ts';
import { chordsAlong } from './douglas-peucker.ts';

const contour = (n: number, waves: number): Float64Array =>
  Float64Array.from(
    Array.from({ length: n }, (_, k) => {
      const angle = (2 * Math.PI * k) / n;
      const r = 60 + 12 * Math.sin(waves * angle);
      return [80 + r * Math.cos(angle), 80 + r * Math.sin(angle)];
    }).flat(),
  );

it('no point of the contour lies farther from them than the tolerance, and a wider one takes no more', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 12, max: 700 }),
      fc.integer({ min: 0, max: 7 }),
      fc.double({ min: 0.2, max: 4, noNaN: true }),
      (n, waves, tolerance) => {
        const points = contour(n, waves);
        const chords = chordsAlong(points, tolerance);
        expect(chords.closed).toBe(true);
        for (let k = 0; k < n; k += 3)
          expect(nearestOnPath(chords, { x: points[2 * k] as number, y: points[2 * k + 1] as number }).distance).toBeLessThanOrEqual(
            tolerance + 1e-9,
          );
        expect(chordsAlong(points, 2 * tolerance).segments.length).toBeLessThanOrEqual(chords.segments.length + 2);
      },
    ),
    { numRuns: lawRuns(60) },
  );
});

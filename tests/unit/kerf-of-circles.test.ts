/** Round holes as other programs write them: two semicircles whose figures are rounded, so that they meet at a hair's angle. */
import { piecesOfDrawing, readSvg } from '@nuvet/core/formats';
import { kerfCompensated } from '@nuvet/core/make';
import { pathArea } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

const digits = (value: number, count: number): string => value.toFixed(count);

it.each([3, 4, 6, 8])('any kerf can be taken off a hole of two semicircles with %i decimals', (count) => {
  const some = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  fc.assert(
    fc.property(some(20, 60), some(40, 60), some(1, 18), fc.constantFrom(0.04, 0.05, 0.06, 0.08, 0.1, 0.2, 0.5), (x, y, r, kerfMm) => {
      const radius = digits(r, count);
      const arc = (to: number) => `A${radius} ${radius} 0 0 1 ${digits(to, count)} ${digits(y, count)}`;
      const hole = `M${digits(x - r, count)} ${digits(y, count)}${arc(x + r)}${arc(x - r)}Z`;
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100"><path fill-rule="evenodd" d="M0 0H100V100H0Z${hole}"/></svg>`;
      const { pieces } = finished(piecesOfDrawing(finished(readSvg(svg)), 'd'));
      const made = kerfCompensated(pieces[0] as (typeof pieces)[0], { kerfMm, corners: 'round' });
      expect(made.isFailure).toBe(false);
      const path = made.parts[0]?.holes[0];
      expect(made.parts).toHaveLength(1);
      // A circle of the hole's own area, set in by half the kerf (closed form).
      const own = Math.sqrt(Math.abs(pathArea(pieces[0]?.holes[0] as NonNullable<typeof path>)) / Math.PI);
      const wanted = Math.PI * (own - kerfMm / 2) ** 2;
      expect(Math.abs(Math.abs(pathArea(path as NonNullable<typeof path>)) - wanted)).toBeLessThan(0.002 * (1 + wanted * 0.05));
    }),
    { numRuns: lawRuns(120) },
  );
});

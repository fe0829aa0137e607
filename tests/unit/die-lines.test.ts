/** Cartons drawn from their size, scanned, traced and folded, against the drawing. */
import { cartonKinds, cartonOf, cartonScan } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { foldedCarton, panelsDrawn } from './cartons-folded.ts';

const size = { widthMm: 44, depthMm: 21, heightMm: 52, boardMm: 0.6 };

describe.each(cartonKinds)('a carton, %s', (kind) => {
  it.each([0, 1.2])('has the panels that it is folded from, with flaps %d mm apart', (slitMm) => {
    const carton = cartonOf(kind, size, slitMm);
    const { panels, hinges } = panelsDrawn(carton);
    expect(panels.length).toBe(carton.panels);
    // Panels that hang together in a tree: one crease fewer than panels.
    expect(hinges.length).toBe(carton.panels - 1);
  });
  const number = cartonKinds.indexOf(kind);
  it.each([
    ['a dash first', number + 40],
    ['a gap first', number + 45],
  ])('is read from a scan whose creases begin with %s', (_, scan) => {
    const { isWhole, worstMm } = foldedCarton(cartonScan(scan, { dpi: 240, isInTwoColours: false }));
    expect(isWhole).toBe(true);
    expect(worstMm).toBeLessThan(0.1);
  });
});

describe('creases in a second colour', () => {
  it.each([1, 2])('without gaps are told from cuts by it alone (%d)', (number) => {
    const { isWhole, worstMm } = foldedCarton(cartonScan(number, { dpi: 150, isInTwoColours: true, hasSolidCreases: true }));
    expect(isWhole).toBe(true);
    expect(worstMm).toBeLessThan(0.1);
  });
});

import { describe, expect, it } from 'vitest';
import { circlePath, type Path, polygonPath } from '../plane/index.ts';
import { plainPrinting as printing } from './printing.ts';
import { marksOf, ownPaper, type Page, PaperError, paperSize, tiled } from './tiles.ts';

const box = (x: number, y: number, w: number, h: number): Path =>
  polygonPath([
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ]);

describe('paper', () => {
  it('has the sizes of ISO 216 and of American practice, upright or on its side', () => {
    expect(paperSize({ ...printing, paper: 'A4' })).toEqual({ widthMm: 210, heightMm: 297 });
    expect(paperSize({ ...printing, paper: 'Letter', landscape: true })).toEqual({ widthMm: 279.4, heightMm: 215.9 });
    expect(paperSize({ ...printing, paper: ownPaper, widthMm: 100, heightMm: 150 })).toEqual({ widthMm: 100, heightMm: 150 });
    // Each ISO size is half the next larger one, by area, to the millimetre.
    for (const [small, large] of [
      ['A5', 'A4'],
      ['A4', 'A3'],
      ['A3', 'A2'],
      ['A2', 'A1'],
      ['A1', 'A0'],
    ] as const) {
      // biome-ignore format: one line
      const [s, l] = [paperSize({ ...printing, paper: small }), paperSize({ ...printing, paper: large })];
      expect(Math.abs(l.widthMm - s.heightMm)).toBeLessThanOrEqual(1);
      expect(Math.abs(l.heightMm - 2 * s.widthMm)).toBeLessThanOrEqual(1);
    }
  });
});

describe('pages', () => {
  it('are one where the work fits, in the middle of it', () => {
    const { pages } = tiled([box(0, 0, 150, 200)], printing);
    expect(pages.map((p) => p.name)).toEqual(['A1']);
    const { minX, maxX } = (pages[0] as Page).cell;
    expect((minX + maxX) / 2).toBeCloseTo(75, 9);
  });
  it('are only those that carry lines: the middle of a ring needs none', () => {
    const { pages, rows, columns } = tiled([circlePath({ x: 0, y: 0 }, 560)], printing);
    expect(pages.length).toBeLessThan(rows * columns);
    expect(pages.some(({ cell }) => cell.minX < 0 && cell.maxX > 0 && cell.minY < 0 && cell.maxY > 0)).toBe(false);
  });
  it('are lettered by row from the top and numbered by column from the left', () => {
    const { pages } = tiled([box(0, 0, 500, 500)], printing);
    expect(pages.map((p) => p.name)).toEqual(['A1', 'A2', 'A3', 'B1', 'B3', 'B2'].sort());
    const [a1, b1] = [pages.find((p) => p.name === 'A1'), pages.find((p) => p.name === 'B1')];
    expect(a1?.cell.minY).toBeGreaterThan(b1?.cell.minY as number);
  });
  it('are no more than those of a plain lattice at the corner, wherever the work lies', () => {
    for (let k = 0; k < 12; k++) {
      const path = circlePath({ x: 37 * k, y: 11 * k }, 110 + 23 * k);
      const found = tiled([path], printing).pages.length;
      const corner = { x: 37 * k - (110 + 23 * k), y: 11 * k - (110 + 23 * k) };
      expect(found).toBeLessThanOrEqual(tiled([path], { ...printing, place: corner }).pages.length);
    }
  });
  it('print half the overlap beyond their own cell, and neighbours share their marks', () => {
    const { pages } = tiled([box(0, 0, 350, 200)], printing);
    const [left, right] = pages as [Page, Page];
    expect(left.window.maxX - left.cell.maxX).toBe(5);
    expect(right.cell.minX).toBeCloseTo(left.cell.maxX, 9);
    const shared = marksOf(left).filter((m) => marksOf(right).some((n) => Math.hypot(n.x - m.x, n.y - m.y) < 1e-9));
    expect(shared.length).toBe(4);
    for (const { x } of shared) expect(x).toBeCloseTo(left.cell.maxX, 9);
  });
  it('are refused where margins leave nothing to print on', () => {
    expect(() => tiled([box(0, 0, 10, 10)], { ...printing, marginMm: 100 })).toThrow(PaperError);
  });
});

/** The light table's view: what stays where on the screen. */

import { apply } from '@nuvet/core/plane';
import { fitTrueUp } from '@nuvet/core/trueup';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { levelSize, levelsOf } from '../../apps/web/src/shared/pyramid.ts';
import { keptUnder, placementOf, toScreen, toSheet, wholeSheet, zoomed } from '../../apps/web/src/table/view.ts';

const size = { widthPx: 3000, heightPx: 2000 };
const screen = { width: 940, height: 708 };

describe('the view', () => {
  it('shows the whole sheet with a margin', () => {
    const fit = fitTrueUp(size, [], 300);
    const view = wholeSheet(fit.sheetBox, screen);
    for (const corner of [
      { x: 0, y: 0 },
      { x: fit.sheetWidthMm, y: fit.sheetHeightMm },
    ]) {
      const p = toScreen(view, corner);
      expect(p.x).toBeGreaterThan(30);
      expect(p.x).toBeLessThan(screen.width - 30);
      expect(p.y).toBeGreaterThan(30);
      expect(p.y).toBeLessThan(screen.height - 30);
    }
  });
  it('zooms about the pointer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 940 }),
        fc.integer({ min: 0, max: 708 }),
        fc.double({ min: 0.2, max: 8, noNaN: true }),
        (x, y, factor) => {
          const view = { scale: 3, x: 100, y: 600 };
          const before = toSheet(view, { x, y });
          const after = toSheet(zoomed(view, { x, y }, factor), { x, y });
          expect(Math.hypot(before.x - after.x, before.y - after.y)).toBeLessThan(1e-9 * (1 + Math.abs(before.x) + Math.abs(before.y)));
        },
      ),
    );
  });
  it('keeps the picture in its place, and as large, when its size is typed: nothing flies off', () => {
    const before = fitTrueUp(size, [], 300);
    const after = fitTrueUp(
      size,
      [
        {
          kind: 'known-length',
          id: 'a',
          points: [
            { x: 0, y: 0 },
            { x: 100, y: 0 },
          ],
          stated: [900],
        },
        {
          kind: 'level',
          id: 'b',
          points: [
            { x: 0, y: 0 },
            { x: 100, y: 7 },
          ],
          stated: [],
        },
      ],
      null,
    );
    const view = wholeSheet(before.sheetBox, screen);
    const kept = keptUnder(view, before, after, size);
    const [was, is] = [placementOf(view, before), placementOf(kept, after)];
    const middle = { x: 1500, y: 1000 };
    expect(apply(is, middle).x).toBeCloseTo(apply(was, middle).x, 9);
    expect(apply(is, middle).y).toBeCloseTo(apply(was, middle).y, 9);
    expect(Math.hypot(is.a, is.b)).toBeCloseTo(Math.hypot(was.a, was.b), 9);
  });
});

describe('the tile pyramid', () => {
  it('ends in one tile, whatever the size', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60_000 }), fc.integer({ min: 1, max: 60_000 }), (width, height) => {
        const last = levelsOf(width, height) - 1;
        const top = levelSize(width, height, last);
        expect(Math.max(top.width, top.height)).toBeLessThanOrEqual(512);
        if (last > 0) expect(Math.max(...Object.values(levelSize(width, height, last - 1)))).toBeGreaterThan(512);
      }),
    );
  });
});

/** Beds of a wing core: with it they are the block again. */
import { bedsOf, coreFaces, coreOf, nacaAirfoil } from '@nuvet/core/foam';
import { pathArea, pathBox, polygonPath } from '@nuvet/core/plane';
import { describe, expect, it } from 'vitest';

describe('the beds of a core', () => {
  it.each(['0012', '2412', '6409'])('of %s fill the block with it, on flat feet', (digits) => {
    const section = nacaAirfoil(digits);
    const { root } = coreFaces({ root: section, tip: section, rootChordMm: 200, tipChordMm: 200, spanMm: 400, sweepMm: 0, riseMm: 0, washout: 0, skinMm: 1, leadingMm: 4, trailingMm: 10, spars: [] }); // biome-ignore format: one line
    const core = polygonPath(coreOf(root));
    const { upper, lower } = bedsOf(root, 10);
    const box = pathBox(core);
    const block = (box.maxX - box.minX + 20) * (box.maxY - box.minY + 20);
    expect(Math.abs(pathArea(upper)) + Math.abs(pathArea(lower)) + Math.abs(pathArea(core))).toBeCloseTo(block, 6);
    expect([pathArea(upper) > 0, pathArea(lower) > 0]).toEqual([true, true]);
    expect(pathBox(lower).minY).toBeCloseTo(box.minY - 10, 9);
    expect(pathBox(upper).maxY).toBeCloseTo(box.maxY + 10, 9);
  });
});

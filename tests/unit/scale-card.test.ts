/** The scale card: its markers read by js-aruco2 (npm), its page by pdf-lib (npm). */

import { writeScaleCard } from '@nuvet/core/formats';
import { markerCells } from '@nuvet/core/raster';
import { cardMarkers, checkLineMm } from '@nuvet/core/trueup';
import { onScaleCard, plateScene, scanScene } from '@nuvet/truth';
import { PDFDocument } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import { readSquare } from './marker-reader.ts';

describe('the scale card', () => {
  it('has the markers that another reader of the same dictionary finds, each with its number', () => {
    const { picture } = scanScene(onScaleCard({ ...plateScene, pieces: [] }, { x: 45, y: 100 }), { dpi: 100, noise: 2 });
    expect(readSquare(picture).sort()).toEqual(cardMarkers.map((m) => m.id).sort());
  });
  it('numbers outside the dictionary are refused', () => {
    for (const id of [-1, 1024, 1.5]) expect(() => markerCells(id)).toThrow(RangeError);
  });
  it.each([
    ['a4', 210, 297],
    ['letter', 215.9, 279.4],
  ] as const)('on %s is one page of %f x %f mm, the same on every day', async (page, widthMm, heightMm) => {
    const bytes = await writeScaleCard(page);
    const read = await PDFDocument.load(bytes);
    expect(read.getPageCount()).toBe(1);
    const { width, height } = read.getPage(0).getSize();
    expect((width / 72) * 25.4).toBeCloseTo(widthMm, 6);
    expect((height / 72) * 25.4).toBeCloseTo(heightMm, 6);
    expect(Buffer.from(await writeScaleCard(page)).equals(Buffer.from(bytes))).toBe(true);
    expect(checkLineMm).toBe(100);
  });
});

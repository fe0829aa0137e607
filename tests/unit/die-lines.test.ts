/** Cartons drawn from their size, scanned, traced and folded, against the drawing. */

import { bleedOutlines } from '@nuvet/core/folding';
import { circlePath, pathArea } from '@nuvet/core/plane';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { cartonInk, cartonKinds, cartonOf, cartonScan, dashedAlong, penStroke, scanScene } from '@nuvet/truth';
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

it('flaps are named by what they are for', () => {
  const names = (kind: (typeof cartonKinds)[number], of = size) => {
    const counts = new Map<string, number>();
    for (const { name } of panelsDrawn(cartonOf(kind, of)).panels) {
      const role = name.replace(/ \d+$/, '');
      counts.set(role, (counts.get(role) ?? 0) + 1);
    }
    return Object.fromEntries(counts);
  };
  // Four walls and two lids; two tucks; four flaps against dust; where it is glued.
  expect(names('tuck end')).toEqual({ Panel: 6, 'Tuck flap': 2, Flap: 4, 'Glue flap': 1 });
  expect(names('sleeve')).toEqual({ Panel: 4, 'Glue flap': 1 });
  // A flat one, with tabs at its corners.
  expect(names('tray', { ...size, widthMm: 80, depthMm: 60, heightMm: 24 })).toEqual({ Panel: 5, Flap: 4 });
});

describe('creases in a second colour', () => {
  it.each([1, 2])('without gaps are told from cuts by it alone (%d)', (number) => {
    const { isWhole, worstMm } = foldedCarton(cartonScan(number, { dpi: 150, isInTwoColours: true, hasSolidCreases: true }));
    expect(isWhole).toBe(true);
    expect(worstMm).toBeLessThan(0.1);
  });
});

describe('a line about the cut, 3 mm off it,', () => {
  const carton = cartonOf('sleeve', size);
  const { widthMm, heightMm } = carton.sheet;
  const bleed = bleedOutlines(
    [{ id: 'c', name: 'C', purpose: 'cut', leftOut: false, runsOff: false, outer: carton.contour, holes: [] }],
    3,
  );
  const traced = (hasCreases: boolean) => {
    const ink = cartonInk(carton, { dashMm: 3, gapMm: 1.6, isDashFirst: false }, 0.6);
    const pieces = [...ink.cuts, ...(hasCreases ? ink.creases : []), ...bleed.map(({ outer }) => penStroke(outer, 0.6))];
    const scan = scanScene({ name: 'bleed', widthMm, heightMm, pieces }, { dpi: 240, tiltDegrees: 1 });
    return tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, take: 'line-middle' }).pieces;
  };
  it('is bleed where there are creases, and the cut is a piece without it', () => {
    const pieces = traced(true);
    const [cut, about] = [pieces.find(({ outer, isBleed }) => outer.closed && !isBleed), pieces.find(({ isBleed }) => isBleed)];
    const mm2 = (mm: number) => mm * (25.4 / 240) ** 2;
    expect(cut?.holes).toEqual([]);
    expect(mm2(Math.abs(pathArea(cut?.outer ?? carton.contour)))).toBeCloseTo(Math.abs(pathArea(carton.contour)), -1);
    expect(Math.abs(pathArea(about?.outer ?? carton.contour))).toBeGreaterThan(Math.abs(pathArea(cut?.outer ?? carton.contour)));
  });
  it('is a ring where dashes are only the axes of it', () => {
    const ring = [circlePath({ x: 40, y: 40 }, 25), circlePath({ x: 40, y: 40 }, 22)].map((path) => penStroke(path, 0.6));
    const axis = { start: { x: 5, y: 40 }, segments: [{ kind: 'line' as const, to: { x: 75, y: 40 } }], closed: false };
    const pieces = [...ring, ...dashedAlong(axis, { dashMm: 3, gapMm: 1.6, isDashFirst: false }, 0.4)];
    const scan = scanScene({ name: 'gasket', widthMm: 80, heightMm: 80, pieces }, { dpi: 240 });
    const found = tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, take: 'line-middle' }).pieces;
    expect(found.some(({ isBleed }) => isBleed)).toBe(false);
  });
  it('is a ring where there are none', () => {
    const [ring, ...others] = traced(false);
    expect(ring?.holes.length).toBe(1);
    expect(others).toEqual([]);
  });
});

/** Areas of several colours: found as they were drawn, sharing their borders to the last digit. */
import { badgeBorders, badgeSheet, deviationOf, scanColours } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { inverse, type Path, pathArea, reversedPath, stepsOf, transformedPath } from '../plane/index.ts';
import { plainTraceSettings, type TracedPiece, traceColours } from './index.ts';

const colours = ['#b23a2e', '#263e70', '#468054', '#ecb23c'].map((hex) => ({ hex }));
const settings = { ...plainTraceSettings, colours };
const all = (pieces: readonly TracedPiece[]): Path[] => pieces.flatMap(({ outer, holes }) => [outer, ...holes]);

describe.each([
  [300, 1.3],
  [400, -2],
])('a badge of four colours at %d dpi, turned by %d degrees', (dpi, tiltDegrees) => {
  const scan = scanColours(badgeSheet, { dpi, tiltDegrees, noise: 5 });
  const { pieces } = traceColours(scan.picture, scan.mmPerPx, settings);
  const paths = all(pieces).map((path) => transformedPath(path, inverse(scan.toPixels)));

  it('has the pieces that were drawn, each of its colour', () => {
    expect(pieces.map(({ colour }) => colour).sort()).toEqual([0, 0, 1, 1, 2, 3]);
    expect(pieces.filter(({ holes }) => holes.length === 1)).toHaveLength(2);
    expect(pieces.every(({ runsOff }) => !runsOff)).toBe(true);
  });
  it('lies within 0.01 mm RMS of what was drawn', () => {
    expect(deviationOf(paths, badgeBorders).rmsMm).toBeLessThan(0.01);
  });
  it('shares every border inside the badge: the areas add up to that of the whole disc', () => {
    const area = paths.reduce((sum, path) => sum + pathArea(path), 0);
    expect(Math.abs(area - Math.PI * 27 ** 2)).toBeLessThan(0.002 * Math.PI * 27 ** 2);
    const name = ({ start, segments }: Path) => JSON.stringify([start, segments]);
    const sides = all(pieces).flatMap((path) =>
      stepsOf(path).map(({ from, segment }): Path => ({ start: from, segments: [segment], closed: false })),
    );
    const forward = new Set(sides.map(name));
    const shared = sides.filter((side) => forward.has(name(reversedPath(side))));
    // All but the two halves of the outermost ring.
    expect(sides.length - shared.length).toBeLessThanOrEqual(4);
    expect(shared.length).toBeGreaterThan(30);
  });
});

it('colours that are not meant belong to the ground', () => {
  const scan = scanColours(badgeSheet, { dpi: 200, noise: 4 });
  const { pieces } = traceColours(scan.picture, scan.mmPerPx, { ...settings, colours: [{ hex: '#ecb23c' }] });
  expect(pieces).toHaveLength(1);
  expect(pieces[0]?.holes).toHaveLength(1);
});

it('lines of a colour can be traced by their middles', () => {
  const scan = scanColours(badgeSheet, { dpi: 200, noise: 4 });
  const { pieces } = traceColours(scan.picture, scan.mmPerPx, { ...settings, take: 'line-middle', colours: [{ hex: '#b23a2e' }] });
  expect(pieces.length).toBeGreaterThan(0);
  expect(pieces.every(({ strokePx }) => strokePx !== null)).toBe(true);
});

it('refuses what is no colour', () => {
  const scan = scanColours(badgeSheet, { dpi: 60 });
  expect(() => traceColours(scan.picture, scan.mmPerPx, { ...settings, colours: [{ hex: 'blue' }] })).toThrow(RangeError);
});

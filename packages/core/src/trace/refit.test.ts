/** An outline changed by hand in part: by another tolerance the rest is fitted anew, and the hand's segments stay exactly. */
import { scanScene, smoothScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import type { Piece } from '../job/schema.ts';
import { touchedBy } from '../job/touched.ts';
import { directionOn, dot, nearestOnPath, type Path, type Point, stepsOf } from '../plane/index.ts';
import { withPointsMoved } from '../shape/points.ts';
import { findInk, plainTraceSettings, refittedBetween } from './index.ts';
import { outlineAlong } from './outline.ts';

const scan = scanScene(smoothScene, { dpi: 300, noise: 4, seed: 8 });
const ink = findInk(scan.picture, scan.mmPerPx, plainTraceSettings);
const [contour] = ink.contours.map(({ points }) => points).sort((a, b) => b.length - a.length) as [Float64Array];
const contours = ink.contours.map(({ points }) => points);
const at = (tolerancePx: number) => ({ blur: ink.blur, tolerancePx, searchRadiusPx: 12 });
const traced = (tolerancePx: number): Path => outlineAlong(contour, ink.blur, ink.minNoise, tolerancePx);
const pieceOf = (outer: Path): Piece => ({ id: 'a', name: 'A', purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] });

/** The outline with one of its points pulled aside, and what of it is then the hand's. */
function pulled(path: Path, point: number, by: Point) {
  const changed = withPointsMoved(path, [point], by);
  const [touched] = touchedBy(pieceOf(path), { outer: changed, holes: [] });
  return { changed, touched: touched as number[] };
}

describe('the segments that a hand has changed', () => {
  const path = traced(0.6);
  const { changed, touched } = pulled(path, 3, { x: 5, y: 4 });
  it('are the two beside a point that was moved', () => expect(touched).toEqual([2, 3]));
  it('stay the hand’s through further edits, and others join them', () => {
    const edited: Piece = { ...pieceOf(changed), edited: true, touched: [touched] };
    const again = withPointsMoved(changed, [1], { x: -3, y: 2 });
    expect(touchedBy(edited, { outer: again, holes: [] })).toEqual([[0, 1, 2, 3]]);
  });
  it('are all of them where a piece was changed before this was told apart', () => {
    expect(touchedBy({ ...pieceOf(path), edited: true }, { outer: path, holes: [] })).toEqual([path.segments.map((_, k) => k)]);
  });
});

describe.each([0.6, 1.2, 4])('fitted anew within %f px', (tolerance) => {
  const path = traced(0.6);
  const { changed, touched } = pulled(path, 3, { x: 5, y: 4 });
  const { path: made, touched: now } = refittedBetween(changed, touched, contours, at(tolerance));
  const steps = stepsOf(made);
  it('what the hand changed stays to the last digit', () => {
    const before = touched.map((k) => stepsOf(changed)[k]);
    expect(now.map((k) => steps[k])).toEqual(before);
  });
  it('the rest lies on the border within the tolerance, and hangs together', () => {
    for (let k = 0; k < contour.length; k += 14) {
      const p = { x: contour[k] as number, y: contour[k + 1] as number };
      const nearest = nearestOnPath(made, p);
      // Beside the pulled point the outline leaves the border, as it was meant to.
      const isPulled = nearestOnPath({ ...made, segments: now.map((n) => steps[n]?.segment as never), start: steps[now[0] as number]?.from as Point, closed: false }, p).distance < 8; // biome-ignore format: one place
      if (!isPulled) expect(nearest.distance).toBeLessThan(tolerance + 0.3);
    }
    expect(made.closed).toBe(true);
    expect(made.segments.at(-1)?.to).toEqual(made.start);
  });
  it('goes on smoothly where it did before', () => {
    const before = stepsOf(changed);
    const first = before[touched[0] as number] as (typeof before)[0];
    const prior = before[((touched[0] as number) + before.length - 1) % before.length] as (typeof before)[0];
    const wasSmooth = dot(directionOn(prior.from, prior.segment, 1), directionOn(first.from, first.segment, 0)) > 0.9999;
    const k = now[0] as number;
    const [a, b] = [steps[(k + steps.length - 1) % steps.length], steps[k]] as [(typeof steps)[0], (typeof steps)[0]];
    if (wasSmooth) expect(dot(directionOn(a.from, a.segment, 1), directionOn(b.from, b.segment, 0))).toBeGreaterThan(0.999);
  });
});

it('a wider tolerance takes fewer segments beside the hand’s', () => {
  const { changed, touched } = pulled(traced(0.4), 3, { x: 5, y: 4 });
  const count = (tolerance: number) => refittedBetween(changed, touched, contours, at(tolerance)).path.segments.length;
  expect(count(6)).toBeLessThan(changed.segments.length);
  expect(count(6)).toBeLessThan(count(0.4));
});

it('an outline that no hand has touched, or that is the hand’s throughout, is left as it is', () => {
  const path = traced(0.6);
  expect(refittedBetween(path, [], contours, at(4)).path).toBe(path);
  expect(
    refittedBetween(
      path,
      path.segments.map((_, k) => k),
      contours,
      at(4),
    ).path,
  ).toBe(path);
});

/** Ways along edges and lines: they keep to what is drawn, however the clicks miss it. */
import { deviationOf, linesScene, plateScene, type Scan, scanScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { apply, distance, inverse, nearestOnPath, type Path, type Point, transformedPath } from '../plane/index.ts';
import { pathAlongEdge } from '../trace/index.ts';
import { drawnTo, greyPicture, LiveWire, type LiveWireTarget } from './index.ts';

/** The path that clicks at places of the sheet, each off by some pixels, come to. */
function led(scan: Scan, places: readonly Point[], follow: LiveWireTarget, closed: boolean): Path {
  const clicks = places.map((p, k) => {
    const { x, y } = apply(scan.toPixels, p);
    return drawnTo(scan.picture, { x: x + (k % 2 === 0 ? 2 : -2), y: y + (k % 3 === 0 ? 2.5 : -1.5) }, follow, 6);
  });
  const way = clicks.slice(0, closed ? undefined : -1).flatMap((click, k) => {
    const held = new LiveWire(scan.picture, click, follow).held(clicks[(k + 1) % clicks.length] as Point);
    return k === 0 && !closed ? held : held.slice(1);
  });
  return transformedPath(pathAlongEdge(scan.picture, way, follow, closed, 0.1 / scan.mmPerPx), inverse(scan.toPixels));
}

describe('along an edge', () => {
  const scan = scanScene(plateScene, { dpi: 300, tiltDegrees: 2, noise: 5 });
  const outer = (plateScene.pieces[0] as (typeof plateScene.pieces)[0]).outer;
  const places = [{ x: 60, y: 15 }, { x: 105, y: 40 }, { x: 70, y: 75 }, { x: 15, y: 50 }]; // biome-ignore format: one line
  it('four clicks about a plate give its four lines and four arcs, within 0.03 mm', () => {
    const path = led(scan, places, 'edge', true);
    expect(path.closed).toBe(true);
    expect(deviationOf([path], [outer]).worstMm).toBeLessThan(0.03);
    expect(path.segments.length).toBeLessThanOrEqual(10);
  });
  it('the way to the pointer leads from the start to the place asked for, over pixels side by side', () => {
    const from = drawnTo(scan.picture, apply(scan.toPixels, { x: 60, y: 15 }), 'edge', 6);
    const wire = new LiveWire(scan.picture, from, 'edge');
    const place = apply(scan.toPixels, { x: 66, y: 15.2 });
    const way = wire.to(place);
    expect(way[0]).toEqual(from);
    expect(way.at(-1)).toEqual(place);
    expect(Math.max(...way.slice(1).map((p, k) => distance(p, way[k] as Point)))).toBeLessThan(2.3);
    const back = inverse(scan.toPixels);
    for (const p of way.slice(2, -3)) expect(nearestOnPath(outer, apply(back, p)).distance).toBeLessThan(0.2);
  });
  it('a way far across the picture comes to its place, and held goes there pixel by pixel', () => {
    const wire = new LiveWire(scan.picture, { x: 30.5, y: 30.5 }, 'edge');
    const place = { x: 1300.5, y: 900.5 };
    expect(wire.to(place).at(-1)).toEqual(place);
    const held = wire.held(place);
    expect(held.at(-1)).toEqual(place);
    expect(Math.max(...held.slice(1).map((p, k) => distance(p, held[k] as Point)))).toBeLessThan(2.3);
  });
});

it('made ready beforehand it leads the same ways', () => {
  const scan = scanScene(plateScene, { dpi: 100, noise: 5 });
  const from = apply(scan.toPixels, { x: 60, y: 15 });
  const [plain, ready] = [new LiveWire(scan.picture, from, 'edge'), new LiveWire(scan.picture, from, 'edge')];
  expect([...new Set(ready.prepared())]).toEqual([1, 2, 4, 8]);
  for (const place of [
    { x: 62, y: 15 },
    { x: 80, y: 30 },
    { x: 20, y: 60 },
  ].map((p) => apply(scan.toPixels, p))) {
    expect(ready.to(place)).toEqual(plain.to(place));
  }
});

describe('along the middle of a line', () => {
  it('keeps to it within 0.05 mm RMS', () => {
    const scan = scanScene(linesScene, { dpi: 150, tiltDegrees: 1, noise: 5 });
    const path = led(scan, [{ x: 20, y: 45 }, { x: 40, y: 45 }, { x: 70, y: 45 }], 'line', false); // biome-ignore format: one line
    expect(deviationOf([path], linesScene.middles).rmsMm).toBeLessThan(0.05);
  });
});

describe('on blank paper', () => {
  const blank = greyPicture(new Uint8Array(90_000).fill(230), 300, 300);
  it('a click stays where it is, and the way is about straight', () => {
    const at = { x: 100.5, y: 100.5 };
    expect(drawnTo(blank, at, 'edge', 8)).toEqual(at);
    const way = new LiveWire(blank, at, 'edge').to({ x: 160.5, y: 100.5 });
    for (const { y } of way) expect(Math.abs(y - 100.5)).toBeLessThan(1);
  });
});

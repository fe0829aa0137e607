/**
 * Outlines of lines, arcs, ellipses and curves at random for laws that are held against outside judges.
 */
import { circlePath, ellipsePath, type Path, type Point, pathArea, transformedPath, turn } from '@nuvet/core/plane';
import fc from 'fast-check';
import type { Area } from './polygons-of-jsts.ts';

/** Evenly spread: outlines at random meet, they do not touch to the last digit. */
export const number = (min: number, max: number) => fc.noBias(fc.integer({ min: 0, max: 1e7 })).map((k) => min + ((max - min) * k) / 1e7);
export const place = fc.record({ x: number(-15, 15), y: number(-15, 15) });
export const moved = (path: Path, { x, y }: Point, angle: number): Path => transformedPath(transformedPath(path, turn(angle)), { a: 1, b: 0, c: 0, d: 1, e: x, f: y }); // biome-ignore format: one line

/** An outline about its middle whose sides are lines, arcs that bow out or in, and curves: never crosses itself. */
export const mixed: fc.Arbitrary<Path> = fc
  .record({
    at: place,
    radii: fc.array(number(12, 30), { minLength: 3, maxLength: 9 }),
    kinds: fc.array(fc.constantFrom('line', 'arc', 'cubic'), { minLength: 9, maxLength: 9 }),
    bows: fc.array(number(-0.25, 0.25), { minLength: 9, maxLength: 9 }),
  })
  .map(({ at, radii, kinds, bows }) => {
    const n = radii.length;
    const corner = (k: number): Point => {
      const angle = (2 * Math.PI * k) / n;
      const r = radii[k % n] as number;
      return { x: at.x + r * Math.cos(angle), y: at.y + r * Math.sin(angle) };
    };
    return {
      start: corner(0),
      closed: true,
      segments: radii.map((_, k): Path['segments'][0] => {
        const [from, to] = [corner(k), k + 1 === n ? corner(0) : corner(k + 1)];
        const bow = bows[k] as number;
        if (kinds[k] === 'line' || Math.abs(bow) < 0.01) return { kind: 'line', to };
        if (kinds[k] === 'arc') return { kind: 'arc', to, sweep: 2 * bow };
        const [dx, dy] = [to.x - from.x, to.y - from.y];
        // To one side, then to the other.
        const off = (t: number, by: number): Point => ({ x: from.x + t * dx - by * dy, y: from.y + t * dy + by * dx });
        return { kind: 'cubic', c1: off(1 / 3, bow * 0.6), c2: off(2 / 3, -bow * 0.4), to };
      }),
    };
  });
export const round: fc.Arbitrary<Path> = fc
  .record({ at: place, a: number(4, 25), b: number(4, 25), angle: number(0, 3) })
  .map(({ at, a, b, angle }) => (Math.abs(a - b) < 4 ? circlePath(at, a) : ellipsePath(at, Math.max(a, b), Math.min(a, b), angle)));
export const outline = fc.oneof({ weight: 3, arbitrary: mixed }, { weight: 1, arbitrary: round });

export const areaOf = (areas: readonly Area[]): number =>
  areas.reduce((sum, { outer, holes }) => sum + Math.abs(pathArea(outer)) - holes.reduce((h, hole) => h + Math.abs(pathArea(hole)), 0), 0);
export const whole = (path: Path): Area => ({ outer: path, holes: [] });

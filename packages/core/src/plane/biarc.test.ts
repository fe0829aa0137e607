import fc from 'fast-check';
import { expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { cubicAsArcs, directionOn, nearestOnPath, type Path, pointOn, stepsOf } from './index.ts';

const at = fc.record({ x: fc.integer({ min: -50, max: 50 }), y: fc.integer({ min: -50, max: 50 }) });
const curve = fc.record({ kind: fc.constant('cubic' as const), c1: at, c2: at, to: at });

it('arcs follow any cubic within the tolerance, both ways', () => {
  fc.assert(
    fc.property(at, curve, (from, s) => {
      const arcs: Path = { start: from, segments: cubicAsArcs(from, s, 0.01), closed: false };
      const whole: Path = { start: from, segments: [s], closed: false };
      expect(arcs.segments.at(-1)?.to).toEqual(s.to);
      for (let t = 0; t <= 1; t += 0.01) expect(nearestOnPath(arcs, pointOn(from, s, t)).distance).toBeLessThan(0.0101);
      for (const { from: start, segment } of stepsOf(arcs)) {
        for (const t of [0.25, 0.5, 0.75]) expect(nearestOnPath(whole, pointOn(start, segment, t)).distance).toBeLessThan(0.0105);
      }
    }),
    { numRuns: lawRuns(60) },
  );
});

it('arcs along a smooth curve join with one tangent', () => {
  const from = { x: 0, y: 0 };
  const arcs = stepsOf({
    start: from,
    segments: cubicAsArcs(from, { kind: 'cubic', c1: { x: 20, y: 30 }, c2: { x: 40, y: -30 }, to: { x: 60, y: 5 } }, 0.005),
    closed: false,
  });
  expect(arcs.length).toBeLessThan(40);
  arcs.slice(1).forEach(({ from: joint, segment }, k) => {
    const before = arcs[k] as (typeof arcs)[0];
    const [a, b] = [directionOn(before.from, before.segment, 1), directionOn(joint, segment, 0)];
    expect(Math.abs(a.x * b.y - a.y * b.x)).toBeLessThan(1e-3);
  });
});

/** Every analytic slope of the true-up fit against central differences: a wrong one would only slow the fit, and nobody would see it. */

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import type { Point } from '../plane/point.ts';
import { inverseProjection, project } from '../plane/projection.ts';
import type { PullingKind, TrueUpMark } from './mark-kinds.ts';
import { type ModelParameters, type Normalization, pixelProjection } from './model.ts';
import { jacobian, modelJacobian, ownUnknowns, whitenedResiduals } from './residuals.ts';

const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const values = fc.tuple(
  within(-1, 1),
  within(-1.2, 1.2),
  within(-0.2, 0.2),
  within(-0.3, 0.3),
  within(-0.12, 0.12),
  within(-0.12, 0.12),
) as fc.Arbitrary<ModelParameters>;
const normal: Normalization = { x: 900, y: 700, unitPx: 420 };
const inPicture = fc.record({ x: within(250, 1550), y: within(150, 1250) });
const step = 1e-6;

const moved = (v: ModelParameters, index: number, by: number): ModelParameters =>
  v.map((one, k) => (k === index ? one + by : one)) as unknown as ModelParameters;

it('a place moves with each of the six parameters as it is said to', () => {
  fc.assert(
    fc.property(values, inPicture, (v, p) => {
      const moves = modelJacobian(v, normal).movesOf(p);
      for (let index = 0; index < 6; index++) {
        const [a, b] = [
          project(pixelProjection(moved(v, index, step), normal), p),
          project(pixelProjection(moved(v, index, -step), normal), p),
        ];
        expect(Math.abs((a.x - b.x) / (2 * step) - (moves[2 * index] as number))).toBeLessThan(1e-5);
        expect(Math.abs((a.y - b.y) / (2 * step) - (moves[2 * index + 1] as number))).toBeLessThan(1e-5);
      }
    }),
    { numRuns: lawRuns(200) },
  );
});

describe('a residual changes with every unknown as it is said to', () => {
  /** A mark of a kind that a shape meets exactly: there what noise makes of a residual does not bear on its slope. */
  const met: Record<PullingKind, (at: (x: number, y: number) => Point, size: number) => { mark: TrueUpMark; own: number[] }> = {
    'known-length': (at, s) => ({ mark: mark('known-length', [at(0, 0), at(0.6 * s, 0.8 * s)], [s]), own: [] }),
    clearance: (at, s) => ({ mark: mark('clearance', [at(0, 0), at(0.6 * s, -0.8 * s)], [s - 0.1, 0.1]), own: [] }),
    level: (at, s) => ({ mark: mark('level', [at(-s, 0.2), at(s, 0.2)], []), own: [] }),
    plumb: (at, s) => ({ mark: mark('plumb', [at(0.1, -s), at(0.1, s)], []), own: [] }),
    'right-angle': (at, s) => ({ mark: mark('right-angle', [at(0.6 * s, 0.8 * s), at(0, 0), at(-0.8 * s, 0.6 * s)], []), own: [] }),
    circle: (at, s) => ({ mark: mark('circle', [0.3, 1.7, 2.9, 4.4].map((a) => at(0.1 + (s / 2) * Math.cos(a), (s / 2) * Math.sin(a))), [s]), own: [0.1, 0] }),
    frame: (at, s) => {
      const [c, d] = [Math.cos(0.3), Math.sin(0.3)];
      const corner = (x: number, y: number) => at(c * x - d * y - 0.2, d * x + c * y + 0.1);
      return { mark: mark('frame', [corner(0, 0), corner(s, 0), corner(s, 0.7 * s), corner(0, 0.7 * s)], [s, 0.7 * s]), own: [-0.2, 0.1, 0.3] };
    },
    box: (at, s) => ({ mark: { ...mark('box', [at(-s / 2, 0), at(0, -0.3 * s), at(s / 2, 0.1), at(0, 0.4 * s)], [s, 0.7 * s]), boxFit: 'each-side' }, own: [] }),
    'scale-card': (at, s) => {
      const places = [[0, 0], [s, 0], [s, s], [0, s]].map(([x, y]) => ({ x: x as number, y: y as number })); // biome-ignore format: one line
      return { mark: { ...mark('scale-card', places.map((p) => at(p.x, p.y)), [100]), places }, own: [0, 0, 0] };
    },
  }; // biome-ignore format: a kind a line
  const mark = (kind: PullingKind, points: Point[], stated: number[]): TrueUpMark => ({ kind, id: kind, points, stated });

  it.each(Object.keys(met) as PullingKind[])('%s', (kind) => {
    fc.assert(
      fc.property(values, within(0.4, 1.2), (v, size) => {
        const back = inverseProjection(pixelProjection(v, normal));
        const { mark: one, own } = met[kind]((x, y) => project(back, { x, y }), size);
        const ownCount = ownUnknowns(one, true);
        const residuals = (w: ModelParameters, o: readonly number[]) => whitenedResiduals(one, pixelProjection(w, normal), o);
        const here = residuals(v, own);
        fc.pre(here.every((r) => Math.abs(r) < 1e-6));
        const free = [0, 1, 2, 3, 4, 5];
        const said = jacobian(one, modelJacobian(v, normal), free, own, ownCount);
        const compare = (slopes: readonly number[], a: readonly number[], b: readonly number[]) =>
          slopes.forEach((slope, r) => {
            const seen = ((a[r] as number) - (b[r] as number)) / (2 * step);
            expect(Math.abs(seen - slope)).toBeLessThan(1e-4 * Math.max(10, Math.abs(slope)));
          });
        free.forEach((index, k) => {
          compare(said.shared[k] as number[], residuals(moved(v, index, step), own), residuals(moved(v, index, -step), own));
        });
        for (let k = 0; k < ownCount; k++) {
          const by = (d: number) => own.map((o, j) => (j === k ? o + d : o));
          compare(said.own[k] as number[], residuals(v, by(step)), residuals(v, by(-step)));
        }
      }),
      { numRuns: lawRuns(120) },
    );
  });
});

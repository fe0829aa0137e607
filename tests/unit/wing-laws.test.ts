/** Wing cores by hot wire: sections against the published equations, and what a wire that was not written with them leaves of its block. */

import { airfoilThrough, burnFrom, coreFaces, coreOf, nacaAirfoil, nacaMeanLine, nacaThickness, readAirfoil, type WingCut, type WingPanel, wingCut } from '@nuvet/core/foam'; // biome-ignore format: one line
import { readWireProgram, wireProgramDeviation, writeWireProgram } from '@nuvet/core/formats';
import { type Path, type Point, pathArea, polygonOf, reversedPath } from '@nuvet/core/plane';
import { HotWire } from '@nuvet/cutter/hot-wire';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

/** Abbott & von Doenhoff 1959, 6.6: y of a side at the x that the published equations give it. */
function published(digits: string, side: 1 | -1, x: number): Point {
  const [m, p, t] = [Number(digits[0]) / 100, Number(digits[1]) / 10, Number(digits.slice(2)) / 100];
  const { y, slope } = nacaMeanLine(m, p, x);
  const half = nacaThickness(t, x);
  return { x: x - side * half * Math.sin(Math.atan(slope)), y: y + side * half * Math.cos(Math.atan(slope)) };
}

const digits = fc.tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 2, max: 7 }), fc.integer({ min: 6, max: 21 }), fc.boolean()).map(([m, p, t, isFlat]) => `${isFlat ? '00' : `${m}${p}`}${String(t).padStart(2, '0')}`); // biome-ignore format: one line

describe('a section of four digits', () => {
  it('has the published ordinates: NACA 0012 and the mean line of 2412 (table and equations of Abbott & von Doenhoff 1959)', () => {
    // Half the thickness of 0012 in per cent of the chord, from the published table: 1.25, 10, 30, 60 and 100 per cent aft.
    for (const [x, y] of [[1.25, 1.894], [10, 4.683], [30, 6.002], [60, 4.563], [100, 0.126]] as const) expect(100 * nacaThickness(0.12, x / 100)).toBeCloseTo(y, 2); // biome-ignore format: one line
    expect(nacaMeanLine(0.02, 0.4, 0.4)).toEqual({ y: expect.closeTo(0.02, 12), slope: expect.closeTo(0, 12) });
    expect(nacaMeanLine(0.02, 0.4, 1).y).toBeCloseTo(0, 12);
  });
  it('follows the published equations to a millionth of the chord', () => {
    fc.assert(
      fc.property(digits, fc.double({ min: 0, max: 1, noNaN: true }), (name, x) => {
        const { upper, lower } = nacaAirfoil(name);
        for (const [side, path] of [[1, upper], [-1, lower]] as const) {
          const p = published(name, side, x);
          const near = polygonOf(path, 1e-8);
          let least = Infinity;
          for (let k = 1; k < near.length; k++) {
            const [a, b] = [near[k - 1] as Point, near[k] as Point];
            const [dx, dy] = [b.x - a.x, b.y - a.y];
            const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / Math.max(dx * dx + dy * dy, 1e-30)));
            least = Math.min(least, Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy));
          }
          expect(least).toBeLessThan(1e-6);
        } // biome-ignore format: sides
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('has the area of the closed form of its thickness', () => {
    // The integral of the published polynomial: 5 t (2/3 a + b/2 + c/3 + d/4 + e/5), twice.
    const area = 2 * 5 * 0.12 * ((2 / 3) * 0.2969 - 0.126 / 2 - 0.3516 / 3 + 0.2843 / 4 - 0.1015 / 5);
    const { upper, lower } = nacaAirfoil('0012');
    const over = reversedPath(upper);
    const whole: Path = {
      start: over.start,
      segments: [...over.segments, ...lower.segments, { kind: 'line', to: over.start }],
      closed: true,
    };
    expect(pathArea(whole)).toBeCloseTo(area, 7);
  });
  it.each(['', '24', '9x12', '2012', '0400', '24120'])('“%s” is refused', (name) => {
    expect(() => nacaAirfoil(name)).toThrow(/names no section/);
  });
});

describe('coordinates of a section', () => {
  const { upper, lower } = nacaAirfoil('2415');
  const nodes = ({ start, segments }: Path): Point[] => [start, ...segments.map(({ to }) => to)];
  const row = ({ x, y }: Point): string => `  ${x.toFixed(6)}  ${y.toFixed(6)}`;
  const loop = ['Mill stream 15', ...nodes(upper).reverse().map(row), ...nodes(lower).slice(1).map(row)].join('\n');
  const sides = ['Mill stream 15', `  ${upper.segments.length + 1}.  ${lower.segments.length + 1}.`, '', ...nodes(upper).map(row), '', ...nodes(lower).map(row)].join('\n'); // biome-ignore format: one line
  it.each([['one loop', loop], ['side by side', sides]] as const)('in the layout of %s are read to a hundred-thousandth of the chord', (_, text) => {
    const read = readAirfoil(text, 'x');
    expect(read.name).toBe('Mill stream 15');
    const areaOf = (a: { upper: Path; lower: Path }) => pathArea({ start: reversedPath(a.upper).start, segments: [...reversedPath(a.upper).segments, ...a.lower.segments], closed: true }); // biome-ignore format: one line
    expect(Math.abs(areaOf(read) - areaOf({ upper, lower }))).toBeLessThan(1e-4);
  }); // biome-ignore format: layouts
  it.each([
    ['few', '1 0\n0 0\n1 0', /nine points or more; there are 3/],
    ['no numbers in a line', `${loop}\nfoam`, /holds no coordinates/],
    ['a section that crosses itself', ['x', ...[[1, 0], [0.8, 0.05], [0.6, -0.06], [0.4, 0.06], [0.2, 0.06], [0, 0], [0.2, -0.02], [0.4, -0.02], [0.6, -0.02], [0.8, -0.02], [1, 0]].map((p) => p.join(' '))].join('\n'), /crosses itself/],
    ['endless', '1 0\n'.repeat(6000), /more than 5000 lines/],
  ] as const)('of %s are refused in a sentence', (_, text, said) => {
    expect(() => readAirfoil(text, 'x')).toThrow(said);
  }); // biome-ignore format: cases
  it('turned and of any size come out on a chord of 1', () => {
    const turned = [...nodes(upper).reverse(), ...nodes(lower).slice(1)].map(({ x, y }) => ({ x: 40 + 120 * (x * Math.cos(0.1) - y * Math.sin(0.1)), y: 7 + 120 * (x * Math.sin(0.1) + y * Math.cos(0.1)) })); // biome-ignore format: one line
    const made = airfoilThrough('turned', turned);
    expect(made.upper.start.x).toBeCloseTo(0, 9);
    expect((made.upper.segments.at(-1)?.to.x ?? 0) + (made.lower.segments.at(-1)?.to.x ?? 0)).toBeCloseTo(2, 9);
  });
});

const plain: WingPanel = { root: nacaAirfoil('2412'), tip: nacaAirfoil('0012'), rootChordMm: 200, tipChordMm: 150, spanMm: 400, sweepMm: 30, riseMm: 0, washout: 2, skinMm: 0, leadingMm: 0, trailingMm: 0, spars: [] }; // biome-ignore format: one line
const readings = [{ mmPerMin: 150, burnMm: 1.3 }, { mmPerMin: 300, burnMm: 0.9 }, { mmPerMin: 600, burnMm: 0.7 }]; // biome-ignore format: readings
const machine = {
  burn: burnFrom(readings),
  feedMmPerMin: 300,
  fastestMmPerMin: 500,
  leadMm: 20,
  betweenMm: 900,
  toFoamMm: 150,
  isTipLeft: false,
};

describe('a core', () => {
  it('lies inside of its section by the sheeting, between the allowances at its edges, with slots for its spars', () => {
    const panel: WingPanel = { ...plain, skinMm: 1.5, leadingMm: 6, trailingMm: 12, spars: [{ at: 0.3, side: 'upper', widthMm: 6, depthMm: 4 }, { at: 0.3, side: 'lower', widthMm: 6, depthMm: 4 }] }; // biome-ignore format: one line
    const { root } = coreFaces(panel);
    expect(root.runs.map(({ kind }) => kind).join(' ')).toBe('upper slot slot slot upper edge lower slot slot slot lower edge');
    const xs = coreOf(root).map(({ x }) => x);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([expect.closeTo(6, 9), expect.closeTo(188, 9)]);
    for (const { kind, points } of root.runs) if (kind === 'slot') for (const { x } of points) expect(Math.abs(x - 60)).toBeCloseTo(3, 9);
    // Sheeting laid back on to it is the section again.
    const section = polygonOf(root.section, 0.0005);
    for (const p of root.runs.filter(({ kind }) => kind === 'upper').flatMap(({ points }) => points.slice(1, -1))) {
      const near = Math.min(...section.map((q) => Math.hypot(p.x - q.x, p.y - q.y)));
      expect(near).toBeGreaterThan(1.5 - 1e-3);
    }
  });
  it.each([
    [{ skinMm: 15 }, /leaves nothing of the core at the root/],
    [{ leadingMm: 120, trailingMm: 90 }, /leave nothing of the core at the root/],
    [{ leadingMm: 90, trailingMm: 70 }, /leave nothing of the core at the tip/],
    [{ spars: [{ at: 0.3, side: 'upper', widthMm: 6, depthMm: 40 }] }, /deeper than the core at the root/],
    [{ spars: [{ at: 1.2, side: 'upper', widthMm: 6, depthMm: 4 }] }, /does not lie within the core/],
    [{ spanMm: 0 }, /have to lie apart/],
  ] as const)('that cannot be is refused: %j', (change, said) => {
    expect(() => coreFaces({ ...plain, ...change } as WingPanel)).toThrow(said);
  });
});

describe('the burn', () => {
  it('follows from a calibration cut, wider where the wire is slow', () => {
    const burn = burnFrom(readings);
    for (const { mmPerMin, burnMm } of readings) expect(burn(mmPerMin)).toBeCloseTo(burnMm, 1);
    expect(burn(100)).toBeGreaterThan(burn(200));
    expect(burnFrom([{ mmPerMin: 300, burnMm: 0.8 }])(50)).toBe(0.8);
    expect(burnFrom([])(300)).toBe(0);
  });
});

/** The burn that the stand-in has: exactly what the readings of a cut on it would give. */
const melts = { burnMm: 0.5, burnMm2PerMin: 40 };
const noBurn = { burnMm: 0, burnMm2PerMin: 0 };
const burnOfStandIn = burnFrom([100, 200, 400].map((mmPerMin) => ({ mmPerMin, burnMm: melts.burnMm + melts.burnMm2PerMin / mmPerMin })));

describe('a panel cut by the wire that stands in', () => {
  it('is the ruled surface between its sections within 0.02 mm, tapered, swept and twisted as it likes, and no tower goes too fast', () => {
    const panels = fc.record({
      root: digits,
      tip: digits,
      rootChordMm: fc.integer({ min: 120, max: 320 }),
      taper: fc.double({ min: 0.5, max: 1.1, noNaN: true }),
      spanMm: fc.integer({ min: 250, max: 700 }),
      sweepMm: fc.integer({ min: -40, max: 120 }),
      riseMm: fc.integer({ min: -20, max: 40 }),
      washout: fc.integer({ min: -3, max: 6 }),
      skinMm: fc.constantFrom(0, 0.5, 0.8),
      feedMmPerMin: fc.integer({ min: 200, max: 600 }),
      isTipLeft: fc.boolean(),
    });
    fc.assert(
      fc.property(panels, ({ root, tip, taper, feedMmPerMin, isTipLeft, ...rest }) => {
        const panel: WingPanel = { ...rest, root: nacaAirfoil(root), tip: nacaAirfoil(tip), tipChordMm: rest.rootChordMm * taper, leadingMm: 0, trailingMm: 4, spars: [] }; // biome-ignore format: one line
        const places = (cut: WingCut): ((share: number) => Point[]) => {
          const [a, b] = [denseRuns(cut.faces.root), denseRuns(cut.faces.tip)];
          return (share) => a.map((p, k) => ({ x: p.x + share * ((b[k] as Point).x - p.x), y: p.y + share * ((b[k] as Point).y - p.y) }));
        };
        // A wire that melts nothing beside itself goes along the surface, at the faces and half-way between.
        const [bare, hot] = [noBurn, melts].map((own) => {
          const readings = [100, 200, 400].map((mmPerMin) => ({ mmPerMin, burnMm: own.burnMm + own.burnMm2PerMin / mmPerMin }));
          const cut = wingCut(panel, { ...machine, burn: burnFrom(readings), feedMmPerMin, isTipLeft });
          const text = writeWireProgram(cut.towers, { title: 'panel', axes: 'UV', warmUpS: 4 });
          expect(wireProgramDeviation(cut.towers, readWireProgram(text, 'UV'))).toBeLessThan(1e-4);
          const wire = new HotWire({ ...own, betweenMm: 900, toBlockMm: 150, spanMm: panel.spanMm, axes: ['U', 'V'], fastestMmPerMin: machine.fastestMmPerMin }); // biome-ignore format: one line
          for (const line of text.split('\n')) wire.read(line);
          expect([wire.isHot, wire.isDone]).toEqual([false, true]);
          // No tower was asked to go faster than it can: the wire would have stopped.
          expect(wire.fastestMmPerMin).toBeGreaterThan(50);
          const at = places(cut);
          return (share: number, isNearCorners: boolean) => {
            const ends = at(share).filter((_, k) => k % perRun === 0);
            const isFar = (p: Point): boolean => ends.every((end) => Math.hypot(p.x - end.x, p.y - end.y) > 1.2);
            const all = at(share).filter((p) => isNearCorners || isFar(p));
            return wire.offBy(isTipLeft ? 1 - share : share, all).mostMm;
          };
        }) as [(share: number, isNearCorners: boolean) => number, (share: number, isNearCorners: boolean) => number];
        for (const share of [0, 0.5, 1]) expect(bare(share, true)).toBeLessThan(0.02);
        // One that melts leaves both faces as they should be, however different its speeds there; at the tips of edges it changes speed.
        for (const share of [0, 1]) {
          expect(hot(share, false)).toBeLessThan(0.02);
          expect(hot(share, true)).toBeLessThan(0.25);
        }
      }),
      { numRuns: lawRuns(100), endOnFailure: true },
    );
  });
  it('with slots melts next to nothing of the core, and what stands in the corners of a slot is what a round wire leaves', () => {
    const panel: WingPanel = { ...plain, trailingMm: 10, spars: [{ at: 0.3, side: 'upper', widthMm: 8, depthMm: 5 }] };
    const cut = wingCut(panel, { ...machine, burn: burnOfStandIn });
    const wire = new HotWire({ ...melts, betweenMm: 900, toBlockMm: 150, spanMm: 400, axes: ['A', 'B'], fastestMmPerMin: 1500 });
    for (const line of writeWireProgram(cut.towers, { title: 'slots', axes: 'AB', warmUpS: 4 }).split('\n')) wire.read(line);
    expect(wire.offBy(0, coreOf(cut.faces.root)).gougedMm).toBeLessThan(0.05);
    expect(wire.offBy(1, coreOf(cut.faces.tip)).gougedMm).toBeLessThan(0.05);
  });
});

const perRun = 60;

/** Places along each run at equal shares of its length: those of two faces answer to one another. */
function denseRuns({ runs }: { runs: readonly { points: readonly Point[] }[] }): Point[] {
  return runs.flatMap(({ points }) => {
    const upTo = [0];
    points
      .slice(1)
      .forEach((p, k) => void upTo.push((upTo[k] as number) + Math.hypot(p.x - (points[k] as Point).x, p.y - (points[k] as Point).y)));
    const length = upTo.at(-1) as number;
    return Array.from({ length: perRun }, (_, n) => {
      const wanted = (length * n) / perRun;
      const k = Math.max(
        1,
        upTo.findIndex((s) => s >= wanted),
      );
      const [p, q] = [points[k - 1] as Point, points[k] as Point];
      const [from, to] = [upTo[k - 1] as number, upTo[k] as number];
      const t = to > from ? (wanted - from) / (to - from) : 0;
      return { x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y) };
    });
  });
}

import fc from 'fast-check';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { plainMachine as machine, machineSchema, type Piece, type Purpose } from '../job/index.ts';
import { circlePath, distance, type Path, type Point, pathArea, pathLength, polygonPath, reversedPath } from '../plane/index.ts';
import { subPath } from '../plane/sub-path.ts';
import { figurePath, windingNumber } from '../shape/index.ts';
import { plainCutting as cutting } from './cutting.ts';
import { hatchLines } from './hatch.ts';
import { kerfCompensated } from './kerf.ts';
import { kerfGauge, kerfRead, plainGauge, slotsOf } from './kerf-gauge.ts';
import { ledInAndOut, wasteBeside } from './leads.ts';
import { trapezoid, travelTime } from './motion.ts';
import { orderedStops, type Stop, travelOf } from './order.ts';
import { perforated } from './perforation.ts';
import { toMachine } from './placement.ts';
import { plannedCut } from './plan.ts';
import { startedAt, startPoints } from './start-points.ts';
import { tabPlaces, withoutTabs } from './tabs.ts';

const p = (x: number, y: number): Point => ({ x, y });
const box = (x: number, y: number, w: number, h: number): Path => polygonPath([p(x, y), p(x + w, y), p(x + w, y + h), p(x, y + h)]);
const hole = (path: Path): Path => reversedPath(path);
let count = 0;
const piece = (outer: Path, holes: Path[] = [], purpose: Purpose = 'cut'): Piece => {
  const name = `Piece ${++count}`;
  return { id: name, name, purpose, leftOut: false, runsOff: false, outer, holes };
};
const area = (path: Path | undefined): number => (path ? Math.abs(pathArea(path)) : 0);
const run = <T>(steps: Generator<number, T>): T => {
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
};

describe('kerf compensation', () => {
  const kerf = { kerfMm: 0.18, corners: 'round' as const };
  it('of a disc with a hole gives circles of the closed form', () => {
    const [part] = kerfCompensated(piece(circlePath(p(10, 10), 20), [hole(circlePath(p(10, 10), 6))]), kerf).parts;
    expect(area(part?.outer)).toBeCloseTo(Math.PI * 20.09 ** 2, 6);
    expect(pathLength(part?.outer as Path)).toBeCloseTo(2 * Math.PI * 20.09, 6);
    expect(area(part?.holes[0])).toBeCloseTo(Math.PI * 5.91 ** 2, 6);
  });
  it('of a rounded rectangle and of a slot gives the closed forms of area and length', () => {
    const plate = figurePath({ kind: 'rectangle', centre: p(0, 0), width: 80, height: 50, radius: 7, angle: 0.3 }, null);
    const slot = figurePath({ kind: 'slot', from: p(-10, 0), to: p(14, 0), width: 5, play: 0, ends: 'round' }, null);
    const [part] = kerfCompensated(piece(plate, [hole(slot)]), kerf).parts;
    const d = 0.09;
    const rounded = (w: number, h: number, r: number) => [w * h - (4 - Math.PI) * r * r, 2 * (w + h) - (8 - 2 * Math.PI) * r] as const;
    const [a, l] = rounded(80 + 2 * d, 50 + 2 * d, 7 + d);
    expect(area(part?.outer)).toBeCloseTo(a, 6);
    expect(pathLength(part?.outer as Path)).toBeCloseTo(l, 6);
    const r = 2.5 - d;
    expect(area(part?.holes[0])).toBeCloseTo(24 * 2 * r + Math.PI * r * r, 6);
    expect(pathLength(part?.holes[0] as Path)).toBeCloseTo(48 + 2 * Math.PI * r, 6);
  });
  it('keeps corners round or mitred as chosen', () => {
    const square = piece(box(0, 0, 30, 30));
    const [round] = kerfCompensated(square, { kerfMm: 2, corners: 'round' }).parts;
    const [mitred] = kerfCompensated(square, { kerfMm: 2, corners: 'mitre' }).parts;
    expect(area(round?.outer)).toBeCloseTo(900 + 4 * 30 + Math.PI, 9);
    expect(area(mitred?.outer)).toBeCloseTo(32 * 32, 9);
  });
  it('leaves scores and open cuts on their middle', () => {
    const line: Path = { start: p(0, 0), segments: [{ kind: 'line', to: p(9, 0) }], closed: false };
    for (const one of [piece(line), piece(circlePath(p(0, 0), 5), [], 'score')])
      expect(kerfCompensated(one, kerf).parts[0]?.outer).toBe(one.outer);
  });
  it('says what vanishes, closes up and runs together', () => {
    expect(kerfCompensated(piece(box(0, 0, 30, 30), [hole(circlePath(p(15, 15), 0.05))]), kerf).lost?.message).toMatch(/hole .* close up/);
    const two = [hole(circlePath(p(10, 15), 3)), hole(circlePath(p(20, 15), 0.08))];
    expect(kerfCompensated(piece(box(0, 0, 30, 30), two), kerf).lost?.message).toMatch(/^A hole/);
    // A slot with a wide end and a mouth narrower than the kerf: the mouth closes, and the end would be a hole.
    const keyhole = [
      p(0, 0),
      p(40, 0),
      p(40, 10),
      p(20, 10),
      p(20, 5),
      p(10, 5),
      p(10, 15),
      p(20, 15),
      p(20, 10.1),
      p(40, 10.1),
      p(40, 30),
      p(0, 30),
    ];
    const { parts, lost } = kerfCompensated(piece(polygonPath(keyhole)), { kerfMm: 0.3, corners: 'round' });
    expect(parts.map(({ holes }) => holes.length)).toEqual([1]);
    expect(lost?.message).toMatch(/^A slot .* closes up at its mouth/);
    expect(kerfCompensated(piece(box(0, 0, 30, 30)), kerf).lost).toBeNull();
  });
  it('of 300 random pieces has the area that jsts finds for its buffer, within a hundredth of a millimetre of outline', () => {
    const factory = new GeometryFactory();
    const asJsts = (path: Path) =>
      factory.createPolygon([path.start, ...path.segments.map((s) => s.to)].map(({ x, y }) => new Coordinate(x, y)));
    let runs = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 16 }),
        fc.array(fc.double({ min: 8, max: 40, noNaN: true }), { minLength: 16, maxLength: 16 }),
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        (n, radii, kerfMm) => {
          runs++;
          const path = polygonPath(
            Array.from({ length: n }, (_, k) =>
              p((radii[k] as number) * Math.cos((2 * Math.PI * k) / n), (radii[k] as number) * Math.sin((2 * Math.PI * k) / n)),
            ),
          );
          const [part] = kerfCompensated(piece(path), { kerfMm, corners: 'round' }).parts;
          const truth = BufferOp.bufferOp(asJsts(path), kerfMm / 2, 64);
          // The areas differ by less than the outline's length times the distance that is allowed.
          expect(Math.abs(area(part?.outer) - truth.getArea())).toBeLessThan(0.01 * pathLength(path));
          expect(Math.abs(pathLength(part?.outer as Path) - truth.getLength())).toBeLessThan(0.01 + 1e-3 * pathLength(path));
        },
      ),
      { numRuns: 300, seed: 11 },
    );
    expect(runs).toBe(300);
  });
  it('can be read off a gauge: the tab sits in the slot that is narrower by two kerfs', () => {
    for (const { kerfMm, widthMm } of slotsOf(plainGauge)) {
      expect(kerfRead(plainGauge.tabMm, widthMm)).toBeCloseTo(kerfMm, 12);
      // Cut with that kerf, the tab is as wide as the slot.
      expect(plainGauge.tabMm - kerfMm).toBeCloseTo(widthMm + kerfMm, 12);
    }
    const made = kerfGauge(plainGauge);
    expect(made.filter((m) => m.purpose === 'cut').length).toBe(2);
    expect(made.filter((m) => m.purpose === 'engrave').length).toBe(36);
    for (const { outer } of made) if (outer.closed) expect(pathArea(outer)).toBeGreaterThan(0);
  });
});

describe('lines that fill an area', () => {
  it('are as long as the area over their spacing, and lie within it', () => {
    const ring = [circlePath(p(0, 0), 20), hole(circlePath(p(0, 0), 8))];
    for (const angle of [0, 0.7, Math.PI / 2]) {
      const lines = hatchLines(ring, angle, 0.1);
      expect(lines.reduce((sum, l) => sum + pathLength(l), 0) * 0.1).toBeCloseTo(Math.PI * (400 - 64), 0);
      for (const { start, segments } of lines) {
        const end = segments[0]?.to as Point;
        const middle = p((start.x + end.x) / 2, (start.y + end.y) / 2);
        expect(windingNumber(ring, middle)).toBe(1);
        expect(Math.atan2(end.y - start.y, end.x - start.x) % Math.PI).toSatisfy((a: number) => Math.abs(Math.sin(a - angle)) < 1e-9);
      }
    }
  });
  it('go to and fro, each line once', () => {
    const lines = hatchLines([box(0, 0, 10, 5)], 0, 1);
    expect(lines.length).toBe(5);
    expect(lines.map(({ start, segments: [only] }) => Math.sign((only?.to.x ?? 0) - start.x))).toEqual([1, -1, 1, -1, 1]);
  });
});

describe('where a loop starts and how it is led in', () => {
  const plate = figurePath({ kind: 'rectangle', centre: p(0, 0), width: 80, height: 50, radius: 0, angle: 0 }, null);
  it('is a corner, or nearest to a typed place', () => {
    expect(startPoints(plate, 'corner').length).toBe(4);
    expect(startPoints(plate, p(3, 60))[0]).toEqual({ x: 3, y: 25 });
    const begun = startedAt(plate, p(3, 25));
    expect(begun.start).toEqual({ x: 3, y: 25 });
    expect(pathArea(begun)).toBeCloseTo(4000, 9);
    expect(pathLength(begun)).toBeCloseTo(260, 9);
  });
  it.each(['line', 'arc'] as const)('a lead by %s lies in the waste and does not enter the piece', (kind) => {
    const loop = startedAt(plate, p(40, -25));
    const led = ledInAndOut(loop, { lead: { kind, inMm: 3, outMm: 2 }, overcutMm: 0 }, wasteBeside([plate], 0));
    expect(led.closed).toBe(false);
    expect(windingNumber([plate], led.start)).toBe(0);
    expect(windingNumber([plate], led.segments.at(-1)?.to as Point)).toBe(0);
    expect(pathLength(led)).toBeCloseTo(260 + (kind === 'line' ? 5 : (5 * Math.PI) / 2), 9);
    // Within a small hole the lead grows shorter, until it fits.
    const bore = hole(circlePath(p(0, 0), 1));
    const inBore = ledInAndOut(
      startedAt(bore, p(1, 0)),
      { lead: { kind, inMm: 3, outMm: 0 }, overcutMm: 0 },
      wasteBeside([plate, bore], 0),
    );
    expect(distance(inBore.start, p(0, 0))).toBeLessThan(1);
  });
  it('goes on over its start by the overcut', () => {
    const cut = ledInAndOut(
      startedAt(plate, p(40, -25)),
      { lead: { kind: 'none', inMm: 0, outMm: 0 }, overcutMm: 2.5 },
      wasteBeside([plate], 0),
    );
    expect(pathLength(cut)).toBeCloseTo(262.5, 9);
    expect(cut.segments.at(-1)?.to).toEqual(subPath(startedAt(plate, p(40, -25)), 0, 2.5).segments.at(-1)?.to);
  });
  it('bridges are as many and as wide as asked, none at a corner or in a tight bend', () => {
    const rounded = figurePath({ kind: 'rectangle', centre: p(0, 0), width: 80, height: 50, radius: 1.2, angle: 0 }, null);
    const places = tabPlaces(rounded, { count: 6, spacingMm: 0, widthMm: 0.8 });
    expect(places.length).toBe(6);
    const runs = withoutTabs(rounded, places, 1);
    expect(runs.length).toBe(6);
    expect(runs.reduce((sum, r) => sum + pathLength(r), 0)).toBeCloseTo(pathLength(rounded) - 6, 6);
    for (const r of runs) {
      for (const end of [r.start, r.segments.at(-1)?.to as Point])
        expect(Math.abs(Math.abs(end.x) - 40) < 1e-9 || Math.abs(Math.abs(end.y) - 25) < 1e-9).toBe(true);
    }
    expect(tabPlaces(rounded, { count: 0, spacingMm: 40, widthMm: 0.8 }).length).toBe(Math.floor(pathLength(rounded) / 40));
  });
});

/** Random stops in the manner of TSPLIB's uniform sets, from a small generator of its own. */
function scattered(n: number, seed: number): Stop[] {
  let state = seed;
  const random = () => {
    state = (Math.imul(state ^ (state >>> 15), 2_246_822_519) + 0x9e37_79b9) | 0;
    return (state >>> 0) / 2 ** 32;
  };
  return Array.from({ length: n }, () => {
    const entry = p(1000 * random(), 1000 * random());
    return { entry, exit: entry, isReversible: false, before: null };
  });
}

describe('a perforation', () => {
  it('of an open line begins and ends with a cut, and leaves just what was asked between', () => {
    const line: Path = { start: p(0, 0), segments: [{ kind: 'line', to: p(31, 0) }], closed: false };
    const cuts = perforated(line, { cutMm: 3, leftMm: 1 });
    expect(cuts.length).toBe(8);
    expect(cuts[0]?.start.x).toBe(0);
    expect(cuts.at(-1)?.segments.at(-1)?.to.x).toBeCloseTo(31, 9);
    for (let k = 1; k < cuts.length; k++) expect((cuts[k]?.start.x ?? 0) - (cuts[k - 1]?.segments[0]?.to.x ?? 0)).toBeCloseTo(1, 9);
  });
  it('of a closed line goes round it evenly', () => {
    const cuts = perforated(circlePath(p(0, 0), 10), { cutMm: 3, leftMm: 1 });
    expect(cuts.length).toBe(16);
    expect(cuts.reduce((sum, c) => sum + pathLength(c), 0)).toBeCloseTo(20 * Math.PI - 16, 9);
  });
});

describe('the order of cutting', () => {
  it('visits every stop once and keeps what must come before', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 1e6 }), (n, seed) => {
        // Every third stop waits for the two before it; some are lines with two ends.
        const stops = scattered(n, seed).map(
          (s, k): Stop => ({
            ...s,
            exit: k % 4 === 1 ? p(s.entry.x + 30, s.entry.y) : s.entry,
            isReversible: k % 4 === 1,
            before: k % 3 < 2 && k - (k % 3) + 2 < n ? k - (k % 3) + 2 : null,
          }),
        );
        const { order, isReversed, travelMm } = run(orderedStops(stops, p(0, 0)));
        expect([...order].sort((a, b) => a - b)).toEqual([...stops.keys()]);
        const place = new Map(order.map((k, i) => [k, i]));
        stops.forEach(({ before }, k) => {
          if (before !== null) expect(place.get(k)).toBeLessThan(place.get(before) as number);
        });
        expect(travelMm).toBeCloseTo(travelOf(stops, order, p(0, 0), isReversed), 6);
      }),
      { numRuns: lawRuns(60), seed: 5 },
    );
  });
  it('of a circle of stops is the circle itself', () => {
    const stops = Array.from({ length: 40 }, (_, k): Stop => {
      const j = (k * 17) % 40;
      const at = p(100 * Math.cos((j * Math.PI) / 20), 100 * Math.sin((j * Math.PI) / 20));
      return { entry: at, exit: at, isReversible: false, before: null };
    });
    const { travelMm } = run(orderedStops(stops, p(100, 0)));
    expect(travelMm).toBeCloseTo(39 * 200 * Math.sin(Math.PI / 40), 6);
  });
  it('of random stops is near the length that is known for such sets', () => {
    // Beardwood, Halton & Hammersley 1959; the constant 0.7124 by Johnson & McGeoch 1996 (from memory), with their boundary term.
    for (const seed of [1, 2, 3]) {
      const stops = scattered(200, seed * 7919);
      const { travelMm } = run(orderedStops(stops, p(0, 0)));
      expect(travelMm).toBeLessThan(1.25 * 0.7124 * Math.sqrt(200 * 1e6) * (1 + 0.33 / 200));
    }
  });
});

describe('how long it takes', () => {
  it('is the trapezoid of the textbook', () => {
    // 100 mm at 50 mm/s with 500 mm/s²: 0.1 s up and down over 2.5 mm each, 95 mm at speed.
    expect(trapezoid(100, 0, 0, 50, 500)).toBeCloseTo(0.2 + 95 / 50, 12);
    // Too short to reach the speed: a triangle, 2 sqrt(s / a).
    expect(trapezoid(1, 0, 0, 50, 500)).toBeCloseTo(2 * Math.sqrt(1 / 500), 12);
    expect(travelTime([{ lengthMm: 100, from: p(1, 0), to: p(1, 0) }], 50, 500)).toBeCloseTo(2.1, 12);
  });
  it('is the same for a straight in one part or in many, and longer with corners', () => {
    const leg = (lengthMm: number, d = p(1, 0)) => ({ lengthMm, from: d, to: d });
    expect(travelTime(Array(50).fill(leg(2)), 50, 500)).toBeCloseTo(2.1, 9);
    const cornered = Array.from({ length: 50 }, (_, k) => leg(2, k % 2 === 0 ? p(1, 0) : p(0, 1)));
    expect(travelTime(cornered, 50, 500)).toBeGreaterThan(3);
  });
});

describe('a cut plan', () => {
  const plate = piece(box(0, 0, 100, 60), [hole(circlePath(p(30, 30), 12)), hole(circlePath(p(70, 30), 10))]);
  const nested = piece(circlePath(p(30, 30), 6));
  const crease = piece({ start: p(0, 30), segments: [{ kind: 'line', to: p(10, 30) }], closed: false }, [], 'score');
  const area1 = piece(box(2, 2, 10, 4), [], 'pocket');
  const plan = plannedCut([plate, nested, crease, area1], { ...cutting, kerfMm: 0.2 }, machine);
  it('marks before it cuts, and cuts from the inside out', () => {
    const purposes = plan.runs.map((r) => r.purpose);
    expect(purposes.lastIndexOf('pocket')).toBeLessThan(purposes.indexOf('score'));
    expect(purposes.lastIndexOf('score')).toBeLessThan(purposes.indexOf('cut'));
    const cuts = plan.runs.filter((r) => r.purpose === 'cut');
    expect(cuts.length).toBe(4);
    const at = (test: (r: (typeof cuts)[0]) => boolean) => cuts.findIndex(test);
    const disc = at((r) => r.pieceId === nested.id);
    const around = at((r) => r.pieceId === plate.id && Math.abs(area(r.path) - Math.PI * 11.9 ** 2) < 0.1);
    const outer = at((r) => r.pieceId === plate.id && area(r.path) > 5000);
    expect(disc).toBeLessThan(around);
    expect(around).toBeLessThan(outer);
    expect(outer).toBe(3);
  });
  it('leaves the pieces at their true size: areas are those of the closed forms', () => {
    const outer = plan.runs.at(-1)?.path as Path;
    expect(area(outer)).toBeCloseTo(6000 + 0.1 * 320 + Math.PI * 0.01, 9);
  });
  it('says what it travels and how long it takes', () => {
    expect(plan.travelMm).toBeLessThanOrEqual(plan.travelBeforeMm + 1e-9);
    const cut = plan.purposes.find((t) => t.purpose === 'cut');
    const length = plan.runs.filter((r) => r.purpose === 'cut').reduce((sum, r) => sum + pathLength(r.path), 0);
    expect(cut?.lengthMm).toBeCloseTo(length, 9);
    expect(cut?.seconds).toBeGreaterThan(length / (900 / 60));
    expect(cut?.seconds).toBeLessThan(1.1 * (length / (900 / 60)));
  });
  it('puts the origin where the machine has it, and turns y over where it grows downwards', () => {
    const at = { minX: 10, minY: 20, maxX: 110, maxY: 80 };
    const to = (origin: 'lower-left' | 'upper-left' | 'centre' | 'sheet', y: 'up' | 'down') => {
      const t = toMachine(at, machineSchema.parse({ origin, y }));
      return [t.a * 30 + t.c * 50 + t.e, t.b * 30 + t.d * 50 + t.f].map((v) => v + 0);
    };
    expect(to('lower-left', 'up')).toEqual([20, 30]);
    expect(to('upper-left', 'down')).toEqual([20, 30]);
    expect(to('centre', 'up')).toEqual([-30, 0]);
    expect(to('sheet', 'up')).toEqual([30, 50]);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withBridges } from '../job/bridges.ts';
import { applyCommand, emptyJob, type Job, type Piece, type ProcessEntry, type Purpose } from '../job/index.ts';
import { english } from '../messages/index.ts';
import {
  circlePath,
  type Path,
  type Point,
  pathArea,
  pathLength,
  polygonPath,
  reversedPath,
  shift,
  transformedPath,
} from '../plane/index.ts';
import { faultsOfJob } from '../processes/index.ts';
import { type Fault, type FaultCode, faultsOf, findingsOf, fixCommand, narrowPlaces } from './index.ts';

const limits = { kerfMm: 0.2, thinnestMm: 1, clearanceMm: 0 };
const p = (x: number, y: number): Point => ({ x, y });
const poly = (...xy: number[]): Path =>
  polygonPath(Array.from({ length: xy.length / 2 }, (_, k) => p(xy[2 * k] as number, xy[2 * k + 1] as number)));
const box = (x: number, y: number, w: number, h: number): Path => poly(x, y, x + w, y, x + w, y + h, x, y + h);
const hole = (path: Path): Path => reversedPath(path);
const line = (x: number, y: number, ...xy: number[]): Path => ({
  start: p(x, y),
  segments: Array.from({ length: xy.length / 2 }, (_, k) => ({ kind: 'line', to: p(xy[2 * k] as number, xy[2 * k + 1] as number) })),
  closed: false,
});
let count = 0;
const piece = (outer: Path, holes: Path[] = [], purpose: Purpose = 'cut', name = `Piece ${++count}`): Piece => ({
  id: name,
  name,
  purpose,
  leftOut: false,
  runsOff: false,
  outer,
  holes,
});
/** The job, cut by a laser of that kerf. */
const cutWith = (job: Job, kerfMm: number): Job => {
  const [laser] = job.making.processes as [ProcessEntry];
  return { ...job, making: { ...job.making, processes: [{ ...laser, settings: { kerfMm } }] } };
};
/** A job drawn by hand, so that mends can be done in it. */
const jobOf = (pieces: readonly Piece[]): Job =>
  pieces.reduce(
    (job, { id, name, purpose, outer, holes }) =>
      applyCommand(job, {
        do: 'draw',
        drawn: { id: id.replace(' ', '-'), name, purpose, leftOut: false, source: { kind: 'paths', paths: [outer, ...holes] }, live: [] },
      }),
    cutWith(emptyJob('Weir'), limits.kerfMm),
  );
const proved = (job: Job) => findingsOf(job, faultsOfJob(job));
const codesOf = (pieces: readonly Piece[], more = limits): FaultCode[] => [
  ...new Set(faultsOf(pieces, more).map((f) => f.code as FaultCode)),
];

/** A drawn example that fails, one that passes, and the word of the button that mends the first. */
const examples: { code: FaultCode; fails: () => Piece[]; passes: () => Piece[]; button: string | null; limits?: typeof limits }[] = [
  {
    code: 'open',
    fails: () => [piece({ ...line(0, 0, 40, 0, 40, 30, 0, 30, 0, 0.4), closed: false })],
    passes: () => [piece(box(0, 0, 40, 30))],
    button: 'Close it',
  },
  {
    code: 'purpose-unset',
    fails: () => [piece(line(0, 0, 40, 10))],
    passes: () => [piece(line(0, 0, 40, 10), [], 'score')],
    button: 'A crease',
  },
  {
    code: 'near-miss',
    fails: () => [piece(line(0, 0, 40, 0), [], 'score'), piece(line(40.3, 0, 80, 20), [], 'score')],
    passes: () => [piece(line(0, 0, 40, 0), [], 'score'), piece(line(48, 0, 80, 20), [], 'score')],
    button: 'Join them',
  },
  {
    code: 'crosses-itself',
    // A small loop where a corner was overshot.
    fails: () => [piece(poly(0, 0, 40, 0, 40, 30, 20, 30, 20, 33, 24, 33, 24, 28, 0, 28))],
    passes: () => [piece(poly(0, 0, 40, 0, 40, 30, 24, 30, 24, 28, 0, 28))],
    button: 'Remove the loops',
  },
  {
    code: 'crosses-another',
    fails: () => [piece(box(0, 0, 40, 30)), piece(box(30, 10, 40, 30))],
    passes: () => [piece(box(0, 0, 40, 30)), piece(box(45, 10, 40, 30))],
    button: 'Unite them',
  },
  {
    code: 'doubled',
    // They share a part of one side, of another length on either.
    fails: () => [piece(box(0, 0, 40, 30)), piece(box(40, 5, 20, 40))],
    passes: () => [piece(box(0, 0, 40, 30)), piece(box(42, 5, 20, 40))],
    button: 'Cut it once',
  },
  { code: 'sliver', fails: () => [piece(box(0, 0, 40, 0.1))], passes: () => [piece(box(0, 0, 40, 4))], button: null },
  {
    code: 'stub',
    fails: () => [piece(poly(0, 0, 40, 0, 40, 12, 46, 12, 40, 12, 40, 30, 0, 30))],
    passes: () => [piece(poly(0, 0, 40, 0, 40, 12, 46, 15, 40, 18, 40, 30, 0, 30))],
    button: 'Cut it off',
  },
  {
    code: 'needless-points',
    fails: () => [piece(poly(0, 0, 10, 0, 25, 0.001, 40, 0, 40, 30, 0, 30))],
    passes: () => [piece(poly(0, 0, 25, 0.2, 40, 0, 40, 30, 0, 30))],
    button: 'Remove them',
  },
  {
    code: 'narrow-hole',
    fails: () => [piece(box(0, 0, 40, 30), [hole(circlePath(p(20, 15), 0.09))])],
    passes: () => [piece(box(0, 0, 40, 30), [hole(circlePath(p(20, 15), 0.11))])],
    button: 'Fill them',
  },
  {
    code: 'thin-web',
    fails: () => [piece(box(0, 0, 40, 30), [hole(circlePath(p(20, 5.7), 5))])],
    passes: () => [piece(box(0, 0, 40, 30), [hole(circlePath(p(20, 6.1), 5))])],
    button: 'Thicken it',
  },
  {
    code: 'too-near',
    fails: () => [piece(box(0, 0, 40, 30)), piece(box(40.15, 5, 20, 40))],
    passes: () => [piece(box(0, 0, 40, 30)), piece(box(40.25, 5, 20, 40))],
    button: null,
  },
  {
    code: 'sharp-corner',
    fails: () => [piece(poly(0, 0, 60, 0, 60, 20, 20, 20, 20, 60, 0, 60))],
    passes: () => [piece(box(0, 0, 60, 40))],
    button: 'Dog-bones there',
    limits: { kerfMm: 3, thinnestMm: 1, clearanceMm: 0 },
  },
  {
    code: 'drops-out',
    fails: () => [piece(box(0, 0, 60, 60), [hole(circlePath(p(30, 30), 20))]), piece(circlePath(p(30, 30), 12))],
    passes: () => [piece(box(0, 0, 60, 60), [hole(circlePath(p(30, 30), 20))]), piece(circlePath(p(100, 30), 12))],
    button: 'Bridge it',
  },
  {
    code: 'inside-another',
    fails: () => [piece(box(0, 0, 60, 60)), piece(circlePath(p(30, 30), 12))],
    passes: () => [piece(box(0, 0, 60, 60)), piece(circlePath(p(100, 30), 12))],
    button: 'Make it a hole',
  },
];

describe('each finding', () => {
  it.each(examples)('$code is told where it is, and not where it is not', ({ code, fails, passes, limits: own = limits }) => {
    expect(codesOf(fails(), own)).toContain(code);
    expect(codesOf(passes(), own)).not.toContain(code);
  });

  it.each(examples.filter((e) => e.button))('$code is mended by its button', ({ code, fails, button, limits: own = limits }) => {
    let job = jobOf(fails());
    job = cutWith(job, own.kerfMm);
    const finding = proved(job).find((f) => f.code === code);
    const fix = finding?.fixes.find((m) => english.fixes[m.word] === button);
    if (!finding || !fix) throw new Error(`no button ${button}`);
    let id = 0;
    const after = applyCommand(
      job,
      fixCommand(job, finding, fix, () => `made-${++id}`),
    );
    expect(proved(after).filter((f) => f.code === code)).toEqual([]);
    // Mending one thing does not spoil another.
    expect(proved(after).filter((f) => !proved(job).some((was) => was.code === f.code))).toEqual([]);
  });

  it('a shared stretch of outline is doubled, and no crossing', () => {
    expect(codesOf([piece(box(0, 0, 40, 30)), piece(box(40, 5, 20, 40))])).toEqual(['doubled']);
    expect(codesOf([piece(box(0, 0, 40, 30)), piece(box(40, 5, 20, 20))])).toEqual(['doubled']);
  });

  it('can be said to be meant so, and is then told no more, until the place is another', () => {
    const job = jobOf([piece(box(0, 0, 60, 60)), piece(circlePath(p(30, 30), 12), [], 'cut', 'Disc 1')]);
    const [finding] = proved(job);
    const fix = finding?.fixes.find((m) => m.do === 'accept');
    if (!finding || !fix) throw new Error('nothing to accept');
    const after = applyCommand(
      job,
      fixCommand(job, finding, fix, () => 'x'),
    );
    expect(proved(after)).toEqual([]);
    const moved = applyCommand(after, { do: 'redraw', drawnId: 'Disc-1', source: { kind: 'path', path: circlePath(p(20, 30), 12) } });
    expect(proved(moved).map((f) => f.code)).toEqual(['inside-another']);
  });
});

describe('widths', () => {
  it('of a web between a round hole and an edge are exact', () => {
    const [web] = narrowPlaces([box(0, 0, 40, 30), hole(circlePath(p(20, 5.7), 5))], 1);
    expect(web?.widthMm).toBeCloseTo(0.7, 9);
    expect(web?.isWeb).toBe(true);
  });
  it('of a neck between two hollows, of a strip and between corners are found; tips and plain corners are not necks', () => {
    const neck: Path = {
      start: p(-20, -10),
      segments: [
        { kind: 'line', to: p(-5, -10) },
        { kind: 'arc', to: p(5, -10), sweep: -2 * Math.asin(5 / 9.7) },
        { kind: 'line', to: p(20, -10) },
        { kind: 'line', to: p(20, 10) },
        { kind: 'line', to: p(-20, 10) },
      ].concat([{ kind: 'line', to: p(-20, -10) }] as never) as Path['segments'],
      closed: true,
    };
    expect(narrowPlaces([neck], 25).some((n) => n.isWeb)).toBe(true);
    expect(narrowPlaces([box(0, 0, 50, 0.6)], 1)[0]?.widthMm).toBeCloseTo(0.6, 9);
    const bow = poly(0, 0, 20, 9.75, 40, 0, 40, 20, 20, 10.25, 0, 20);
    expect(narrowPlaces([bow], 1)[0]?.widthMm).toBeCloseTo(0.5, 9);
    const needle = poly(0, 0, 60, 2, 0, 4);
    expect(narrowPlaces([needle], 1)).toEqual([]);
    const blunt = poly(0, 0, 60, 1.8, 60, 2.2, 0, 4);
    expect(narrowPlaces([blunt], 1)).toEqual([]);
  });
  it('of a slot are told apart from webs', () => {
    const slotted = poly(0, 0, 40, 0, 40, 10, 10, 10, 10, 10.15, 40, 10.15, 40, 30, 0, 30);
    const [slot] = narrowPlaces([slotted], 0.2);
    expect(slot).toMatchObject({ isWeb: false });
    expect(slot?.widthMm).toBeCloseTo(0.15, 9);
  });
});

describe('bridges', () => {
  it('hold an island by their width, without a corner of theirs left out', () => {
    const [plate, disc] = [piece(box(0, 0, 60, 60), [hole(circlePath(p(30, 30), 20))]), piece(circlePath(p(30, 30), 12))];
    const holds = [
      { id: 'h1', from: p(42, 30), to: p(50, 30), widthMm: 2 },
      { id: 'h2', from: p(18, 30), to: p(10, 30), widthMm: 2 },
    ];
    const [held, ...rest] = withBridges([plate, disc], holds);
    expect(rest).toEqual([]);
    const area = (path: Path) => Math.abs(pathArea(path));
    const whole = area(held?.outer as Path) - (held?.holes ?? []).reduce((sum, h) => sum + area(h), 0);
    // The ring less two straight bands across it: a band between circles of 12 and 20 about one centre, 2 mm wide.
    const half = (r: number) => r * r * Math.asin(1 / r) + Math.sqrt(r * r - 1);
    const bands = 2 * (half(20) - half(12));
    expect(whole).toBeCloseTo(3600 - Math.PI * 400 + Math.PI * 144 + bands, 6);
    expect(held?.holes.length).toBe(2);
  });
});

/** A polygon about a place that never crosses itself, with nothing thin, doubled or needless in it. */
const plainPolygon = (n: number, radii: readonly number[], at: Point): Path =>
  polygonPath(
    Array.from({ length: n }, (_, k) =>
      p(at.x + (radii[k] as number) * Math.cos((2 * Math.PI * k) / n), at.y + (radii[k] as number) * Math.sin((2 * Math.PI * k) / n)),
    ),
  );

type Injected = (path: Path) => { pieces: Piece[]; code: FaultCode };
const withSegments = (path: Path, segments: Path['segments'], closed = true): Path => ({ ...path, segments, closed });
const injections: Injected[] = [
  (path) => ({
    code: 'open',
    pieces: [piece(withSegments(path, [...path.segments.slice(0, -1), { kind: 'line', to: p(path.start.x, path.start.y - 0.3) }], false))],
  }),
  (path) => ({ code: 'inside-another', pieces: [piece(path), piece(circlePath(centre(path), 1.5))] }),
  (path) => ({ code: 'doubled', pieces: [piece(path), piece(path)] }),
  (path) => ({ code: 'crosses-another', pieces: [piece(path), piece(transformedPath(path, shift(3, 1)))] }),
  (path) => ({ code: 'narrow-hole', pieces: [piece(path, [hole(circlePath(centre(path), 0.08))])] }),
  (path) => {
    const [first, ...rest] = path.segments;
    const to = first?.to as Point;
    const middle = p((path.start.x + to.x) / 2, (path.start.y + to.y) / 2);
    return {
      code: 'needless-points',
      pieces: [piece(withSegments(path, [{ kind: 'line', to: middle }, ...(first ? [first] : []), ...rest]))],
    };
  },
  (path) => {
    const [first, ...rest] = path.segments;
    const to = first?.to as Point;
    const middle = p((path.start.x + to.x) / 2, (path.start.y + to.y) / 2);
    const size = Math.hypot(to.x - path.start.x, to.y - path.start.y);
    const out = p(middle.x + (2 * (to.y - path.start.y)) / size, middle.y - (2 * (to.x - path.start.x)) / size);
    const spur: Path['segments'] = [
      { kind: 'line', to: middle },
      { kind: 'line', to: out },
      { kind: 'line', to: middle },
    ];
    return { code: 'stub', pieces: [piece(withSegments(path, [...spur, ...(first ? [first] : []), ...rest]))] };
  },
];
const centre = (path: Path): Point => {
  const points = [path.start, ...path.segments.slice(0, -1).map((s) => s.to)];
  return p(points.reduce((s, q) => s + q.x, 0) / points.length, points.reduce((s, q) => s + q.y, 0) / points.length);
};

describe('random polygons with faults put into them', () => {
  it('200 of them: every fault is found and none invented', () => {
    let runs = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 5, max: 14 }),
        fc.array(fc.double({ min: 20, max: 40, noNaN: true }), { minLength: 14, maxLength: 14 }),
        fc.integer({ min: 0, max: injections.length - 1 }),
        (n, radii, which) => {
          runs++;
          const clean = plainPolygon(n, radii, p(100, 80));
          const isStraight = faultsOf([piece(clean)], limits);
          expect(isStraight).toEqual([]);
          const { pieces, code } = (injections[which] as Injected)(clean);
          const found = [...new Set(faultsOf(pieces, limits).map((f: Fault) => f.code))];
          // A point put into a spur's foot is needless, too, once the spur is gone: it is told with it.
          expect(found.filter((c) => !(code === 'stub' && c === 'needless-points'))).toEqual([code]);
        },
      ),
      { numRuns: 200, seed: 4711 },
    );
    expect(runs).toBeGreaterThanOrEqual(200);
    expect(pathLength(plainPolygon(6, Array(6).fill(10), p(0, 0)))).toBeCloseTo(60, 9);
  });
});

import {
  circlePath,
  endOf,
  isInside,
  type Path,
  pathBox,
  pathLength,
  polygonOf,
  polygonPath,
  rectanglePath,
  stepsOf,
} from '@nuvet/core/plane';
import {
  continuousLine,
  type GraphEdge,
  linePatterns,
  plainQuilting,
  type QuiltPiece,
  quiltPlan,
  routeInspection,
  stippled,
  stitchesAlong,
} from '@nuvet/core/quilting';
import { selfCrossings } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

const line = (x0: number, y0: number, x1: number, y1: number): Path => ({ start: { x: x0, y: y0 }, segments: [{ kind: 'line', to: { x: x1, y: y1 } }], closed: false }); // biome-ignore format: one line

/** The least that is walked again, by trying every way to pair the odd nodes; ways by Floyd and Warshall. */
function leastAgain(edges: readonly GraphEdge[], isClosed: boolean): number {
  const n = Math.max(...edges.flatMap(({ from, to }) => [from, to])) + 1;
  const way = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (_, j) => (i === j ? 0 : Infinity)));
  const degree = new Array(n).fill(0);
  for (const { from, to, length } of edges) {
    (way[from] as number[])[to] = Math.min((way[from] as number[])[to] as number, length);
    (way[to] as number[])[from] = Math.min((way[to] as number[])[from] as number, length);
    degree[from]++;
    degree[to]++;
  }
  for (let k = 0; k < n; k++) for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) (way[i] as number[])[j] = Math.min((way[i] as number[])[j] as number, ((way[i] as number[])[k] as number) + ((way[k] as number[])[j] as number)); // biome-ignore format: one line
  const pair = (left: readonly number[], spare: number): number => {
    if (left.length <= spare) return 0;
    const [first, ...rest] = left as [number, ...number[]];
    const paired = rest.map(
      (other) =>
        ((way[first] as number[])[other] as number) +
        pair(
          rest.filter((x) => x !== other),
          spare,
        ),
    );
    // Or the first is left as an end of the walk.
    const leftOut = spare > 0 ? pair(rest, spare - 1) : Infinity;
    return Math.min(...paired, leftOut);
  };
  const odd = degree.flatMap((d, k) => (d % 2 === 1 ? [k] : []));
  return pair(odd, isClosed || odd.length === 0 ? 0 : 2);
}

/** Graphs that hang together: a path through all nodes, and more edges. */
const graphs = fc.record({
  nodes: fc.integer({ min: 2, max: 8 }),
  more: fc.array(fc.tuple(fc.nat(7), fc.nat(7)), { maxLength: 8 }),
  lengths: fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 16, maxLength: 16 }),
});
const graphOf = ({ nodes, more, lengths }: { nodes: number; more: [number, number][]; lengths: number[] }): GraphEdge[] => [
  ...Array.from({ length: nodes - 1 }, (_, k) => ({ from: k, to: k + 1, length: lengths[k] as number })),
  ...more.flatMap(([a, b], k) => (a % nodes === b % nodes ? [] : [{ from: a % nodes, to: b % nodes, length: lengths[8 + k] as number }])),
];

describe('the least retracing', () => {
  it.each([true, false])('is what trying every pairing finds (back to its start: %s)', (isClosed) => {
    fc.assert(
      fc.property(graphs, (given) => {
        const edges = graphOf(given);
        const { again, start, end } = routeInspection(edges, isClosed);
        expect(again.reduce((sum, k) => sum + (edges[k]?.length as number), 0)).toBe(leastAgain(edges, isClosed));
        // With those walked twice all nodes but the ends are even.
        const degree = new Map<number, number>();
        for (const k of [...edges.keys(), ...again])
          for (const node of [edges[k]?.from, edges[k]?.to] as number[]) degree.set(node, (degree.get(node) ?? 0) + 1);
        const odd = [...degree].filter(([, d]) => d % 2 === 1).map(([node]) => node);
        expect(odd.sort()).toEqual(start === end ? [] : [start, end].sort());
      }),
      { numRuns: lawRuns(300) },
    );
  });
});

const inOneGo = { isSewnTwice: true, comesBack: false };

describe('a continuous line', () => {
  it('ends where it starts where that is wanted, and sews the arm back again', () => {
    const { runs, againMm } = continuousLine([line(0, 0, 10, 0), line(10, 0, 10, 10)], { isSewnTwice: true, comesBack: true });
    expect([runs.length, againMm]).toEqual([1, 20]);
    expect(runs[0]?.path.segments.at(-1)?.to).toEqual(runs[0]?.path.start);
  });
  it('of a figure of eight goes straight on where it crosses itself', () => {
    const { runs, againMm, jumpsMm } = continuousLine(
      [line(0, 0, 10, 10), line(10, 10, 10, 0), line(10, 0, 0, 10), line(0, 10, 0, 0)],
      inOneGo,
    );
    expect([runs.length, againMm, jumpsMm]).toEqual([1, 0, []]);
    const steps = stepsOf(runs[0]?.path as Path);
    expect(steps.length).toBe(6);
    steps.forEach(({ from, segment: { to } }, k) => {
      const next = steps[k + 1]?.segment.to;
      if (next && Math.hypot(to.x - 5, to.y - 5) < 1e-9) expect([next.x - to.x, next.y - to.y]).toEqual([to.x - from.x, to.y - from.y]);
    });
  });
  it('round two circles that cross turns off at one of the crossings alone', () => {
    const { runs, againMm } = continuousLine([circlePath({ x: 0, y: 0 }, 10), circlePath({ x: 15, y: 0 }, 10)], inOneGo);
    expect([runs.length, againMm]).toEqual([1, 0]);
  });
  it('goes along every line at least once, in one go, however the lines lie', () => {
    const at = fc.integer({ min: 0, max: 6 });
    fc.assert(
      fc.property(fc.array(fc.tuple(at, at, at, at), { minLength: 1, maxLength: 9 }), (all) => {
        const lines = all.filter(([a, b, c, d]) => a !== c || b !== d).map(([a, b, c, d]) => line(10 * a, 10 * b, 10 * c, 10 * d));
        if (lines.length === 0) return;
        const { runs, lengthMm, againMm } = continuousLine(lines, inOneGo, 0.001);
        for (const { path } of runs)
          for (let k = 1, steps = stepsOf(path); k < steps.length; k++) expect(steps[k]?.from).toEqual(steps[k - 1]?.segment.to);
        const places = lines.flatMap(({ start, segments: [s] }) => [0, 0.13, 0.5, 0.77, 1].map((t) => ({ x: start.x + ((s?.to.x as number) - start.x) * t, y: start.y + ((s?.to.y as number) - start.y) * t }))); // biome-ignore format: one line
        for (const p of places) {
          const near = Math.min(...runs.flatMap(({ path }) => stepsOf(path).map(({ from, segment: { to } }) => { const d = { x: to.x - from.x, y: to.y - from.y }; const t = Math.max(0, Math.min(1, ((p.x - from.x) * d.x + (p.y - from.y) * d.y) / (d.x * d.x + d.y * d.y))); return Math.hypot(p.x - from.x - t * d.x, p.y - from.y - t * d.y); }))); // biome-ignore format: one line
          expect(near).toBeLessThan(0.01);
        }
        expect(lengthMm).toBeGreaterThanOrEqual(againMm);
      }),
      { numRuns: lawRuns(100) },
    );
  });
  it('lifts the needle instead, where nothing may be sewn twice: every line once, in as few runs as there are pairs of odd ends', () => {
    const arms = [0, 1, 2, 3, 4].map((k) => line(0, 0, 10 * Math.cos(k), 10 * Math.sin(k)));
    const [twice, lifted] = [continuousLine(arms, inOneGo, 0.001), continuousLine(arms, { isSewnTwice: false, comesBack: false }, 0.001)];
    // Five ends and the middle are odd: three pairs. In one go three arms are walked twice.
    expect(twice.runs.length).toBe(1);
    expect(twice.againMm).toBeCloseTo(30, 6);
    expect([lifted.runs.length, lifted.againMm]).toEqual([3, 0]);
    expect(lifted.lengthMm).toBeCloseTo(50, 6);
  });
  it('of two parts that do not meet is two runs and a jump', () => {
    const { runs, jumpsMm } = continuousLine([line(0, 0, 10, 0), line(30, 0, 14, 0)], inOneGo);
    expect(runs.length).toBe(2);
    expect(jumpsMm[0]).toBeCloseTo(4, 9);
  });
});

describe('stippling', () => {
  it.each([
    ['a block', rectanglePath({ minX: 0, minY: 0, maxX: 304.8, maxY: 304.8 }), 12.7],
    ['a disk', circlePath({ x: 80, y: 90 }, 70), 6],
    [
      'a triangle',
      polygonPath([
        { x: 0, y: 0 },
        { x: 200, y: 20 },
        { x: 60, y: 170 },
      ]),
      5,
    ],
  ] as const)('of %s is one line within it that never crosses itself', (_, area, spacingMm) => {
    const [made, ...more] = stippled([area], { spacingMm, seed: 7 });
    expect(more.length).toBeLessThan(4);
    expect(selfCrossings([made as Path])).toEqual([]);
    for (const p of polygonOf(made as Path, 0.1)) expect(isInside(area, p)).toBe(true);
    const box = pathBox(area);
    // About one spacing of line for each spacing squared of area.
    expect(pathLength(made as Path) / ((box.maxX - box.minX) * (box.maxY - box.minY))).toBeGreaterThan(0.3 / spacingMm);
  });
});

describe('stitches', () => {
  it('are equal along a straight, with one at each corner', () => {
    const stitches = stitchesAlong({ start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 25, y: 0 } }, { kind: 'line', to: { x: 25, y: 11 } }], closed: false }, { stitchMm: 2.5, chordMm: 0.1 }); // biome-ignore format: one line
    expect(stitches.length).toBe(1 + 10 + 5);
    expect(stitches[10]).toEqual({ x: 25, y: 0 });
    for (let k = 1; k <= 10; k++) expect(Math.hypot((stitches[k]?.x as number) - (stitches[k - 1]?.x as number), 0)).toBeCloseTo(2.5, 9);
  });
  it('are shorter on a tight bend, so that a stitch leaves the line by no more than the chord error', () => {
    for (const radius of [3, 8, 40]) {
      const circle = circlePath({ x: 0, y: 0 }, radius);
      const stitches = stitchesAlong(circle, { stitchMm: 3, chordMm: 0.05 });
      expect(stitches.at(-1)).toEqual(endOf(circle));
      for (let k = 1; k < stitches.length; k++) {
        const [p, q] = [stitches[k - 1], stitches[k]] as [{ x: number; y: number }, { x: number; y: number }];
        expect(radius - Math.hypot((p.x + q.x) / 2, (p.y + q.y) / 2)).toBeLessThan(0.055);
        expect(Math.hypot(q.x - p.x, q.y - p.y)).toBeLessThanOrEqual(3.001);
      }
    }
  });
});

describe('the quilting line of a block', () => {
  const frame = { id: 'f', outer: rectanglePath({ minX: 0, minY: 0, maxX: 100, maxY: 100 }), holes: [], purpose: 'cut' as const };
  const stitch = (outer: Path, id: string) => ({ id, outer, holes: [], purpose: 'stitch' as const });
  const planOf = (pieces: readonly QuiltPiece[], line: Partial<typeof plainQuilting.line>) =>
    finished(quiltPlan(pieces, { ...plainQuilting, finishedMm: 100, line: { ...plainQuilting.line, over: 'block', ...line } }));
  it('follows lines that are drawn with the purpose stitch, which are no seams', () => {
    const {
      block,
      line: made,
      notes,
    } = planOf([frame, stitch(line(10, 10, 90, 10), 'a'), stitch(line(50, 10, 50, 80), 'b')], { pattern: 'drawn' });
    expect(block.map.faces.length).toBe(1);
    expect(made?.runs.length).toBe(1);
    expect(made?.lengthMm).toBeCloseTo(80 + 70 + (made?.againMm as number), 6);
    expect(made?.againMm).toBeCloseTo(40, 6);
    expect(notes).toEqual([]);
  });
  it('of parts that do not meet says so, and how far the needle is lifted', () => {
    const { notes } = planOf([frame, stitch(line(10, 10, 40, 10), 'a'), stitch(line(60, 10, 90, 10), 'b')], { pattern: 'drawn' });
    expect(notes.map(({ message }) => message)).toEqual([expect.stringMatching(/2 parts that do not meet.* over 20/)]);
  });
  it('with nothing to follow is refused', () => {
    expect(() => planOf([frame], { pattern: 'drawn' })).toThrow(/nothing to quilt along/);
  });
  it.each(linePatterns.filter((name) => name !== 'none' && name !== 'drawn'))('%s covers the block, each place within reach', (pattern) => {
    const { line: made } = planOf([frame], { pattern, repeatMm: 25, rowMm: 20, spacingMm: 8 });
    expect(made?.gapMm).toBeLessThan(26);
    expect(made?.lengthMm).toBeGreaterThan(300);
    expect(made?.stitches).toBeGreaterThan(100);
    for (const { path } of made?.runs ?? []) expect(Number.isFinite(pathLength(path))).toBe(true);
  });
  it('from edge to edge has whole repeats, and tells by how much they were stretched', () => {
    const { line: made } = planOf([frame], { pattern: 'zigzag', repeatMm: 30, rowMm: 30 });
    expect(made?.stretched?.x).toBeCloseTo(100 / 3 / 30 - 1, 9);
    expect(made?.runs.length).toBe(1);
    const box = pathBox(made?.runs[0]?.path as Path);
    expect([box.minX, box.maxX]).toEqual([0, 100]);
  });
  it('cross-hatched leaves squares of its spacing, whose inner circle has half of it as its radius', () => {
    const { line: made } = planOf([frame], { pattern: 'cross-hatching', angle: 0, spacingMm: 20 });
    expect(made?.gapMm).toBeCloseTo(10, 6);
  });
});

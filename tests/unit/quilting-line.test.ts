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
  isLineMotif,
  lineMotifs,
  linePatterns,
  plainQuilting,
  type QuiltingLine,
  type QuiltingLineSettings,
  type QuiltingSettings,
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
function leastAgain(edges: readonly GraphEdge[], isClosed: boolean, given: readonly number[] = []): number {
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
  // An end that is given changes the parity of its node.
  for (const node of given) degree[node]++;
  const odd = degree.flatMap((d, k) => (d % 2 === 1 ? [k] : []));
  return pair(odd, isClosed || odd.length === 0 ? 0 : 2 - given.length);
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
        const { again, start, end } = routeInspection(edges, { start: null, end: null, comesBack: isClosed });
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

/** Whether edges walked so often hang together and leave only the ends odd. */
function isOneWalk(edges: readonly GraphEdge[], walked: readonly number[], start: number, end: number): boolean {
  const degree = new Map<number, number>();
  for (const k of walked) for (const node of [edges[k]?.from, edges[k]?.to] as number[]) degree.set(node, (degree.get(node) ?? 0) + 1);
  const odd = [...degree].flatMap(([node, d]) => (d % 2 === 1 ? [node] : []));
  const reached = new Set([start]);
  for (let size = 0; size < reached.size; ) {
    size = reached.size;
    for (const k of walked) {
      const { from, to } = edges[k] as GraphEdge;
      if (reached.has(from) || reached.has(to)) reached.add(from).add(to);
    }
  }
  const wanted = start === end ? [] : [start, end];
  return [...degree.keys()].every((node) => reached.has(node)) && odd.sort().join() === wanted.sort().join();
}

describe('the least retracing between ends that are given', () => {
  it.each(['start', 'both'] as const)('is what trying every pairing finds: %s', (which) => {
    fc.assert(
      fc.property(graphs, fc.nat(7), fc.nat(7), (given, a, b) => {
        const edges = graphOf(given);
        const n = given.nodes;
        const [first, last] = [a % n, which === 'both' ? b % n : null];
        const found = routeInspection(edges, { start: first, end: last, comesBack: false });
        const ends = last === null ? [first] : [first, last];
        expect(found.again.reduce((sum, k) => sum + (edges[k]?.length as number), 0)).toBe(leastAgain(edges, false, ends));
        expect(found.start).toBe(first);
        if (last !== null) expect(found.end).toBe(last);
        expect(isOneWalk(edges, [...edges.keys(), ...found.again], found.start, found.end)).toBe(true);
      }),
      { numRuns: lawRuns(300) },
    );
  });
  it('along lines that need not be walked joins parts, and costs at most half as much again as the best choice of them', () => {
    const random = fc.record({ must: fc.array(fc.tuple(fc.nat(6), fc.nat(6)), { minLength: 1, maxLength: 4 }), lengths: fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 12, maxLength: 12 }) }); // biome-ignore format: one line
    fc.assert(
      fc.property(random, ({ must, lengths }) => {
        // A ring of seven nodes that may be walked, and lines across it that have to be.
        const ring = Array.from({ length: 7 }, (_, k): GraphEdge => ({ from: k, to: (k + 1) % 7, length: lengths[k] as number, isOptional: true })); // biome-ignore format: one line
        const across = must.flatMap(([a, b], k): GraphEdge[] => (a === b ? [] : [{ from: a, to: b, length: lengths[7 + k] as number }]));
        if (across.length === 0) return;
        const edges = [...across, ...ring];
        const { again, start, end } = routeInspection(edges, { start: null, end: null, comesBack: true });
        expect(isOneWalk(edges, [...across.keys(), ...again], start, end)).toBe(true);
        const cost = (walked: readonly number[]): number => walked.reduce((sum, k) => sum + (edges[k]?.length as number), 0);
        // Every choice of how often each edge is walked besides: not at all, once or twice.
        let best = Infinity;
        const tryAll = (k: number, chosen: number[]): void => {
          if (cost(chosen) >= best) return;
          if (k === edges.length) {
            if (isOneWalk(edges, [...across.keys(), ...chosen], start, start)) best = cost(chosen);
            return;
          }
          for (const times of [0, 1, 2]) tryAll(k + 1, [...chosen, ...new Array<number>(times).fill(k)]);
        };
        tryAll(0, []);
        const all = cost([...across.keys()]);
        expect(all + cost(again)).toBeLessThanOrEqual(1.5 * (all + best));
      }),
      { numRuns: lawRuns(25) },
    );
  });
});

const inOneGo = { isSewnTwice: true, comesBack: false, startAt: null, endAt: null };

describe('a continuous line', () => {
  it('ends where it starts where that is wanted, and sews the arm back again', () => {
    const { runs, againMm } = continuousLine([line(0, 0, 10, 0), line(10, 0, 10, 10)], { ...inOneGo, comesBack: true });
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
        const { runs, lengthMm, againMm } = continuousLine(lines, inOneGo, null, 0.001);
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
    const [twice, lifted] = [
      continuousLine(arms, inOneGo, null, 0.001),
      continuousLine(arms, { ...inOneGo, isSewnTwice: false }, null, 0.001),
    ];
    // Five ends and the middle are odd: three pairs. In one go three arms are walked twice.
    expect(twice.runs.length).toBe(1);
    expect(twice.againMm).toBeCloseTo(30, 6);
    expect([lifted.runs.length, lifted.againMm]).toEqual([3, 0]);
    expect(lifted.lengthMm).toBeCloseTo(50, 6);
  });
  it('starts and ends where it is asked to, on the middle of a line, too', () => {
    const cross = [line(0, 0, 40, 0), line(20, -20, 20, 20)];
    const { runs, againMm } = continuousLine(cross, { ...inOneGo, startAt: { x: 11, y: 3 }, endAt: { x: 20.4, y: 18 } });
    expect(runs.length).toBe(1);
    expect(runs[0]?.path.start).toEqual({ x: 11, y: 0 });
    expect(endOf(runs[0]?.path as Path)).toEqual({ x: 20, y: 18 });
    // To the near end and back, along the right arm and back, down and back, up to its end and 2 mm back.
    expect(againMm).toBeCloseTo(11 + 20 + 20 + 2, 6);
  });
  it('travels along a seam to a line that does not meet the others, and back where that is shorter than sewing twice', () => {
    const seam = line(0, 0, 100, 0);
    const lines = [line(10, 0, 10, 30), line(60, 0, 60, 30)];
    const { runs, againMm, alongSeamsMm } = continuousLine(lines, inOneGo, { seams: [seam], cost: 0.5 });
    expect([runs.length, againMm]).toEqual([1, 0]);
    expect(alongSeamsMm).toBeCloseTo(50, 6);
    expect(runs[0]?.kinds).toEqual(['drawn', 'seam', 'drawn']);
    expect(continuousLine(lines, inOneGo).runs.length).toBe(2);
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
  const planOf = (pieces: readonly QuiltPiece[], line: Partial<QuiltingLineSettings>, quilt: Partial<QuiltingSettings> = {}) =>
    finished(quiltPlan(pieces, { ...plainQuilting, finishedMm: 100, ...quilt, line: { ...plainQuilting.line, over: 'block', ...line } }));
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
  it('with nothing to follow is a note, and the templates are there all the same', () => {
    const { line: made, notes, templates } = planOf([frame], { pattern: 'drawn' });
    expect([made, templates.length]).toEqual([null, 1]);
    expect(notes.map(({ message }) => message)).toEqual([expect.stringMatching(/nothing to quilt along/)]);
  });
  it('set far too dense is a note that says how long it would be', () => {
    const { line: made, notes } = planOf([frame], { pattern: 'stippling', spacingMm: 1, over: 'quilt' }, { columns: 60, rows: 60 });
    expect(made).toBeNull();
    expect(notes[0]?.message).toMatch(/would be 36 km long/);
  });
  const covering = linePatterns.filter((name) => !['none', 'drawn', 'own motif'].includes(name) && !(isLineMotif(name) && lineMotifs[name].fills !== 'block')); // biome-ignore format: one line
  it.each(covering)('%s covers the block, each place within reach', (pattern) => {
    const { line: made } = planOf([frame], { pattern, repeatMm: 25, rowMm: 20, spacingMm: 8 });
    expect(made?.gapMm).toBeLessThan(28);
    expect(made?.lengthMm).toBeGreaterThan(300);
    expect(made?.stitches).toBeGreaterThan(100);
    for (const { path } of made?.runs ?? []) expect(Number.isFinite(pathLength(path))).toBe(true);
  });
  it('is in several places at once, one after another', () => {
    const further = [{ ...plainQuilting.line, pattern: 'river-wave', over: 'borders', repeatMm: 50 }] as const;
    const { line: made, quilt } = planOf([frame], { pattern: 'mill-wheel' }, { columns: 2, rows: 2, borders: [{ widthMm: 40, fabric: 0 }], further }); // biome-ignore format: one line
    expect(quilt.widthMm).toBe(280);
    // A wheel in each block, and one line round the border.
    expect(made?.runs.length).toBe(5);
    expect(made?.isOnBlock).toBe(false);
    expect(made?.areaMm2).toBeCloseTo(280 * 280, 6);
  });
  it('a motif is fitted to the rectangle, the triangle and the corners of its place', () => {
    const [wheel] = planOf([frame], { pattern: 'mill-wheel', insetMm: 10 }).line?.runs ?? [];
    const box = pathBox(wheel?.path as Path);
    for (const v of [box.minX, box.minY, 100 - box.maxX, 100 - box.maxY]) expect(v).toBeCloseTo(10 + 0.02 * 80, 0);
    const half = polygonPath([{ x: 0, y: 0 }, { x: 100, y: 0 }, { x: 100, y: 100 }]); // biome-ignore format: one line
    const other = polygonPath([{ x: 0, y: 0 }, { x: 100, y: 100 }, { x: 0, y: 100 }]); // biome-ignore format: one line
    const triangles = [half, other].map((outer, k) => ({ id: `t${k}`, outer, holes: [], purpose: 'cut' as const }));
    const leaves = planOf(triangles, { pattern: 'three-leaves', over: 'patches' }).line?.runs ?? [];
    expect(leaves.length).toBe(2);
    for (const { path } of leaves) {
      const own = [half, other].find((triangle) => isInside(triangle, path.start)) as Path;
      for (const p of polygonOf(path, 0.1)) expect(isInside(own, p)).toBe(true);
    }
    expect(planOf([frame], { pattern: 'fan', repeatMm: 30 }).line?.runs.length).toBe(4);
    // On point the same motif lies in squares that stand on a corner.
    const stood = planOf([frame], { pattern: 'compass', over: 'plain squares' }, { setting: 'on point', alternate: true, columns: 2, rows: 2 }).line?.runs ?? []; // biome-ignore format: one line
    expect(stood.length).toBe(1);
    const far = stepsOf(stood[0]?.path as Path).map(({ from }) => Math.hypot(from.x - 100 * Math.SQRT2, from.y - 100 * Math.SQRT2));
    expect(Math.max(...far)).toBeCloseTo(48, 6);
  });
  it('a motif of one’s own keeps its shape, as large as there is room for', () => {
    // Drawn beside the block, with the purpose stitch: it is fitted, and not sewn where it lies.
    const arrow = [stitch(line(200, 0, 220, 10), 'a1'), stitch(line(220, 10, 200, 20), 'a2')];
    const { line: made } = planOf([frame, ...arrow], { pattern: 'own motif' }, { ownMotifs: [{ name: 'Arrow', pieceIds: ['a1', 'a2'] }] }); // biome-ignore format: one line
    const ends = (made?.runs ?? []).flatMap(({ path }) => [path.start, endOf(path)]);
    expect(ends.map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([[0, 0], [100, 50], [100, 50], [0, 100]]); // biome-ignore format: one line
  });
  it('round a border turns at its corners as one closed line, whole repeats along each side', () => {
    const { line: made, quilt } = planOf([frame], { pattern: 'river-wave', over: 'borders', repeatMm: 45 }, { columns: 3, rows: 2, borders: [{ widthMm: 30, fabric: 0 }] }); // biome-ignore format: one line
    const { inner } = quilt.rings[0] as (typeof quilt.rings)[0];
    const [run] = made?.runs ?? [];
    expect(made?.runs.length).toBe(1);
    expect(run?.path.start).toEqual(endOf(run?.path as Path));
    for (const p of polygonOf(run?.path as Path, 0.05)) {
      expect(p.x).toBeGreaterThan(0);
      expect(p.x > inner.minX && p.x < inner.maxX && p.y > inner.minY && p.y < inner.maxY).toBe(false);
    }
    // 300 mm take seven repeats of 42.9, 200 mm four of 50.
    expect(made?.stretched?.x).toBeCloseTo(50 / 45 - 1, 9);
    expect(selfCrossings([run?.path as Path])).toEqual([]);
  });
  it('on a machine that reaches less far is sewn in passes as high as one another, with marks where lines go on', () => {
    const whole = planOf([frame], { pattern: 'loops', over: 'quilt' }, { rows: 3 }).line;
    const cut = planOf([frame], { pattern: 'loops', over: 'quilt', throatMm: 120 }, { rows: 3 });
    const { passes } = cut.line as QuiltingLine;
    expect(passes?.passes.length).toBe(3);
    expect(cut.line?.lengthMm).toBeCloseTo(whole?.lengthMm as number, 6);
    for (const { top, foot, runs } of passes?.passes ?? [])
      for (const { path } of runs) {
        const { minY, maxY } = pathBox(path);
        expect([minY >= foot - 1e-6, maxY <= top + 1e-6]).toEqual([true, true]);
      }
    // Where a run ends within the quilt a mark stands.
    const marked = (passes?.marks ?? []).map(({ start, segments: [s] }) => ({ x: (start.x + (s?.to.x as number)) / 2, y: (start.y + (s?.to.y as number)) / 2 })); // biome-ignore format: one line
    const [, ...later] = passes?.passes ?? [];
    for (const { top } of later) expect(marked.some(({ y }) => Math.abs(y - top) < 1e-6)).toBe(true);
    expect(cut.notes.map(({ message }) => message)).toContainEqual(expect.stringMatching(/in 3 passes/));
  });
  it('tells of places where thread piles up, and of turns that are too sharp', () => {
    const spokes = Array.from({ length: 6 }, (_, k) => stitch(line(50 - 40 * Math.cos((k * Math.PI) / 6), 50 - 40 * Math.sin((k * Math.PI) / 6), 50 + 40 * Math.cos((k * Math.PI) / 6), 50 + 40 * Math.sin((k * Math.PI) / 6)), `s${k}`)); // biome-ignore format: one line
    const { line: made, notes } = planOf([frame, ...spokes], { pattern: 'drawn', isSewnTwice: false, mostLayers: 4 });
    expect([made?.crowded.count, Math.round(made?.crowded.at?.x ?? 0), Math.round(made?.crowded.at?.y ?? 0)]).toEqual([1, 50, 50]);
    expect(notes.some(({ message }) => /over more than 4 times/.test(message))).toBe(true);
    expect(planOf([frame, ...spokes], { pattern: 'drawn', isSewnTwice: false, mostLayers: 6 }).line?.crowded.count).toBe(0);
    expect(planOf([frame, ...spokes], { pattern: 'drawn', isSewnTwice: false, mostLayers: 5 }).line?.crowded.count).toBe(1);
    const teeth = stitch({ start: { x: 10, y: 10 }, segments: [{ kind: 'line', to: { x: 12, y: 90 } }, { kind: 'line', to: { x: 14, y: 10 } }, { kind: 'line', to: { x: 60, y: 10 } }], closed: false }, 'z'); // biome-ignore format: one line
    expect(planOf([frame, teeth], { pattern: 'drawn' }).line?.sharp.count).toBe(1);
    expect(planOf([frame, teeth], { pattern: 'drawn', sharpestDegrees: 178 }).line?.sharp.count).toBe(0);
  });
  it('from edge to edge has whole repeats, and tells by how much they were stretched', () => {
    const { line: made } = planOf([frame], { pattern: 'zigzag', repeatMm: 30, rowMm: 30 });
    expect(made?.stretched?.x).toBeCloseTo(100 / 3 / 30 - 1, 9);
    expect(made?.runs.length).toBe(1);
    const box = pathBox(made?.runs[0]?.path as Path);
    expect([box.minX, box.maxX]).toEqual([0, 100]);
  });
  it('runs from left to right over a quilt, however high, and along a sash', () => {
    const rows = (over: 'quilt' | 'sashing') => planOf([frame], { pattern: 'zigzag', over, repeatMm: 50, rowMm: 50 }, { rows: 3, columns: 2, sashingMm: 20, hasPosts: true }).line?.runs ?? []; // biome-ignore format: one line
    const [whole] = rows('quilt');
    const steps = stepsOf(whole?.path as Path);
    expect(Math.abs((steps[0]?.segment.to.x as number) - (steps[0]?.from.x as number))).toBeCloseTo(220 / 8, 6);
    // Sashes between columns are sewn up or down, those between rows across.
    const boxes = rows('sashing').map(({ path }) => pathBox(path));
    expect(boxes.filter(({ minX, maxX, minY, maxY }) => maxY - minY > maxX - minX).length).toBe(3);
    expect(boxes.filter(({ minX, maxX, minY, maxY }) => maxX - minX > maxY - minY).length).toBe(4);
  });
  it('in rows that overlap has one row more, and still meets both edges', () => {
    const rowsOf = (overlapMm: number) => pathBox(planOf([frame], { pattern: 'steps', repeatMm: 100, rowMm: 25, overlapMm }).line?.runs[0]?.path as Path); // biome-ignore format: one line
    const stacked = planOf([frame], { pattern: 'teeth', repeatMm: 100, rowMm: 30, overlapMm: 6 }).line;
    // Four rows of 30 that overlap by 6 are 102 high: 30 / 102 of it each.
    expect(stacked?.stretched?.y).toBeCloseTo(100 / 102 - 1, 9);
    for (const overlapMm of [0, 5, 12]) {
      const { minY, maxY } = rowsOf(overlapMm);
      expect([minY, maxY].every((y) => y >= -1e-6 && y <= 100 + 1e-6)).toBe(true);
      expect(100 - maxY).toBeLessThan(2.5);
    }
  });
  it('is tied off at both ends of each thread, where the needle is lifted', () => {
    const lines = [frame, stitch(line(10, 10, 40, 10), 'a'), stitch(line(60, 10, 90, 10), 'b')];
    const [plain, tied] = [0, 2].map((tieOffs) => planOf(lines, { pattern: 'drawn', tieOffs }).line);
    // Two ends of two runs, twice to and fro.
    expect((tied?.stitches as number) - (plain?.stitches as number)).toBe(2 * 2 * 2 * 2);
    const one = [frame, stitch(line(10, 10, 40, 10), 'a')];
    expect(planOf(one, { pattern: 'drawn', tieOffs: 2 }).line?.stitches).toBe(12);
  });
  it('cross-hatched leaves squares of its spacing, whose inner circle has half of it as its radius', () => {
    const { line: made } = planOf([frame], { pattern: 'cross-hatching', angle: 0, spacingMm: 20 });
    expect(made?.gapMm).toBeCloseTo(10, 6);
  });
});

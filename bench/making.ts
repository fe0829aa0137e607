/**
 * Proving and making ready: how long findings take, how far the order of cutting is from what a long search finds, kerf against
 * jsts, and how exactly the files of the demo jobs say what was proved.
 */

import { fileKindNames, madeFile } from '@nuvet/core/files';
import { defaultTraceSettings, type Piece, plainMachine } from '@nuvet/core/job';
import { kerfCompensated, orderedStops, plainCutting, plannedCut, powerSettingOf, type Stop } from '@nuvet/core/make';
import { circlePath, distance, type Path, type Point, pathArea, polygonPath, transformedPath } from '@nuvet/core/plane';
import { Prover } from '@nuvet/core/proof';
import { pathThrough } from '@nuvet/core/shape';
import { tracePicture } from '@nuvet/core/trace';
import { demoJobs, scanScene } from '@nuvet/truth';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';

const line = (name: string, text: string) => console.log(`${name.padEnd(46)} ${text}`);
const finished = <T>(steps: Generator<number, T>): T => {
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
};

function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state ^ (state >>> 15), 2_246_822_519) + 0x9e37_79b9) | 0;
    return (state >>> 0) / 2 ** 32;
  };
}

const piece = (id: string, outer: Path, holes: Path[] = []): Piece => ({
  id,
  name: id,
  purpose: 'cut',
  leftOut: false,
  runsOff: false,
  outer,
  holes,
});

/** @param searchSeconds how long the order is searched for something better */
export async function measureMaking(searchSeconds: number): Promise<void> {
  measureFindings();
  measureKerf();
  measureManyPieces();
  for (const seed of [1, 2, 3]) measureOrder(`200 random pieces, set ${seed}`, scattered(200, seed * 7919), searchSeconds);
  for (const demo of demoJobs) measureOrder(demo.name, stopsOfDemo(demo), Math.min(searchSeconds, 10));
  await measureFiles();
}

function wavy(segments: number, x: number, y: number, id: string): Piece {
  const points = Array.from({ length: segments }, (_, k) => {
    const angle = (2 * Math.PI * k) / segments;
    const r = 40 + 5 * Math.sin(5 * angle);
    return { at: { x: x + r * Math.cos(angle), y: y + r * Math.sin(angle) }, corner: false };
  });
  return piece(id, pathThrough(points, true) as Path);
}

function measureFindings(): void {
  const limits = { kerfMm: 0.2, thinnestMm: 1, clearanceMm: 0 };
  const sheet = () => Array.from({ length: 100 }, (_, k) => wavy(100, 100 * (k % 10), 100 * Math.floor(k / 10), `p${k}`));
  // The first time the engine has not seen the code yet.
  const cold = performance.now();
  finished(new Prover().prove(sheet(), limits));
  const first = performance.now() - cold;
  const pieces = sheet();
  const prover = new Prover();
  const timed = (all: readonly Piece[]): number => {
    const start = performance.now();
    finished(prover.prove(all, limits));
    return performance.now() - start;
  };
  const whole = timed(pieces);
  const edits = Array.from({ length: 9 }, (_, k) =>
    timed(pieces.map((p, j) => (j === 40 + k ? wavy(100, 100 * (j % 10) + 0.2, 100 * Math.floor(j / 10), p.id) : p))),
  );
  line(
    'findings on 10,000 segments',
    `${whole.toFixed(0)} ms (500 asked; the very first time ${first.toFixed(0)}); after an edit ${(edits.sort((a, b) => a - b)[4] as number).toFixed(0)} ms (50 asked)`,
  );
}

function measureKerf(): void {
  const factory = new GeometryFactory();
  const asJsts = (path: Path) =>
    factory.createPolygon([path.start, ...path.segments.map((s) => s.to)].map(({ x, y }) => new Coordinate(x, y)));
  const random = randomFrom(99);
  let [worst, ours, theirs] = [0, 0, 0];
  for (let k = 0; k < 300; k++) {
    const n = 4 + Math.floor(random() * 12);
    const path = polygonPath(
      Array.from({ length: n }, (_, j) => {
        const r = 8 + 32 * random();
        return { x: r * Math.cos((2 * Math.PI * j) / n), y: r * Math.sin((2 * Math.PI * j) / n) };
      }),
    );
    const kerfMm = 0.05 + 2 * random();
    const t0 = performance.now();
    const { parts } = kerfCompensated(piece('p', path), { kerfMm, corners: 'round' });
    const t1 = performance.now();
    const truth = BufferOp.bufferOp(asJsts(path), kerfMm / 2, 100);
    theirs += performance.now() - t1;
    ours += t1 - t0;
    worst = Math.max(worst, Math.abs(Math.abs(pathArea(parts[0]?.outer as Path)) - truth.getArea()) / truth.getLength());
  }
  line(
    'kerf on 300 random pieces, against jsts',
    `${worst.toExponential(1)} mm along the outline at most (0.01 asked); ${(ours / theirs).toFixed(2)} times its time`,
  );
}

function scattered(n: number, seed: number): Stop[] {
  const random = randomFrom(seed);
  return Array.from({ length: n }, () => {
    const entry = { x: 1000 * random(), y: 1000 * random() };
    return { entry, exit: entry, isReversible: false, before: null };
  });
}

function measureManyPieces(): void {
  const random = randomFrom(5);
  const pieces = Array.from({ length: 2000 }, (_, k) => piece(`p${k}`, circlePath({ x: 2000 * random(), y: 1500 * random() }, 4)));
  const start = performance.now();
  const stops = finished(orderedStops(scattered(2000, 31), { x: 0, y: 0 }));
  const ordering = performance.now() - start;
  const planning = performance.now();
  const plan = plannedCut(pieces, plainCutting, plainMachine);
  line(
    '2,000 pieces ordered',
    `${ordering.toFixed(0)} ms (2000 asked), ${stops.travelMm.toFixed(0)} mm; planned with starts and times ${(performance.now() - planning).toFixed(0)} ms, travel ${(100 * (plan.travelMm / plan.travelBeforeMm)).toFixed(0)} % of what was drawn`,
  );
}

function stopsOfDemo({ scene, scan: settings, take }: (typeof demoJobs)[0]): Stop[] {
  const scan = scanScene(scene, settings);
  const mm = 25.4 / settings.dpi;
  const traced = tracePicture(scan.picture, mm, { ...defaultTraceSettings, take });
  const toMm = { a: mm, b: 0, c: 0, d: -mm, e: 0, f: 0 };
  const pieces = traced.pieces.map((p, k) => piece(`p${k}`, transformedPath(p.outer, toMm), p.holes.map((h) => transformedPath(h, toMm)))); // biome-ignore format: one line
  const { runs } = plannedCut(pieces, plainCutting, plainMachine);
  const ends = ({ path }: (typeof runs)[0]) => ({
    entry: path.start,
    exit: path.closed ? path.start : (path.segments.at(-1)?.to ?? path.start),
  });
  // Every way of a piece before the last one, which is its outer outline.
  const lastOf = new Map(runs.map((r, k) => [r.pieceId, k]));
  return runs.map(
    (r, k): Stop => ({
      ...ends(r),
      isReversible: !r.path.closed,
      before: lastOf.get(r.pieceId) === k ? null : (lastOf.get(r.pieceId) ?? null),
    }),
  );
}

function measureOrder(name: string, stops: readonly Stop[], seconds: number): void {
  const home: Point = { x: 0, y: 0 };
  const start = performance.now();
  const found = finished(orderedStops(stops, home));
  const took = performance.now() - start;
  const best = searched(stops, home, found.order, seconds);
  line(
    name,
    `${stops.length} ways, ${found.travelMm.toFixed(0)} mm in ${took.toFixed(0)} ms: ${(found.travelMm / Math.max(best, 1e-9)).toFixed(3)} times the best of ${seconds} s (1.25 asked)`,
  );
}

/** Simulated annealing (Kirkpatrick et al. 1983) by moving and turning parts; the best travel that it comes by, mm. */
function searched(stops: readonly Stop[], home: Point, first: readonly number[], seconds: number): number {
  const random = randomFrom(17);
  const n = stops.length;
  let order = [...first];
  let now = minTravel(stops, order, home);
  let best = now;
  if (n < 3) return best;
  const reach = Math.max(1, Math.sqrt(n));
  const end = performance.now() + seconds * 1000;
  const hot = now / n;
  for (let _round = 0; performance.now() < end; _round++) {
    const share = 1 - (end - performance.now()) / (seconds * 1000);
    const heat = hot * 0.15 * (1 - share) ** 2 + 1e-9;
    for (let k = 0; k < 200; k++) {
      const i = Math.floor(random() * n);
      const e = Math.min(n - 1, i + Math.floor(random() * reach * 2));
      const next = random() < 0.5 ? turned(order, i, e) : moved(order, i, e, Math.floor(random() * n));
      if (!isAllowed(stops, next)) continue;
      const travel = minTravel(stops, next, home);
      if (travel < now || random() < Math.exp((now - travel) / heat)) [order, now] = [next, travel];
      best = Math.min(best, now);
    }
  }
  return best;
}

/** The travel of an order with each line that may be turned round gone along the better way. */
function minTravel(stops: readonly Stop[], order: readonly number[], home: Point): number {
  let [at, turnedAt, sum, turnedSum] = [home, home, 0, 0];
  for (const k of order) {
    const { entry, exit, isReversible } = stops[k] as Stop;
    const next = Math.min(sum + distance(at, entry), turnedSum + distance(turnedAt, entry));
    const turnedNext = isReversible ? Math.min(sum + distance(at, exit), turnedSum + distance(turnedAt, exit)) : Infinity;
    [at, turnedAt, sum, turnedSum] = [exit, entry, next, turnedNext];
  }
  return Math.min(sum, turnedSum);
}

const turned = (order: readonly number[], i: number, e: number): number[] => [
  ...order.slice(0, i),
  ...order.slice(i, e + 1).reverse(),
  ...order.slice(e + 1),
];

function moved(order: readonly number[], i: number, e: number, to: number): number[] {
  const part = order.slice(i, e + 1);
  const rest = [...order.slice(0, i), ...order.slice(e + 1)];
  const at = Math.min(to, rest.length);
  return [...rest.slice(0, at), ...part, ...rest.slice(at)];
}

function isAllowed(stops: readonly Stop[], order: readonly number[]): boolean {
  const place = new Int32Array(stops.length);
  order.forEach((k, i) => {
    place[k] = i;
  });
  return stops.every(({ before }, k) => before === null || (place[k] as number) < (place[before] as number));
}

async function measureFiles(): Promise<void> {
  const worst = new Map<string, number>();
  for (const { scene } of demoJobs) {
    const pieces = scene.pieces.map((p, k) => piece(`p${k}`, p.outer, [...p.holes]));
    const plan = plannedCut(pieces, plainCutting, plainMachine);
    for (const kind of fileKindNames) {
      const { largestMm } = await madeFile(kind, pieces, plainCutting, {
        title: scene.name,
        machine: plainMachine,
        plan,
        powerSettingOf: (purpose) => powerSettingOf(plainCutting, purpose),
        dpi: 300,
      });
      worst.set(kind, Math.max(worst.get(kind) ?? 0, largestMm));
    }
  }
  line('files of the demo jobs, read back', `${[...worst].map(([kind, mm]) => `${kind} ${mm.toFixed(4)}`).join(', ')} mm at most`);
}

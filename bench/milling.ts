/**
 * Milling: how long pockets, carvings and simulations take, beside the plain offset rings of a general-purpose clipping library in the
 * same run.
 */
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import {
  HeightField,
  type MillTool,
  type Move,
  millPlan,
  millToolSchema,
  operationSchema,
  plainMilling,
  provedPlan,
  sweepMoves,
} from '@nuvet/core/milling';
import { type Path, type Point, pathBox, polygonOf, transformedPath } from '@nuvet/core/plane';
import { nested, pathThrough } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import { demoJobs } from '@nuvet/truth';
import { EndType, inflatePathsD, JoinType } from 'clipper2-ts';
import { letters as lettersOf } from './outside-outlines.ts';

const line = (name: string, text: string) => console.log(`${name.padEnd(46)} ${text}`);
const timed = <T>(work: () => T): { ms: number; value: T } => {
  const start = performance.now();
  const value = work();
  return { ms: performance.now() - start, value };
};
const tool = (more: Partial<MillTool>): MillTool =>
  millToolSchema.parse({ id: 't', name: 'Tool', kind: 'end mill', diameterMm: 3.175, speedRpm: 18_000, feedMmPerMin: 900, plungeMmPerMin: 300, stepdownMm: 3, stepover: 0.4, ...more }); // biome-ignore format: fields
const vBit = tool({ kind: 'V-bit', diameterMm: 12, angle: 60, tipMm: 0.1, stepdownMm: 20 });
const pocketPiece = (id: string, outer: Path, holes: readonly Path[] = []): Piece =>
  ({ id, name: id, purpose: 'pocket', leftOut: false, outer, holes }) as Piece;
const planOf = (pieces: readonly Piece[], tools: MillTool[], operation: object) =>
  finished(millPlan(pieces, { ...plainMilling, tools, operations: [operationSchema.parse(operation)] }, plainMachine, { ...plainStock, thicknessMm: 18, widthMm: 2000, heightMm: 2000 })); // biome-ignore format: one line

export function measureMilling(): void {
  measurePocket();
  measureCarving();
  measureLoops();
  measureSimulation();
}

function wavy(segments: number): Path {
  const points = Array.from({ length: segments }, (_, k) => {
    const angle = (2 * Math.PI * k) / segments;
    const r = 40 + 5 * Math.sin(5 * angle) + 1.5 * Math.sin(31 * angle);
    return { at: { x: r * Math.cos(angle), y: r * Math.sin(angle) }, corner: false };
  });
  return pathThrough(points, true) as Path;
}

/** The rings of a pocket, offset after offset, as chords. */
function clipperRings(path: Path, radius: number, step: number): number {
  let rings = 0;
  const polygon = polygonOf(path, 0.002);
  for (let by = radius; ; by += step) {
    const paths = inflatePathsD([polygon], -by, JoinType.Round, EndType.Polygon, 2, 5, 0.002);
    if (paths.length === 0) break;
    rings += paths.length;
  }
  return rings;
}

function measurePocket(): void {
  const outline = wavy(2000);
  const first = timed(() => planOf([pocketPiece('wave', wavy(1990))], [tool({})], { kind: 'pocket', id: 'k', tool: 't', depthMm: 3 }));
  const plan = timed(() => planOf([pocketPiece('wave', outline)], [tool({})], { kind: 'pocket', id: 'k', tool: 't', depthMm: 3 }));
  const clipper = timed(() => clipperRings(outline, 3.175 / 2, 0.4 * 3.175));
  line(
    'pocket of 2,000 segments, 1,000 ms wanted',
    `${plan.ms.toFixed(0)} ms, the first one ${first.ms.toFixed(0)}; rings of Clipper2 alone ${clipper.ms.toFixed(0)} ms, ratio ${(plan.ms / clipper.ms).toFixed(1)}`,
  );
  const proof = timed(() => finished(provedPlan(plan.value)));
  line(
    '  milled on trial and measured',
    `${proof.ms.toFixed(0)} ms, ${proof.value.milled.gouges.length} gouges, floor off by ${proof.value.milled.floorOffMm.toFixed(4)} mm`,
  );
}

const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';

function measureCarving(): void {
  const wheel = demoJobs.find(({ name }) => name === 'River-wheel badge');
  const emblem = (wheel?.scene.pieces ?? []).flatMap(({ holes }) => holes).map((hole, k) => pocketPiece(`emblem ${k}`, hole));
  const badge = timed(() => planOf(emblem, [vBit], { kind: 'carve', id: 'c', tool: 't', depthMm: 2 }));
  line('carving of the badge, 2,000 ms wanted', `${badge.ms.toFixed(0)} ms, ${emblem.length} areas`);
  const letters = lettersOf('libre-baskerville', alphabet).flatMap(({ outlines }, k) =>
    nested(outlines).map(({ outer, holes }, n) => {
      const { minX, minY } = pathBox(outer);
      const at = { a: 1, b: 0, c: 0, d: 1, e: (k % 13) * 60 - minX, f: Math.floor(k / 13) * 70 - minY };
      return pocketPiece(`letter ${k}.${n}`, transformedPath(outer, at), holes.map((hole) => transformedPath(hole, at))); // biome-ignore format: one line
    }),
  );
  const carved = timed(() => planOf(letters, [vBit], { kind: 'carve', id: 'c', tool: 't', depthMm: 12 }));
  line(
    'carving of 52 letters of 48 mm, 2,000 ms wanted',
    `${carved.ms.toFixed(0)} ms, ${carved.value.runs.reduce((sum, { moves }) => sum + moves.length, 0)} moves`,
  );
}

/** Loops in letters: how much of the tool's front bites, as the plan's own grid tells it to 5 degrees. */
function measureLoops(): void {
  const operation = { kind: 'pocket', id: 'k', tool: 't', depthMm: 2, pattern: 'loops', engagement: 80 };
  const bites: number[] = [];
  const { ms } = timed(() => {
    for (const { outlines } of lettersOf('libre-baskerville', alphabet)) {
      const pieces = nested(outlines).map(({ outer, holes }, k) => pocketPiece(`${k}`, outer, holes));
      const { runs } = planOf(pieces, [tool({ diameterMm: 1.5 })], operation);
      bites.push(runs.reduce((most, { engagement }) => Math.max(most, engagement?.largest ?? 0), 0));
    }
  });
  const within = bites.filter((bite) => bite <= 85).length;
  line(
    'loops in 52 letters, 80 degrees at most',
    `${ms.toFixed(0)} ms, ${within} letters within 5 degrees, worst ${Math.max(...bites).toFixed(0)}`,
  );
}

function measureSimulation(): void {
  const count = 200_000;
  const places = Array.from({ length: count }, (_, k): Point => {
    const [angle, r] = [k / 180, 8 + (84 * k) / count];
    return { x: 100 + r * Math.cos(angle), y: 100 + r * Math.sin(angle) };
  });
  const moves = places.map(({ x, y }): Move => ({ isRapid: false, to: { x, y, z: -2 }, sweep: 0, feedMmPerMin: 900 }));
  const field = new HeightField({ minX: 0, minY: 0, maxX: 200, maxY: 200 }, 0, 0.1);
  const { ms } = timed(() => finished(sweepMoves(field, { x: 108, y: 100, z: -2 }, moves, tool({}))));
  line('simulation of 200,000 moves, 3,000 ms wanted', `${ms.toFixed(0)} ms on 200 x 200 mm at 0.1 mm`);
  const waves = moves.map((move, k): Move => ({ ...move, to: { ...move.to, z: -1 - 0.5 * Math.sin(k / 20) } }));
  const carved = new HeightField({ minX: 0, minY: 0, maxX: 200, maxY: 200 }, 0, 0.1);
  const pointed = timed(() => finished(sweepMoves(carved, { x: 108, y: 100, z: -2 }, waves, vBit)));
  line('  with a V-bit that rises and falls', `${pointed.ms.toFixed(0)} ms`);
}

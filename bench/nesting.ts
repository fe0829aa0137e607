/**
 * Nesting: how much of a sheet is used, on puzzles that have a perfect answer, and beside the best-turned rectangles of a general-purpose packer
 * (maxrects-packer, npm). One thread; NUVET_PUZZLES and NUVET_NEST_SECONDS make it longer.
 */
import { layoutFaults, type Nested, type NestingPart, type NestRules, nest } from '@nuvet/core/nesting';
import { circlePath, ellipsePath, type Path, pathArea, pathBox, polygonPath, transformedPath, turn } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { cutSheet, type Random, randomFrom } from '@nuvet/truth';
import { MaxRectsPacker } from 'maxrects-packer/dist/maxrects-packer.mjs';

const line = (name: string, text: string) => console.log(`${name.padEnd(46)} ${text}`);
const puzzles = Number(process.env.NUVET_PUZZLES ?? 3);
const seconds = Number(process.env.NUVET_NEST_SECONDS ?? 20);
const quarters = [0, 1, 2, 3].map((k) => (k * Math.PI) / 2);
const rules = (more: Partial<NestRules> = {}): NestRules => ({ marginMm: 0, gapMm: 0.2, turns: quarters, canMirror: false, inHoles: true, seconds, seed: 1, ...more }); // biome-ignore format: one line
const strip = (widthMm: number) => ({ widthMm, heightMm: 20_000, count: 1, keepOff: [] });
const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
const once = (outer: Path): NestingPart => ({ outer, holes: [], count: 1 });

export function measureNesting(): void {
  measurePuzzles();
  measureFreeShapes();
  measureMany();
}

function measurePuzzles(): void {
  const found = Array.from({ length: puzzles }, (_, k) => {
    const parts = cutSheet(101 + k, 30, 300, 200).map(once);
    const nested = finished(nest(parts, [strip(200)], rules()));
    return { used: nested.utilisation, faults: layoutFaults(nested.placed, parts, 0.2).length };
  });
  const used = found.map((one) => one.used);
  line(`nesting: ${puzzles} puzzles of 30 parts, 80 % wanted`, `${percent(Math.min(...used))} at least, ${percent(used.reduce((a, b) => a + b, 0) / puzzles)} in the middle, in ${seconds} s on one thread; overlaps: ${found.reduce((sum, { faults }) => sum + faults, 0)}`); // biome-ignore format: one line
}

const shapes: readonly ((random: Random) => Path)[] = [
  (random) => ellipsePath({ x: 0, y: 0 }, 15 + 25 * random(), 8 + 8 * random(), 3 * random()),
  (random) => circlePath({ x: 0, y: 0 }, 8 + 16 * random()),
  (random) => star(random, 5 + Math.floor(4 * random()), 0.4),
  (random) => star(random, 3, 0.75),
  (random) => crescent(random),
  (random) => corner(random),
];

function star(random: Random, points: number, deep: number): Path {
  const size = 15 + 25 * random();
  return polygonPath(Array.from({ length: 2 * points }, (_, k) => ({ x: size * (k % 2 ? deep : 1) * Math.cos((Math.PI * k) / points), y: size * (k % 2 ? deep : 1) * Math.sin((Math.PI * k) / points) }))); // biome-ignore format: one line
}

function crescent(random: Random): Path {
  const r = 18 + 18 * random();
  return { start: { x: r, y: 0 }, segments: [{ kind: 'arc', to: { x: -r, y: 0 }, sweep: Math.PI }, { kind: 'cubic', c1: { x: -r / 2, y: 0.8 * r }, c2: { x: r / 2, y: 0.8 * r }, to: { x: r, y: 0 } }], closed: true }; // biome-ignore format: one line
}

function corner(random: Random): Path {
  const [a, b, t] = [30 + 40 * random(), 30 + 40 * random(), 8 + 8 * random()];
  return polygonPath([{ x: 0, y: 0 }, { x: a, y: 0 }, { x: a, y: t }, { x: t, y: t }, { x: t, y: b }, { x: 0, y: b }]); // biome-ignore format: one line
}

const someParts = (random: Random, count: number): NestingPart[] => Array.from({ length: count }, (_, k) => once((shapes[k % shapes.length] as (random: Random) => Path)(random))); // biome-ignore format: one line

/** The box of least area about it, turned by whole degrees. */
function leastBox(outer: Path): { width: number; height: number } {
  const boxes = Array.from({ length: 90 }, (_, degrees) => {
    const { minX, maxX, minY, maxY } = pathBox(transformedPath(outer, turn((degrees * Math.PI) / 180)));
    return { width: maxX - minX, height: maxY - minY };
  });
  return boxes.reduce((a, b) => (b.width * b.height < a.width * a.height ? b : a));
}

function measureFreeShapes(): void {
  const all = [1, 2, 3].slice(0, Math.max(1, Math.min(3, puzzles))).map((seed) => {
    const parts = someParts(randomFrom(seed), 36);
    const area = parts.reduce((sum, { outer }) => sum + Math.abs(pathArea(outer)), 0);
    const width = 260;
    const packer = new MaxRectsPacker(width, 20_000, 2, {
      smart: true,
      pot: false,
      square: false,
      allowRotation: true,
    });
    packer.addArray(parts.map(({ outer }) => ({ ...leastBox(outer), x: 0, y: 0 })) as never[]);
    const top = Math.max(...packer.bins.flatMap(({ rects }) => rects.map(({ y, height }) => y + height)));
    const nested: Nested = finished(nest(parts, [strip(width)], rules({ gapMm: 2, turns: Array.from({ length: 8 }, (_, k) => (k * Math.PI) / 4) }))); // biome-ignore format: one line
    return { rectangles: area / (width * top), ours: nested.utilisation, faults: layoutFaults(nested.placed, parts, 2).length };
  });
  const ratios = all.map(({ ours, rectangles }) => ours / rectangles);
  line('nesting: free shapes, 12 % over rectangles', `${percent(Math.min(...ratios) - 1)} better at least (${all.map(({ ours, rectangles }) => `${percent(ours)} : ${percent(rectangles)}`).join(', ')}); overlaps: ${all.reduce((sum, { faults }) => sum + faults, 0)}`); // biome-ignore format: one line
}

function measureMany(): void {
  const parts = someParts(randomFrom(8), 200);
  const start = performance.now();
  const before = finished(
    nest(parts, [{ widthMm: 600, heightMm: 400, count: 50, keepOff: [] }], rules({ gapMm: 2, marginMm: 5, seconds: 0 })),
  );
  const firstS = (performance.now() - start) / 1000;
  const after = finished(nest(parts, [{ widthMm: 600, heightMm: 400, count: 50, keepOff: [] }], rules({ gapMm: 2, marginMm: 5 })));
  line('nesting: 200 parts on sheets, 60 s wanted', `laid in ${firstS.toFixed(1)} s on ${before.sheets.length} sheets, ${percent(before.utilisation)}; after ${seconds} s ${after.sheets.length} sheets, ${percent(after.utilisation)}; overlaps: ${layoutFaults(after.placed, parts, 2).length}`); // biome-ignore format: one line
}

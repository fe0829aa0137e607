/**
 * Motifs of lines to quilt along, drawn for Nuvet: each fills a place by itself. Those for blocks lie in a square from 0, 0 to 1, 1; those for corners have the
 * corner at 0, 0 and go out to 1 along both of its sides; those for triangles lie between 0, 0, where the widest angle is, 1, 0 and 0, 1.
 */
import { between, type Path, type Point } from '../plane/index.ts';
import { type DrawnPoint, pathThrough } from '../shape/index.ts';
import { along, round, through } from './pattern-points.ts';

export type MotifFills = 'block' | 'corner' | 'triangle';

interface LineMotif {
  readonly word: string;
  readonly fills: MotifFills;
  readonly points: readonly DrawnPoint[];
  readonly isClosed: boolean;
}

/** About the middle of a block, from a distance and an angle. */
const about = (r: number, angle: number): Point => ({ x: 0.5 + r * Math.cos(angle), y: 0.5 + r * Math.sin(angle) });
/** A circle that a smaller one rolls within: loops about the middle (a hypotrochoid). */
const rolled = (wide: number, loop: number, loops: number) => along(8 * loops, (t) => ({ x: 0.5 + wide * Math.cos(round * t) + loop * Math.cos((loops - 1) * round * t), y: 0.5 + wide * Math.sin(round * t) - loop * Math.sin((loops - 1) * round * t) })).slice(0, -1); // biome-ignore format: one line
const star = (points: number, inner: number): DrawnPoint[] => Array.from({ length: 2 * points }, (_, k) => ({ at: about(k % 2 === 0 ? 0.48 : inner, (k * Math.PI) / points), corner: true })); // biome-ignore format: one line
/** To and fro along quarter circles about the corner, from the outermost in. */
const quarters = (radii: readonly number[]): DrawnPoint[] => radii.flatMap((r, k) => along(6, (t) => { const angle = ((k % 2 === 0 ? t : 1 - t) * Math.PI) / 2; return { x: r * Math.cos(angle), y: r * Math.sin(angle) }; }).map((p, n) => ({ ...p, corner: n === 0 || n === 6 }))); // biome-ignore format: one line

const corners: readonly Point[] = [{ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 0, y: 1 }]; // biome-ignore format: one line
/** The middle of the circle within the triangle. */
const inside: Point = { x: 1 - Math.SQRT1_2, y: 1 - Math.SQRT1_2 };
/** A spiral of straight lines into a triangle, parallel to its sides. */
const spiral = (turns: number): DrawnPoint[] => Array.from({ length: 3 * turns + 1 }, (_, k) => ({ at: between(corners[k % 3] as Point, inside, 0.04 + (0.9 * k) / (3 * turns)), corner: true })); // biome-ignore format: one line
/** A leaf from the middle to each corner and back. */
const leaves = (): DrawnPoint[] => corners.flatMap((tip) => {
  const [far, aside] = [between(inside, tip, 0.9), { x: (tip.y - inside.y) * 0.2, y: (inside.x - tip.x) * 0.2 }];
  const half = between(inside, far, 0.5);
  return [{ at: inside, corner: true }, { at: { x: half.x + aside.x, y: half.y + aside.y }, corner: false }, { at: far, corner: true }, { at: { x: half.x - aside.x, y: half.y - aside.y }, corner: false }];
}); // biome-ignore format: as it reads

export const lineMotifs = {
  'mill-wheel': { word: 'Mill wheel', fills: 'block', points: rolled(0.27, 0.21, 8), isClosed: true },
  'loop-ring': { word: 'Ring of loops', fills: 'block', points: rolled(0.36, 0.12, 14), isClosed: true },
  'corner-petals': { word: 'Four petals', fills: 'block', points: along(64, (t) => about(0.66 * Math.abs(Math.sin(2 * round * t)), round * t)).slice(0, -1), isClosed: true },
  'rope-ring': { word: 'Rope ring', fills: 'block', points: along(84, (t) => about(0.37 + 0.1 * Math.sin(7 * round * t), 2 * round * t)).slice(0, -1), isClosed: true },
  eddy: { word: 'Eddy', fills: 'block', points: along(128, (t) => { const u = 2 * t - 1; return about(Math.sign(u) * 0.48 * Math.sqrt(Math.abs(u)), 4 * round * Math.abs(u)); }), isClosed: false },
  compass: { word: 'Compass star', fills: 'block', points: star(8, 0.2), isClosed: true },
  net: { word: 'Net', fills: 'block', points: along(112, (t) => ({ x: 0.5 + 0.48 * Math.sin(3 * round * t), y: 0.5 + 0.48 * Math.sin(4 * round * t) })).slice(0, -1), isClosed: true },
  'leaf-cross': { word: 'Four leaves', fills: 'block', points: [0, 1, 2, 3].flatMap((k) => ([[0, 0, true], [0.25, 0.16, false], [0.64, 0, true], [0.25, -0.16, false]] as const).map(([u, v, corner]) => ({ at: about(Math.hypot(u, v), ((k + 0.5) * Math.PI) / 2 + Math.atan2(v, u)), corner }))), isClosed: true },
  fan: { word: 'Fan', fills: 'corner', points: quarters([0.97, 0.78, 0.59, 0.4, 0.21]), isClosed: false },
  'corner-leaf': { word: 'Corner leaf', fills: 'corner', points: through([1, 0.03], [0.55, 0.12], [0.08, 0.08, 'corner'], [0.26, 0.52], [0.72, 0.72, 'corner'], [0.52, 0.26], [0.08, 0.08, 'corner'], [0.12, 0.55], [0.03, 1]), isClosed: false },
  curl: { word: 'Curl', fills: 'corner', points: through([1, 0.06], [0.6, 0.1], [0.2, 0.2], [0.16, 0.5], [0.4, 0.66], [0.6, 0.5], [0.5, 0.32], [0.36, 0.38], [0.4, 0.48]), isClosed: false },
  shell: { word: 'Shell', fills: 'corner', points: through([0.97, 0.02, 'corner'], [0.92, 0.3], [0.78, 0.36, 'corner'], [0.04, 0.04, 'corner'], [0.78, 0.36, 'corner'], [0.78, 0.6], [0.6, 0.6, 'corner'], [0.04, 0.04, 'corner'], [0.6, 0.6, 'corner'], [0.6, 0.78], [0.36, 0.78, 'corner'], [0.04, 0.04, 'corner'], [0.36, 0.78, 'corner'], [0.3, 0.92], [0.02, 0.97, 'corner']), isClosed: false },
  'three-leaves': { word: 'Three leaves', fills: 'triangle', points: leaves(), isClosed: true },
  'sail-lines': { word: 'Sail lines', fills: 'triangle', points: spiral(6), isClosed: false },
} as const satisfies Record<string, LineMotif>; // biome-ignore format: a line a motif

export type LineMotifName = keyof typeof lineMotifs;
export const lineMotifNames = Object.keys(lineMotifs) as [LineMotifName, ...LineMotifName[]];

/** A motif in its own square or triangle. */
export const lineMotifPath = (name: LineMotifName): Path => pathThrough([...lineMotifs[name].points], lineMotifs[name].isClosed) as Path;

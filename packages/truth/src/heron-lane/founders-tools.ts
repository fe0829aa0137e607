/**
 * Five tools of the workshop's bell founder, laid on a sheet about the scale card to be photographed: a strickle board, a tuning file, a hammer,
 * a sounding disc and a square. Sizes in mm.
 */
import { type Path, type Point, shift, transformedPath } from '@nuvet/core/plane';
import { onScaleCard } from '../card-scene.ts';
import type { StandingPart } from '../photo.ts';
import type { Scene } from '../scene.ts';

const p = (x: number, y: number): Point => ({ x, y });
const upright = (heightMm: number, ...plan: readonly Point[]): StandingPart => ({ kind: 'upright', plan, heightMm });
const bar = (from: Point, to: Point, radiusMm: number): StandingPart => ({ kind: 'bar', from, to, radiusMm });
const disc = (at: Point, radius: number, heightMm: number): StandingPart =>
  upright(heightMm, ...Array.from({ length: 180 }, (_, k) => p(at.x + radius * Math.cos((k * Math.PI) / 90), at.y + radius * Math.sin((k * Math.PI) / 90)))); // biome-ignore format: one line

export interface FoundersTool {
  readonly name: string;
  readonly parts: readonly StandingPart[];
  readonly heightMm: number;
  readonly edge: 'upright' | 'round';
  /** A place on it. */
  readonly at: Point;
}

export const foundersTools: readonly FoundersTool[] = [
  { name: 'Strickle board', parts: [upright(12, p(24, 40), p(84, 40), p(84, 66), p(66, 132), p(24, 132))], heightMm: 12, edge: 'upright', at: p(50, 80) },
  { name: 'Tuning file', parts: [bar(p(30, 168), p(84, 268), 8)], heightMm: 16, edge: 'round', at: p(57, 218) },
  { name: 'Hammer', parts: [bar(p(364, 40), p(364, 170), 11), bar(p(340, 165), p(392, 165), 11)], heightMm: 22, edge: 'round', at: p(364, 100) },
  { name: 'Sounding disc', parts: [disc(p(366, 236), 31, 34)], heightMm: 34, edge: 'upright', at: p(366, 236) },
  { name: 'Square', parts: [upright(8, p(176, 118), p(250, 118), p(250, 134), p(176, 134)), upright(8, p(176, 118), p(192, 118), p(192, 190), p(176, 190))], heightMm: 8, edge: 'upright', at: p(184, 150) },
]; // biome-ignore format: a tool a line

const [widthMm, heightMm] = [420, 300];
const card = onScaleCard({ name: '', widthMm: 0, heightMm: 0, pieces: [] }, p(0, 0));
const middle = (path: Path): Path => transformedPath(path, shift((widthMm - card.widthMm) / 2, (heightMm - card.heightMm) / 2));

export const foundersSheet: Scene = {
  name: 'founders-tools',
  widthMm,
  heightMm,
  pieces: card.pieces.map(({ outer, holes }) => ({ outer: middle(outer), holes: holes.map(middle) })),
  marks: { board: [p(24, 40), p(84, 40)] },
};

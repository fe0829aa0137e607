/** Relations across pieces: two plates drawn a little unlike become alike, and a piece that has no part in any stays out. */
import { expect, it } from 'vitest';
import { circleOf, circlePath, polygonPath } from '../plane/index.ts';
import type { ArcSegment } from '../plane/segment.ts';
import { relatedPieces, relationsOfPieces } from './related-pieces.ts';

const plate = (x: number, width: number, radius: number, lift: number) => ({
  outer: polygonPath([
    { x, y: lift },
    { x: x + width, y: 0 },
    { x: x + width, y: 30 },
    { x, y: 30 },
  ]),
  holes: [circlePath({ x: x + 10, y: 15 }, radius)],
});
const pair = [plate(0, 50, 4, 0.02), plate(80, 50.03, 4.02, -0.01)];
const blob = { outer: circlePath({ x: 200, y: 90 }, 17), holes: [] };
const made = (pieces: readonly (typeof pair)[0][], refused: readonly string[] = []) => [...relatedPieces(pieces, refused, 0.2)].flat();
const kinds = (pieces: readonly (typeof pair)[0][]) => relationsOfPieces(pieces, 0.2).map(({ kind }) => kind);
const radius = ({ holes }: { holes: readonly (typeof blob.outer)[] }) => {
  const [hole] = holes as [typeof blob.outer];
  return circleOf(hole.start, hole.segments[0] as ArcSegment).radius;
};

it('holes of two pieces come to one radius, their upper edges into one line', () => {
  expect(kinds(pair)).toEqual(expect.arrayContaining(['equal-radius', 'in-line', 'equal-length']));
  const [a, b] = made(pair) as [ReturnType<typeof made>[0], ReturnType<typeof made>[0]];
  expect(radius(a)).toBeCloseTo(radius(b), 8);
  expect(a.piece).toBe(pair[0]);
  const top = ({ outer }: typeof a) => outer.segments[1]?.to.y as number;
  expect(top(a)).toBeCloseTo(top(b), 8);
  expect(a.held + b.held).toBe(relationsOfPieces(pair, 0.2).length);
});

it('what is refused by its key is not made', () => {
  const refused = relationsOfPieces(pair, 0.2).flatMap(({ kind, key }) => (kind === 'equal-radius' ? [key] : []));
  const [a, b] = made(pair, refused) as [ReturnType<typeof made>[0], ReturnType<typeof made>[0]];
  expect(Math.abs(radius(a) - radius(b))).toBeGreaterThan(0.01);
});

it('a piece that no relation names is not touched', () => {
  expect(made([...pair, blob]).map(({ piece }) => piece)).toEqual(pair);
});

it('where there are very many segments each piece is looked at alone', () => {
  const many = Array.from({ length: 60 }, (_, k) => plate(60 * k, 50, 4 + 0.02 * (k % 2), 0));
  expect(kinds(many)).not.toContain('equal-radius');
  expect(kinds(many)).toContain('equal-length');
});

/**
 * In: what a border goes round, its width, and what it is pieced of. Out: its pieces: whole units along each side, stretched to fit, and a
 * square at each corner.
 */
import { type Box, heightOf, type Path, type Point, pathArea, polygonPath, reversedPath, widthOf } from '../plane/index.ts';
import type { BorderPieces } from './settings.ts';

export interface BorderPiece {
  readonly outline: Path;
  readonly role: 'first' | 'second' | 'corner';
}

/** A border round the quilt: between two rectangles. */
export interface Ring {
  readonly outer: Box;
  readonly inner: Box;
}

type Pieced = Exclude<BorderPieces, 'plain'>;
/** Corners of a piece: along the side in shares of the unit, and across it, 0 at the inside, in shares of the width. */
type UnitPiece = { readonly role: 'first' | 'second'; readonly corners: readonly (readonly [number, number])[] };

/** How long a unit is for its width, and its pieces; `isBack` where it lies the other way round, or is the second of a pair. */
const units: Readonly<Record<Pieced, { readonly length: number; pieces(isBack: boolean): readonly UnitPiece[] }>> = {
  squares: {
    length: 1,
    pieces: (isBack) => [{ role: isBack ? 'second' : 'first', corners: [[0, 0], [1, 0], [1, 1], [0, 1]] }],
  },
  'half-square triangles': {
    length: 1,
    pieces: (isBack) =>
      isBack
        ? [{ role: 'first', corners: [[0, 0], [1, 0], [0, 1]] }, { role: 'second', corners: [[1, 0], [1, 1], [0, 1]] }]
        : [{ role: 'first', corners: [[0, 0], [1, 0], [1, 1]] }, { role: 'second', corners: [[0, 0], [1, 1], [0, 1]] }],
  },
  'flying geese': {
    length: 2,
    pieces: () => [
      { role: 'first', corners: [[0, 0], [1, 0], [0.5, 1]] },
      { role: 'second', corners: [[0, 0], [0.5, 1], [0, 1]] },
      { role: 'second', corners: [[1, 0], [1, 1], [0.5, 1]] },
    ],
  },
}; // biome-ignore format: a piece a line

/** How many units a side has, and how long each is then, mm. */
function unitsAlong(lengthMm: number, widthMm: number, pieces: Pieced): { count: number; stepMm: number } {
  const count = Math.max(1, Math.round(lengthMm / (units[pieces].length * widthMm)));
  return { count, stepMm: lengthMm / count };
}

/** The units of a border along its foot and up its side. */
export function borderUnits({ inner, outer }: Ring, pieces: Pieced): { across: number; up: number; acrossMm: number; upMm: number } {
  const widthMm = inner.minX - outer.minX;
  const [across, up] = [widthOf(inner), heightOf(inner)].map((length) => unitsAlong(length, widthMm, pieces)) as [ReturnType<typeof unitsAlong>, ReturnType<typeof unitsAlong>]; // biome-ignore format: one line
  return { across: across.count, up: up.count, acrossMm: across.stepMm, upMm: up.stepMm };
}

export function piecedBorder(inner: Box, widthMm: number, pieces: Pieced): BorderPiece[] {
  const { minX, minY, maxX, maxY } = inner;
  const sides = [
    { length: widthOf(inner), at: (s: number, v: number): Point => ({ x: minX + s, y: minY - v }) },
    { length: heightOf(inner), at: (s: number, v: number): Point => ({ x: maxX + v, y: minY + s }) },
    { length: widthOf(inner), at: (s: number, v: number): Point => ({ x: maxX - s, y: maxY + v }) },
    { length: heightOf(inner), at: (s: number, v: number): Point => ({ x: minX - v, y: maxY - s }) },
  ];
  const w = widthMm;
  return sides.flatMap(({ length, at }): BorderPiece[] => {
    const { count, stepMm: step } = unitsAlong(length, w, pieces);
    const along = Array.from({ length: count }, (_, k) => {
      // Squares alternate; triangles point to the middle of the side.
      const isBack = pieces === 'squares' ? k % 2 === 1 : k >= count / 2;
      return units[pieces].pieces(isBack).map(({ role, corners }): BorderPiece => ({ role, outline: leftHanded(corners.map(([u, v]) => at((k + u) * step, v * w))) })); // biome-ignore format: one line
    });
    const corner = [at(length, 0), at(length + w, 0), at(length + w, w), at(length, w)];
    return [...along.flat(), { role: 'corner', outline: leftHanded(corner) }];
  });
}

function leftHanded(corners: readonly Point[]): Path {
  const path = polygonPath(corners);
  return pathArea(path) < 0 ? reversedPath(path) : path;
}

/**
 * In: drawn lines and a width. Out: the bands along all of them, united: walls that meet are one. Lines are taken as chords, ends and joints are
 * round; by clipper2-ts.
 */
import { EndType, inflatePathsD, JoinType } from 'clipper2-ts';
import { type Path, type Point, polygonOf, polygonPath } from '../plane/index.ts';
import { nested } from '../shape/index.ts';

/** Digits behind the point on which bands are united. */
const digits = 5;

/** @param chordMm how far chords may leave lines and round ends */
export function bandsAlong(lines: readonly Path[], widthMm: number, chordMm: number): { outer: Path; holes: Path[] }[] {
  const open = lines.map((line) => polygonOf(line, chordMm)).filter((points) => points.length > 1);
  const bands = inflatePathsD(open, widthMm / 2, JoinType.Round, EndType.Round, 2, digits, chordMm);
  return nested(bands.filter(({ length }) => length > 2).map((points) => polygonPath(points.map(({ x, y }): Point => ({ x, y })))));
}

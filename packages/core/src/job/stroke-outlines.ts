/** In: a piece that is the middle of a wide drawn line. Out: the outlines of that line, as wide as it was drawn: its ends, corners and dashes. */
import { type Path, pathLength } from '../plane/path.ts';
import { subPath } from '../plane/sub-path.ts';
import { plainOffset } from '../shape/raw-offset.ts';
import { strokeOutline } from '../shape/stroke-outline.ts';
import type { Piece } from './schema.ts';

/** No more bands than this are made at once. */
export const mostBands = 5000;

/** How many bands a piece becomes: one for each line, or for each of its dashes. */
export function bandCount({ outer, holes, strokeShape }: Piece): number {
  const whole = strokeShape?.dashesMm.reduce((sum, mm) => sum + mm, 0) ?? 0;
  if (!strokeShape) return 0;
  const dashes = Math.ceil(strokeShape.dashesMm.length / 2);
  return [outer, ...holes].reduce((sum, path) => sum + (whole > 0 ? Math.ceil(pathLength(path) / whole) * dashes : 1), 0);
}

/** What a piece becomes; itself where nothing tells how its line was drawn. */
export function strokeOutlined(piece: Piece): Piece[] {
  const { strokeMm, strokeShape, ...rest } = piece;
  if (!strokeMm || !strokeShape) return [piece];
  const settings = { ...plainOffset, corners: strokeShape.corners === 'bevel' ? 'square' : strokeShape.corners } as const;
  const lines = [piece.outer, ...piece.holes].flatMap((path) => dashesOf(path, strokeShape.dashesMm));
  const bands = lines.flatMap((line) => strokeOutline(line, strokeMm, strokeShape.ends, settings));
  // What is dashed was taken for a crease: as outlines its dashes are cut.
  const purpose = strokeShape.dashesMm.length > 0 && piece.purpose === 'score' ? 'cut' : piece.purpose;
  return bands.map((band, k): Piece => ({ ...rest, ...band, purpose, id: k === 0 ? piece.id : `${piece.id}-${k + 1}` }));
}

/** The parts of a line that are drawn, by lengths drawn and left out in turn. */
function dashesOf(path: Path, dashesMm: readonly number[]): Path[] {
  const whole = dashesMm.reduce((sum, mm) => sum + mm, 0);
  const length = pathLength(path);
  if (!(whole > 0)) return [path];
  const turns = dashesMm.length % 2 === 1 ? [...dashesMm, ...dashesMm] : dashesMm;
  const dashes: Path[] = [];
  for (let at = 0, k = 0; at < length; at += turns[k % turns.length] as number, k++) {
    const to = Math.min(length, at + (turns[k % turns.length] as number));
    if (k % 2 === 0 && to > at) dashes.push(subPath(path, at, to));
  }
  return dashes;
}

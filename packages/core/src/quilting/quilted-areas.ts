/** In: a block, the quilt that it is set into, and where a line is quilted. Out: the areas that it is quilted in, each with every place of it. */
import { identity, type Path, rectanglePath, reversedPath, type Transform } from '../plane/index.ts';
import type { Block } from './block.ts';
import type { PatchSet } from './cutting.ts';
import type { Quilt, QuiltPartKind } from './quilt.ts';
import { isInBlock, type LineSettings } from './settings.ts';

export interface QuiltedArea {
  /** Counter-clockwise, mm. */
  readonly outline: Path;
  /** What is left out of it, clockwise: a border goes round the quilt. */
  readonly hole: Path | null;
  /** From the area to where it lies on the block or the quilt, once for each time that it is there. */
  readonly places: readonly Transform[];
}

/** Whether lines lie on the finished block alone; else on the quilt. */
export const liesOnBlock = ({ over, isInEveryBlock }: Pick<LineSettings, 'over' | 'isInEveryBlock'>): boolean => isInBlock(over) && !isInEveryBlock; // biome-ignore format: one line

type Places = Pick<LineSettings, 'over' | 'isInEveryBlock' | 'ofSet'>;

export function quiltedAreas(block: Block, sets: readonly PatchSet[], quilt: Quilt, where: Places): QuiltedArea[] {
  const once = [identity];
  const inBlocks = liesOnBlock(where) ? once : quilt.blocks;
  const whole = (widthMm: number, heightMm: number): Path => rectanglePath({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm });
  const parts = (...kinds: readonly QuiltPartKind[]): QuiltedArea[] =>
    quilt.parts.filter(({ kind }) => kinds.includes(kind)).map(({ outline }) => ({ outline, hole: null, places: once }));
  switch (where.over) {
    case 'quilt':
      return [{ outline: whole(quilt.widthMm, quilt.heightMm), hole: null, places: once }];
    case 'block':
      return [{ outline: whole(block.widthMm, block.heightMm), hole: null, places: inBlocks }];
    case 'patches':
      return sets
        .filter(({ name }) => where.ofSet === null || name === where.ofSet)
        .flatMap(({ faces }) => faces.map((face) => ({ outline: block.map.faces[face]?.outer as Path, hole: null, places: inBlocks })));
    case 'sashing':
      return parts('sash');
    case 'posts':
      return parts('post');
    case 'plain squares':
      return parts('plain square');
    case 'triangles':
      return parts('side triangle', 'corner triangle');
    case 'borders':
      return quilt.rings.map(({ outer, inner }) => ({ outline: rectanglePath(outer), hole: reversedPath(rectanglePath(inner)), places: once })); // biome-ignore format: one line
  }
}

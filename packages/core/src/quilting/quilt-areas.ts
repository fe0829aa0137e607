/** In: a quilt's plan. Out: every area of it with its fabric, in the order that they are painted in. */
import { chain, determinant, identity, type Path, reversedPath, type Transform, transformedPath } from '../plane/index.ts';
import { fabricOfPart } from './quilt.ts';
import type { QuiltPlan } from './quilt-plan.ts';
import type { QuiltingSettings } from './settings.ts';

export interface QuiltArea {
  readonly outline: Path;
  /** As a position among the fabrics. */
  readonly fabric: number;
  /** The patch's set, where it is a patch of a block. */
  readonly set: string | null;
  /** Where the cloth's own plane lies: prints turn with the block that they are sewn into. */
  readonly place: Transform;
}

/** Of the block alone, at its finished size. */
export const blockAreas = ({ block, sets }: QuiltPlan, place?: Transform): QuiltArea[] =>
  sets.flatMap(({ name, faces, fabric }) =>
    faces.map((face): QuiltArea => {
      const outer = block.map.faces[face]?.outer as Path;
      return { outline: place ? placed(outer, place) : outer, fabric, set: name, place: place ?? identity };
    }),
  );

/** Counter-clockwise also where it is turned over. */
const placed = (path: Path, place: Transform): Path => {
  const moved = transformedPath(path, place);
  return determinant(place) < 0 ? reversedPath(moved) : moved;
};

export function quiltAreas(
  plan: QuiltPlan,
  settings: QuiltingSettings,
  place: Transform = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
): QuiltArea[] {
  const parts = plan.quilt.parts.map((part): QuiltArea => ({ outline: placed(part.outline, place), fabric: fabricOfPart(part, settings), set: null, place })); // biome-ignore format: one line
  return [...parts, ...plan.quilt.blocks.flatMap((block) => blockAreas(plan, chain(place, block)))];
}

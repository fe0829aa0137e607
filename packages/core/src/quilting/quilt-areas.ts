/** In: a quilt's plan. Out: every area of it with its fabric, in the order that they are painted in. */
import { chain, determinant, identity, type Path, reversedPath, type Transform, transformedPath } from '../plane/index.ts';
import { fabricOfPart } from './quilt.ts';
import type { QuiltPlan } from './quilt-plan.ts';
import { fabricAt, type QuiltingSettings } from './settings.ts';

export interface QuiltArea {
  readonly outline: Path;
  /** As a position among the fabrics. */
  readonly fabric: number;
  /** The patch's set, where it is a patch of a block. */
  readonly set: string | null;
  /** Where the cloth's own plane lies: prints turn with the block that they are sewn into. */
  readonly place: Transform;
}

/** Of the block alone, at its finished size; stems lie right on the background, under all shapes. */
export function blockAreas({ block, sets }: Pick<QuiltPlan, 'block' | 'sets'>, settings: QuiltingSettings, place?: Transform): QuiltArea[] {
  const here = (outer: Path): Path => (place ? placed(outer, place) : outer);
  const setOf = new Map(sets.flatMap((set) => set.faces.map((face) => [face, set] as const)));
  const stems = block.stems.flatMap(
    ({ outline }) =>
    outline.map(({ outer }): QuiltArea => ({ outline: here(outer), fabric: fabricAt(settings, settings.stemFabric), set: null, place: place ?? identity })), // biome-ignore format: one line
  );
  const patches = block.map.faces.map(({ outer }, face): QuiltArea => {
    const { fabric = 0, name = null } = setOf.get(face) ?? {};
    return { outline: here(outer), fabric, set: name, place: place ?? identity };
  });
  return [...patches.slice(0, 1), ...stems, ...patches.slice(1)];
}

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
  return [...parts, ...plan.quilt.blocks.flatMap((block) => blockAreas(plan, settings, chain(place, block)))];
}

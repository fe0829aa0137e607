/**
 * In: closed meshes. Out: what is within any of them but in none of others, as one closed mesh; and part spheres and bodies of revolution. By
 * manifold-3d, which is WebAssembly and has to be loaded before (`loadSolids`).
 */
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import type { Mesh } from './mesh.ts';

let loaded: ManifoldToplevel | null = null;
let coming: Promise<void> | null = null;

/** Loads what works with solids; once. */
export function loadSolids(): Promise<void> {
  coming ??= (async () => {
    const { default: module } = await import('manifold-3d');
    const made = await module();
    made.setup();
    loaded = made;
  })().catch((error) => {
    // What could not be loaded without a connection is tried again.
    coming = null;
    throw error;
  });
  return coming;
}

function library(): ManifoldToplevel {
  if (!loaded) throw new Error('solids are not loaded');
  return loaded;
}

/** A body of the library's; it has to be let go of. */
export type Solid = Manifold;

/** @throws Error where the mesh is not closed */
export function solidOf({ positions, triangles }: Mesh): Solid {
  const { Manifold: Made, Mesh: MadeMesh } = library();
  const solid = new Made(new MadeMesh({ numProp: 3, vertProperties: Float32Array.from(positions), triVerts: triangles }));
  const status = solid.status();
  if (status !== 'NoError') throw new Error(`a body is not closed: ${status}`);
  return solid;
}

export function meshOfSolid(solid: Solid): Mesh {
  const { vertProperties, triVerts, numProp } = solid.getMesh();
  const positions = new Float64Array((vertProperties.length / numProp) * 3);
  for (let k = 0; k < positions.length / 3; k++) for (let axis = 0; axis < 3; axis++) positions[3 * k + axis] = vertProperties[numProp * k + axis] as number; // biome-ignore format: one line
  return { positions, triangles: Uint32Array.from(triVerts) };
}

/** Joins bodies, then takes others away. The bodies that are handed over are let go of. */
export function joinedLess(joined: readonly Solid[], cut: readonly Solid[]): Solid {
  const { Manifold: Made } = library();
  const whole = Made.union([...joined]);
  const rest = cut.length > 0 ? Made.difference([whole, ...cut]) : whole;
  for (const solid of [...joined, ...cut, ...(rest === whole ? [] : [whole])]) solid.delete();
  return rest;
}

/** Of a ball what lies from one height to another. @param segments round it */
export function partSphere(
  centre: { readonly x: number; readonly y: number; readonly z: number },
  radiusMm: number,
  [from, to]: readonly [number, number],
  segments: number,
): Solid {
  const { Manifold: Made } = library();
  const whole = Made.sphere(radiusMm, segments);
  const ball = whole.translate(centre.x, centre.y, centre.z);
  whole.delete();
  const above = ball.trimByPlane([0, 0, 1], from);
  const part = above.trimByPlane([0, 0, -1], -to);
  ball.delete();
  above.delete();
  return part;
}

/**
 * A profile turned about an upright axis, from which x goes outwards; y goes up.
 * @param contours x not less than 0
 * @param segments in a whole turn
 */
export function turnedBody(
  contours: readonly (readonly { readonly x: number; readonly y: number }[])[],
  degrees: number,
  segments: number,
): Solid {
  const { Manifold: Made } = library();
  return Made.revolve(contours.map((contour) => contour.map(({ x, y }): [number, number] => [x, y])), segments, degrees); // biome-ignore format: one line
}

/** What lies in both. The bodies that are handed over are let go of. */
export function common(a: Solid, b: Solid): Solid {
  const { Manifold: Made } = library();
  const both = Made.intersection([a, b]);
  a.delete();
  b.delete();
  return both;
}

/** How much two bodies have in common, mm³. */
export function commonVolume(a: Mesh, b: Mesh): number {
  const both = common(solidOf(a), solidOf(b));
  const volume = both.volume();
  both.delete();
  return volume;
}

/**
 * In: two outlines that are pushed together crosswise, how thick their bodies are, and how much play their slots have. Out: each with its slot,
 * from the middle to its edge, and how the second is turned to stand in the first.
 */
import {
  apply,
  centreOf,
  chain,
  isInside,
  type Path,
  type Point,
  pathBox,
  rectanglePath,
  reversedPath,
  shift,
  transformedPath,
  turn,
} from '../plane/index.ts';
import { combined, counterClockwise, nested } from '../shape/index.ts';
import type { Mesh } from './mesh.ts';

interface Outline {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export interface Halves {
  readonly first: Outline;
  readonly second: Outline;
}

/** Why there are none: a slot cuts its body in two, as one wider than the arm that it lies in; or it misses the body. */
export type SlotFault = 'cuts through' | 'misses';

/** A pair as it was made: its bodies, by their place among the parts, and the second as it stands in the first. */
export interface PairedHalves {
  readonly first: number;
  readonly second: number;
  readonly assembled: Mesh;
  /** Which way the second can be moved across its slot, and how much play it was given, mm. */
  readonly across: Point;
  readonly askedMm: number;
}

/** So much longer than half the depth each slot is, so that both halves are flush however deep they are cut, mm. */
const deeperMm = 0.05;

/**
 * @param degrees which way the slot of the first opens; that of the second opens the other way
 * @param widths of the slot in the first, and of that in the second, mm
 */
export function halvesOf(first: Outline, second: Outline, degrees: number, widths: readonly [number, number]): Halves | SlotFault {
  const made = [slotted(first, degrees, widths[0]), slotted(second, degrees + 180, widths[1])] as const;
  const fault = made.find((one) => typeof one === 'string');
  if (typeof fault === 'string') return fault;
  return { first: made[0] as Outline, second: made[1] as Outline };
}

function slotted({ outer, holes }: Outline, degrees: number, widthMm: number): Outline | SlotFault {
  const middle = middleOf(outer);
  const { minX, maxX, minY, maxY } = pathBox(outer);
  const far = Math.hypot(maxX - minX, maxY - minY);
  const angle = (degrees * Math.PI) / 180;
  const box = rectanglePath({ minX: -deeperMm, minY: -widthMm / 2, maxX: far, maxY: widthMm / 2 });
  const place = chain(shift(middle.x, middle.y), turn(angle));
  const slot = transformedPath(box, place);
  const body = [counterClockwise(outer), ...holes.map((hole) => reversedPath(counterClockwise(hole)))];
  // Where the slot ends, there has to be something to both sides of it.
  const isHeld = [-1, 1].every((side) => isInside(outer, apply(place, { x: 0, y: side * (widthMm / 2 + deeperMm) })));
  const parts = nested(combined(body, [slot], 'take-away'));
  const [whole] = parts;
  if (!isHeld || parts.length !== 1 || !whole) return 'cuts through';
  return combined(body, [slot], 'keep-common').length === 0 ? 'misses' : whole;
}

/** Where the slots end: the middle of the outline's box. */
export const middleOf = (outer: Path): Point => centreOf(pathBox(outer));

/** The second body, lying flat, turned about the slots' axis by a quarter and brought to where it stands in the first; both as high as typed. */
export function standing(mesh: Mesh, own: Point, inFirst: Point, degrees: number, zMiddles: readonly [number, number]): Mesh {
  const angle = (degrees * Math.PI) / 180;
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  const positions = new Float64Array(mesh.positions.length);
  for (let k = 0; k < positions.length; k += 3) {
    const [x, y, z] = [(mesh.positions[k] as number) - own.x, (mesh.positions[k + 1] as number) - own.y, (mesh.positions[k + 2] as number) - zMiddles[1]]; // biome-ignore format: one line
    const [along, across] = [x * ux + y * uy, -x * uy + y * ux];
    // Across becomes up, and up becomes across the other way.
    positions[k] = inFirst.x + along * ux + z * uy;
    positions[k + 1] = inFirst.y + along * uy - z * ux;
    positions[k + 2] = zMiddles[0] + across;
  }
  return { positions, triangles: mesh.triangles };
}

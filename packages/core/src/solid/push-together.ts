/**
 * In: outlines that are pushed together crosswise, two by two, how thick their bodies are, and how much play their slots have. Out: each with its
 * slots, from the middle to its edge, and how one stands in the other; how all stand together.
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

/** A pair as it was made: its bodies, by their place among the parts, and the second as it stands in the first when all are put together. */
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

/** Where a slot lies in an outline: from here to the edge, this way. */
export interface SlotAxis {
  readonly at: Point;
  readonly degrees: number;
}

/** The axis in the middle of an outline's box, moved aside: to the right of the way in which it opens, mm. */
export function slotAxis(outer: Path, degrees: number, asideMm: number): SlotAxis {
  const { x, y } = centreOf(pathBox(outer));
  const angle = (degrees * Math.PI) / 180;
  return { at: { x: x + asideMm * Math.sin(angle), y: y - asideMm * Math.cos(angle) }, degrees };
}

/**
 * @param axes of the slot in the first, which opens that way, and in the second, where it opens the other way
 * @param widths of the slot in the first, and of that in the second, mm
 */
export function halvesOf(
  first: Outline,
  second: Outline,
  axes: readonly [SlotAxis, SlotAxis],
  widths: readonly [number, number],
): Halves | SlotFault {
  const made = [slotted(first, axes[0], 0, widths[0]), slotted(second, axes[1], Math.PI, widths[1])] as const;
  const fault = made.find((one) => typeof one === 'string');
  if (typeof fault === 'string') return fault;
  return { first: made[0] as Outline, second: made[1] as Outline };
}

function slotted({ outer, holes }: Outline, { at, degrees }: SlotAxis, turned: number, widthMm: number): Outline | SlotFault {
  const { minX, maxX, minY, maxY } = pathBox(outer);
  const far = Math.hypot(maxX - minX, maxY - minY);
  const box = rectanglePath({ minX: -deeperMm, minY: -widthMm / 2, maxX: far, maxY: widthMm / 2 });
  const place = chain(shift(at.x, at.y), turn((degrees * Math.PI) / 180 + turned));
  const slot = transformedPath(box, place);
  const body = [counterClockwise(outer), ...holes.map((hole) => reversedPath(counterClockwise(hole)))];
  // Where the slot ends, there has to be something to both sides of it.
  const isHeld = [-1, 1].every((side) => isInside(outer, apply(place, { x: 0, y: side * (widthMm / 2 + deeperMm) })));
  const parts = nested(combined(body, [slot], 'take-away'));
  const [whole] = parts;
  if (!isHeld || parts.length !== 1 || !whole) return 'cuts through';
  return combined(body, [slot], 'keep-common').length === 0 ? 'misses' : whole;
}

/** How a body lies in space: its own x, y and z become these, from this place. */
export interface Pose {
  readonly axes: readonly [Triple, Triple, Triple];
  readonly at: Triple;
}
export type Triple = readonly [number, number, number];

export const flat: Pose = { axes: [[1, 0, 0], [0, 1, 0], [0, 0, 1]], at: [0, 0, 0] }; // biome-ignore format: a matrix

const turnedBy = ({ axes: [p, q, r] }: Pose, [x, y, z]: Triple): Triple => [0, 1, 2].map((k) => x * (p[k] as number) + y * (q[k] as number) + z * (r[k] as number)) as unknown as Triple; // biome-ignore format: one line
const sum = (a: Triple, b: Triple): Triple => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** First the inner, then the outer. */
export const posedIn = (outer: Pose, inner: Pose): Pose => ({
  axes: inner.axes.map((axis) => turnedBy(outer, axis)) as unknown as Pose['axes'],
  at: sum(turnedBy(outer, inner.at), outer.at),
});

export function undone({ axes: [p, q, r], at }: Pose): Pose {
  const back: Pose = { axes: [0, 1, 2].map((k) => [p[k], q[k], r[k]]) as unknown as Pose['axes'], at: [0, 0, 0] };
  const [x, y, z] = turnedBy(back, at);
  return { ...back, at: [-x, -y, -z] };
}

export function posedMesh({ positions, triangles }: Mesh, pose: Pose): Mesh {
  const to = new Float64Array(positions.length);
  for (let k = 0; k < to.length; k += 3) to.set(sum(turnedBy(pose, [positions[k] as number, positions[k + 1] as number, positions[k + 2] as number]), pose.at), k); // biome-ignore format: one line
  return { positions: to, triangles };
}

/** The second body, lying flat, turned about the slots' axis by a quarter and brought to where it stands in the first; heights of their middles. */
export function standing(inFirst: SlotAxis, own: SlotAxis, [zFirst, zOwn]: readonly [number, number]): Pose {
  const [ux, uy] = along(inFirst.degrees);
  const [vx, vy] = along(own.degrees);
  // Along the slot stays along it; across becomes up, and up becomes across the other way.
  const axes: Pose['axes'] = [
    [vx * ux, vx * uy, -vy],
    [vy * ux, vy * uy, vx],
    [uy, -ux, 0],
  ];
  const turned: Pose = { axes, at: [0, 0, 0] };
  const [x, y, z] = turnedBy(turned, [own.at.x, own.at.y, zOwn]);
  return { axes, at: [inFirst.at.x - x, inFirst.at.y - y, zFirst - z] };
}

const along = (degrees: number): [number, number] => [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];

/** How bodies that are pushed together two by two stand: the first of each that hang together lies flat. */
export function assembledPoses<Body>(
  pairs: readonly { readonly first: Body; readonly second: Body; readonly pose: Pose }[],
): Map<Body, Pose> {
  const poses = new Map<Body, Pose>();
  for (const root of pairs) {
    if (poses.has(root.first) || poses.has(root.second)) continue;
    poses.set(root.first, flat);
    for (let before = 0; before !== poses.size; ) {
      before = poses.size;
      for (const { first, second, pose } of pairs) {
        const [one, other] = [poses.get(first), poses.get(second)];
        if (one && !other) poses.set(second, posedIn(one, pose));
        if (other && !one) poses.set(first, posedIn(other, undone(pose)));
      }
    }
  }
  return poses;
}

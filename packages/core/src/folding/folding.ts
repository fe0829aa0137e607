/**
 * In: panels, their hinges and how far each is folded. Out: where each panel lies in space, and which run into one another.
 * The panels hang in a tree from the largest; each turns with all that hangs on it about its crease (Rodrigues' rotation).
 */
import type { Point } from '../plane/index.ts';
import { norm } from '../plane/point.ts';
import type { Panel, Panels } from './panels.ts';

export interface Point3 {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** A motion in space: rows of a rotation, then the shift. */
export interface Motion {
  readonly r: readonly [number, number, number, number, number, number, number, number, number];
  readonly t: readonly [number, number, number];
}

const still: Motion = { r: [1, 0, 0, 0, 1, 0, 0, 0, 1], t: [0, 0, 0] };

export const moved3 = ({ r, t }: Motion, p: Point3): Point3 => ({
  x: r[0] * p.x + r[1] * p.y + r[2] * p.z + t[0],
  y: r[3] * p.x + r[4] * p.y + r[5] * p.z + t[1],
  z: r[6] * p.x + r[7] * p.y + r[8] * p.z + t[2],
});

function composed(outer: Motion, inner: Motion): Motion {
  const [a, b] = [outer.r, inner.r];
  const cell = (row: number, column: number): number =>
    (a[3 * row] as number) * (b[column] as number) +
    (a[3 * row + 1] as number) * (b[3 + column] as number) +
    (a[3 * row + 2] as number) * (b[6 + column] as number);
  const r = [cell(0, 0), cell(0, 1), cell(0, 2), cell(1, 0), cell(1, 1), cell(1, 2), cell(2, 0), cell(2, 1), cell(2, 2)] as const;
  const { x, y, z } = moved3(outer, { x: inner.t[0], y: inner.t[1], z: inner.t[2] });
  return { r, t: [x, y, z] };
}

/** A turn about the line from one place of the sheet to another, radians, as a right-handed screw moves. */
function turnAbout(a: Point, b: Point, angle: number): Motion {
  const size = norm(b.x - a.x, b.y - a.y) || 1;
  const [u, v] = [(b.x - a.x) / size, (b.y - a.y) / size];
  const [c, s, k] = [Math.cos(angle), Math.sin(angle), 1 - Math.cos(angle)];
  const r = [c + u * u * k, u * v * k, v * s, u * v * k, c + v * v * k, -u * s, -v * s, u * s, c] as const;
  const [x, y] = [r[0] * a.x + r[1] * a.y, r[3] * a.x + r[4] * a.y];
  return { r, t: [a.x - x, a.y - y, -(r[6] * a.x + r[7] * a.y)] };
}

export interface FoldTree {
  readonly base: number;
  /** For each panel the hinge that it hangs on, and the panel beyond; null for the base and for what hangs on nothing. */
  readonly hangs: readonly ({ readonly hinge: number; readonly on: number } | null)[];
  /** Panels in the order in which they can be placed. */
  readonly order: readonly number[];
}

/** The tree of panels, from the largest that has three creases or more outwards; longer creases are hung on first. */
export function foldTree({ panels, hinges }: Panels): FoldTree {
  const hangs: ({ hinge: number; on: number } | null)[] = panels.map(() => null);
  const order: number[] = [];
  if (panels.length === 0) return { base: 0, hangs, order };
  const creases = panels.map((_, k) => hinges.filter(({ left, right }) => left === k || right === k).length);
  // Panels come by their size.
  const base = creases.findIndex((n) => n >= Math.min(3, Math.max(...creases)));
  const placed = new Set([base]);
  order.push(base);
  const length = (k: number): number => {
    const h = hinges[k] as Panels['hinges'][0];
    return norm(h.to.x - h.from.x, h.to.y - h.from.y);
  };
  const byLength = hinges.map((_, k) => k).sort((a, b) => length(b) - length(a));
  for (let isGrowing = true; isGrowing; ) {
    isGrowing = false;
    for (const k of byLength) {
      const { left, right } = hinges[k] as Panels['hinges'][0];
      if (placed.has(left) === placed.has(right)) continue;
      const [on, next] = placed.has(left) ? [left, right] : [right, left];
      hangs[next] = { hinge: k, on };
      placed.add(next);
      order.push(next);
      isGrowing = true;
    }
  }
  return { base, hangs, order };
}

/**
 * Where each panel lies when its hinges are folded up by the angles given.
 * @param angles for each hinge, radians; 0 is flat, positive folds towards the viewer
 */
export function foldedPanels({ panels, hinges }: Panels, tree: FoldTree, angles: readonly number[]): Motion[] {
  const motions: Motion[] = panels.map(() => still);
  for (const k of tree.order) {
    const hang = tree.hangs[k];
    if (!hang) continue;
    const { from, to, left } = hinges[hang.hinge] as Panels['hinges'][0];
    // The panel on the left of the way rises with a right-handed turn about it, that on the right with a left-handed one.
    const angle = (angles[hang.hinge] ?? 0) * (left === k ? 1 : -1);
    motions[k] = composed(motions[hang.on] as Motion, turnAbout(from, to, angle));
  }
  return motions;
}

/** What lies nearer to a border than this only touches, mm. */
const touchMm = 0.4;

/** Pairs of panels that pass through one another; neighbours only touch at their crease. */
export function collisions({ panels, hinges }: Panels, motions: readonly Motion[]): [number, number][] {
  const neighbours = new Set(hinges.map(({ left, right }) => `${Math.min(left, right)} ${Math.max(left, right)}`));
  const found: [number, number][] = [];
  const corners = panels.map((panel, k) => panel.sides.map((s) => moved3(motions[k] as Motion, { ...s.from, z: 0 })));
  for (let a = 0; a < panels.length; a++)
    for (let b = a + 1; b < panels.length; b++) {
      if (neighbours.has(`${a} ${b}`)) continue;
      const passes = (edgesOf: number, through: number): boolean =>
        passesThrough(corners[edgesOf] as Point3[], panels[through] as Panel, motions[through] as Motion);
      if (passes(a, b) || passes(b, a)) found.push([a, b]);
    }
  return found;
}

/** Whether an edge of a polygon in space passes through a panel, away from either's border. */
function passesThrough(polygon: readonly Point3[], panel: Panel, motion: Motion): boolean {
  return polygon.some((p, k) => {
    const q = polygon[(k + 1) % polygon.length] as Point3;
    const [a, b] = [onPanel(motion, p), onPanel(motion, q)];
    if (Math.min(a.z, b.z) > -touchMm || Math.max(a.z, b.z) < touchMm) return false;
    const t = a.z / (a.z - b.z);
    return isDeepInside(panel, { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });
  });
}

/** A place in space as the panel sees it: on the flat sheet, and how far above. */
function onPanel({ r, t }: Motion, p: Point3): Point3 {
  const [x, y, z] = [p.x - t[0], p.y - t[1], p.z - t[2]];
  return { x: r[0] * x + r[3] * y + r[6] * z, y: r[1] * x + r[4] * y + r[7] * z, z: r[2] * x + r[5] * y + r[8] * z };
}

function isDeepInside({ sides }: Panel, p: Point): boolean {
  let isIn = false;
  for (const { from: a, to: b } of sides) {
    const size = norm(b.x - a.x, b.y - a.y) || 1;
    const along = ((b.x - a.x) * (p.x - a.x) + (b.y - a.y) * (p.y - a.y)) / size;
    const t = Math.min(size, Math.max(0, along)) / size;
    if (norm(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y)) < touchMm) return false;
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) isIn = !isIn;
  }
  return isIn;
}

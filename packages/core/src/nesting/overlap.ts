/**
 * In: two footprints, one of them shifted. Out: whether they overlap, exactly as polygons go, and how deep, by their circles.
 * Rests on: Gardeyn & Wauters 2025, "An open-source heuristic to reboot 2D nesting research": a measure of overlap that falls as parts move
 * apart, from the circles within them.
 */
import { isWithin, type Posed } from './footprint.ts';

/** Edges of the second footprint that lie where both are. */
const near = new Int32Array(100_000);

/** Whether the first, shifted, and the second have an area in common. */
export function overlaps(a: Posed, dx: number, dy: number, b: Posed): boolean {
  const minX = Math.max(a.minX + dx, b.minX);
  const maxX = Math.min(a.maxX + dx, b.maxX);
  const minY = Math.max(a.minY + dy, b.minY);
  const maxY = Math.min(a.maxY + dy, b.maxY);
  if (minX >= maxX || minY >= maxY) return false;
  if (polesMeet(a, dx, dy, b, minX, minY, maxX, maxY) || edgesCross(a, dx, dy, b, minX, minY, maxX, maxY)) return true;
  // No edges cross: they are apart, or one lies wholly in the other.
  return isWithin(posedPolygon(b), (a.xs[0] as number) + dx, (a.ys[0] as number) + dy) || isWithin(posedPolygon(a), (b.xs[0] as number) - dx, (b.ys[0] as number) - dy); // biome-ignore format: one line
}

const posedPolygon = ({ xs, ys, of: { edges } }: Posed) => ({ xs, ys, edges });

/** Whether a circle of the first within the box reaches into one of the second: most overlaps show so. */
function polesMeet(a: Posed, dx: number, dy: number, b: Posed, minX: number, minY: number, maxX: number, maxY: number): boolean {
  const { poleRadii: radiiA } = a.of;
  const { poleRadii: radiiB } = b.of;
  for (let i = 0; i < radiiA.length; i++) {
    const x = (a.poleXs[i] as number) + dx;
    const y = (a.poleYs[i] as number) + dy;
    const r = 0.999 * (radiiA[i] as number);
    if (x + r < minX || x - r > maxX || y + r < minY || y - r > maxY) continue;
    for (let j = 0; j < radiiB.length; j++) {
      const ux = x - (b.poleXs[j] as number);
      const uy = y - (b.poleYs[j] as number);
      const reach = r + 0.999 * (radiiB[j] as number);
      if (ux * ux + uy * uy < reach * reach) return true;
    }
  }
  return false;
}

/** Whether an edge of the first crosses one of the second within the box. */
function edgesCross(a: Posed, dx: number, dy: number, b: Posed, minX: number, minY: number, maxX: number, maxY: number): boolean {
  const count = edgesNear(b, minX, minY, maxX, maxY);
  const { edges } = a.of;
  for (let e = 0; count > 0 && e < edges.length; e++) {
    const k = edges[e] as number;
    const x1 = (a.xs[k] as number) + dx;
    const x2 = (a.xs[k + 1] as number) + dx;
    if ((x1 < minX && x2 < minX) || (x1 > maxX && x2 > maxX)) continue;
    const y1 = (a.ys[k] as number) + dy;
    const y2 = (a.ys[k + 1] as number) + dy;
    if ((y1 < minY && y2 < minY) || (y1 > maxY && y2 > maxY)) continue;
    for (let n = 0; n < count; n++) if (crosses(x1, y1, x2, y2, b, near[n] as number)) return true;
  }
  return false;
}

function edgesNear({ xs, ys, of: { edges } }: Posed, minX: number, minY: number, maxX: number, maxY: number): number {
  let count = 0;
  for (let e = 0; e < edges.length && count < near.length; e++) {
    const k = edges[e] as number;
    const x1 = xs[k] as number;
    const x2 = xs[k + 1] as number;
    if ((x1 < minX && x2 < minX) || (x1 > maxX && x2 > maxX)) continue;
    const y1 = ys[k] as number;
    const y2 = ys[k + 1] as number;
    if ((y1 < minY && y2 < minY) || (y1 > maxY && y2 > maxY)) continue;
    near[count++] = k;
  }
  return count;
}

function crosses(x1: number, y1: number, x2: number, y2: number, { xs, ys }: Posed, m: number): boolean {
  const x3 = xs[m] as number;
  const y3 = ys[m] as number;
  const x4 = xs[m + 1] as number;
  const y4 = ys[m + 1] as number;
  const s1 = (x2 - x1) * (y3 - y1) - (y2 - y1) * (x3 - x1);
  const s2 = (x2 - x1) * (y4 - y1) - (y2 - y1) * (x4 - x1);
  if ((s1 >= 0 && s2 >= 0) || (s1 <= 0 && s2 <= 0)) return false;
  const s3 = (x4 - x3) * (y1 - y3) - (y4 - y3) * (x1 - x3);
  const s4 = (x4 - x3) * (y2 - y3) - (y4 - y3) * (x2 - x3);
  return (s3 > 0 && s4 < 0) || (s3 < 0 && s4 > 0);
}

/** How deep they lie in one another, mm; falls on where they are apart, so that it leads out. */
export function depthOf(a: Posed, dx: number, dy: number, b: Posed): number {
  const { poleRadii: radiiA } = a.of;
  const { poleRadii: radiiB } = b.of;
  const soft = 0.02 * Math.max(a.of.reachMm, b.of.reachMm);
  let sum = 0;
  for (let i = 0; i < radiiA.length; i++) {
    const [x, y, r] = [(a.poleXs[i] as number) + dx, (a.poleYs[i] as number) + dy, radiiA[i] as number];
    for (let j = 0; j < radiiB.length; j++) {
      const [ux, uy, other] = [x - (b.poleXs[j] as number), y - (b.poleYs[j] as number), radiiB[j] as number];
      const deep = r + other - Math.sqrt(ux * ux + uy * uy);
      sum += (deep >= soft ? deep : (soft * soft) / (2 * soft - deep)) * Math.min(r, other);
    }
  }
  return Math.sqrt(sum) * Math.sqrt(Math.sqrt(a.of.areaMm2 * b.of.areaMm2));
}

/**
 * In: a grey picture and a place near which something is meant. Out: the sub-pixel place of a corner, a crossing, the
 * middle of a line or an edge.
 * Rests on: Foerstner & Guelch 1987 (the point nearest to all edge lines of a window) for corners and crossings;
 * the parabola through three gradients for edges.
 */
import { norm, type Point } from '../plane/point.ts';
import type { GreyPicture } from './grey.ts';

export interface Snap {
  readonly kind: 'corner' | 'crossing' | 'middle' | 'edge';
  readonly at: Point;
}

/** Grey levels a pixel; weaker edges are noise. */
const minSlope = 6;
/** Opposite edges nearer than this are the two sides of a line, pixels. */
const widestLinePx = 18;
/** Edge lines pass a corner or the middle of a crossing this near. */
const maxMissPx = 2.2;
/** Half the window that a corner is worked out from. */
const cornerRadius = 5;

/** @param searchRadiusPx how far from `at` to look, up to 40. Null where there is nothing but paper. */
export function snapToInk(picture: GreyPicture, at: Point, searchRadiusPx: number): Snap | null {
  const patch = new Patch(picture, at, Math.min(40, searchRadiusPx) + 12);
  return cornerIn(patch, at, searchRadiusPx) ?? edgeNear(patch, at, searchRadiusPx);
}

/** A window of the picture, smoothed, with its gradients; places are in the picture's pixels. */
class Patch {
  readonly left: number;
  readonly top: number;
  readonly size: number;
  private readonly grey: Float32Array;
  readonly dx: Float32Array;
  readonly dy: Float32Array;

  constructor({ width, height, data }: GreyPicture, at: Point, searchRadius: number) {
    this.size = 2 * Math.ceil(searchRadius) + 1;
    this.left = Math.floor(at.x) - Math.ceil(searchRadius);
    this.top = Math.floor(at.y) - Math.ceil(searchRadius);
    const { size } = this;
    const raw = new Float32Array(size * size);
    for (let y = 0; y < size; y++) {
      const row = Math.min(height - 1, Math.max(0, y + this.top)) * width;
      for (let x = 0; x < size; x++) raw[y * size + x] = data[row + Math.min(width - 1, Math.max(0, x + this.left))] as number;
    }
    this.grey = binomial(binomial(raw, size), size);
    this.dx = new Float32Array(size * size);
    this.dy = new Float32Array(size * size);
    for (let y = 1; y < size - 1; y++) {
      for (let x = 1; x < size - 1; x++) {
        const p = y * size + x;
        this.dx[p] = ((this.grey[p + 1] as number) - (this.grey[p - 1] as number)) / 2;
        this.dy[p] = ((this.grey[p + size] as number) - (this.grey[p - size] as number)) / 2;
      }
    }
  }

  /** Bilinear between pixel centres. */
  greyAt({ x, y }: Point): number {
    return this.between(this.grey, x, y);
  }

  slopeAlong({ x, y }: Point, n: Point): number {
    return n.x * this.between(this.dx, x, y) + n.y * this.between(this.dy, x, y);
  }

  private between(field: Float32Array, x: number, y: number): number {
    const { size } = this;
    const u = Math.min(size - 1.001, Math.max(0, x - 0.5 - this.left));
    const v = Math.min(size - 1.001, Math.max(0, y - 0.5 - this.top));
    const p = Math.floor(v) * size + Math.floor(u);
    const [fx, fy] = [u - Math.floor(u), v - Math.floor(v)];
    const above = (field[p] as number) * (1 - fx) + (field[p + 1] as number) * fx;
    const below = (field[p + size] as number) * (1 - fx) + (field[p + size + 1] as number) * fx;
    return above * (1 - fy) + below * fy;
  }

  /** Sums of squared gradients, and of their lines' places, in a round window. */
  tensorAt({ x, y }: Point, searchRadius: number) {
    const { size } = this;
    let [xx, xy, yy, bx, by] = [0, 0, 0, 0, 0];
    const [cx, cy] = [x - 0.5 - this.left, y - 0.5 - this.top];
    for (let v = Math.max(1, Math.ceil(cy - searchRadius)); v <= Math.min(size - 2, cy + searchRadius); v++) {
      for (let u = Math.max(1, Math.ceil(cx - searchRadius)); u <= Math.min(size - 2, cx + searchRadius); u++) {
        const far = (u - cx) ** 2 + (v - cy) ** 2;
        if (far > searchRadius * searchRadius) continue;
        const p = v * size + u;
        const [gx, gy] = [this.dx[p] as number, this.dy[p] as number];
        const w = Math.exp((-2 * far) / (searchRadius * searchRadius));
        xx += w * gx * gx;
        xy += w * gx * gy;
        yy += w * gy * gy;
        bx += w * (gx * gx * u + gx * gy * v);
        by += w * (gx * gy * u + gy * gy * v);
      }
    }
    const half = norm((xx - yy) / 2, xy);
    const [large, small] = [(xx + yy) / 2 + half, (xx + yy) / 2 - half];
    return { xx, xy, yy, bx, by, large, small };
  }

  /** How far the edge lines of a round window pass a point, root mean square, weighted by their strength. */
  missAt({ x, y }: Point, searchRadius: number): number {
    const { size } = this;
    const [cx, cy] = [x - 0.5 - this.left, y - 0.5 - this.top];
    let [misses, strengths] = [0, 0];
    for (let v = Math.max(1, Math.ceil(cy - searchRadius)); v <= Math.min(size - 2, cy + searchRadius); v++) {
      for (let u = Math.max(1, Math.ceil(cx - searchRadius)); u <= Math.min(size - 2, cx + searchRadius); u++) {
        if ((u - cx) ** 2 + (v - cy) ** 2 > searchRadius * searchRadius) continue;
        const p = v * size + u;
        const [gx, gy] = [this.dx[p] as number, this.dy[p] as number];
        misses += (gx * (u - cx) + gy * (v - cy)) ** 2;
        strengths += gx * gx + gy * gy;
      }
    }
    return strengths > 0 ? Math.sqrt(misses / strengths) : Infinity;
  }
}

/** A 3 x 3 smoothing with weights 1 2 1. */
function binomial(grey: Float32Array, size: number): Float32Array {
  const rows = new Float32Array(grey.length);
  const out = new Float32Array(grey.length);
  const at = (k: number) => Math.min(size - 1, Math.max(0, k));
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const r = y * size;
      rows[r + x] = ((grey[r + at(x - 1)] as number) + 2 * (grey[r + x] as number) + (grey[r + at(x + 1)] as number)) / 4;
    }
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      out[y * size + x] =
        ((rows[at(y - 1) * size + x] as number) + 2 * (rows[y * size + x] as number) + (rows[at(y + 1) * size + x] as number)) / 4;
    }
  return out;
}

function cornerIn(patch: Patch, at: Point, searchRadius: number): Snap | null {
  let best: { readonly p: Point; readonly score: number } | null = null;
  for (let y = -searchRadius; y <= searchRadius; y += 1.5) {
    for (let x = -searchRadius; x <= searchRadius; x += 1.5) {
      if (x * x + y * y > searchRadius * searchRadius) continue;
      const p = { x: at.x + x, y: at.y + y };
      const { small, large } = patch.tensorAt(p, cornerRadius);
      if (small < 0.12 * large || small < 30 * minSlope * minSlope) continue;
      if (!best || small > best.score) best = { p, score: small };
    }
  }
  if (!best) return null;
  let { p } = best;
  for (let k = 0; k < 12; k++) {
    const { xx, xy, yy, bx, by } = patch.tensorAt(p, cornerRadius);
    const det = xx * yy - xy * xy;
    const next = { x: (yy * bx - xy * by) / det + 0.5 + patch.left, y: (xx * by - xy * bx) / det + 0.5 + patch.top };
    const moved = norm(next.x - p.x, next.y - p.y);
    if (!(moved < 8)) return null;
    p = next;
    if (moved < 1e-3) break;
  }
  if (norm(p.x - at.x, p.y - at.y) > searchRadius + 0.3) return null;
  // Lines that do not all meet there, such as the ticks of a rule side by side, are no corner.
  if (patch.missAt(p, cornerRadius) > maxMissPx) return null;
  const changes = changesAround(patch, p);
  if (changes < 2) return null;
  return { kind: changes >= 6 ? 'crossing' : 'corner', at: p };
}

/** How often grey changes between dark and light on a circle round a point. */
function changesAround(patch: Patch, p: Point): number {
  const ring = Array.from({ length: 64 }, (_, k) => {
    const angle = (2 * Math.PI * k) / 64;
    return patch.greyAt({ x: p.x + 9 * Math.cos(angle), y: p.y + 9 * Math.sin(angle) });
  });
  const [low, high] = [Math.min(...ring), Math.max(...ring)];
  if (high - low < 4 * minSlope) return 0;
  let dark = (ring[63] as number) < (low + high) / 2;
  let changes = 0;
  for (const grey of ring) {
    // A margin on either side keeps noise from counting.
    const limit = (low + high) / 2 + (dark ? 0.08 : -0.08) * (high - low);
    const isDark = grey < limit;
    if (isDark !== dark) changes++;
    dark = isDark;
  }
  return changes;
}

function edgeNear(patch: Patch, at: Point, searchRadius: number): Snap | null {
  const { xx, xy, yy, large } = patch.tensorAt(at, searchRadius + 2);
  if (large < minSlope * minSlope) return null;
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const n = { x: Math.cos(angle), y: Math.sin(angle) };
  const along = (t: number): Point => ({ x: at.x + n.x * t, y: at.y + n.y * t });
  const span = searchRadius + widestLinePx / 2;
  const step = 0.5;
  const count = Math.floor((2 * span) / step) + 1;
  const slope = Array.from({ length: count }, (_, k) => patch.slopeAlong(along(-span + k * step), n));
  const edges: { readonly t: number; readonly rises: boolean }[] = [];
  for (let k = 1; k < count - 1; k++) {
    const [before, here, after] = [Math.abs(slope[k - 1] as number), Math.abs(slope[k] as number), Math.abs(slope[k + 1] as number)];
    if (here < minSlope || here < before || here <= after) continue;
    const bend = before - 2 * here + after;
    edges.push({ t: -span + (k + (bend < 0 ? (before - after) / (2 * bend) : 0)) * step, rises: (slope[k] as number) > 0 });
  }
  const middles = edges.slice(1).flatMap((edge, k) => {
    const before = edges[k] as (typeof edges)[0];
    return edge.rises && !before.rises && edge.t - before.t <= widestLinePx ? [(edge.t + before.t) / 2] : [];
  });
  const nearest = (list: readonly number[]) => list.filter((t) => Math.abs(t) <= searchRadius).sort((a, b) => Math.abs(a) - Math.abs(b))[0];
  const middle = nearest(middles);
  if (middle !== undefined) return { kind: 'middle', at: along(middle) };
  const edge = nearest(edges.map((e) => e.t));
  return edge === undefined ? null : { kind: 'edge', at: along(edge) };
}

/**
 * In: a solid and how fine. Out: how high it is over its lowest place, seen from above, pixel by pixel: the highest triangle at the middle of each.
 */
import type { SolidPlan } from './solid-plan.ts';

export interface HeightMap {
  readonly width: number;
  readonly height: number;
  readonly pixelMm: number;
  /** Row by row from the top, mm; 0 where nothing is. */
  readonly heights: Float32Array;
  /** What the highest is, mm. */
  readonly rangeMm: number;
}

/** A side has no more pixels than this: beyond it they are made larger. */
export const mostPixels = 4000;

export function heightMapOf({ parts, min, max }: Pick<SolidPlan, 'parts' | 'min' | 'max'>, wantedMm: number): HeightMap {
  const [wide, high] = [max[0] - min[0], max[1] - min[1]];
  const pixelMm = Math.max(wantedMm, wide / mostPixels, high / mostPixels);
  const [width, height] = [Math.max(1, Math.round(wide / pixelMm)), Math.max(1, Math.round(high / pixelMm))];
  const heights = new Float32Array(width * height);
  for (const { mesh } of parts)
    for (let t = 0; t < mesh.triangles.length; t += 3) {
      const corners = [0, 1, 2].map((j) => {
        const v = 3 * (mesh.triangles[t + j] as number);
        return [((mesh.positions[v] as number) - min[0]) / pixelMm - 0.5, (max[1] - (mesh.positions[v + 1] as number)) / pixelMm - 0.5, (mesh.positions[v + 2] as number) - min[2]] as const; // biome-ignore format: one line
      }) as unknown as readonly [Corner, Corner, Corner];
      raise(heights, width, height, corners);
    }
  return { width, height, pixelMm, heights, rangeMm: max[2] - min[2] };
}

/** Column, row and height. */
type Corner = readonly [number, number, number];

function raise(heights: Float32Array, width: number, height: number, [a, b, c]: readonly [Corner, Corner, Corner]): void {
  const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  if (area === 0) return;
  const lastRow = Math.min(height - 1, Math.floor(Math.max(a[1], b[1], c[1])));
  const lastColumn = Math.min(width - 1, Math.floor(Math.max(a[0], b[0], c[0])));
  for (let y = Math.max(0, Math.ceil(Math.min(a[1], b[1], c[1]))); y <= lastRow; y++)
    for (let x = Math.max(0, Math.ceil(Math.min(a[0], b[0], c[0]))); x <= lastColumn; x++) {
      const p = ((b[0] - x) * (c[1] - y) - (b[1] - y) * (c[0] - x)) / area;
      const q = ((c[0] - x) * (a[1] - y) - (c[1] - y) * (a[0] - x)) / area;
      if (p < -1e-9 || q < -1e-9 || p + q > 1 + 1e-9) continue;
      const z = p * a[2] + q * b[2] + (1 - p - q) * c[2];
      if (z > (heights[y * width + x] as number)) heights[y * width + x] = z;
    }
}
